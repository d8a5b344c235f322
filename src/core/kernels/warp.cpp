#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/warp.cpp"
#include "kernels/warp.h"

#include <hwy/foreach_target.h>

#include <cmath>
#include <type_traits>
#include <vector>

#include "kernels/lanczos.h"
#include "kernels/lanes.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

constexpr int taps = 6;
constexpr int before = 2;  // samples before the one at a place
// A place that changes by less than this over a piece of row counts as even: no sample shows it.
constexpr double even_enough = 1e-5;

using Wide = hn::ScalableTag<float>;
constexpr std::size_t most_lanes = hn::MaxLanes(Wide());

HWY_INLINE hn::Vec<Wide> load(Wide d, const float* from) {
    return hn::LoadU(d, from);
}
template <class T>
HWY_INLINE hn::Vec<Wide> load(Wide d, const T* from) {
    const hn::Rebind<T, Wide> narrow;
    const hn::RebindToSigned<Wide> whole;
    return hn::ConvertTo(d, hn::PromoteTo(whole, hn::LoadU(narrow, from)));
}

HWY_INLINE void store(Wide d, hn::Vec<Wide> v, float* to) {
    hn::StoreU(v, d, to);
}
HWY_INLINE void store(Wide d, hn::Vec<Wide> v, std::uint16_t* to) {
    const hn::Rebind<std::uint16_t, Wide> narrow;
    const hn::RebindToSigned<Wide> whole;
    const auto rounded = hn::Min(hn::Max(hn::Add(v, hn::Set(d, 0.5F)), hn::Zero(d)), hn::Set(d, 65535.0F));
    hn::StoreU(hn::DemoteTo(narrow, hn::ConvertTo(whole, rounded)), narrow, to);
}

// How the place among the six samples goes on along a piece of row: part + change * n at its pixel n.
struct Slide {
    double part = 0;
    double change = 0;
    int first = 0;  // n of the first pixel that is made
    bool even = false;
};

// Which pixel each lane of interleaved samples belongs to, over as many vectors as there are channels.
template <int channels>
const std::int32_t* lane_pixels() {
    struct Table {
        HWY_ALIGN std::int32_t at[channels * most_lanes];
        Table() {
            for (std::size_t i = 0; i < channels * most_lanes; ++i) at[i] = std::int32_t(i / channels);
        }
    };
    static const Table table;
    return table.at;
}

// Six rows weighed together over some pixels of interleaved samples. An 8-bit v counts as 257 v.
template <int channels, class T, class To>
class Weigher {
  public:
    explicit Weigher(const Slide& slide) : slide_(slide) {
        if (slide.even) even_ = lanczos_weights(float(slide.part));
    }

    // rows[j] and out point at the first pixel.
    void run(const T* const* rows, int pixels, To* out) const {
        const int group = int(hn::Lanes(d_));
        int n = 0;
        for (; n + group <= pixels; n += group) weigh(rows, n, slide_.first + n, out + n * channels);
        const int rest = pixels - n;
        if (rest <= 0 || rest >= group) return;
        // What does not fill the vectors is made in copies: beyond the pixels there may be nothing to read or write.
        const auto samples = std::size_t(rest) * channels;
        T copies[taps][3 * most_lanes] = {};
        const T* pointers[taps];
        for (int j = 0; j < taps; ++j) {
            std::copy_n(rows[j] + n * channels, samples, copies[j]);
            pointers[j] = copies[j];
        }
        To made[3 * most_lanes];
        weigh(pointers, 0, slide_.first + n, made);
        std::copy_n(made, samples, out + n * channels);
    }

  private:
    HWY_INLINE void weigh(const T* const* rows, int at, int n, To* out) const {
        const int lanes = int(hn::Lanes(d_));
        if (slide_.even) {
            for (int v = 0; v < channels; ++v) {
                auto sum = hn::Zero(d_);
                for (int j = 0; j < taps; ++j)
                    sum = hn::MulAdd(hn::Set(d_, even_[std::size_t(j)]), load(d_, rows[j] + at * channels + v * lanes),
                                     sum);
                store(d_, full(sum), out + v * lanes);
            }
            return;
        }
        const auto places =
            hn::MulAdd(hn::Iota(d_, float(n)), hn::Set(d_, float(slide_.change)), hn::Set(d_, float(slide_.part)));
        hn::Vec<Wide> sums[channels];
        for (auto& sum : sums) sum = hn::Zero(d_);
        const LanczosCoefficients& c = coefficients_;
        const auto t = hn::Sub(places, hn::Set(d_, 0.5F));
        const auto s = hn::Mul(t, t);
        const auto add = [&](std::size_t j, hn::Vec<Wide> weight) HWY_ATTR {
            const T* row = rows[j] + at * channels;
            for (int v = 0; v < channels; ++v) {
                const auto own =
                    channels == 1 ? weight : hn::TableLookupLanes(weight, hn::SetTableIndices(d_, index_ + v * lanes));
                sums[v] = hn::MulAdd(own, load(d_, row + v * lanes), sums[v]);
            }
        };
        for (std::size_t j = 0; j < taps / 2; ++j) {
            const auto of = [&](const std::array<float, 3>& by) HWY_ATTR {
                return hn::MulAdd(hn::MulAdd(hn::Set(d_, by[2]), s, hn::Set(d_, by[1])), s, hn::Set(d_, by[0]));
            };
            const auto even = of(c.even[j]);
            const auto odd = of(c.odd[j]);
            add(j, hn::MulAdd(t, odd, even));
            add(taps - 1 - j, hn::NegMulAdd(t, odd, even));
        }
        for (int v = 0; v < channels; ++v) store(d_, full(sums[v]), out + v * lanes);
    }
    HWY_INLINE hn::Vec<Wide> full(hn::Vec<Wide> v) const {
        if constexpr (std::is_same_v<T, std::uint8_t>)
            return hn::Mul(v, hn::Set(d_, 257.0F));
        else
            return v;
    }

    Wide d_;
    Slide slide_;
    const LanczosCoefficients& coefficients_ = lanczos_coefficients();
    const std::int32_t* index_ = lane_pixels<channels>();
    std::array<float, taps> even_{};
};

// The first n after `from` at which floor(start + change * n) is another one, or `end`.
int run_end(double start, double change, int from, int end) {
    const double floor = std::floor(start + change * from);
    if (std::floor(start + change * (end - 1)) == floor) return end;
    int low = from;
    int high = end - 1;
    while (high - low > 1) {
        const int middle = (low + high) / 2;
        (std::floor(start + change * middle) == floor ? low : high) = middle;
    }
    return high;
}

// Calls body(first n, end n, whole part, slide) for the runs of n in [from, to) on which the whole part of
// start + change * n stays the same; an even piece, of `length` n in all, is one run.
template <class Body>
void each_run(double start, double change, int length, int from, int to, Body body) {
    if (std::abs(change) * length < even_enough) {
        const double middle = start + change * length / 2;
        const double floor = std::floor(middle);
        body(from, to, int(floor), Slide{middle - floor, 0, from, true});
        return;
    }
    for (int n = from; n < to;) {
        const int end = run_end(start, change, n, to);
        const double floor = std::floor(start + change * n);
        body(n, end, int(floor), Slide{start - floor, change, n, false});
        n = end;
    }
}

template <int channels, class T>
class RowWarp {
  public:
    RowWarp(const T* const* rows, Corner held, const RowPlaces& places)
        : rows_(rows), held_(held), places_(places), size_(places.map().source()) {}

    // Down first, into a row of source columns; then across.
    void in_two_passes(Span span, std::uint16_t* out) {
        const Reach reach = places_.columns(span);
        first_column_ = reach.first;
        static thread_local std::vector<float> memory;
        memory.resize(std::size_t(reach.last - reach.first + 1) * channels);
        between_ = memory.data();
        const int step = places_.map().step();
        for (int k = places_.first_knot(); k < places_.last_knot(); ++k) down(k, reach);
        for (int k = places_.first_knot(); k < places_.last_knot(); ++k) {
            const Point& a = places_.knot(k);
            const double drift = (places_.knot(k + 1).x - a.x) / step - 1;
            const int from = std::max(span.begin - k * step, 0);
            const int to = std::min(span.end - k * step, step);
            if (from >= to) continue;
            each_run(a.x - k * step, drift, step, from, to, [&](int n, int end, int whole, const Slide& slide) {
                const int x = k * step + n;
                const float* pointers[taps];
                for (int j = 0; j < taps; ++j)
                    pointers[j] = between_ + std::ptrdiff_t(x + whole - before + j - first_column_) * channels;
                Weigher<channels, float, std::uint16_t>(slide).run(pointers, end - n,
                                                                   out + std::ptrdiff_t(x - span.begin) * channels);
            });
        }
    }

    // All samples around a place at once.
    void at_once(Span span, std::uint16_t* out) {
        for (int x = span.begin; x < span.end; ++x, out += channels) {
            const Point p = places_.at(x);
            const int u = int(std::floor(p.x));
            const int v = int(std::floor(p.y));
            const std::array<float, taps> across = lanczos_weights(float(p.x - u));
            const std::array<float, taps> down = lanczos_weights(float(p.y - v));
            const bool inside = u >= before && u - before + taps <= size_.width;
            float sums[taps * channels] = {};
            for (int j = 0; j < taps; ++j) {
                const T* row = row_at(v - before + j);
                T copy[taps * channels];
                const T* samples = row + std::ptrdiff_t(u - before - held_.column) * channels;
                if (!inside) {
                    for (int i = 0; i < taps; ++i)
                        std::copy_n(row + std::ptrdiff_t(column_in(u - before + i) - held_.column) * channels, channels,
                                    copy + i * channels);
                    samples = copy;
                }
                const float weight = down[std::size_t(j)];
                for (int i = 0; i < taps * channels; ++i) sums[i] += weight * float(samples[i]);
            }
            for (int c = 0; c < channels; ++c) {
                float sum = 0;
                for (int i = 0; i < taps; ++i) sum += across[std::size_t(i)] * sums[i * channels + c];
                if constexpr (std::is_same_v<T, std::uint8_t>) sum *= 257.0F;
                out[c] = std::uint16_t(std::min(std::max(sum + 0.5F, 0.0F), 65535.0F));
            }
        }
    }

  private:
    int column_in(int u) const { return std::clamp(u, 0, size_.width - 1); }
    const T* row_at(int v) const { return rows_[std::clamp(v, 0, size_.height - 1) - held_.row]; }

    // The source columns that lie between two knots, as far as they are needed.
    void down(int k, const Reach& reach) {
        const Point& a = places_.knot(k);
        const Point& b = places_.knot(k + 1);
        const int begin = int(std::ceil(a.x));
        const int end = int(std::ceil(b.x));
        // The outermost pieces go on to where columns are still read.
        const int from = k == places_.first_knot() ? reach.first : std::max(begin, reach.first);
        const int to = k + 1 == places_.last_knot() ? reach.last + 1 : std::min(end, reach.last + 1);
        if (from >= to) return;
        const double slope = (b.y - a.y) / (b.x - a.x);
        const double start = a.y + (begin - a.x) * slope;
        each_run(start, slope, places_.map().step(), from - begin, to - begin,
                 [&](int n, int run_end, int whole, const Slide& slide) {
                     for (int at = n; at < run_end;) {
                         const int u = begin + at;
                         const bool beside = u < 0 || u >= size_.width;
                         const int until = beside ? at + 1 : std::min(run_end, size_.width - begin);
                         const T* pointers[taps];
                         for (int j = 0; j < taps; ++j)
                             pointers[j] =
                                 row_at(whole - before + j) + std::ptrdiff_t(column_in(u) - held_.column) * channels;
                         Slide here = slide;
                         here.first = at;
                         Weigher<channels, T, float>(here).run(pointers, until - at,
                                                               between_ + std::ptrdiff_t(u - first_column_) * channels);
                         at = until;
                     }
                 });
    }

    const T* const* rows_;
    Corner held_;
    const RowPlaces& places_;
    Size size_;
    int first_column_ = 0;
    float* between_ = nullptr;
};

template <int channels, class T>
void warp(const T* const* rows, Corner held, const RowPlaces& places, Span span, std::uint16_t* out) {
    RowWarp<channels, T> warp(rows, held, places);
    if (places.map().gentle())
        warp.in_two_passes(span, out);
    else
        warp.at_once(span, out);
}

void warp_8(const std::uint8_t* const* rows, Corner held, int channels, const RowPlaces& places, Span span,
            std::uint16_t* out) {
    channels == 3 ? warp<3>(rows, held, places, span, out) : warp<1>(rows, held, places, span, out);
}
void warp_16(const std::uint16_t* const* rows, Corner held, int channels, const RowPlaces& places, Span span,
             std::uint16_t* out) {
    channels == 3 ? warp<3>(rows, held, places, span, out) : warp<1>(rows, held, places, span, out);
}

}  // namespace
}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace bp::kernels {

HWY_EXPORT(warp_8);
HWY_EXPORT(warp_16);

void warp_row(const std::uint8_t* const* rows, Corner held, int channels, const RowPlaces& places, Span span,
              std::uint16_t* out) {
    if (!span.empty()) HWY_DYNAMIC_DISPATCH(warp_8)(rows, held, channels, places, span, out);
}
void warp_row(const std::uint16_t* const* rows, Corner held, int channels, const RowPlaces& places, Span span,
              std::uint16_t* out) {
    if (!span.empty()) HWY_DYNAMIC_DISPATCH(warp_16)(rows, held, channels, places, span, out);
}

}  // namespace bp::kernels
#endif
