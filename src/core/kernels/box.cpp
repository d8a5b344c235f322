#include "kernels/box.h"

#include <algorithm>
#include <cstddef>

#include "kernels/rows.h"

namespace bp::kernels {
namespace {

template <class T>
void box(std::span<const T* const> rows, int width, int channels, int unit, std::uint16_t* out) {
    for (int left = 0; left < width; left += unit)
        for (int c = 0; c < channels; ++c) {
            const int right = std::min(left + unit, width);
            std::uint64_t sum = 0;
            for (const T* row : rows)
                for (int x = left; x < right; ++x) sum += to_16(row[x * channels + c]);
            const auto n = rows.size() * std::uint64_t(right - left);
            *out++ = std::uint16_t((sum + n / 2) / n);
        }
}

}  // namespace

void box_row(std::span<const std::uint8_t* const> rows, int width, int channels, int unit, std::uint16_t* out) {
    box(rows, width, channels, unit, out);
}

void box_row(std::span<const std::uint16_t* const> rows, int width, int channels, int unit, std::uint16_t* out) {
    box(rows, width, channels, unit, out);
}

}  // namespace bp::kernels
