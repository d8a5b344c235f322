#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/develop.cpp"
#include "kernels/develop.h"

#include <hwy/foreach_target.h>

#include "kernels/hue.h"
#include "kernels/tone_lanes.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

using V = hn::Vec<Light>;

// turned_hue() for vectors, the same to the last bit.
HWY_INLINE void turn_hues(const Colouring& how, V& red, V& green, V& blue) {
    const Light d;
    const auto set = [d](float v) HWY_ATTR { return hn::Set(d, v); };
    const V x = hn::Sub(red, hn::Mul(set(0.5F), hn::Add(green, blue)));
    const V y = hn::Mul(set(hue_slant), hn::Sub(green, blue));
    const V length = hn::Sqrt(hn::Add(hn::Mul(x, x), hn::Mul(y, y)));
    const V along = hn::Add(hn::Mul(x, set(how.hue.across)), hn::Mul(y, set(how.hue.down)));
    const V near = hn::IfThenElseZero(hn::Gt(length, hn::Zero(d)), hn::Div(along, length));
    const V share = hn::Min(hn::Max(hn::Sub(hn::Add(near, near), set(1.0F)), hn::Zero(d)), set(1.0F));
    const V smooth = hn::Mul(hn::Mul(share, share), hn::Sub(set(3.0F), hn::Add(share, share)));
    const V angle = hn::Mul(smooth, set(how.hue.radians));
    const V square = hn::Mul(angle, angle);
    const auto onward = [&](float first, V more) HWY_ATTR { return hn::Add(set(first), hn::Mul(square, more)); };
    const V c = onward(1.0F, onward(-0.5F, onward(1.0F / 24, set(-1.0F / 720))));
    const V s = hn::Mul(angle, onward(1.0F, onward(-1.0F / 6, onward(1.0F / 120, set(-1.0F / 5040)))));
    const V u = hn::Sub(hn::Mul(x, c), hn::Mul(y, s));
    const V v = hn::Add(hn::Mul(x, s), hn::Mul(y, c));
    const V first = hn::Mul(set(2.0F / 3), u);
    const V rest = hn::Mul(set(-1.0F / 3), u);
    const V beside = hn::Mul(set(hue_unslant), v);
    const V second = hn::Add(rest, beside);
    const V third = hn::Sub(rest, beside);
    const V red_green = hn::Add(hn::Mul(set(how.luminance[0]), first), hn::Mul(set(how.luminance[1]), second));
    const V bright = hn::Add(red_green, hn::Mul(set(how.luminance[2]), third));
    red = hn::Sub(first, bright);
    green = hn::Sub(second, bright);
    blue = hn::Sub(third, bright);
}

// The lanes of one channel after another.
template <class T>
void colour_samples(const T* in, std::size_t pixels, const Colouring& how, std::uint16_t* out) {
    const Light d;
    const Whole whole;
    const hn::Rebind<T, Light> narrow_in;
    const hn::Rebind<std::uint16_t, Light> narrow;
    const std::size_t lanes = hn::Lanes(d);
    std::size_t i = 0;
    for (; i + lanes <= pixels; i += lanes) {
        hn::Vec<decltype(narrow_in)> samples[3];
        hn::LoadInterleaved3(narrow_in, in + 3 * i, samples[0], samples[1], samples[2]);
        const V r = hn::GatherIndex(d, how.light[0], hn::PromoteTo(whole, samples[0]));
        const V g = hn::GatherIndex(d, how.light[1], hn::PromoteTo(whole, samples[1]));
        const V b = hn::GatherIndex(d, how.light[2], hn::PromoteTo(whole, samples[2]));
        const V red_green = hn::Add(hn::Mul(hn::Set(d, how.luminance[0]), r), hn::Mul(hn::Set(d, how.luminance[1]), g));
        const V grey = hn::Add(red_green, hn::Mul(hn::Set(d, how.luminance[2]), b));
        const V most = hn::Max(hn::Max(r, g), b);
        const V least = hn::Min(hn::Min(r, g), b);
        const V colourful = hn::IfThenElseZero(hn::Gt(most, hn::Zero(d)), hn::Div(hn::Sub(most, least), most));
        const V vivid = hn::Mul(hn::Set(d, how.pale), hn::Sub(hn::Set(d, 1.0F), colourful));
        const V apart = hn::Max(hn::Zero(d), hn::Add(hn::Set(d, 1 + how.strength), vivid));
        V red = hn::Mul(apart, hn::Sub(r, grey));
        V green = hn::Mul(apart, hn::Sub(g, grey));
        V blue = hn::Mul(apart, hn::Sub(b, grey));
        if (how.hue.radians != 0) turn_hues(how, red, green, blue);
        const auto made = [&](V v) HWY_ATTR { return hn::DemoteTo(narrow, tone_lanes(how.tone, hn::Add(grey, v))); };
        hn::StoreInterleaved3(made(red), made(green), made(blue), narrow, out + 3 * i);
    }
    for (; i < pixels; ++i) {
        const float r = how.light[0][in[3 * i]];
        const float g = how.light[1][in[3 * i + 1]];
        const float b = how.light[2][in[3 * i + 2]];
        const float grey = how.luminance[0] * r + how.luminance[1] * g + how.luminance[2] * b;
        const float most = std::max({r, g, b});
        const float colourful = most > 0 ? (most - std::min({r, g, b})) / most : 0;
        const float apart = std::max(0.0F, 1 + how.strength + how.pale * (1 - colourful));
        std::array<float, 3> off{apart * (r - grey), apart * (g - grey), apart * (b - grey)};
        if (how.hue.radians != 0) off = turned_hue(how.hue, how.luminance, off);
        for (std::size_t c = 0; c < 3; ++c) out[3 * i + c] = tone_sample(how.tone, grey + off[c]);
    }
}

void colour_8(const std::uint8_t* in, std::size_t pixels, const Colouring& how, std::uint16_t* out) {
    colour_samples(in, pixels, how, out);
}
void colour_16(const std::uint16_t* in, std::size_t pixels, const Colouring& how, std::uint16_t* out) {
    colour_samples(in, pixels, how, out);
}

}  // namespace
}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace bp::kernels {
namespace {

template <class T>
void look_up_samples(const T* in, std::size_t pixels, int channels, const std::uint16_t* const* tables,
                     std::uint16_t* out) {
    if (channels == 1) {
        for (std::size_t i = 0; i < pixels; ++i) out[i] = tables[0][in[i]];
        return;
    }
    for (std::size_t i = 0; i < 3 * pixels; i += 3) {
        out[i] = tables[0][in[i]];
        out[i + 1] = tables[1][in[i + 1]];
        out[i + 2] = tables[2][in[i + 2]];
    }
}

}  // namespace

HWY_EXPORT(colour_8);
HWY_EXPORT(colour_16);

void look_up(const std::uint8_t* in, std::size_t pixels, int channels, const std::uint16_t* const* tables,
             std::uint16_t* out) {
    look_up_samples(in, pixels, channels, tables, out);
}

void look_up(const std::uint16_t* in, std::size_t pixels, int channels, const std::uint16_t* const* tables,
             std::uint16_t* out) {
    look_up_samples(in, pixels, channels, tables, out);
}

void colour(const std::uint8_t* in, std::size_t pixels, const Colouring& how, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(colour_8)(in, pixels, how, out);
}

void colour(const std::uint16_t* in, std::size_t pixels, const Colouring& how, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(colour_16)(in, pixels, how, out);
}

}  // namespace bp::kernels
#endif
