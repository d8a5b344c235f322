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

class IntoRaster final : public RowSink {
  public:
    explicit IntoRaster(Raster16& out) : out_(out) {}
    std::uint16_t* row(int y) override { return out_.row(y); }

  private:
    Raster16& out_;
};

// The three channels of a pixel at once: each is summed up in the same order as one alone.
void weigh_pixels(const float* from, const std::vector<float>& weights, float* out) {
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

std::vector<Reducer::Weights> Reducer::weights(int from, int to) {
    const double scale = double(from) / to;  // at least one
    std::vector<Weights> out(std::size_t(to), Weights{});
    for (int i = 0; i < to; ++i) {
        const double middle = (i + 0.5) * scale - 0.5;
        const int first = int(std::ceil(middle - lobes * scale)), last = int(std::floor(middle + lobes * scale));
        std::vector<double> exact(std::size_t(std::min(last, from - 1) - std::max(first, 0) + 1), 0.0);
        double sum = 0;
        for (int at = first; at <= last; ++at) {
            const double x = (at - middle) / scale;
            const double w = sinc(x) * sinc(x / lobes);
            exact[std::size_t(std::clamp(at, 0, from - 1) - std::max(first, 0))] += w;
            sum += w;
        }
        Weights& made = out[std::size_t(i)];
        made.first = std::max(first, 0);
        for (const double w : exact) made.of.push_back(float(w / sum));
    }
    return out;
}

Reducer::Reducer(const Rect& region, Size to, const Profile& profile, int channels, RowSink& sink)
    : region_(region),
      to_(to),
      channels_(channels),
      sink_(sink),
      light_(light_there(profile, channels)),
      across_(weights(region.width, to.width)),
      down_(weights(region.height, to.height)),
      next_in_(region.top) {}

void Reducer::begin(const StripPlan& plan) {
    held_ = 2 * plan.band_rows;
    rows_.resize(std::size_t(held_) * std::size_t(region_.width) * std::size_t(channels_));
    std::size_t most = 0;
    for (const Weights& w : down_) most = std::max(most, w.of.size());
    held_narrow_ = int(most) + plan.band_rows;
    narrow_.resize(std::size_t(held_narrow_) * std::size_t(to_.width) * std::size_t(channels_));
    StripPlan handed_on = plan;
    handed_on.band_rows = rows_out(plan.band_rows, region_.height, to_.height);
    sink_.begin(handed_on);
}

std::uint16_t* Reducer::row(int y) {
    return rows_.data() + std::size_t((y - region_.top) % held_) * std::size_t(region_.width) * std::size_t(channels_);
}

Status Reducer::finish(const Band& band) {
    const std::size_t samples = std::size_t(to_.width) * std::size_t(channels_);
    const auto narrow = [&](int y) { return narrow_.data() + std::size_t(y % held_narrow_) * samples; };
    parallel_for(band.first, band.second, [&](int y) {
        static thread_local std::vector<float> light;
        const std::size_t samples_in = std::size_t(region_.width) * std::size_t(channels_);
        light.resize(samples_in + 1);  // three channels are read by fours
        kernels::light_of(row(y), samples_in, light_->tables(), light.data());
        float* out = narrow(y - region_.top);
        for (int x = 0; x < to_.width; ++x) {
            const Weights& w = across_[std::size_t(x)];
            if (channels_ == 3) {
                weigh_pixels(light.data() + std::ptrdiff_t(w.first) * 3, w.of, out);
                out += 3;
                continue;
            }
            for (int c = 0; c < channels_; ++c) {
                const float* from = light.data() + std::ptrdiff_t(w.first) * channels_ + c;
                float sum = 0;
                for (const float weight : w.of) {
                    sum += weight * *from;
                    from += channels_;
                }
                *out++ = sum;
            }
        }
    });
    next_in_ = band.second;
    const int there = next_in_ - region_.top;
    int end = next_out_;
    while (end < to_.height) {
        const Weights& w = down_[std::size_t(end)];
        if (w.first + int(w.of.size()) > there) break;
        ++end;
    }
    parallel_for(next_out_, end, [&](int y) {
        const Weights& w = down_[std::size_t(y)];
        std::vector<const float*> from;
        for (std::size_t k = 0; k < w.of.size(); ++k) from.push_back(narrow(w.first + int(k)));
        static thread_local std::vector<float> light;
        light.resize(samples);
        kernels::weigh(from, w.of, samples, light.data());
        kernels::samples_of_light(light.data(), samples, light_->tables(), sink_.row(y));
    });
    if (end == next_out_) return Done{};
    const Band made{next_out_, end};
    next_out_ = end;
    return sink_.finish(made);
}

std::size_t Reducer::bytes(const Rect& region, Size to, int channels, int band_rows) {
    const std::size_t wide = std::size_t(region.width) * std::size_t(channels) * sizeof(std::uint16_t);
    const std::size_t small = std::size_t(to.width) * std::size_t(channels);
    const int support = int(std::ceil(2 * lobes * region.height / std::max(1, to.height))) + 2;
    return std::size_t(2 * band_rows) * wide + std::size_t(support + band_rows) * small * sizeof(float) +
           std::size_t(2 * rows_out(band_rows, region.height, to.height)) * small * sizeof(std::uint16_t);
}

Result<Raster16> reduced(const Raster16& picture, Size to, const Profile& profile) {
    if (picture.size() == to) return picture.clone();
    Raster16 out(to, picture.channels());
    IntoRaster sink(out);
    Reducer reducer(whole(picture.size()), to, profile, picture.channels(), sink);
    StripPlan plan;
    plan.band_rows = StripPlan::highest_band;
    reducer.begin(plan);
    for (int y = 0; y < picture.height(); y += plan.band_rows) {
        const Band band{y, std::min(picture.height(), y + plan.band_rows)};
        for (int row = band.first; row < band.second; ++row)
            std::copy_n(picture.row(row), picture.row_samples(), reducer.row(row));
        if (const Status done = reducer.finish(band); !done.ok()) return done.failure();
    }
    return out;
}

}  // namespace bp
