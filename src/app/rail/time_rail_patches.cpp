// A place of the picture as every frame has it, on the slats of the rail.
#include <algorithm>
#include <cmath>
#include <functional>
#include <numeric>
#include <utility>

#include "app/rail/time_rail.h"
#include "pile/pile.h"

namespace bp::app {

void TimeRail::show_patches(bool on) {
    if (patches_on_ == on) return;
    patches_on_ = on;
    patch_.reset();
    hold_patches(false);
    update();
}

namespace {

constexpr int compared_side = 24;

// A patch in channels of its own brightness: a look, or a little more light, is no difference.
std::vector<double> compared(const QImage& patch) {
    constexpr double middle = 110;
    if (patch.isNull()) return {};
    const QImage scaled = patch.scaled(compared_side, compared_side, Qt::IgnoreAspectRatio, Qt::SmoothTransformation)
                              .convertToFormat(QImage::Format_RGB32);
    std::vector<double> out;
    out.reserve(3 * compared_side * compared_side);
    double sum[3] = {1, 1, 1};
    for (int y = 0; y < compared_side; ++y)
        for (int x = 0; x < compared_side; ++x) {
            const QRgb p = scaled.pixel(x, y);
            const int channels[3] = {qRed(p), qGreen(p), qBlue(p)};
            for (int c = 0; c < 3; ++c) sum[c] += out.emplace_back(channels[c]);
        }
    for (std::size_t i = 0; i < out.size(); ++i) out[i] *= middle * compared_side * compared_side / sum[i % 3];
    return out;
}

}  // namespace

void TimeRail::set_patch_place(const PatchPlace& place) {
    if (!patches_on_ || patches_held_) return;
    patch_ = place;
    patch_shown_ = compared(place.shown);
    update();
}

void TimeRail::hold_patches(bool on) {
    const bool held = on && patch_.has_value();
    if (std::exchange(patches_held_, held) == held) return;
    update();
    emit patches_held(held);
}

// The place as the frame has it, from its small picture.
QImage TimeRail::patch_of(int id, double aspect) const {
    const QImage frame = studio_.thumbnails().of(id);
    const Frame* of = find_frame(studio_.pile(), id);
    if (!patch_ || frame.isNull() || !of) return {};
    const Point at = placement(studio_.pile(), *of).to_frame({patch_->at.x(), patch_->at.y()});
    const double scale = double(frame.width()) / std::max(1, studio_.pile().size.width);
    if (!std::isfinite(at.x) || !std::isfinite(at.y) || std::hypot(at.x, at.y) > 1e6) return {};
    const int side = std::max(8, int(std::lround(patch_->side * scale)));
    const int across = std::max(1, int(std::lround(side * aspect)));
    return frame.copy(int(std::lround(at.x * scale)) - across / 2, int(std::lround(at.y * scale)) - side / 2, across,
                      side);
}

bool TimeRail::differs(int id) const {
    // Of 255, on average over a pixel in four: noise does not come so far.
    constexpr double least = 14;
    const std::vector<double> a = compared(patch_of(id));
    const std::vector<double>& b = patch_shown_;
    if (a.empty() || b.empty()) return false;
    std::vector<double> apart;
    for (std::size_t i = 0; i < a.size(); i += 3)
        apart.push_back(
            std::max({std::abs(a[i] - b[i]), std::abs(a[i + 1] - b[i + 1]), std::abs(a[i + 2] - b[i + 2])}));
    constexpr int quarter = compared_side * compared_side / 4;
    std::nth_element(apart.begin(), apart.begin() + quarter, apart.end(), std::greater<>());
    return std::accumulate(apart.begin(), apart.begin() + quarter, 0.0) > least * quarter;
}

}  // namespace bp::app
