#include "kernels/correct.h"

#include "kernels/develop.h"

namespace bp::kernels {
namespace {

template <class T>
void subtract_any(const T* in, const std::uint16_t* dark, float scale, std::size_t samples, const LightTables& tables,
                  std::uint16_t* out) {
    constexpr int unit = sizeof(T) == 1 ? 257 : 1;
    for (std::size_t i = 0; i < samples; ++i)
        out[i] = tone_sample(tables.tone, tables.light[in[i] * unit] - scale * tables.light[dark[i]]);
}

}  // namespace

void subtract_dark(const std::uint8_t* in, const std::uint16_t* dark, float scale, std::size_t samples,
                   const LightTables& tables, std::uint16_t* out) {
    subtract_any(in, dark, scale, samples, tables, out);
}

void subtract_dark(const std::uint16_t* in, const std::uint16_t* dark, float scale, std::size_t samples,
                   const LightTables& tables, std::uint16_t* out) {
    subtract_any(in, dark, scale, samples, tables, out);
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
