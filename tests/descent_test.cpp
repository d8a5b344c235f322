// What aligning is made of, each piece by itself: the descent at landmarks, and the judge of what came out.
#include "align/descent.h"

#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <opencv2/core.hpp>

#include "align/agreement.h"
#include "align/bridge.h"
#include "align/contrast.h"
#include "image/brightness.h"
#include "support/fixtures.h"
#include "support/targets.h"

using namespace bp;

namespace {

constexpr Size scene_size{320, 240};
constexpr std::size_t landmarks_wanted = 6000;
constexpr int steps = 30;
constexpr double close_px = 0.002;

cv::Mat brightness(const Matrix& to_scene, unsigned seed, double noise = 0.01) {
    const RasterF picture =
        brightness_of(test::landscape(scene_size, to_scene, seed, noise), LightCurve::of(Profile::srgb(), 3));
    return as_mat(picture).clone();
}

cv::Mat contrast(const Matrix& to_scene, unsigned seed, double noise = 0.01) {
    return local_contrast(brightness(to_scene, seed, noise));
}

const cv::Size mat_size{scene_size.width, scene_size.height};

// Of something else altogether.
cv::Mat elsewhere(unsigned seed) {
    return contrast(Matrix::shift(4000, 2500), seed);
}

// The left part of `a` up to column `border`, and the rest of `b`.
cv::Mat beside(const cv::Mat& a, const cv::Mat& b, int border) {
    cv::Mat out = b.clone();
    a.colRange(0, border).copyTo(out.colRange(0, border));
    return out;
}

struct Case {
    Model model;
    Matrix truth;  // reference pixel to frame pixel
};

const Matrix scaled{{1.008, -0.004, 0.6, 0.004, 1.008, -1.1, 0, 0, 1}};
const Matrix tilted{{1.003, 0.004, -0.8, -0.002, 0.998, 0.7, 1e-5, -1.5e-5, 1}};
const std::array<Case, 4> cases{{{Model::shift, Matrix::shift(1.3, -0.8)},
                                 {Model::rigid, Matrix::rigid(0.006, {160, 120}, -0.7, 1.1)},
                                 {Model::similarity, scaled},
                                 {Model::perspective, tilted}}};

}  // namespace

TEST_CASE("a descent finds each model's own transform from one that is a little off") {
    const cv::Mat still = contrast({}, 1);
    const kernels::Landmarks landmarks = landmarks_of(still, {}, landmarks_wanted);
    REQUIRE(landmarks.size() > landmarks_wanted / 2);
    for (const Case& c : cases) {
        INFO(name_of(c.model));
        const cv::Mat moved = contrast(inverse(c.truth), 2);
        const Fit found = descend(landmarks, mat_size, moved, {}, c.model, steps, close_px);
        CHECK(found.correlation > 0.9);
        CHECK(rms_distance(found.to_frame, c.truth, scene_size) < 0.1);
        // From there it goes nowhere.
        const Fit again = descend(landmarks, mat_size, moved, found.to_frame, c.model, steps, close_px);
        CHECK(rms_distance(again.to_frame, found.to_frame, scene_size) < close_px);
    }
}

TEST_CASE("a descent takes its last step, and each step leaves a part of what was off") {
    const cv::Mat still = contrast({}, 1);
    const kernels::Landmarks landmarks = landmarks_of(still, {}, landmarks_wanted);
    for (const Case& c : cases) {
        INFO(name_of(c.model));
        const cv::Mat moved = contrast(inverse(c.truth), 2);
        const Matrix end = descend(landmarks, mat_size, moved, {}, c.model, steps, close_px / 100).to_frame;
        const double before = rms_distance({}, end, scene_size);
        const double after_one =
            rms_distance(descend(landmarks, mat_size, moved, {}, c.model, 0, 0).to_frame, end, scene_size);
        const double after_two =
            rms_distance(descend(landmarks, mat_size, moved, {}, c.model, 1, 0).to_frame, end, scene_size);
        CHECK(after_one < before / 2);
        CHECK(after_two < after_one / 2);
        // A start that is as close as asked for is left by one step.
        const Matrix near = Matrix::shift(close_px / 2, 0) * end;
        const Fit found = descend(landmarks, mat_size, moved, near, c.model, steps, close_px);
        CHECK(rms_distance(found.to_frame, end, scene_size) < close_px / 4);
    }
}

TEST_CASE("gain and offset of what is seen do not pull a descent") {
    const cv::Mat still = contrast({}, 1);
    const kernels::Landmarks landmarks = landmarks_of(still, {}, landmarks_wanted);
    for (const Case& c : cases) {
        INFO(name_of(c.model));
        const cv::Mat moved = contrast(inverse(c.truth), 2);
        const cv::Mat paler = moved * 0.4 + 0.7;
        const Fit plain = descend(landmarks, mat_size, moved, {}, c.model, steps, close_px);
        const Fit pale = descend(landmarks, mat_size, paler, {}, c.model, steps, close_px);
        CHECK(rms_distance(plain.to_frame, pale.to_frame, scene_size) < 2 * close_px);
        CHECK(pale.correlation == Approx(plain.correlation).margin(1e-3));
    }
}

TEST_CASE("what shows something else over a third of the picture weighs nothing in a descent") {
    const cv::Mat still = contrast({}, 1);
    const kernels::Landmarks landmarks = landmarks_of(still, {}, landmarks_wanted);
    for (const Case& c : {cases[0], cases[1], cases[2]}) {
        INFO(name_of(c.model));
        const cv::Mat mixed = beside(elsewhere(3), contrast(inverse(c.truth), 2), scene_size.width / 3);
        const Fit found = descend(landmarks, mat_size, mixed, {}, c.model, steps, close_px);
        CHECK(found.correlation > 0.3);
        CHECK(found.correlation < 0.9);
        CHECK(rms_distance(found.to_frame, c.truth, scene_size) < 0.3);
    }
}

TEST_CASE("a descent that sees nothing, too little or no texture has no correlation") {
    const cv::Mat still = contrast({}, 1);
    const kernels::Landmarks landmarks = landmarks_of(still, {}, landmarks_wanted);
    const cv::Mat flat(mat_size, CV_32F, cv::Scalar(0.2));
    CHECK(descend(landmarks, mat_size, flat, {}, Model::rigid, steps, close_px).correlation < 0);
    const Matrix beyond = Matrix::shift(scene_size.width, 0);
    CHECK(descend(landmarks, mat_size, still, beyond, Model::shift, steps, close_px).correlation < 0);
    const Matrix hardly = Matrix::shift(scene_size.width * 0.9, 0);
    CHECK(descend(landmarks, mat_size, still, hardly, Model::shift, steps, close_px).correlation < 0);
    const kernels::Landmarks none = landmarks_of(flat, {}, landmarks_wanted);
    CHECK(none.size() == 0);
    CHECK(descend(none, mat_size, still, {}, Model::shift, steps, close_px).correlation < 0);
    // The negative of a picture does not lie on it.
    const cv::Mat negative = -still;
    CHECK(descend(landmarks, mat_size, negative, {}, Model::shift, steps, close_px).correlation < 0);
}

TEST_CASE("a descent is the same on every instruction set") {
    const cv::Mat bright = brightness({}, 1);
    const cv::Mat moved_bright = brightness(inverse(cases[1].truth), 2);
    std::vector<Matrix> found;
    test::on_every_target([&] {
        const kernels::Landmarks landmarks = landmarks_of(local_contrast(bright), {}, landmarks_wanted);
        found.push_back(
            descend(landmarks, mat_size, local_contrast(moved_bright), {}, Model::rigid, steps, close_px).to_frame);
    });
    for (const Matrix& m : found) CHECK(rms_distance(m, found.front(), scene_size) < 1e-4);
}

TEST_CASE("pictures are halved down to the side asked for, each pixel the mean of four") {
    const cv::Mat picture = brightness({}, 1);
    const std::vector<cv::Mat> all = halves(picture, 50);
    REQUIRE(all.size() == 3);
    CHECK(all[1].size() == cv::Size(160, 120));
    CHECK(all[2].size() == cv::Size(80, 60));
    for (std::size_t level = 1; level < all.size(); ++level)
        for (int y = 0; y < all[level].rows; y += 7)
            for (int x = 0; x < all[level].cols; x += 7) {
                const cv::Mat four = all[level - 1](cv::Rect(2 * x, 2 * y, 2, 2));
                CHECK(all[level].at<float>(y, x) == Approx(cv::mean(four)[0]).margin(1e-6));
            }
    // The last row or column of an odd picture has no partner.
    const std::vector<cv::Mat> odd = halves(picture(cv::Rect(0, 0, 201, 139)), 50);
    REQUIRE(odd.size() == 2);
    CHECK(odd[1].size() == cv::Size(100, 69));
}

TEST_CASE("the judge counts the blocks that show the same and says what is left in them") {
    const cv::Mat still = contrast({}, 1);
    const Judged reference = judged(still);
    const Agreement same = agreement_of(reference, contrast({}, 2), {}, nullptr);
    CHECK(same.blocks > 80);
    CHECK(same.share > 0.95);
    CHECK(same.residual_px < 0.1);

    for (const double off : {0.25, 0.5}) {
        INFO(off);
        const cv::Mat moved = contrast(Matrix::shift(-off, 0), 2);
        const Agreement left = agreement_of(reference, moved, {}, nullptr);
        CHECK(left.residual_px == Approx(off).margin(0.1));
        const Agreement right = agreement_of(reference, moved, Matrix::shift(off, 0), nullptr);
        CHECK(right.residual_px < 0.1);
        CHECK(right.share > 0.95);
    }

    const Agreement half =
        agreement_of(reference, beside(contrast({}, 2), elsewhere(3), scene_size.width / 2), {}, nullptr);
    CHECK(half.share == Approx(0.5).margin(0.15));
    CHECK(half.residual_px < 0.15);

    const Agreement other = agreement_of(reference, elsewhere(3), {}, nullptr);
    CHECK(other.share < 0.25);
    CHECK(agreement_of(reference, cv::Mat::zeros(mat_size, CV_32F), {}, nullptr).share == 0);
    const Agreement nothing = agreement_of(judged(cv::Mat::zeros(mat_size, CV_32F)), still, {}, nullptr);
    CHECK(nothing.blocks == 0);
    CHECK(nothing.share == 0);
}
