#include "pile/measures.h"

#include <algorithm>
#include <iterator>

namespace bp {
namespace {

constexpr MeasureEntry table[] = {
    {Measure::px, "px", 0},
    {Measure::mm, "mm", 1 / 25.4},
    {Measure::inch, "inch", 1},
};

double px_of_one(Measure measure, double dpi) {
    return measure == Measure::px ? 1 : entry_of(measure).inches * dpi;
}

}  // namespace

std::span<const MeasureEntry> measures() {
    return table;
}

const MeasureEntry& entry_of(Measure measure) {
    return *std::find_if(std::begin(table), std::end(table),
                         [measure](const MeasureEntry& e) { return e.measure == measure; });
}

double in_px(double length, Measure measure, double dpi) {
    return length * px_of_one(measure, dpi);
}

double from_px(double px, Measure measure, double dpi) {
    return px / px_of_one(measure, dpi);
}

}  // namespace bp
