#include "align/align.h"

#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <fstream>
#include <random>

#include "base/parallel.h"
#include "engine/aligning.h"
#include "engine/open.h"
#include "engine/render.h"
#include "pile/drawn.h"
#include "pile/edits.h"
#include "practice/camera.h"
#include "practice/practice.h"
#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;

namespace {

constexpr Size scene_size{320, 240};

RasterF frame(const Matrix& to_scene, unsigned seed = 0, double noise = 0) {
    return brightness_of(test::landscape(scene_size, to_scene, seed, noise), LightCurve::of(Profile::srgb(), 3));
}

}  // namespace

TEST_CASE("models have names") {
    for (const ModelEntry& entry : models()) CHECK(model_named(entry.name) == entry.model);
    CHECK_FALSE(model_named("stretch").has_value());
}

TEST_CASE("shifts are found to a fraction of a pixel, with noise") {
    const AlignReference reference(frame({}, 1, 0.05));
    for (const Point shift : {Point{0, 0}, Point{0.5, -0.25}, Point{-7.3, 4.8}, Point{21.6, -13.2}}) {
        const Matrix truth = Matrix::shift(shift.x, shift.y);
        const Alignment a = reference.align(frame(truth, 2, 0.05), Model::shift);
        INFO(shift.x << ", " << shift.y);
        CHECK(a.aligned);
        CHECK(a.confidence > 0.8);
        CHECK(rms_distance(a.to_reference, truth, scene_size) < 0.1);
        CHECK(a.residual_px < 0.35);
        CHECK(a.to_reference.m()[1] == 0);
    }
}

TEST_CASE("aligning leaves its pictures as they are, also at sizes that suit the transform") {
    const Size suits{240, 180};
    const AlignReference reference(brightness_of(test::landscape(suits, {}), LightCurve::of(Profile::srgb(), 3)));
    const RasterF other =
        brightness_of(test::landscape(suits, Matrix::shift(3.25, -1.5)), LightCurve::of(Profile::srgb(), 3));
    const RasterF before = other.clone();
    const Alignment a = reference.align(other, Model::shift);
    CHECK(other.data() == before.data());
    CHECK(rms_distance(a.to_reference, Matrix::shift(3.25, -1.5), suits) < 0.02);
}

TEST_CASE("a horizon alone does not hold a frame where it is") {
    // Sky, sea, and a few houses between them that tell how far the frame has moved along.
    const auto seascape = [](int along, unsigned seed) {
        constexpr std::array<std::array<int, 3>, 6> houses{
            {{30, 8, 14}, {85, 12, 9}, {131, 6, 20}, {170, 15, 11}, {214, 9, 17}, {262, 11, 13}}};
        RasterF out(scene_size, 1);
        std::mt19937 random(seed);
        std::normal_distribution<float> noise(0, 0.004F);
        for (int y = 0; y < scene_size.height; ++y)
            for (int x = 0; x < scene_size.width; ++x) out.row(y)[x] = (y < 120 ? 0.75F : 0.3F) + noise(random);
        for (const auto& [left, width, height] : houses)
            for (int y = 120 - height; y < 120; ++y)
                for (int x = std::max(0, left - along); x < std::min(scene_size.width, left + width - along); ++x)
                    out.row(y)[x] = (x + along + y) % 5 < 2 ? 0.9F : 0.45F;
        return out;
    };
    const AlignReference reference(seascape(0, 1));
    for (const int along : {0, 3, -35, 55}) {
        INFO(along);
        const Alignment a = reference.align(seascape(along, 2), Model::shift);
        CHECK(a.aligned);
        CHECK(rms_distance(a.to_reference, Matrix::shift(along, 0), scene_size) < 0.1);
    }
}

TEST_CASE("turns are found together with shifts") {
    const AlignReference reference(frame({}, 1, 0.03));
    for (const double turn : {-0.03, 0.004, 0.02}) {
        const Matrix truth = Matrix::rigid(turn, {160, 120}, 3.4, -2.7);
        const Alignment a = reference.align(frame(truth, 2, 0.03), Model::rigid);
        INFO(turn);
        CHECK(a.aligned);
        CHECK(rms_distance(a.to_reference, truth, scene_size) < 0.1);
    }
}

TEST_CASE("a frame of something else says that it did not align") {
    const AlignReference reference(frame({}));
    CHECK_FALSE(reference.align(frame(Matrix::shift(5000, 3000), 3), Model::rigid).aligned);
    RasterF flat(scene_size, 1);
    CHECK_FALSE(reference.align(flat, Model::shift).aligned);
    CHECK_FALSE(AlignReference(flat).align(flat, Model::rigid).aligned);
}

TEST_CASE("scales and perspectives are found") {
    const AlignReference reference(frame({}, 1, 0.02));
    std::array<double, 9> larger = Matrix::rigid(0.01, {160, 120}, 2, -3).m();
    for (const std::size_t k : {0, 1, 3, 4}) larger[k] *= 1.015;
    const Matrix scaled(larger);
    const Alignment similar = reference.align(frame(scaled, 2, 0.02), Model::similarity);
    CHECK(similar.aligned);
    CHECK(rms_distance(similar.to_reference, scaled, scene_size) < 0.1);
    const Matrix tilted{{1.004, 0.006, 1.5, -0.003, 0.997, -2.5, 1.5e-5, -2e-5, 1}};
    const Alignment seen = reference.align(frame(tilted, 2, 0.02), Model::perspective);
    CHECK(seen.aligned);
    CHECK(rms_distance(seen.to_reference, tilted, scene_size) < 0.15);
}

TEST_CASE("half of the picture may show something else, and still the other half tells where it lies") {
    const AlignReference reference(frame({}, 1, 0.02));
    const Matrix truth = Matrix::rigid(0.008, {160, 120}, 4.3, -2.1);
    const RasterF right = frame(truth, 2, 0.02);
    const RasterF wrong = frame(Matrix::shift(900, 700), 3, 0.02);
    RasterF mixed(scene_size, 1);
    for (int y = 0; y < scene_size.height; ++y)
        for (int x = 0; x < scene_size.width; ++x)
            mixed.at(x, y, 0) = (x < scene_size.width / 2 ? right : wrong).at(x, y, 0);
    const Alignment a = reference.align(mixed, Model::rigid);
    CHECK(a.aligned);
    CHECK(rms_distance(a.to_reference, truth, scene_size) < 0.3);
}

TEST_CASE("four stops of exposure and a veil of light do not pull") {
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    const AlignReference reference(frame({}, 1, 0.005));
    const Matrix truth = Matrix::shift(5.3, 3.8);
    Raster16 dark = test::landscape(scene_size, truth, 2, 0.002);
    for (int y = 0; y < scene_size.height; ++y)
        for (int x = 0; x < scene_size.width; ++x)
            for (int c = 0; c < 3; ++c) {
                std::uint16_t& v = dark.at(x, y, c);
                v = curve.sample(curve.light(v) / 16.0 + 0.01 * LightCurve::full * x / scene_size.width);
            }
    const Alignment a = reference.align(brightness_of(dark, curve), Model::shift);
    CHECK(a.aligned);
    CHECK(rms_distance(a.to_reference, truth, scene_size) < 0.1);
}

TEST_CASE("a soft frame is placed as exactly as a sharp one") {
    const AlignReference reference(frame({}, 1, 0.01));
    const Matrix truth = Matrix::shift(2.6, -1.7);
    const RasterF sharp = frame(truth, 2, 0.002);
    // Blurred as a lens does it: in light.
    RasterF soft(scene_size, 1);
    constexpr int reach = 6;
    constexpr double sigma = 2;
    for (int y = 0; y < scene_size.height; ++y)
        for (int x = 0; x < scene_size.width; ++x) {
            double sum = 0, weights = 0;
            for (int v = std::max(0, y - reach); v <= std::min(scene_size.height - 1, y + reach); ++v)
                for (int u = std::max(0, x - reach); u <= std::min(scene_size.width - 1, x + reach); ++u) {
                    const double w = std::exp(-((u - x) * (u - x) + (v - y) * (v - y)) / (2 * sigma * sigma));
                    sum += w * std::pow(double(sharp.at(u, v, 0)), LightCurve::eye_power);
                    weights += w;
                }
            soft.at(x, y, 0) = float(std::pow(sum / weights, 1 / LightCurve::eye_power));
        }
    const Alignment a = reference.align(soft, Model::shift);
    CHECK(a.aligned);
    CHECK(rms_distance(a.to_reference, truth, scene_size) < 0.06);
}

TEST_CASE("a frame upside down or turned far is placed or refused, never placed wrong") {
    const Size large{640, 480};
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    const AlignReference reference(brightness_of(test::landscape(large, {}, 1, 0.01), curve));
    for (const double turn : {3.14159265, 0.6, -1.2}) {
        const Matrix truth = Matrix::rigid(turn, {319.5, 239.5}, 3, -5);
        const Alignment a = reference.align(brightness_of(test::landscape(large, truth, 2, 0.01), curve), Model::rigid);
        INFO(turn);
        CHECK((!a.aligned || rms_distance(a.to_reference, truth, large) < 0.3));
    }
}

TEST_CASE("what is not trusted does not pull") {
    // Two layers: the left half stands still, the right half moves together.
    const RasterF still = frame({}, 1, 0.01);
    const RasterF moved = frame(Matrix::shift(6, 4), 2, 0.01);
    RasterF mixed(scene_size, 1), trust(scene_size, 1);
    for (int y = 0; y < scene_size.height; ++y)
        for (int x = 0; x < scene_size.width; ++x) {
            const bool right = x >= scene_size.width / 3;
            mixed.at(x, y, 0) = (right ? moved : still).at(x, y, 0);
            trust.at(x, y, 0) = right ? 0.0F : 1.0F;
        }
    CHECK(AlignReference(still).align(mixed, Model::shift).to_reference.m()[2] == Approx(6).margin(0.2));
    CHECK(AlignReference(still, &trust).align(mixed, Model::shift).to_reference.m()[2] == Approx(0).margin(0.2));
}

TEST_CASE("refining goes on from where a hand left the frame") {
    const AlignReference reference(frame({}, 1, 0.02));
    const Matrix truth = Matrix::rigid(0.01, {160, 120}, 8.4, -3.3);
    const Alignment a = reference.refine(frame(truth, 2, 0.02), Model::rigid, Matrix::shift(6, -2));
    CHECK(a.aligned);
    CHECK(rms_distance(a.to_reference, truth, scene_size) < 0.1);
}

namespace {

// A scene's frames with their truth.
struct Burst {
    Folder folder;
    Pile pile;
    std::vector<practice::Shot> shots;

    explicit Burst(const char* scene)
        : pile(test::practised(folder, scene, 6, Outcome::quiet)),
          shots(practice::scene_named(scene)->make(6, 1)->shots()) {}

    // Of the worst frame, in pixels over the whole of it.
    double worst(Model model) const {
        Job job;
        const auto found = align_frames(pile, model, pile.reference, job).value();
        double worst = 0;
        for (std::size_t i = 0; i < pile.frames.size(); ++i) {
            const Alignment& a = found.at(pile.frames[i].id);
            CHECK(a.aligned);
            const Matrix truth = practice::shake_in(pile.size, shots[i].to_scene);
            worst = std::max(worst, rms_distance(a.to_reference, truth, pile.size));
        }
        return worst;
    }
};

}  // namespace

TEST_CASE("bursts align to their truth within a twentieth of a pixel, a tenth with perspective, the soft frame too") {
    for (const char* scene : {"shelf", "heron"}) {
        INFO(scene);
        const Burst burst(scene);
        CHECK(burst.worst(Model::rigid) < 0.05);
        CHECK(burst.worst(Model::similarity) < 0.05);
        CHECK(burst.worst(Model::perspective) < 0.1);
    }
}

namespace {

// The scene of the next test: texture, and on its right a slanted edge as a lens shows it.
double light_at(double x, double y, double texture) {
    if (x < 300) return texture;
    constexpr double slant = 0.1;
    constexpr double blur = 0.8;
    const double from_edge = (x - 380) * std::cos(slant) + (y - 150) * std::sin(slant);
    return 0.3 + 0.4 * 0.5 * (1 + std::erf(from_edge / (blur * std::sqrt(2.0))));
}

// The frequency, in cycles a pixel, at which the slanted edge has lost half of its contrast (after ISO 12233).
double mtf50(const Raster16& picture) {
    constexpr double slant = 0.1;
    constexpr int finer = 4;
    constexpr int reach = 12;
    std::vector<double> sum(2 * reach * finer, 0), count(2 * reach * finer, 0);
    for (int y = 100; y < 200; ++y)
        for (int x = 350; x < 410; ++x) {
            const double d = (x - 380) * std::cos(slant) + (y - 150) * std::sin(slant);
            const int bin = int(std::floor((d + reach) * finer));
            if (bin < 0 || bin >= int(sum.size())) continue;
            sum[std::size_t(bin)] += picture.at(x, y, 0);
            count[std::size_t(bin)] += 1;
        }
    std::vector<double> line;
    for (std::size_t i = 1; i < sum.size(); ++i) line.push_back(sum[i] / count[i] - sum[i - 1] / count[i - 1]);
    const auto contrast = [&](double frequency) {
        double re = 0, im = 0;
        for (std::size_t i = 0; i < line.size(); ++i) {
            const double a = 2 * 3.14159265358979 * frequency * double(i) / finer;
            re += line[i] * std::cos(a);
            im += line[i] * std::sin(a);
        }
        return std::hypot(re, im);
    };
    const double whole_contrast = contrast(0);
    double f = 0;
    while (contrast(f) > whole_contrast / 2) f += 0.0005;
    return f;
}

}  // namespace

TEST_CASE("an aligned mean loses as much noise as it should and hardly any sharpness") {
    constexpr int count = 16;
    constexpr double noise = 0.03;
    const Size large{480, 300};
    const Folder folder;
    std::mt19937 dice(4);
    std::normal_distribution<double> wrong(0, noise);
    std::uniform_real_distribution<double> shake(-3, 3);
    Raster16 clean(large, 1);
    for (int i = 0; i < count; ++i) {
        const Point by = i == 0 ? Point{} : Point{shake(dice), shake(dice)};
        const Raster16 texture = test::landscape(large, Matrix::shift(by.x, by.y));
        Raster16 picture(large, 1);
        for (int y = 0; y < large.height; ++y)
            for (int x = 0; x < large.width; ++x) {
                const double light = light_at(x + by.x, y + by.y, texture.at(x, y, 1) / 65535.0);
                if (i == 0) clean.at(x, y, 0) = std::uint16_t(65535 * light);
                picture.at(x, y, 0) = std::uint16_t(std::clamp(65535 * (light + wrong(dice)), 0.0, 65535.0));
            }
        test::write(folder / ("f" + std::to_string(100 + i) + ".tif"), picture);
    }
    Job job;
    Pile pile = open_frames(gather_run({folder.path().string()}).value(), Outcome::quiet, Order::name, job).value();
    pile =
        with_mode(with_alignments(pile, Model::shift, 1, align_frames(pile, Model::shift, 1, job).value()), Mode::mean);
    pile.light = Light::encoded;
    REQUIRE(merged_ids(pile).size() == count);
    const Raster16 mean = test::render_all(pile).value();
    double left = 0;
    int pixels = 0;
    for (int y = 60; y < 240; ++y)
        for (int x = 420; x < 460; ++x, ++pixels) {
            const double d = (double(mean.at(x, y, 0)) - double(clean.at(x, y, 0))) / 65535;
            left += d * d;
        }
    CHECK(noise / std::sqrt(left / pixels) > 0.95 * std::sqrt(double(count)));
    const double before = mtf50(clean);
    INFO(before);
    CHECK(mtf50(mean) > 0.97 * before);
}

TEST_CASE("a picture that is bent is bent back, also where part of it moves; another one is refused") {
    const Size wide{480, 360};
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    const AlignReference reference(brightness_of(test::landscape(wide, {}, 1, 0.01), curve));
    const auto bend = [](Point q) {
        const Point p = Matrix::rigid(0.008, {240, 180}, 3, -2)(q);
        return Point{p.x + 2.5 * std::sin(q.y / 26), p.y + 2 * std::cos(q.x / 31)};
    };
    for (const bool moving : {false, true}) {
        Raster16 picture = test::bent_landscape(wide, bend, 2, 0.01);
        if (moving) {
            const Raster16 other = test::landscape(wide, Matrix::shift(700, 900));
            for (int y = 60; y < 300; ++y)
                for (int x = 40; x < 180; ++x)
                    for (int c = 0; c < 3; ++c) picture.at(x, y, c) = other.at(x, y, c);
        }
        const Alignment found = reference.align(brightness_of(picture, curve), Model::flex);
        REQUIRE(found.aligned);
        REQUIRE(found.flex);
        double squares = 0;
        int count = 0;
        for (int y = 20; y < 340; y += 10)
            for (int x = 20; x < 460; x += 10) {
                if (moving && x > 20 && x < 200 && y > 40 && y < 320) continue;
                const Point there = found.placement().to_canvas({double(x), double(y)});
                const Point truth = bend({double(x), double(y)});
                squares += (there.x - truth.x) * (there.x - truth.x) + (there.y - truth.y) * (there.y - truth.y);
                ++count;
            }
        INFO((moving ? "moving, " : "still, ") << std::sqrt(squares / count) << " px");
        CHECK(std::sqrt(squares / count) < (moving ? 0.25 : 0.15));
        CHECK(found.flex->largest() < 480 / 20.0);
    }
    const RasterF stranger = brightness_of(test::landscape(wide, Matrix::shift(5000, 3000), 3, 0.01), curve);
    CHECK_FALSE(reference.align(stranger, Model::flex).aligned);
}

TEST_CASE("a frame that is not bent stays stiff under flex") {
    const AlignReference reference(frame({}, 1, 0.02));
    const Matrix truth = Matrix::rigid(0.01, {160, 120}, 4.4, -2.7);
    const Alignment a = reference.align(frame(truth, 2, 0.02), Model::flex);
    REQUIRE(a.aligned);
    double squares = 0;
    int count = 0;
    for (int y = 20; y < 220; y += 20)
        for (int x = 20; x < 300; x += 20, ++count) {
            const Point there = a.placement().to_canvas({double(x), double(y)});
            const Point right = truth({double(x), double(y)});
            squares += (there.x - right.x) * (there.x - right.x) + (there.y - right.y) * (there.y - right.y);
        }
    INFO(std::sqrt(squares / count) << " px");
    CHECK(std::sqrt(squares / count) < 0.15);
}

TEST_CASE("frames are aligned alike with one thread and with many, from files of every kind") {
    const Folder folder;
    for (int i = 0; i < 5; ++i)
        test::write(folder / ("f" + std::to_string(i + 1) + (i % 2 == 0 ? ".tif" : ".jpg")),
                    test::landscape({320, 240}, Matrix::shift(1.5 * i, -0.75 * i), unsigned(i), 0.004), 8);
    Job job;
    const auto run = gather_run({folder.path().string()}, Inner::no);
    const Pile pile = open_frames(run.value(), Outcome::quiet, Order::name, job, KnownBy::content).value();
    REQUIRE(pile.frames.size() == 5);
    const auto many = align_frames(pile, Model::rigid, pile.frames[2].id, job).value();
    const ThreadLimit limit(1);
    const auto one = align_frames(pile, Model::rigid, pile.frames[2].id, job).value();
    CHECK(many == one);
    for (int i = 0; i < 5; ++i) {
        // JPEG gives its brightness apart from colour, TIFF with it: both lie where they should.
        const Matrix& found = many.at(pile.frames[std::size_t(i)].id).to_reference;
        INFO("frame " << i + 1);
        CHECK(found.m()[2] == Approx(1.5 * (i - 2)).margin(0.06));
        CHECK(found.m()[5] == Approx(-0.75 * (i - 2)).margin(0.06));
    }
    job.stop();
    CHECK_FALSE(align_frames(pile, Model::rigid, pile.frames[2].id, job).ok());
}

TEST_CASE("a reference that cannot be used and frames that are too small are refused") {
    const Folder folder;
    const Pile small = test::speckle_pile(folder, 2, {20, 20}, 8);
    Job job;
    CHECK(align_frames(small, Model::none, 1, job).value().empty());
    CHECK_FALSE(align_frames(small, Model::rigid, 1, job).ok());
    CHECK_FALSE(align_frames(small, Model::rigid, 99, job).ok());
}

TEST_CASE("a reference that is not of the scene is refused with what to do, by every model that would hold to it") {
    const Folder folder;
    const Pile scene = test::speckle_pile(folder, 3, {120, 90}, 8);
    Job job;
    const std::vector<int> all{scene.frames[0].id, scene.frames[1].id, scene.frames[2].id};
    const int one[] = {scene.reference};
    const auto refuses = [&](const Pile& pile, Model model) {
        const auto refused = align_frames(pile, model, pile.reference, job);
        return !refused.ok() && refused.failure().english().find("Choose a frame of the scene") != std::string::npos;
    };
    for (const ModelEntry& entry : models())
        if (entry.model != Model::none) CHECK(refuses(with_role(scene, all, Role::dark), entry.model));
    CHECK(refuses(with_role(scene, one, Role::foreground), Model::stars));
    CHECK(refuses(with_role(scene, all, Role::foreground), Model::stars));
}

TEST_CASE("a reference that is gone when its stars are looked for is named") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 3, {120, 90}, 8);
    const fs::path gone = find_frame(pile, pile.reference)->file->path;
    fs::remove(gone);
    Job job;
    const auto refused = align_frames(pile, Model::stars, pile.reference, job);
    REQUIRE_FALSE(refused.ok());
    CHECK(refused.failure().file == gone.string());
    CHECK(refused.failure().frame == pile.reference);
}

TEST_CASE("a frame that becomes a dark one is neither reference nor base, and cannot be made it") {
    const Folder folder;
    const Pile scene = test::speckle_pile(folder, 4, {120, 90}, 8);
    const int dark[] = {scene.frames[0].id, scene.frames[1].id};
    REQUIRE(scene.reference == dark[0]);
    REQUIRE(scene.base == dark[0]);
    const Pile pile = with_role(scene, dark, Role::dark);
    CHECK(pile.reference == scene.frames[2].id);
    CHECK(pile.base == scene.frames[2].id);
    CHECK(with_reference(pile, dark[1]).reference == scene.frames[2].id);
    CHECK(with_base(pile, dark[1]).base == scene.frames[2].id);
    CHECK(with_base(with_reference(pile, scene.frames[3].id), scene.frames[3].id).base == scene.frames[3].id);
}

TEST_CASE("it is known how far the picture moves under what is drawn on it when the reference is another one") {
    const Folder folder;
    Pile pile = test::speckle_pile(folder, 3, {120, 90}, 8);
    const int first = pile.frames[0].id, second = pile.frames[1].id;
    std::map<int, Alignment> found;
    found[second].to_reference = Matrix::shift(-3, 4);
    found[pile.frames[2].id].to_reference = Matrix::shift(1, 0);
    pile = with_alignments(pile, Model::shift, first, found);
    CHECK(moved_under_drawing(pile, with_reference(pile, second)) == 0);
    pile.crop = Rect{10, 10, 80, 60};
    CHECK(moved_under_drawing(pile, with_reference(pile, second)) == Approx(5));
    const int gone[] = {first};
    CHECK(moved_under_drawing(pile, without_frames(pile, gone)) == Approx(5));
    CHECK(moved_under_drawing(pile, with_aside(pile, gone, true)) == 0);
    // Frames that lie as they were taken are not moved by it.
    Pile unaligned = with_alignments(pile, Model::none, first, {});
    CHECK(moved_under_drawing(unaligned, with_reference(unaligned, second)) == 0);
}

TEST_CASE("a frame of the scene takes the place of a reference and a base that go") {
    const Folder folder;
    Pile pile = test::speckle_pile(folder, 4, {120, 90}, 8);
    const int dark[] = {pile.frames[1].id};
    const int gone[] = {pile.frames[0].id};
    pile = with_role(with_base(std::move(pile), gone[0]), dark, Role::dark);
    REQUIRE(pile.reference == gone[0]);
    const Pile left = without_frames(pile, gone);
    CHECK(left.reference == pile.frames[2].id);
    CHECK(left.base == pile.frames[2].id);
    const Pile broken = with_problem(pile, gone[0], Saying("It broke."));
    CHECK(broken.reference == pile.frames[2].id);
    CHECK(broken.base == pile.frames[2].id);
}

TEST_CASE("a run longer than what is read ahead is aligned whole, and a file that broke costs its own frame alone") {
    const Folder folder;
    constexpr int count = 13;
    for (int i = 0; i < count; ++i)
        test::write(folder / ("f" + std::to_string(100 + i) + ".jpg"),
                    test::landscape({160, 120}, Matrix::shift(0.5 * i, -0.25 * i), unsigned(i), 0.004), 8);
    Job job;
    const auto run = gather_run({folder.path().string()}, Inner::no);
    const Pile pile = open_frames(run.value(), Outcome::quiet, Order::name, job, KnownBy::content).value();
    REQUIRE(pile.frames.size() == count);
    const int reference = pile.frames[4].id;
    const auto spoil = [](const Frame& frame) {
        const std::string bytes = test::bytes_of(frame.file->path);
        std::ofstream(frame.file->path, std::ios::binary) << bytes.substr(0, bytes.size() / 3);
    };
    spoil(pile.frames[7]);
    for (const int threads : {1, 2, 3}) {
        const ThreadLimit limit(threads);
        const auto found = align_frames(pile, Model::shift, reference, job).value();
        REQUIRE(found.size() == count);
        for (int i = 0; i < count; ++i) {
            const Alignment& frame = found.at(pile.frames[std::size_t(i)].id);
            INFO("frame " << i << " with " << threads << " threads");
            CHECK(frame.aligned == (i != 7));
            if (i == 7) continue;
            CHECK(frame.to_reference.m()[2] == Approx(0.5 * (i - 4)).margin(0.06));
            CHECK(frame.to_reference.m()[5] == Approx(-0.25 * (i - 4)).margin(0.06));
        }
    }
    spoil(pile.frames[4]);
    const auto refused = align_frames(pile, Model::shift, reference, job);
    REQUIRE_FALSE(refused.ok());
    CHECK(refused.failure().file == pile.frames[4].file->path.string());
}
