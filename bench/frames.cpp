// Makes JPEG files as a camera of 24 megapixels would: a scene of the practice camera enlarged, with noise of its own
// in every frame; or soft ones without noise, which take little time to decode; or large ones of 60 megapixels.
#include <algorithm>
#include <atomic>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <random>
#include <string_view>

#include "base/parallel.h"
#include "io/reader.h"
#include "io/writer.h"
#include "kernels/warp.h"

namespace {

using namespace bp;

constexpr int quality = 92;

Raster16 enlarged(const Raster16& small, Size size) {
    Raster16 out(size, small.channels());
    const double sx = double(small.width() - 1) / (size.width - 1);
    const double sy = double(small.height() - 1) / (size.height - 1);
    const kernels::SourceMap map(Matrix{{1 / sx, 0, 0, 0, 1 / sy, 0, 0, 0, 1}}, small.size());
    std::vector<const std::uint16_t*> rows;
    rows.reserve(std::size_t(small.height()));
    for (int y = 0; y < small.height(); ++y) rows.push_back(small.row(y));
    const kernels::Span across{0, size.width};
    parallel_for(0, size.height, [&](int y) {
        kernels::RowPlaces places(map, across);
        kernels::warp_rows({rows.data(), whole(small.size())}, small.channels(), places, y, {&across, 1},
                           {out.row(y), 0, 0});
    });
    return out;
}

// Normal deviates by table: the same for every run, and quick.
std::vector<std::int16_t> noise_table(double deviation) {
    std::mt19937 random(11);
    std::normal_distribution<double> normal(0, deviation);
    std::vector<std::int16_t> out(1 << 20);
    for (std::int16_t& v : out) v = std::int16_t(std::lround(normal(random)));
    return out;
}

Status write_noisy(const std::filesystem::path& file, const Raster16& scene, const std::vector<std::int16_t>& noise,
                   unsigned seed) {
    std::mt19937 random(seed);
    std::vector<std::uint16_t> noisy(std::size_t(scene.row_samples()));
    const std::uint16_t* row = noisy.data();
    return write_picture(
        file, {scene.size(), scene.channels(), {}, {}}, {8, quality, Sync::no}, [&](RowWriter& writer) -> Status {
            for (int y = 0; y < scene.height(); ++y) {
                std::size_t at = random();
                for (std::size_t i = 0; i < noisy.size(); ++i, ++at)
                    noisy[i] =
                        std::uint16_t(std::clamp(int(scene.row(y)[i]) + noise[at & (noise.size() - 1)], 0, 65535));
                Status written = writer.write({&row, 1});
                if (!written.ok()) return written;
            }
            return Done{};
        });
}

}  // namespace

int main(int argc, char** argv) {
    const std::string_view kind = argc == 5 ? argv[4] : "";
    const bool soft = kind == "soft", large = kind == "large";
    if (argc != 4 && !soft && !large) {
        std::fprintf(stderr, "usage: bright-pile-bench-frames PICTURE FOLDER COUNT [soft|large]\n");
        return 2;
    }
    const Result<Raster16> small = read_picture(argv[1]);
    if (!small.ok()) {
        std::fprintf(stderr, "%s\n", small.failure().english().c_str());
        return 3;
    }
    std::filesystem::create_directories(argv[2]);
    const Raster16 scene = enlarged(small.value(), large ? Size{9504, 6336} : Size{6000, 4000});
    const std::vector<std::int16_t> noise = noise_table(soft ? 0.1 * 257 : 4.5 * 257);
    std::atomic<int> failed{0};
    parallel_for(1, std::atoi(argv[3]) + 1, [&](int i) {
        char name[32];
        std::snprintf(name, sizeof name, "frame-%04d.jpg", i);
        if (!write_noisy(std::filesystem::path(argv[2]) / name, scene, noise, unsigned(i)).ok()) ++failed;
    });
    return failed == 0 ? 0 : 4;
}
