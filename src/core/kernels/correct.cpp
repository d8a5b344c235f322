#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/correct.cpp"
#include "kernels/correct.h"

#include <hwy/foreach_target.h>

#include "kernels/tone_lanes.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

template <class T>
void subtract_any(const T* in, const std::uint16_t* dark, float scale, std::size_t samples, const LightTables& tables,
                  std::uint16_t* out) {
    const Light d;
    const hn::Rebind<std::uint16_t, Light> narrow;
    const std::size_t lanes = hn::Lanes(d);
    std::size_t i = 0;
    for (; i + lanes <= samples; i += lanes) {
        const auto light = hn::GatherIndex(d, tables.light, load_index_16(in + i));
        const auto black = hn::GatherIndex(d, tables.light, load_index(dark + i));
        const auto rest = hn::Sub(light, hn::Mul(hn::Set(d, scale), black));
        hn::StoreU(hn::DemoteTo(narrow, tone_lanes(tables.tone, rest)), narrow, out + i);
    }
    for (; i < samples; ++i)
        out[i] = tone_sample(tables.tone, tables.light[to_16(in[i])] - scale * tables.light[dark[i]]);
}

void subtract_8(const std::uint8_t* in, const std::uint16_t* dark, float scale, std::size_t samples,
                const LightTables& tables, std::uint16_t* out) {
    subtract_any(in, dark, scale, samples, tables, out);
}
void subtract_16(const std::uint16_t* in, const std::uint16_t* dark, float scale, std::size_t samples,
                 const LightTables& tables, std::uint16_t* out) {
    subtract_any(in, dark, scale, samples, tables, out);
}

void samples_of(const float* light, std::size_t samples, const LightTables& tables, std::uint16_t* out) {
    const Light d;
    const hn::Rebind<std::uint16_t, Light> narrow;
    const std::size_t lanes = hn::Lanes(d);
    const auto white = hn::Set(d, 1.0F);
    std::size_t i = 0;
    for (; i + lanes <= samples; i += lanes)
        hn::StoreU(hn::DemoteTo(narrow, tone_lanes(tables.tone, hn::Min(hn::LoadU(d, light + i), white))), narrow,
                   out + i);
    for (; i < samples; ++i) out[i] = tone_sample(tables.tone, light[i] < 1.0F ? light[i] : 1.0F);
}

template <class T>
void light_of_any(const T* in, std::size_t samples, const float* table, float* out) {
    const Light d;
    const std::size_t lanes = hn::Lanes(d);
    std::size_t i = 0;
    for (; i + lanes <= samples; i += lanes) hn::StoreU(hn::GatherIndex(d, table, load_index_16(in + i)), d, out + i);
    for (; i < samples; ++i) out[i] = table[to_16(in[i])];
}

void light_of_8(const std::uint8_t* in, std::size_t samples, const float* table, float* out) {
    light_of_any(in, samples, table, out);
}
void light_of_16(const std::uint16_t* in, std::size_t samples, const float* table, float* out) {
    light_of_any(in, samples, table, out);
}

}  // namespace
}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace bp::kernels {

HWY_EXPORT(subtract_8);
HWY_EXPORT(subtract_16);
HWY_EXPORT(samples_of);
HWY_EXPORT(light_of_8);
HWY_EXPORT(light_of_16);

void subtract_dark(const std::uint8_t* in, const std::uint16_t* dark, float scale, std::size_t samples,
                   const LightTables& tables, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(subtract_8)(in, dark, scale, samples, tables, out);
}

void subtract_dark(const std::uint16_t* in, const std::uint16_t* dark, float scale, std::size_t samples,
                   const LightTables& tables, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(subtract_16)(in, dark, scale, samples, tables, out);
}

void light_of(const std::uint8_t* in, std::size_t samples, const LightTables& tables, float* out) {
    HWY_DYNAMIC_DISPATCH(light_of_8)(in, samples, tables.light, out);
}

void light_of(const std::uint16_t* in, std::size_t samples, const LightTables& tables, float* out) {
    HWY_DYNAMIC_DISPATCH(light_of_16)(in, samples, tables.light, out);
}

void samples_of_light(const float* light, std::size_t samples, const LightTables& tables, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(samples_of)(light, samples, tables, out);
}

void let_through(const std::uint16_t* passed, std::size_t pixels, int channels, const LightTables& tables,
                 std::uint16_t* samples) {
    constexpr float all = 65535;
    for (std::size_t x = 0; x < pixels; ++x) {
        if (passed[x] == 65535) continue;
        const float gain = all / float(passed[x]);
        for (int c = 0; c < channels; ++c) {
            std::uint16_t& v = samples[x * std::size_t(channels) + std::size_t(c)];
            v = tone_sample(tables.tone, tables.light[v] * gain);
        }
    }
}

}  // namespace bp::kernels
#endif
