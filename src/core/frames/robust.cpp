#include "frames/robust.h"

#include <algorithm>
#include <cmath>

namespace bp {

double quantile(std::vector<double> values, double share) {
    if (values.empty()) return 0;
    const auto rank = std::min(values.size() - 1, std::size_t(share * double(values.size())));
    std::nth_element(values.begin(), values.begin() + std::ptrdiff_t(rank), values.end());
    return values[rank];
}

double median(std::vector<double> values) {
    if (values.empty()) return 0;
    const auto middle = values.begin() + std::ptrdiff_t(values.size() / 2);
    std::nth_element(values.begin(), middle, values.end());
    if (values.size() % 2 == 1) return *middle;
    return (*middle + *std::max_element(values.begin(), middle)) / 2;
}

double spread(const std::vector<double>& values) {
    const double centre = median(values);
    std::vector<double> distances;
    distances.reserve(values.size());
    for (const double v : values) distances.push_back(std::abs(v - centre));
    return 1.4826 * median(std::move(distances));
}

Trend steady_line(const std::vector<double>& x, const std::vector<double>& y) {
    std::vector<double> slopes;
    for (std::size_t i = 0; i < x.size(); ++i)
        for (std::size_t j = i + 1; j < x.size(); ++j)
            if (x[i] != x[j]) slopes.push_back((y[j] - y[i]) / (x[j] - x[i]));
    Trend out;
    out.slope = median(std::move(slopes));
    std::vector<double> rests;
    for (std::size_t i = 0; i < x.size(); ++i) rests.push_back(y[i] - out.slope * x[i]);
    out.at_zero = median(std::move(rests));
    return out;
}

}  // namespace bp
