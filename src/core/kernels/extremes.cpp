#include "kernels/extremes.h"

#include <algorithm>

namespace bp::kernels {

void raise_to(const std::uint16_t* row, std::size_t samples, std::uint16_t* out) {
    for (std::size_t i = 0; i < samples; ++i) out[i] = std::max(out[i], row[i]);
}

void lower_to(const std::uint16_t* row, std::size_t samples, std::uint16_t* out) {
    for (std::size_t i = 0; i < samples; ++i) out[i] = std::min(out[i], row[i]);
}

void raise_to_mapped(const std::uint16_t* row, const std::uint16_t* table, std::size_t samples, std::uint16_t* out) {
    for (std::size_t i = 0; i < samples; ++i) out[i] = std::max(out[i], table[row[i]]);
}

}  // namespace bp::kernels
