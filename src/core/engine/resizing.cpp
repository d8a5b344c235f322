#include "engine/resizing.h"

#include <algorithm>
#include <cmath>
#include <cstring>
#include <numbers>

#include "base/parallel.h"
#include "kernels/weigh.h"

namespace bp {
namespace {

constexpr double lobes = 3;

double sinc(double x) {
    const double t = std::numbers::pi * x;
    return std::abs(t) < 1e-9 ? 1 : std::sin(t) / t;
}

// Output rows that may come of one band, and a few that waited for it.
int rows_out(int band_rows, int from, int to) {
    return int(std::ceil(double(band_rows) * to / std::max(1, from))) + int(2 * lobes) + 2;
}

// The three channels of a pixel at once: each is summed up in the same order as one alone.
void weigh_pixels(const float* from, std::span<const float> weights, float* out) {
    typedef float Four __attribute__((vector_size(4 * sizeof(float))));
    Four sum{};
    for (const float weight : weights) {
        Four pixel;
        std::memcpy(&pixel, from, sizeof pixel);
        sum += weight * pixel;
        from += 3;
    }
    for (int c = 0; c < 3; ++c) out[c] = sum[c];
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

Reduction::Weights Reduction::weights(int from, int to) {
    const double scale = double(from) / to;  // at least one
    Weights out;
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
        for (const double w : exact) out.of.push_back(float(w / sum));
    }
    return out;
}

Reduction::Reduction(Size from, Size to, const Profile& profile, int channels)
    : from_(from),
      to_(to),
      channels_(channels),
      light_(light_there(profile, channels)),
      across_(weights(from.width, to.width)),
      down_(weights(from.height, to.height)),
      held_(int(down_.count) + rows_at_once),
      rows_(std::size_t(held_) * (row_samples() + 1)) {}  // three channels are read by fours

Band Reduction::add(const Band& rows, const RowIn& row_in, const RowOut& row_out) {
    const int first = next_out_;
    for (int begin = rows.first; begin < rows.second; begin += rows_at_once) {
        const int end = std::min(begin + rows_at_once, rows.second);
        parallel_for(begin, end,
                     [&](int y) { kernels::light_of(row_in(y), row_samples(), light_->tables(), light_row(y)); });
        int made = next_out_;
        while (made < to_.height && down_.first[std::size_t(made)] + int(down_.count) <= end) ++made;
        parallel_for(next_out_, made, [&](int y) { make_row(y, row_out(y)); });
        next_out_ = made;
    }
    return {first, next_out_};
}

void Reduction::make_row(int y, std::uint16_t* out) {
    static thread_local std::vector<const float*> from;
    static thread_local std::vector<float> wide, small;
    from.clear();
    for (int k = 0; k < int(down_.count); ++k) from.push_back(light_row(down_.first[std::size_t(y)] + k));
    wide.resize(row_samples() + 1);
    kernels::weigh(from, down_.at(y), row_samples(), wide.data());
    small.resize(std::size_t(to_.width) * std::size_t(channels_));
    narrow(wide.data(), small.data());
    kernels::samples_of_light(small.data(), small.size(), light_->tables(), out);
}

void Reduction::narrow(const float* light, float* out) const {
    for (int x = 0; x < to_.width; ++x) {
        const float* from = light + std::ptrdiff_t(across_.first[std::size_t(x)]) * channels_;
        if (channels_ == 3) {
            weigh_pixels(from, across_.at(x), out);
            out += 3;
            continue;
        }
        float sum = 0;
        for (const float weight : across_.at(x)) sum += weight * *from++;
        *out++ = sum;
    }
}

std::size_t Reduction::bytes(Size from, Size to, int channels) {
    const std::size_t row = std::size_t(from.width) * std::size_t(channels) * sizeof(float);
    return (pixels_for_one(from.height, to.height) + rows_at_once) * row;
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

Raster16 reduced(const Raster16& picture, Size to, const Profile& profile) {
    if (picture.size() == to) return picture.clone();
    Raster16 out(to, picture.channels());
    Reduction reduction(picture.size(), to, profile, picture.channels());
    reduction.add(
        {0, picture.height()}, [&](int y) { return picture.row(y); }, [&](int y) { return out.row(y); });
    return out;
}

}  // namespace bp
