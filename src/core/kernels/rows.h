// Rows of samples as the kernels take them.
#pragma once

#include <cstdint>
#include <span>

namespace bp::kernels {

// Pointers to the first samples of some frames' rows.
template <class T>
using Rows = std::span<const T* const>;

// An 8-bit v stands for 257 v, so that 255 is full scale in both.
constexpr std::uint16_t to_16(std::uint16_t v) {
    return v;
}
constexpr std::uint16_t to_16(std::uint8_t v) {
    return std::uint16_t(v * 257);
}

}  // namespace bp::kernels
