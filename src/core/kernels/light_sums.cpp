// Looking light up in a table is bound by loads: plain code, eight rows at a time so that a sum is loaded and stored
// once for eight. Measured, it is faster than the gathers of vector code and than what a compiler makes of it by
// itself, which is therefore told not to (src/core/CMakeLists.txt).
#include "kernels/light_sums.h"

namespace bp::kernels {
namespace {

template <class T, class Light>
void sum(Rows<T> rows, std::size_t begin, std::size_t count, const Light* light, LightSums& sums) {
    sums.fill(0);
    constexpr std::size_t together = 8;
    std::size_t k = 0;
    for (; k + together <= rows.size(); k += together) {
        std::array<const T*, together> at;
        for (std::size_t j = 0; j < together; ++j) at[j] = rows[k + j] + begin;
        for (std::size_t i = 0; i < count; ++i) {
            std::uint64_t here = sums[i];
            for (const T* row : at) here += light[row[i]];
            sums[i] = here;
        }
    }
    for (; k < rows.size(); ++k)
        for (std::size_t i = 0; i < count; ++i) sums[i] += light[rows[k][begin + i]];
}

}  // namespace

void sum_light(Rows<std::uint8_t> rows, std::size_t begin, std::size_t count, const std::uint64_t* light,
               LightSums& sums) {
    sum(rows, begin, count, light, sums);
}

void sum_light(Rows<std::uint16_t> rows, std::size_t begin, std::size_t count, const std::uint32_t* light,
               LightSums& sums) {
    sum(rows, begin, count, light, sums);
}

}  // namespace bp::kernels
