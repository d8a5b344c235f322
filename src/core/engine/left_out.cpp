#include "engine/left_out.h"

#include <cmath>

namespace bp {
namespace {

constexpr std::uint8_t half = 128;

}  // namespace

LeftOut::LeftOut(const Mask& mask, int level) : mask_(&mask) {
    const Rect all = mask.bounds();
    if (all.empty()) return;
    bounds_ = at_level(all, level);
    if (level == 0) return;
    scaled_.emplace(bounds_.size(), 1);
    for (int y = 0; y < bounds_.height; ++y)
        mask.read_row(level, bounds_.top + y, bounds_.left, bounds_.width, scaled_->row(y));
}

bool LeftOut::at(int x, int y) const {
    if (x < bounds_.left || x >= bounds_.right() || y < bounds_.top || y >= bounds_.bottom()) return false;
    return (scaled_ ? scaled_->at(x - bounds_.left, y - bounds_.top, 0) : mask_->at(x, y)) >= half;
}

void LeftOut::add_silence(const RowReaches& reaches, kernels::RowPlaces* places, int y, int left, kernels::Span cover,
                          std::vector<kernels::Span>& out) const {
    if (places) places->go_to(y);
    const auto silent = [&](int x) {
        if (!places) return at(left + x, y);
        const Point p = places->at(left + x);
        return at(int(std::lround(p.x)), int(std::lround(p.y)));
    };
    // A frame that is not resampled has nothing of it beside the bounds.
    kernels::Span looked = cover;
    if (!reaches.resampled()) {
        if (y < bounds_.top || y >= bounds_.bottom()) return;
        looked = {std::max(cover.begin, bounds_.left - left), std::min(cover.end, bounds_.right() - left)};
    }
    for (int x = looked.begin; x < looked.end; ++x) {
        if (!silent(x)) continue;
        const int begin = x;
        while (x < looked.end && silent(x)) ++x;
        out.push_back({begin, x});
    }
}

}  // namespace bp
