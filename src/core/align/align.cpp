#include "align/align.h"

#include <algorithm>
#include <array>
#include <mutex>
#include <opencv2/imgproc.hpp>
#include <vector>

#include "align/agreement.h"
#include "align/bend.h"
#include "align/bridge.h"
#include "align/contrast.h"
#include "align/descent.h"
#include "align/features.h"
#include "kernels/change.h"

namespace bp {
namespace {

constexpr std::array<ModelEntry, 7> table{{
    {Model::none, "none"},
    {Model::shift, "shift"},
    {Model::rigid, "rigid"},
    {Model::similarity, "similarity"},
    {Model::perspective, "perspective"},
    {Model::flex, "flex"},
    {Model::stars, "stars"},
}};

constexpr int coarsest_side = 100;
constexpr int judged_side = 800;     // agreement is judged on pictures of about this size
constexpr int features_side = 1200;  // and features are found on these
constexpr std::size_t most_landmarks = 40000;
constexpr std::size_t most_coarse_landmarks = 12000;
// A step that moves nothing by more is the last one, in pixels of its level: the finest decides. What is left after a
// step is a fifth of it, measured.
constexpr double close_enough(int level) {
    return level == 0 ? 0.002 : 0.02;
}
constexpr double least_share = 0.3;  // of the blocks must agree
constexpr int fewest_blocks = 6;
constexpr double worst_residual = 1.0;  // pixels of the pictures that are judged
constexpr double surely_right = 0.95;   // correlation
constexpr double hardly_right = 0.6;

struct AtLevel {
    cv::Mat contrast;
    kernels::Landmarks landmarks;
};

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

int level_within(const std::vector<cv::Mat>& pictures, int side) {
    int level = 0;
    while (level + 1 < int(pictures.size()) &&
           std::max(pictures[std::size_t(level)].cols, pictures[std::size_t(level)].rows) > side)
        ++level;
    return level;
}

// The model's own kind of transform that is nearest to a shift, turn and scale about the middle.
Matrix of_kind(Matrix m, Model model, cv::Size size) {
    if (model == Model::similarity || model == Model::perspective) return m;
    const Point middle{(size.width - 1) / 2.0, (size.height - 1) / 2.0};
    const Point there = m(middle);
    const double turn = model == Model::shift ? 0 : std::atan2(m.m()[3], m.m()[0]);
    return Matrix::rigid(turn, middle, there.x - middle.x, there.y - middle.y);
}

// Root of the mean squared change from pixel to pixel.
double change_in(const cv::Mat& brightness) {
    const cv::Mat in = brightness.isContinuous() ? brightness : brightness.clone();
    return std::sqrt(kernels::squared_change(in.ptr<float>(), in.cols, in.rows) / double(in.total()));
}

// How fine a picture is beside its own coarse features, so that exposure does not count.
double fineness_of(const cv::Mat& brightness, const cv::Mat& coarse) {
    const double usual = change_in(coarse);
    return usual > 0 ? change_in(brightness) / usual : 0;
}

// Blurred as a lens does it: in light. Edges of the encoded picture move towards the dark side then.
cv::Mat out_of_focus(const cv::Mat& brightness, double blur) {
    cv::Mat light, out;
    cv::pow(cv::max(brightness, 0.0F), LightCurve::eye_power, light);
    cv::GaussianBlur(light, light, cv::Size(0, 0), blur);
    cv::pow(cv::max(light, 0.0F), 1 / LightCurve::eye_power, out);
    return out;
}

// By how much a picture has to be blurred, in its pixels, until it is no finer than is wanted.
double blur_for(const cv::Mat& brightness, const cv::Mat& coarse, double wanted) {
    double low = 0.2;
    double high = 6;
    for (int i = 0; i < 7; ++i) {
        const double middle = (low + high) / 2;
        (fineness_of(out_of_focus(brightness, middle), coarse) > wanted ? low : high) = middle;
    }
    return (low + high) / 2;
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

Alignment not_aligned() {
    Alignment out;
    out.aligned = false;
    return out;
}

bool operator==(const Alignment& a, const Alignment& b) {
    return a.to_reference == b.to_reference && a.lens == b.lens && a.sensor == b.sensor && same(a.flex, b.flex) &&
           a.residual_px == b.residual_px && a.confidence == b.confidence && a.aligned == b.aligned &&
           a.by_clock == b.by_clock && a.by_hand == b.by_hand && a.insisted == b.insisted;
}

struct AlignReference::Prepared {
    std::vector<cv::Mat> brightness;  // from fine to coarse
    std::vector<AtLevel> levels;
    Judged judged_by;
    cv::Mat trust;  // may be empty
    double fineness = 0;
    mutable std::once_flag described;
    mutable Features features;

    int judged_level() const { return level_within(brightness, judged_side); }
    int featured() const { return level_within(brightness, features_side); }

    const Features& its_features() const {
        std::call_once(described, [this] { features = features_of(brightness[std::size_t(featured())]); });
        return features;
    }
    // From `level` to the finest one.
    Fit down_from(int level, Fit fit, const std::vector<cv::Mat>& frame, Model model) const {
        for (; level >= 0 && fit.correlation > 0; --level) {
            const AtLevel& here = levels[std::size_t(level)];
            fit = descend(here.landmarks, here.contrast.size(), frame[std::size_t(level)], fit.to_frame, model,
                          level == 0 ? 12 : 30, close_enough(level));
            if (level > 0) fit.to_frame = from_level(fit.to_frame, 1);
        }
        return fit;
    }
    // Fineness is judged on the halved picture, which shows less noise, against one that is coarser by two.
    int halved() const { return std::min(1, int(brightness.size()) - 1); }
    int coarse() const { return std::min(3, int(brightness.size()) - 1); }
    // A blurred edge and a sharp one do not lie at the same place for least squares: the finer of the two pictures is
    // made as soft as the other, and the fit gone over again.
    Fit equally_soft(const Fit& fit, const std::vector<cv::Mat>& frame, Model model) const {
        constexpr double alike = 0.85;
        constexpr int steps = 12;
        const auto fine = std::size_t(halved());
        const auto rough = std::size_t(coarse());
        const double its = fineness_of(frame[fine], frame[rough]);
        if (its <= 0 || fineness <= 0 || (its > alike * fineness && fineness > alike * its)) return fit;
        const bool softer = its < fineness;
        const std::vector<cv::Mat>& finer = softer ? brightness : frame;
        const double blur = blur_for(finer[fine], finer[rough], std::min(its, fineness)) * double(1 << halved());
        const cv::Mat still = softer ? out_of_focus(brightness[0], blur) : brightness[0];
        const cv::Mat moving = softer ? frame[0] : out_of_focus(frame[0], blur);
        const cv::Mat contrast = local_contrast(still);
        return descend(landmarks_of(contrast, trust, most_landmarks), contrast.size(), local_contrast(moving),
                       fit.to_frame, model, steps, close_enough(0));
    }
    Alignment judge(const Fit& fit, const std::vector<cv::Mat>& frame, const SharedFlex& flex = nullptr) const {
        if (fit.correlation <= 0) return not_aligned();
        const int level = judged_level();
        const SharedFlex bend = at_level(flex, level);
        const Agreement agreement =
            agreement_of(judged_by, frame[std::size_t(level)], at_level(fit.to_frame, level), bend.get());
        Alignment out;
        out.flex = flex;
        out.to_reference = inverse(fit.to_frame);
        out.confidence = agreement.share;
        out.residual_px = agreement.residual_px * double(1 << level);
        out.aligned = agreement.blocks >= fewest_blocks && agreement.share >= least_share &&
                      agreement.residual_px <= worst_residual;
        return out;
    }
};

AlignReference::AlignReference(const RasterF& brightness, const RasterF* trust) {
    auto prepared = std::make_unique<Prepared>();
    prepared->brightness = halves(as_mat(brightness).clone(), coarsest_side);
    const std::vector<cv::Mat> trusted = trust ? halves(as_mat(*trust).clone(), coarsest_side) : std::vector<cv::Mat>();
    for (std::size_t i = 0; i < prepared->brightness.size(); ++i) {
        AtLevel level{local_contrast(prepared->brightness[i]), {}};
        level.landmarks = landmarks_of(level.contrast, trust ? trusted[i] : cv::Mat(),
                                       i == 0 ? most_landmarks : most_coarse_landmarks);
        prepared->levels.push_back(std::move(level));
    }
    prepared->judged_by = judged(prepared->levels[std::size_t(prepared->judged_level())].contrast);
    if (trust) prepared->trust = trusted[0];
    prepared->fineness = fineness_of(prepared->brightness[std::size_t(prepared->halved())],
                                     prepared->brightness[std::size_t(prepared->coarse())]);
    prepared_ = std::move(prepared);
}

AlignReference::~AlignReference() = default;
AlignReference::AlignReference(AlignReference&&) noexcept = default;

namespace {

std::vector<cv::Mat> contrasts_of(const std::vector<cv::Mat>& brightness) {
    std::vector<cv::Mat> out;
    out.reserve(brightness.size());
    for (const cv::Mat& picture : brightness) out.push_back(local_contrast(picture));
    return out;
}

}  // namespace

Alignment AlignReference::align(const RasterF& frame, Model model) const {
    if (model == Model::none) return {};
    if (model == Model::flex) {
        // Depth keeps a stiff model from agreeing everywhere: the simpler one that agrees most is the start.
        const Alignment tilted = align(frame, Model::perspective);
        return bend(frame, tilted.aligned ? tilted : align(frame, Model::similarity));
    }
    const std::vector<cv::Mat> brightness = halves(as_mat(frame), coarsest_side);
    const std::vector<cv::Mat> contrast = contrasts_of(brightness);
    const int top = int(contrast.size()) - 1;
    const AtLevel& coarse = prepared_->levels[std::size_t(top)];
    // From afar turns and scales show too little to be told from what moves.
    const Model first = model == Model::perspective ? Model::similarity : model;
    const auto try_from = [&](const Matrix& start) {
        return descend(coarse.landmarks, coarse.contrast.size(), contrast[std::size_t(top)], start, first, 60,
                       close_enough(top));
    };
    // A frame that hardly moved is found where it is. What moves through the scene can mislead either guess.
    Fit fit = try_from(Matrix{});
    if (fit.correlation < surely_right)
        fit = better(try_from(coarse_shift(coarse.contrast, contrast[std::size_t(top)])), fit);
    if (top > 0) fit.to_frame = from_level(fit.to_frame, 1);
    const auto finish = [&](int level, const Fit& start) {
        Fit done = prepared_->down_from(level, start, contrast, model);
        if (done.correlation > 0) done = prepared_->equally_soft(done, brightness, model);
        return prepared_->judge(done, contrast);
    };
    Alignment found = finish(top - 1, fit);
    if (found.aligned && found.confidence >= hardly_right) return found;
    const int level = prepared_->featured();
    const auto guess = guess_by_features(prepared_->its_features(), features_of(brightness[std::size_t(level)]));
    if (!guess) return found;
    const Fit start{of_kind(*guess, model, prepared_->levels[std::size_t(level)].contrast.size()), 1};
    Alignment by_features = finish(level, start);
    if (by_features.confidence > found.confidence) return by_features;
    return found;
}

Alignment AlignReference::bend(const RasterF& frame, const Alignment& stiff) const {
    // Turned or scaled wrongly, pixels would be bent onto whatever looks alike.
    constexpr double least_start = 0.1;
    if (stiff.confidence < least_start) return not_aligned();
    const std::vector<cv::Mat> contrast = contrasts_of(halves(as_mat(frame), coarsest_side));
    std::vector<cv::Mat> reference;
    for (const AtLevel& level : prepared_->levels) reference.push_back(level.contrast);
    Fit fit{inverse(stiff.to_reference), 1};
    return prepared_->judge(fit, contrast, bend_onto(reference, contrast, fit.to_frame));
}

Alignment AlignReference::refine(const RasterF& frame, Model model, const Matrix& to_reference) const {
    if (model == Model::flex) return bend(frame, refine(frame, Model::similarity, to_reference));
    const std::vector<cv::Mat> brightness = halves(as_mat(frame), coarsest_side);
    const std::vector<cv::Mat> contrast = contrasts_of(brightness);
    // A hand leaves a frame a few pixels off.
    const int level = std::min(2, int(contrast.size()) - 1);
    const Fit start{at_level(inverse(to_reference), level), 1};
    Fit done = prepared_->down_from(level, start, contrast, model);
    if (done.correlation > 0) done = prepared_->equally_soft(done, brightness, model);
    return prepared_->judge(done, contrast);
}

}  // namespace bp
