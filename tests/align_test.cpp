#include "align/align.h"

#include <catch2/catch.hpp>
#include <fstream>
#include <nlohmann/json.hpp>

#include "engine/aligning.h"
#include "engine/open.h"
#include "practice/practice.h"
#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;

namespace {

constexpr Size size{320, 240};

RasterF frame(const Matrix& to_scene, unsigned seed = 0, double noise = 0) {
    return brightness_of(test::landscape(size, to_scene, seed, noise), LightCurve::of(Profile::srgb(), 3));
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
        CHECK(rms_distance(a.to_reference, truth, size) < 0.1);
        CHECK(a.residual_px < 0.35);
        CHECK(a.to_reference.m[1] == 0);
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

TEST_CASE("turns are found together with shifts") {
    const AlignReference reference(frame({}, 1, 0.03));
    for (const double turn : {-0.03, 0.004, 0.02}) {
        const Matrix truth = Matrix::rigid(turn, {160, 120}, 3.4, -2.7);
        const Alignment a = reference.align(frame(truth, 2, 0.03), Model::rigid);
        INFO(turn);
        CHECK(a.aligned);
        CHECK(rms_distance(a.to_reference, truth, size) < 0.1);
    }
}

TEST_CASE("a frame of something else says that it did not align") {
    const AlignReference reference(frame({}));
    CHECK_FALSE(reference.align(frame(Matrix::shift(5000, 3000), 3), Model::rigid).aligned);
    RasterF flat(size, 1);
    CHECK_FALSE(reference.align(flat, Model::shift).aligned);
    CHECK_FALSE(AlignReference(flat).align(flat, Model::rigid).aligned);
}

TEST_CASE("the shelf aligns to its truth below a tenth of a pixel") {
    const Folder folder;
    practice::PracticeOptions options;
    options.size = {800, 534};
    options.frames = 8;
    Job job;
    REQUIRE(practice::practise(*practice::scene_named("shelf"), folder.path(), options, job).ok());
    const Pile pile =
        open_frames(gather_run({folder.path().string()}).value(), Outcome::quiet, Order::captured, job).value();
    const auto found = align_frames(pile, Model::rigid, pile.reference, job).value();
    std::ifstream in(folder / "truth/truth.json");
    const auto truth = nlohmann::json::parse(in);
    double sum = 0;
    int count = 0;
    for (std::size_t i = 0; i < pile.frames.size(); ++i) {
        Matrix wanted;
        wanted.m = truth["frames"][i]["to_reference"].get<std::array<double, 9>>();
        const Alignment& a = found.at(pile.frames[i].id);
        CHECK(a.aligned);
        const double off = rms_distance(a.to_reference, wanted, pile.size);
        sum += off * off;
        ++count;
    }
    REQUIRE(count == 8);
    CHECK(std::sqrt(sum / count) < 0.1);
}

TEST_CASE("a reference that cannot be used and frames that are too small are refused") {
    const Folder folder;
    const Pile small = test::speckle_pile(folder, 2, {20, 20}, 8);
    Job job;
    CHECK(align_frames(small, Model::none, 1, job).value().empty());
    CHECK_FALSE(align_frames(small, Model::rigid, 1, job).ok());
    CHECK_FALSE(align_frames(small, Model::rigid, 99, job).ok());
}
