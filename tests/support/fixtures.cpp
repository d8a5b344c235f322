#include "support/fixtures.h"

#include <unistd.h>

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <fstream>
#include <map>
#include <sstream>
#include <stdexcept>

#include "engine/open.h"
#include "engine/render.h"
#include "io/writer.h"
#include "practice/practice.h"
#include "practice/texture.h"

namespace bp::test {

Folder::Folder() {
    std::string name = (fs::temp_directory_path() / "bright-pile-test-XXXXXX").string();
    if (!::mkdtemp(name.data())) throw std::runtime_error("no temporary folder");
    path_ = name;
}

Folder::~Folder() {
    std::error_code error;
    fs::remove_all(path_, error);
}

std::vector<std::string> Folder::names() const {
    std::vector<std::string> out;
    for (const auto& entry : fs::directory_iterator(path_)) out.push_back(entry.path().filename().string());
    std::sort(out.begin(), out.end());
    return out;
}

Raster16 speckle(Size size, int channels, unsigned seed) {
    Raster16 out(size, channels);
    practice::Dice dice(seed);
    for (std::uint16_t& v : out.data()) v = std::uint16_t(dice.next() >> 40);
    return out;
}

Raster16 speckle_8(Size size, int channels, unsigned seed) {
    Raster16 out = speckle(size, channels, seed);
    for (std::uint16_t& v : out.data()) v = std::uint16_t((v >> 8) * 257);
    return out;
}

Raster16 bent_landscape(Size size, const std::function<Point(Point)>& to_scene, unsigned noise_seed, double noise) {
    Raster16 out(size, 3);
    practice::Dice dice(noise_seed + 1);
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x) {
            const Point p = to_scene({double(x), double(y)});
            const double broad = practice::cloudy(5, p.x / 60, p.y / 60, 2);
            const double fine = practice::cloudy(6, p.x / 14, p.y / 14, 2);
            for (int c = 0; c < 3; ++c) {
                const double v = 0.5 + 0.22 * broad + 0.16 * fine + 0.03 * c + noise * double(dice.bell());
                out.at(x, y, c) = std::uint16_t(std::lround(std::clamp(v, 0.0, 1.0) * 65535));
            }
        }
    return out;
}

Raster16 landscape(Size size, const Matrix& to_scene, unsigned noise_seed, double noise) {
    return bent_landscape(size, to_scene, noise_seed, noise);
}

Raster16 lit(Raster16 picture, double times) {
    const LightCurve curve = LightCurve::of(Profile::srgb(), picture.channels());
    for (std::uint16_t& v : picture.data()) v = curve.sample(curve.light(v) * times);
    return picture;
}

Raster16 spotted(Raster16 picture, Point middle, double radius, double share) {
    for (int y = 0; y < picture.height(); ++y)
        for (int x = 0; x < picture.width(); ++x)
            if (std::hypot(x - middle.x, y - middle.y) <= radius)
                for (int c = 0; c < picture.channels(); ++c)
                    picture.at(x, y, c) = std::uint16_t(picture.at(x, y, c) * share);
    return picture;
}

void write(const fs::path& file, const Raster16& picture, int bits, const Profile& profile,
           const CaptureData& capture) {
    const Status written = write_picture(file, picture, profile, {bits, 95, Sync::no}, capture);
    if (!written.ok()) throw std::runtime_error(written.failure().english());
}

void write_passing(const Folder& folder, int frames) {
    for (int k = 0; k < frames; ++k) {
        Raster16 picture = landscape({320, 240}, Matrix(), unsigned(k + 1), 0.004);
        for (int y = 100; y < 136; ++y)
            for (int x = 10 + 36 * k; x < 38 + 36 * k; ++x)
                for (int c = 0; c < picture.channels(); ++c) picture.at(x, y, c) = 64000;
        write(folder / ("p" + std::to_string(10 + k) + ".png"), picture, 8);
    }
}

Pile practised(const Folder& folder, const char* scene, int frames, Outcome outcome) {
    // Exposed once for all tests of a process, which get copies of their own.
    static std::map<std::pair<std::string, int>, Folder> exposed;
    Job job;
    const auto [known, fresh] = exposed.try_emplace({scene, frames});
    if (fresh) {
        practice::PracticeOptions options;
        options.frames = frames;
        options.truth = false;
        const auto done = practice::practise(*practice::scene_named(scene), known->second.path(), options, job);
        if (!done.ok()) throw std::runtime_error(done.failure().english());
    }
    fs::copy(known->second.path(), folder.path(), fs::copy_options::recursive | fs::copy_options::overwrite_existing);
    return open_frames(gather_run({folder.path().string()}).value(), outcome, Order::captured, job).value();
}

void write_moving(const Folder& folder, int count, Size size, Point step) {
    for (int i = 0; i < count; ++i)
        write(folder / ("f" + std::to_string(i + 1) + ".tif"),
              landscape(size, Matrix::shift(step.x * i, step.y * i), unsigned(i), 0.01), 8);
}

Pile speckle_pile(const Folder& folder, int frames, Size size, int bits, int channels) {
    std::vector<NamedFile> files;
    for (int i = 0; i < frames; ++i) {
        const fs::path file = folder / ("frame-" + std::to_string(i + 1) + ".tif");
        const auto seed = unsigned(i * 31 + 7);
        write(file, bits == 8 ? speckle_8(size, channels, seed) : speckle(size, channels, seed), bits);
        files.push_back({file, Role::scene});
    }
    Job job;
    Result<Pile> pile = open_frames(files, Outcome::trails, Order::captured, job);
    if (!pile.ok()) throw std::runtime_error(pile.failure().english());
    return std::move(pile).value();
}

std::string difference(const Raster16& a, const Raster16& b, int tolerance) {
    std::ostringstream out;
    if (a.size() != b.size() || a.channels() != b.channels()) {
        out << a.width() << "x" << a.height() << "x" << a.channels() << " against " << b.width() << "x" << b.height()
            << "x" << b.channels();
        return out.str();
    }
    for (int y = 0; y < a.height(); ++y)
        for (int x = 0; x < a.width(); ++x)
            for (int c = 0; c < a.channels(); ++c)
                if (std::abs(int(a.at(x, y, c)) - int(b.at(x, y, c))) > tolerance) {
                    out << "at " << x << "," << y << "," << c << ": " << a.at(x, y, c) << " against " << b.at(x, y, c);
                    return out.str();
                }
    return {};
}

std::string bytes_of(const fs::path& file) {
    std::ifstream in(file, std::ios::binary);
    std::ostringstream out;
    out << in.rdbuf();
    return out.str();
}

Pile base_of(Pile pile) {
    pile.parts.clear();
    return pile;
}

Result<Raster16> render_all(const Pile& pile) {
    Job job;
    FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
    return render(pile, store, whole(pile.size), 0, job);
}

Mask touched_by(const std::vector<Part>& parts) {
    Mask out(parts.empty() ? Size{} : parts.front().mask.size());
    for (const Part& part : parts)
        if (part.on)
            out.edit(part.mask.bounds(),
                     [&](int x, int y, std::uint8_t old) { return std::max(old, part.mask.at(x, y)); });
    return out;
}

}  // namespace bp::test
