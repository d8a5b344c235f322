#include "engine/plan.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "base/parallel.h"

namespace bp {
namespace {

constexpr std::array<int, 11> band_heights{StripPlan::highest_band, 96, 64, 48, 32, 24, 16, 12, 8, 4, 2};
// Lower bands than this cost time, so that comfort ends here where the budget does not.
constexpr int enough_rows = 16;
// The program itself, its tables and libraries.
constexpr std::size_t program_bytes = std::size_t(64) << 20;
// Bands of the result that may wait to be written while others are merged.
constexpr std::size_t bands_of_result = 4;

// The next multiple of `unit` after `value`.
int next_multiple(int value, int unit) {
    return (floor_div(value, unit) + 1) * unit;
}

// Bands end where pieces end.
std::vector<Band> bands_of(const Rect& region, int height) {
    std::vector<Band> out;
    for (int y = region.top; y < region.bottom(); y = next_multiple(y, height))
        out.emplace_back(y, std::min(next_multiple(y, height), region.bottom()));
    return out;
}

Size piece_for(std::size_t resampled, std::size_t sparse, const Rect& region, int channels) {
    // Whole rows, wherever the region lies.
    if (resampled + sparse == 0) return {std::max({1, region.right(), region.width}), 1};
    constexpr int rows = 8;  // that are weighed alike, at best
    constexpr int step = 64;
    constexpr int least = 128;
    constexpr int most = 1024;
    constexpr std::size_t cached_bytes = std::size_t(9) << 18;
    // Of those that show in few places hardly any is there in a piece; but all of them may be.
    constexpr std::size_t sparse_bytes = std::size_t(64) << 20;
    const std::size_t column = rows * std::size_t(channels) * sizeof(std::uint16_t);
    const auto widest = [column](std::size_t bytes, std::size_t takes) {
        return int(std::min<std::size_t>(most, bytes / (column * std::max<std::size_t>(1, takes))));
    };
    const int width = std::min(widest(cached_bytes, resampled), widest(sparse_bytes, sparse));
    return {std::clamp(width / step * step, least, most), rows};
}

StripPlan plan_for(const std::vector<RowCost>& costs, std::size_t resampled, std::size_t sparse, const Rect& region,
                   int channels, int height) {
    StripPlan out;
    out.piece = piece_for(resampled, sparse, region, channels);
    out.bands = bands_of(region, height);
    out.band_rows = std::min(height, region.height);
    const std::size_t canvas_row = std::size_t(region.width) * std::size_t(channels) * sizeof(std::uint16_t);
    out.peak_bytes = program_bytes + bands_of_result * std::size_t(out.band_rows) * canvas_row;
    for (const RowCost& cost : costs) {
        out.windows.push_back(cost.row_bytes > 0 ? cost.needs.window(out.bands) : 0);
        out.peak_bytes += cost.fixed_bytes + std::size_t(out.windows.back()) * cost.row_bytes;
    }
    out.peak_bytes += std::size_t(threads_at_work()) * (resampled + sparse) * std::size_t(out.piece.width) *
                      std::size_t(out.piece.height) * std::size_t(channels) * sizeof(std::uint16_t);
    return out;
}

}  // namespace

Failure too_little_memory(std::size_t frames, std::size_t needed_bytes, std::size_t budget_bytes) {
    return {
        Fault::wrong_call,
        "",
        {"Merging %1 of this size needs at least %2 of memory, and %3 are allowed. Allow more, or set frames aside.",
         {frames_counted(frames), megabytes(needed_bytes), megabytes(budget_bytes)}}};
}

std::vector<Rect> pieces_of(const Band& band, const Rect& region, Size piece) {
    std::vector<Rect> out;
    for (int y = band.first; y < band.second; y = next_multiple(y, piece.height))
        for (int x = region.left; x < region.right(); x = next_multiple(x, piece.width))
            out.push_back({x, y, std::min(region.right(), next_multiple(x, piece.width)) - x,
                           std::min(band.second, next_multiple(y, piece.height)) - y});
    return out;
}

Result<StripPlan> plan_strips(const std::vector<RowCost>& costs, std::size_t frames, std::size_t resampled,
                              const Rect& region, int channels, std::size_t budget_bytes, std::size_t sparse) {
    StripPlan plan;
    const bool reads =
        std::any_of(costs.begin(), costs.end(), [](const RowCost& c) { return c.read_in_turn && c.row_bytes > 0; });
    for (const int height : band_heights) {
        if (!reads && height > StripPlan::highest_unread_band) continue;
        plan = plan_for(costs, resampled, sparse, region, channels, height);
        const bool comfortable = plan.peak_bytes <= StripPlan::comfortable_bytes || height <= enough_rows;
        if (comfortable && plan.peak_bytes <= budget_bytes) return plan;
    }
    return too_little_memory(frames, plan.peak_bytes, budget_bytes);
}

}  // namespace bp
