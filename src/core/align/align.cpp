#include "align/align.h"

#include <algorithm>
#include <array>
#include <opencv2/imgproc.hpp>
#include <vector>

#include "align/bridge.h"
#include "align/descent.h"

namespace bp {
namespace {

constexpr std::array<ModelEntry, 3> table{{
    {Model::none, "none"},
    {Model::shift, "shift"},
    {Model::rigid, "rigid"},
}};

constexpr int coarsest_side = 100;
constexpr double least_confidence = 0.55;
constexpr double worst_residual = 1.0;

// Half the size by the mean of 2 x 2 pixels, as at_level() counts.
cv::Mat halved(const cv::Mat& image) {
    const cv::Mat even = image(cv::Rect(0, 0, image.cols & ~1, image.rows & ~1));
    cv::Mat out;
    cv::resize(even, out, cv::Size(even.cols / 2, even.rows / 2), 0, 0, cv::INTER_AREA);
    return out;
}

std::vector<cv::Mat> pyramid(const cv::Mat& image) {
    std::vector<cv::Mat> out{image};
    while (std::min(out.back().cols, out.back().rows) / 2 >= coarsest_side) out.push_back(halved(out.back()));
    return out;
}

// The shift of `frame` against `reference` on a coarse level, as a matrix from reference to frame.
Matrix coarse_shift(const cv::Mat& reference, const cv::Mat& frame) {
    cv::Mat window;
    cv::createHanningWindow(window, reference.size(), CV_32F);
    // The library multiplies the window into its inputs when their size suits it: it gets copies.
    const cv::Point2d shift = cv::phaseCorrelate(reference.clone(), frame.clone(), window);
    return Matrix::shift(shift.x, shift.y);
}

Fit better(const Fit& a, const Fit& b) {
    return a.correlation >= b.correlation ? a : b;
}

}  // namespace

std::span<const ModelEntry> models() {
    return table;
}

std::string_view name_of(Model model) {
    return std::find_if(table.begin(), table.end(), [model](const ModelEntry& e) { return e.model == model; })->name;
}

std::optional<Model> model_named(std::string_view name) {
    const auto* found =
        std::find_if(table.begin(), table.end(), [name](const ModelEntry& e) { return e.name == name; });
    if (found == table.end()) return std::nullopt;
    return found->model;
}

Alignment align_to(const RasterF& reference, const RasterF& frame, Model model) {
    if (model == Model::none) return {Matrix{}, 0, 1, true};
    const std::vector<cv::Mat> references = pyramid(as_mat(reference));
    const std::vector<cv::Mat> frames = pyramid(as_mat(frame));
    const int top = int(references.size()) - 1;
    const cv::Mat& coarse_reference = references[std::size_t(top)];
    const cv::Mat& coarse_frame = frames[std::size_t(top)];
    constexpr double surely_right = 0.9;
    Fit fit = descend(coarse_reference, coarse_frame, coarse_shift(coarse_reference, coarse_frame), model, 60);
    // What moves through the scene can mislead the first guess.
    if (fit.correlation < surely_right) fit = better(fit, descend(coarse_reference, coarse_frame, Matrix{}, model, 60));
    for (int level = top - 1; level >= 0 && fit.correlation > 0; --level) {
        // One level finer: the transform between pictures of a level is a coarse one seen from below.
        const Matrix start = from_level(fit.to_frame, 1);
        fit = descend(references[std::size_t(level)], frames[std::size_t(level)], start, model, level == 0 ? 20 : 40);
    }
    if (fit.correlation <= 0) return {Matrix{}, 0, 0, false};
    Alignment out;
    out.to_reference = inverse(fit.to_frame);
    out.confidence = std::clamp(fit.correlation, 0.0, 1.0);
    out.residual_px = residual_after(reference, frame, out.to_reference);
    out.aligned = out.confidence >= least_confidence && out.residual_px >= 0 && out.residual_px <= worst_residual;
    out.residual_px = std::max(out.residual_px, 0.0);
    return out;
}

}  // namespace bp
