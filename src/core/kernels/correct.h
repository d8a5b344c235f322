// Undoing what the sensor adds and takes, sample by sample, in linear light.
#pragma once

#include <cstddef>
#include <cstdint>

namespace bp::kernels {

// Tables that the work goes by: linear light (0 to 1) of every 16-bit sample, and the way back as tone_sample() reads
// it.
struct LightTables {
    const float* light = nullptr;
    const float* tone = nullptr;
};

// out = in less `scale` times `dark`, in light; nothing falls below black. 8-bit samples stand for 257 times their
// value.
void subtract_dark(const std::uint8_t* in, const std::uint16_t* dark, float scale, std::size_t samples,
                   const LightTables& tables, std::uint16_t* out);
void subtract_dark(const std::uint16_t* in, const std::uint16_t* dark, float scale, std::size_t samples,
                   const LightTables& tables, std::uint16_t* out);

// The light of samples, and the way back: light above 1 is white. 8-bit samples stand for 257 times their value.
void light_of(const std::uint8_t* in, std::size_t samples, const LightTables& tables, float* out);
void light_of(const std::uint16_t* in, std::size_t samples, const LightTables& tables, float* out);
void samples_of_light(const float* light, std::size_t samples, const LightTables& tables, std::uint16_t* out);

// Strengthens pixels by what was held back: light times 65535 / passed, passed above 0. In place.
void let_through(const std::uint16_t* passed, std::size_t pixels, int channels, const LightTables& tables,
                 std::uint16_t* samples);

}  // namespace bp::kernels
