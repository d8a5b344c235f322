// The middle one of some values.
#pragma once

#include <algorithm>
#include <vector>

namespace bp {

// Of a normal distribution: its deviation over its median distance from the middle.
inline constexpr double deviation_of_median = 1.4826;

// The upper of the two middle ones for an even number. Leaves the values in another order; there must be one.
template <class T>
T middle_of(std::vector<T>& values) {
    const auto middle = values.begin() + std::ptrdiff_t(values.size() / 2);
    std::nth_element(values.begin(), middle, values.end());
    return *middle;
}

}  // namespace bp
