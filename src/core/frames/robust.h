// Statistics that a few wild values do not move.
#pragma once

#include <vector>

namespace bp {

// The value below which `share` (0 to 1) of them lie, by nearest rank; 0 for none.
double quantile(std::vector<double> values, double share);
// Mean of the two middle ones for an even number; 0 for none.
double median(std::vector<double> values);
// 1.4826 times the median distance from the median: the deviation, for a normal distribution.
double spread(const std::vector<double>& values);

struct Trend {
    double at_zero = 0;
    double slope = 0;
    double operator()(double x) const { return at_zero + slope * x; }
};
// Through points of at least one, by the median of all slopes (Theil 1950, Sen 1968).
Trend steady_line(const std::vector<double>& x, const std::vector<double>& y);

}  // namespace bp
