#include "engine/horizon.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <vector>

#include "base/parallel.h"
#include "engine/cover.h"
#include "engine/render.h"

namespace bp {
namespace {

constexpr int looked_at_side = 1024;

// The change of tone down the picture, pressed so that a few strong places do not outweigh a long weak line.
std::vector<float> steps_down(const Raster16& picture) {
    const int w = picture.width(), h = picture.height(), channels = picture.channels();
    const auto tone = [&](int x, int y) {
        const std::uint16_t* pixel = picture.row(y) + std::ptrdiff_t(x) * channels;
        float sum = 0;
        for (int c = 0; c < channels; ++c) sum += float(pixel[c]);
        return std::sqrt(sum / float(channels) / 65535.0F);
    };
    std::vector<float> out(std::size_t(w) * std::size_t(h), 0.0F), sizes;
    for (int y = 2; y + 2 < h; ++y)
        for (int x = 0; x < w; ++x) {
            const float step = tone(x, y + 1) + tone(x, y + 2) - tone(x, y - 1) - tone(x, y - 2);
            out[std::size_t(y) * std::size_t(w) + std::size_t(x)] = step;
            sizes.push_back(std::abs(step));
        }
    if (sizes.empty()) return out;
    const auto usual = sizes.begin() + std::ptrdiff_t(sizes.size() * 3 / 4);
    std::nth_element(sizes.begin(), usual, sizes.end());
    const float knee = std::max(4 * *usual, 0.01F);
    for (float& step : out) step /= std::abs(step) + knee;
    return out;
}

}  // namespace

std::optional<double> lean_of(const Raster16& picture) {
    const int w = picture.width(), h = picture.height();
    constexpr int least_side = 64;
    if (w < least_side || h < least_side) return std::nullopt;
    const std::vector<float> steps = steps_down(picture);
    // The most that a line of this lean adds up to, as a mean over the width.
    const auto strength = [&](double degrees) {
        const double slope = std::tan(degrees * std::numbers::pi / 180);
        std::vector<float> sums(std::size_t(h), 0.0F);
        for (int x = 0; x < w; ++x) {
            const double off = slope * (x - w / 2.0);
            const int whole_off = int(std::floor(off));
            const auto part = float(off - whole_off);
            for (int y = std::max(0, -whole_off); y < std::min(h, h - whole_off - 1); ++y) {
                const float* at = steps.data() + std::size_t(y + whole_off) * std::size_t(w) + std::size_t(x);
                sums[std::size_t(y)] += at[0] + (at[w] - at[0]) * part;
            }
        }
        float most = 0;
        for (const float sum : sums) most = std::max(most, std::abs(sum));
        return double(most) / w;
    };
    constexpr double coarse = 0.25, fine = 0.02;
    const int count = 2 * int(most_lean_deg / coarse) + 1;
    std::vector<double> of(static_cast<std::size_t>(count));
    parallel_for(0, count, [&](int i) { of[std::size_t(i)] = strength(i * coarse - most_lean_deg); });
    const auto best = std::max_element(of.begin(), of.end());
    const double top = *best, at = double(best - of.begin()) * coarse - most_lean_deg;
    std::nth_element(of.begin(), of.begin() + count / 2, of.end());
    // A line that is there stands out from what any lean adds up to, and runs through a good part of the picture.
    constexpr double stands_out = 1.6, least = 0.12;
    if (top < least || top < stands_out * of[std::size_t(count) / 2]) return std::nullopt;
    const int around = int(coarse / fine);
    std::vector<double> near(static_cast<std::size_t>(2 * around + 1));
    parallel_for(0, int(near.size()), [&](int i) { near[std::size_t(i)] = strength(at + (i - around) * fine); });
    const auto peak = std::max_element(near.begin(), near.end()) - near.begin();
    return std::clamp(at + (double(peak) - around) * fine, -most_lean_deg, most_lean_deg);
}

Result<std::optional<double>> find_lean(const Pile& pile, FrameStore& store, Job& job) {
    const Rect area = seen_area(pile);
    const int level = level_within(area.size(), looked_at_side);
    const Result<Raster16> picture = composed(pile, store, at_level(area, level), level, job);
    if (!picture.ok()) return picture.failure();
    return lean_of(picture.value());
}

}  // namespace bp
