#include "engine/resizing.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "base/line_vector.h"
#include "base/parallel.h"

namespace bp {
namespace {

constexpr double lobes = 3;

double sinc(double x) {
    const double t = std::numbers::pi * x;
    return std::abs(t) < 1e-9 ? 1 : std::sin(t) / t;
}

// Of rows that lie far apart in memory nobody fetches the next ones unasked.
void fetch(const std::uint16_t* row, std::size_t samples) {
    constexpr std::size_t line = cache_line / sizeof(std::uint16_t);
    for (std::size_t i = 0; i < samples; i += line) __builtin_prefetch(row + i, 0, 2);
}

// Output rows that may come of one band, and a few that waited for it.
int rows_out(int band_rows, int from, int to) {
    return int(std::ceil(double(band_rows) * to / std::max(1, from))) + int(2 * lobes) + 2 +
           int(kernels::reduced_together);
}

}  // namespace

Size reduced_size(Size from, int long_edge_px) {
    const int longer = std::max(from.width, from.height);
    if (long_edge_px <= 0 || long_edge_px >= longer) return from;
    const auto scaled = [&](int side) { return std::max(1, int(std::lround(double(side) * long_edge_px / longer))); };
    return {scaled(from.width), scaled(from.height)};
}

std::size_t Reduction::pixels_for_one(int from, int to) {
    return std::size_t(std::min(from, int(2 * lobes * from / std::max(1, to)) + 2));
}

// Neighbours read some pixels twice: few of many.
int Reduction::columns_of_strip(int from, int to) {
    const int pixels = std::max(480, 8 * int(pixels_for_one(from, to)));
    return std::max(1, int(std::int64_t(pixels) * to / std::max(1, from)));
}

// What waits until so many rows can be made together, and what comes with the row that lets them be made.
std::size_t Reduction::rows_held(int from, int to) {
    return std::size_t(std::ceil(double(kernels::reduced_together) * from / std::max(1, to))) +
           pixels_for_one(from, to) + rows_at_once;
}

kernels::Taps Reduction::taps(int from, int to) {
    const double scale = double(from) / to;  // at least one
    kernels::Taps out;
    out.count = pixels_for_one(from, to);
    std::vector<double> exact(out.count);
    for (int i = 0; i < to; ++i) {
        const double middle = (i + 0.5) * scale - 0.5;
        const int first = int(std::ceil(middle - lobes * scale)), last = int(std::floor(middle + lobes * scale));
        out.first.push_back(std::clamp(first, 0, from - int(out.count)));
        std::fill(exact.begin(), exact.end(), 0.0);
        double sum = 0;
        for (int at = first; at <= last; ++at) {
            const double x = (at - middle) / scale;
            const double w = sinc(x) * sinc(x / lobes);
            exact[std::size_t(std::clamp(at, 0, from - 1) - out.first.back())] += w;
            sum += w;
        }
        for (const double w : exact) out.weights.push_back(float(w / sum));
    }
    return out;
}

Reduction::Reduction(Size from, Size to, const Profile& profile, int channels)
    : from_(from),
      to_(to),
      channels_(channels),
      light_(light_there(profile, channels)),
      across_(taps(from.width, to.width)),
      down_(taps(from.height, to.height)),
      held_(int(rows_held(from.height, to.height))) {
    const int wide = columns_of_strip(from.width, to.width);
    for (int x = 0; x < to.width; x += wide) {
        Strip strip{x, std::min(wide, to.width - x), across_.first[std::size_t(x)], 0};
        strip.pixels = across_.first[std::size_t(x + strip.columns - 1)] + int(across_.count) - strip.left;
        strip.light.resize(std::size_t(held_) * pitch(strip.pixels));
        strips_.push_back(std::move(strip));
    }
}

Band Reduction::add(const Band& rows, const RowIn& row_in, const RowOut& row_out) {
    std::vector<const std::uint16_t*> in;
    for (int y = rows.first; y < rows.second; ++y) in.push_back(row_in(y));
    std::vector<int> made{next_out_};  // after every few rows
    for (int begin = rows.first; begin < rows.second; begin += rows_at_once)
        made.push_back(made_before(std::min(begin + rows_at_once, rows.second), made.back()));
    std::vector<std::uint16_t*> out;
    for (int y = next_out_; y < made.back(); ++y) out.push_back(row_out(y));
    parallel_each(0, int(strips_.size()), [&](int i) {
        Strip& strip = strips_[std::size_t(i)];
        const std::size_t samples = std::size_t(strip.pixels) * std::size_t(channels_);
        const auto row_of = [&](int y) {
            return in[std::size_t(y - rows.first)] + std::ptrdiff_t(strip.left) * channels_;
        };
        int y = rows.first;
        for (std::size_t step = 0; step + 1 < made.size(); ++step) {
            for (const int end = std::min(y + rows_at_once, rows.second); y < end; ++y) {
                constexpr int ahead = 8;
                if (y + ahead < rows.second) fetch(row_of(y + ahead), samples);
                kernels::light_of(row_of(y), samples, light_->tables(), light_row(strip, y));
            }
            make(strip, {made[step], made[step + 1]},
                 std::span(out).subspan(std::size_t(made[step] - made[0]), std::size_t(made[step + 1] - made[step])));
        }
    });
    next_out_ = made.back() % to_.height;
    return {made.front(), made.back()};
}

int Reduction::made_before(int end, int made) const {
    int last = made;
    while (last < to_.height && down_.first[std::size_t(last)] + int(down_.count) <= end) ++last;
    // The last ones are made as they come.
    return last == to_.height ? last : last - (last - made) % int(kernels::reduced_together);
}

void Reduction::make(const Strip& strip, const Band& rows, std::span<std::uint16_t* const> out) const {
    constexpr auto together = int(kernels::reduced_together);
    const std::size_t samples = std::size_t(strip.columns) * std::size_t(channels_);
    static thread_local std::vector<const float*> from;
    static thread_local std::vector<float> room, light;
    for (int top = rows.first; top < rows.second; top += together) {
        const kernels::ReducedPiece piece{top, std::size_t(std::min(together, rows.second - top)), strip.first,
                                          std::size_t(strip.columns), channels_};
        from.clear();
        const int last = down_.first[std::size_t(top) + piece.rows - 1] + int(down_.count);
        for (int y = down_.first[std::size_t(top)]; y < last; ++y) from.push_back(light_row(strip, y));
        light.resize(kernels::reduced_together * samples);
        kernels::reduce(from, down_, across_, piece, room, light.data(), samples);
        for (std::size_t r = 0; r < piece.rows; ++r)
            kernels::samples_of_light(light.data() + r * samples, samples, light_->tables(),
                                      out[std::size_t(top - rows.first) + r] + std::ptrdiff_t(strip.first) * channels_);
    }
}

std::size_t Reduction::bytes(Size from, Size to, int channels) {
    const int strips = to.width / columns_of_strip(from.width, to.width) + 1;
    const std::size_t pixels = std::size_t(from.width) + std::size_t(strips) * pixels_for_one(from.width, to.width);
    return rows_held(from.height, to.height) * pixels * std::size_t(channels) * sizeof(float);
}

void Reducer::begin(const StripPlan& plan) {
    held_ = 2 * plan.band_rows;
    rows_.resize(std::size_t(held_) * std::size_t(region_.width) * std::size_t(channels_));
    StripPlan handed_on = plan;
    handed_on.band_rows = rows_out(plan.band_rows, region_.height, to_.height);
    sink_.begin(handed_on);
}

std::uint16_t* Reducer::row(int y) {
    return rows_.data() + std::size_t((y - region_.top) % held_) * std::size_t(region_.width) * std::size_t(channels_);
}

Status Reducer::finish(const Band& band) {
    const Band made = reduction_.add(
        {band.first - region_.top, band.second - region_.top}, [&](int y) { return row(y + region_.top); },
        [&](int y) { return sink_.row(y); });
    return made.first == made.second ? Status(Done{}) : sink_.finish(made);
}

std::size_t Reducer::bytes(const Rect& region, Size to, int channels, int band_rows) {
    const std::size_t wide = std::size_t(region.width) * std::size_t(channels) * sizeof(std::uint16_t);
    const std::size_t small = std::size_t(to.width) * std::size_t(channels) * sizeof(std::uint16_t);
    return std::size_t(2 * band_rows) * wide + Reduction::bytes(region.size(), to, channels) +
           std::size_t(2 * rows_out(band_rows, region.height, to.height)) * small;
}

Raster16 Reduction::all(const Raster16& picture) {
    Raster16 out(to_, channels_, Unset());
    add(
        {0, picture.height()}, [&](int y) { return picture.row(y); }, [&](int y) { return out.row(y); });
    return out;
}

Raster16 reduced(const Raster16& picture, Size to, const Profile& profile) {
    if (picture.size() == to) return picture.clone();
    return Reduction(picture.size(), to, profile, picture.channels()).all(picture);
}

}  // namespace bp
