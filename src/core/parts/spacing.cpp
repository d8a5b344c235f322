#include "parts/spacing.h"

#include <algorithm>
#include <cmath>

namespace bp {
namespace {

constexpr int looked_at_side = 1000;

}  // namespace

Outline::Outline(const Mask& mask) : level_(level_within(mask.size(), looked_at_side)) {
    const Rect bounds = mask.bounds();
    std::vector<RunMask::Stretch> stretches;
    if (!bounds.empty()) {
        const Rect area = at_level(bounds, level_);
        std::vector<std::uint8_t> row(std::size_t(area.width));
        for (int y = area.top; y < area.bottom(); ++y) {
            mask.read_row(level_, y, area.left, area.width, row.data());
            for (int x = 0; x < area.width; ++x) {
                if (row[std::size_t(x)] < 128) continue;
                int end = x;
                while (end < area.width && row[std::size_t(end)] >= 128) ++end;
                stretches.push_back({y, {area.left + x, area.left + end}});
                box_ = unite(box_, {area.left + x, y, end - x, 1});
                x = end;
            }
        }
    }
    shape_ = RunMask(at_level(mask.size(), level_), stretches);
}

int Outline::length() const {
    return std::max(box_.width, box_.height) << level_;
}

bool Outline::meets(const Outline& other, double gap) const {
    const int by = int(std::ceil(gap / (1 << level_)));
    const Rect near = intersect({box_.left - by, box_.top - by, box_.width + 2 * by, box_.height + 2 * by}, other.box_);
    if (near.empty()) return false;
    for (int y = near.top; y < near.bottom(); ++y)
        for (const RunMask::Run& theirs : other.shape_.row(y))
            for (int v = std::max(box_.top, y - by); v <= std::min(box_.bottom() - 1, y + by); ++v)
                for (const RunMask::Run& own : shape_.row(v))
                    if (own.begin - by < theirs.end && theirs.begin < own.end + by) return true;
    return false;
}

}  // namespace bp
