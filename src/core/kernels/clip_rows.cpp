#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/clip_rows.cpp"
#include "kernels/clip_rows.h"

#include <hwy/foreach_target.h>

#include <algorithm>
#include <array>

#include "kernels/lanes.h"

#ifndef BP_KERNELS_CLIP_ROWS_ONCE
#define BP_KERNELS_CLIP_ROWS_ONCE
namespace bp::kernels {
namespace {

// What a sample of each channel adds.
struct Shares {
    float red, green, blue;
};
constexpr double red_of_light = 0.2126, green_of_light = 0.7152, blue_of_light = 0.0722;
constexpr Shares shares(double full, double red, double green, double blue) {
    return {float(full / 65535 * red), float(full / 65535 * green), float(full / 65535 * blue)};
}
constexpr Shares brightness_shares = shares(219, red_of_light, green_of_light, blue_of_light);
// Of two rows, hence halved.
constexpr double to_blue = 0.5 / (1 - blue_of_light) / 2, to_red = 0.5 / (1 - red_of_light) / 2;
constexpr Shares blue_shares =
    shares(224, -red_of_light* to_blue, -green_of_light* to_blue, (1 - blue_of_light) * to_blue);
constexpr Shares red_shares = shares(224, (1 - red_of_light) * to_red, -green_of_light* to_red, -blue_of_light* to_red);

// Sixteenths that are added before what is beyond a whole is cut off.
constexpr std::array<std::array<float, 4>, 4> order{{{0, 8, 2, 10}, {12, 4, 14, 6}, {3, 11, 1, 9}, {15, 7, 13, 5}}};
std::array<float, 4> offsets(float from, int y) {
    std::array<float, 4> out = order[std::size_t(y & 3)];
    for (float& v : out) v = from + (v + 0.5F) / 16;
    return out;
}

float sum_of(const Shares& of, const std::uint16_t* pixel) {
    return of.red * float(pixel[0]) + of.green * float(pixel[1]) + of.blue * float(pixel[2]);
}

}  // namespace
}  // namespace bp::kernels
#endif

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

#if HWY_TARGET != HWY_SCALAR
// A half of each vector of samples at a time.
using Halves = hn::ScalableTag<std::uint16_t>;
using Floats = hn::Repartition<float, Halves>;

template <class V>
HWY_INLINE auto wide(V half) {
    const Floats f;
    const hn::Repartition<std::int32_t, Halves> i;
    return hn::ConvertTo(f, hn::PromoteTo(i, half));
}

template <class V>
HWY_INLINE auto weighed(const Shares& of, V r, V g, V b) {
    const Floats f;
    return hn::Add(hn::Add(hn::Mul(hn::Set(f, of.red), r), hn::Mul(hn::Set(f, of.green), g)),
                   hn::Mul(hn::Set(f, of.blue), b));
}

// Eight or more pixels of a row as two vectors for each channel.
struct Pixels {
    hn::Vec<Floats> r[2], g[2], b[2];

    explicit HWY_INLINE Pixels(const std::uint16_t* rgb) {
        const Halves d;
        const hn::Half<Halves> half;
        hn::Vec<Halves> red, green, blue;
        hn::LoadInterleaved3(d, rgb, red, green, blue);
        r[0] = wide(hn::LowerHalf(half, red));
        r[1] = wide(hn::UpperHalf(half, red));
        g[0] = wide(hn::LowerHalf(half, green));
        g[1] = wide(hn::UpperHalf(half, green));
        b[0] = wide(hn::LowerHalf(half, blue));
        b[1] = wide(hn::UpperHalf(half, blue));
    }
};
#endif

void brightness_row(const std::uint16_t* rgb, std::size_t pixels, const float* offsets_of_four, std::uint8_t* out) {
    std::size_t x = 0;
#if HWY_TARGET != HWY_SCALAR
    const Halves d;
    const Floats f;
    const hn::Repartition<std::int32_t, Halves> i;
    const hn::Rebind<std::uint8_t, Floats> narrow;
    const std::size_t lanes = hn::Lanes(f);
    const auto offset = hn::LoadDup128(f, offsets_of_four);
    for (; x + hn::Lanes(d) <= pixels; x += hn::Lanes(d)) {
        const Pixels p(rgb + 3 * x);
        for (std::size_t h = 0; h < 2; ++h) {
            const auto sum = hn::Add(offset, weighed(brightness_shares, p.r[h], p.g[h], p.b[h]));
            hn::StoreU(hn::DemoteTo(narrow, hn::ConvertTo(i, sum)), narrow, out + x + h * lanes);
        }
    }
#endif
    for (; x < pixels; ++x) out[x] = std::uint8_t(offsets_of_four[x % 4] + sum_of(brightness_shares, rgb + 3 * x));
}

void colour_sums(const std::uint16_t* above, const std::uint16_t* below, std::size_t pixels, float* blue, float* red) {
    std::size_t x = 0;
#if HWY_TARGET != HWY_SCALAR
    const Halves d;
    const Floats f;
    const std::size_t lanes = hn::Lanes(f);
    for (; x + hn::Lanes(d) <= pixels; x += hn::Lanes(d)) {
        const Pixels a(above + 3 * x), b(below + 3 * x);
        for (std::size_t h = 0; h < 2; ++h) {
            hn::StoreU(
                hn::Add(weighed(blue_shares, a.r[h], a.g[h], a.b[h]), weighed(blue_shares, b.r[h], b.g[h], b.b[h])), f,
                blue + x + h * lanes);
            hn::StoreU(
                hn::Add(weighed(red_shares, a.r[h], a.g[h], a.b[h]), weighed(red_shares, b.r[h], b.g[h], b.b[h])), f,
                red + x + h * lanes);
        }
    }
#endif
    for (; x < pixels; ++x) {
        blue[x] = sum_of(blue_shares, above + 3 * x) + sum_of(blue_shares, below + 3 * x);
        red[x] = sum_of(red_shares, above + 3 * x) + sum_of(red_shares, below + 3 * x);
    }
}

// Between two pixels of the row a quarter of each counts, and at the place itself a half.
void every_second(const float* sums, std::size_t pixels, const float* offsets_of_four, std::uint8_t* out) {
    out[0] = std::uint8_t(offsets_of_four[0] + (0.75F * sums[0] + 0.25F * sums[1]));
    for (std::size_t x = 1; 2 * x < pixels; ++x) {
        const float* at = sums + 2 * x;
        out[x] = std::uint8_t(offsets_of_four[x % 4] + (0.25F * at[-1] + 0.5F * at[0] + 0.25F * at[1]));
    }
}

}  // namespace
}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace bp::kernels {

HWY_EXPORT(brightness_row);
HWY_EXPORT(colour_sums);
HWY_EXPORT(every_second);

void clip_brightness(const std::uint16_t* rgb, std::size_t pixels, int y, std::uint8_t* out) {
    HWY_DYNAMIC_DISPATCH(brightness_row)(rgb, pixels, offsets(16, y).data(), out);
}

void clip_colour(const std::uint16_t* above, const std::uint16_t* below, std::size_t pixels, int y,
                 std::vector<float>& room, std::uint8_t* blue, std::uint8_t* red) {
    room.resize(2 * pixels);
    float *blues = room.data(), *reds = blues + pixels;
    HWY_DYNAMIC_DISPATCH(colour_sums)(above, below, pixels, blues, reds);
    const std::array<float, 4> four = offsets(128, y);
    HWY_DYNAMIC_DISPATCH(every_second)(blues, pixels, four.data(), blue);
    HWY_DYNAMIC_DISPATCH(every_second)(reds, pixels, four.data(), red);
}

}  // namespace bp::kernels
#endif
