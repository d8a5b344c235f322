// Resampling of a few pixels at a time. Included once for every target that Highway compiles for.
#if defined(BP_KERNELS_WARP_LANES_H) == defined(HWY_TARGET_TOGGLE)
#ifdef BP_KERNELS_WARP_LANES_H
#undef BP_KERNELS_WARP_LANES_H
#else
#define BP_KERNELS_WARP_LANES_H
#endif

#include <array>
#include <cstddef>
#include <cstdint>

#include "kernels/lanczos.h"
#include "kernels/lanes.h"
#include "kernels/warp.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {

constexpr std::size_t taps = 6;
constexpr int before = 2;  // samples before the one at a place

using Wide = hn::ScalableTag<float>;
constexpr std::size_t most_lanes = hn::MaxLanes(Wide());
// Pixels that are made together.
HWY_INLINE int group_pixels() {
    return int(hn::Lanes(Wide()));
}

template <class T>
HWY_INLINE hn::Vec<Wide> load(Wide d, const T* from) {
    const hn::Rebind<T, Wide> narrow;
    const hn::RebindToSigned<Wide> whole;
    return hn::ConvertTo(d, hn::PromoteTo(whole, hn::LoadU(narrow, from)));
}

// Rounds to whole numbers and cuts off what lies outside of 16 bits. Beside 2^23 a float has no room for fractions, and
// its bits count on; below they run backwards, which ends at zero all the same. Takes values within 2^22 of zero.
HWY_INLINE void store_rounded(hn::Vec<Wide> v, std::uint16_t* to) {
    const Wide d;
    const hn::Rebind<std::uint16_t, Wide> narrow;
    const hn::RebindToSigned<Wide> whole;
#if HWY_TARGET == HWY_AVX3 || HWY_TARGET == HWY_AVX3_DL
    const auto rounded = hn::Vec<decltype(whole)>{_mm512_cvtps_epi32(v.raw)};
#else
    const auto bits = hn::BitCast(whole, hn::Add(v, hn::Set(d, 8388608.0F)));
    const auto rounded = hn::Sub(bits, hn::Set(whole, 0x4B000000));
#endif
    hn::StoreU(hn::DemoteTo(narrow, rounded), narrow, to);
}

// The same for two vectors that follow each other.
HWY_INLINE void store_rounded(hn::Vec<Wide> first, hn::Vec<Wide> second, std::uint16_t* to) {
#if HWY_TARGET == HWY_AVX3 || HWY_TARGET == HWY_AVX3_DL
    // Packed by lanes of 128 bits; then these are put in order.
    const __m512i packed = _mm512_packus_epi32(_mm512_cvtps_epi32(first.raw), _mm512_cvtps_epi32(second.raw));
    const __m512i order = _mm512_setr_epi64(0, 2, 4, 6, 1, 3, 5, 7);
    _mm512_storeu_si512(to, _mm512_permutexvar_epi64(order, packed));
#else
    store_rounded(first, to);
    store_rounded(second, to + hn::Lanes(Wide()));
#endif
}

// How the place among the six samples goes on along a piece of row: part + change * n at its pixel n.
struct Slide {
    double part = 0;
    double change = 0;  // 0 when it is the same everywhere, as far as anybody can see
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

// The weights of a group of pixels, for every sample of it.
template <int channels>
class GroupWeights {
  public:
    // Of pixels n, n + 1, ..., times `unit`.
    HWY_INLINE void set(const Slide& slide, int n, float unit) {
        set(hn::MulAdd(hn::Iota(d_, float(n)), hn::Set(d_, float(slide.change)), hn::Set(d_, float(slide.part))), unit);
    }
    // Of pixels whose places among their samples stand at `parts`, a whole group of them.
    HWY_INLINE void set(const float* parts, float unit) { set(hn::LoadU(d_, parts), unit); }
    HWY_INLINE void set(hn::Vec<Wide> places, float unit) {
        const LanczosCoefficients& c = coefficients_;
        const auto t = hn::Sub(places, hn::Set(d_, 0.5F));
        const auto s = hn::Mul(t, t);
        for (std::size_t j = 0; j < taps / 2; ++j) {
            const auto of = [&](const std::array<float, 3>& by) HWY_ATTR {
                return hn::MulAdd(hn::MulAdd(hn::Set(d_, by[2]), s, hn::Set(d_, by[1])), s, hn::Set(d_, by[0]));
            };
            const auto even = of(c.even[j]);
            const auto odd = of(c.odd[j]);
            spread(j, hn::Mul(hn::MulAdd(t, odd, even), hn::Set(d_, unit)));
            spread(taps - 1 - j, hn::Mul(hn::NegMulAdd(t, odd, even), hn::Set(d_, unit)));
        }
    }
    HWY_INLINE void set_alike(const std::array<float, taps>& weights, float unit) {
        for (std::size_t j = 0; j < taps; ++j)
            for (int v = 0; v < channels; ++v) hn::Store(hn::Set(d_, unit * weights[j]), d_, at_[j][v]);
    }
    HWY_INLINE hn::Vec<Wide> of(std::size_t tap, int v) const { return hn::Load(d_, at_[tap][v]); }

  private:
    HWY_INLINE void spread(std::size_t j, hn::Vec<Wide> weight) {
        for (int v = 0; v < channels; ++v)
            hn::Store(channels == 1 ? weight
                                    : hn::TableLookupLanes(
                                          weight, hn::SetTableIndices(d_, index_ + std::size_t(v) * hn::Lanes(d_))),
                      d_, at_[j][v]);
    }

    Wide d_;
    const LanczosCoefficients& coefficients_ = lanczos_coefficients();
    const std::int32_t* index_ = lane_pixels<channels>();
    HWY_ALIGN float at_[taps][channels][most_lanes];
};

// Makes `rows` rows that lie alike between those of the source: row r, at out + r * stride, is weighed from from[r] to
// from[r + 5]. One group of pixels.
// Not inlined: pointers kept over many calls would take up what the sums need.
template <int channels, int rows, class T>
HWY_NOINLINE void group_down(const T* const* from, std::ptrdiff_t at, const GroupWeights<channels>& weights, float* out,
                             std::size_t stride) {
    const Wide d;
    const std::size_t lanes = hn::Lanes(d);
    for (int v = 0; v < channels; ++v) {
        hn::Vec<Wide> source[rows + taps - 1];
#pragma GCC unroll 16
        for (std::size_t k = 0; k < rows + taps - 1; ++k)
            source[k] = load(d, from[k] + at + std::ptrdiff_t(std::size_t(v) * lanes));
        hn::Vec<Wide> weight[taps];
#pragma GCC unroll 8
        for (std::size_t j = 0; j < taps; ++j) weight[j] = weights.of(j, v);
#pragma GCC unroll 8
        for (std::size_t r = 0; r < rows; ++r) {
            auto sum = hn::Mul(weight[0], source[r]);
#pragma GCC unroll 8
            for (std::size_t j = 1; j < taps; ++j) sum = hn::MulAdd(weight[j], source[r + j], sum);
            hn::StoreU(sum, d, out + r * stride + std::size_t(v) * lanes);
        }
    }
}

// The lanes from `n` on of two vectors that follow each other in memory, the first of which begins at `from`: loads
// that cross the lines of a cache cost two, so that some come from the registers where one instruction does it.
template <int n>
HWY_INLINE hn::Vec<Wide> lanes_from([[maybe_unused]] const float* from, [[maybe_unused]] hn::Vec<Wide> first,
                                    [[maybe_unused]] hn::Vec<Wide> second) {
#if HWY_TARGET == HWY_AVX3 || HWY_TARGET == HWY_AVX3_DL
    if constexpr (n % 2 != 0)
        return hn::Vec<Wide>{_mm512_castsi512_ps(
            _mm512_alignr_epi32(_mm512_castps_si512(second.raw), _mm512_castps_si512(first.raw), n))};
#endif
    return hn::LoadU(Wide(), from + n);
}

// The six samples from each lane of `here` on, weighed; `here` and `next` are the vectors at `at`.
template <int channels>
HWY_INLINE hn::Vec<Wide> weighed(const hn::Vec<Wide>* weight, const float* at, hn::Vec<Wide> here, hn::Vec<Wide> next) {
    auto sum = hn::Mul(weight[0], here);
    sum = hn::MulAdd(weight[1], lanes_from<channels>(at, here, next), sum);
    sum = hn::MulAdd(weight[2], lanes_from<2 * channels>(at, here, next), sum);
    sum = hn::MulAdd(weight[3], lanes_from<3 * channels>(at, here, next), sum);
    sum = hn::MulAdd(weight[4], lanes_from<4 * channels>(at, here, next), sum);
    return hn::MulAdd(weight[5], lanes_from<5 * channels>(at, here, next), sum);
}

// Pixels along a row whose places are all the same among their samples. `from` points at the first sample of the first
// pixel; whole groups are made, as many as `pixels` need.
template <int channels>
HWY_INLINE void run_across(const float* from, const std::array<float, taps>& weights, int pixels, std::uint16_t* out) {
    const Wide d;
    const std::size_t lanes = hn::Lanes(d);
    hn::Vec<Wide> weight[taps];
#pragma GCC unroll 8
    for (std::size_t j = 0; j < taps; ++j) weight[j] = hn::Set(d, weights[j]);
    const auto samples = std::size_t(pixels) * channels;
    auto next = hn::LoadU(d, from);
    std::size_t i = 0;
    for (; i + lanes < samples; i += 2 * lanes) {
        const auto middle = hn::LoadU(d, from + i + lanes);
        const auto first = weighed<channels>(weight, from + i, next, middle);
        next = hn::LoadU(d, from + i + 2 * lanes);
        store_rounded(first, weighed<channels>(weight, from + i + lanes, middle, next), out + i);
    }
    if (i < samples) store_rounded(weighed<channels>(weight, from + i, next, hn::LoadU(d, from + i + lanes)), out + i);
}

// One group of pixels along a row.
template <int channels>
HWY_INLINE void group_across(const float* from, const GroupWeights<channels>& weights, std::uint16_t* out) {
    const Wide d;
    const std::size_t lanes = hn::Lanes(d);
    for (int v = 0; v < channels; ++v) {
        const std::size_t at = std::size_t(v) * lanes;
        auto sum = hn::Mul(weights.of(0, v), hn::LoadU(d, from + at));
        for (std::size_t j = 1; j < taps; ++j)
            sum = hn::MulAdd(weights.of(j, v), hn::LoadU(d, from + at + j * channels), sum);
        store_rounded(sum, out + at);
    }
}

}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#endif
