// What the size of a canvas is told in.
#pragma once

#include <span>
#include <string_view>

namespace bp {

enum class Measure { px, mm, inch };

struct MeasureEntry {
    Measure measure;
    std::string_view name;  // in pile files
    double inches;          // that one is; 0 for pixels, of which dpi make an inch
};
std::span<const MeasureEntry> measures();
const MeasureEntry& entry_of(Measure measure);

// How many pixels so much is at so many dots per inch, and back.
double in_px(double length, Measure measure, double dpi);
double from_px(double px, Measure measure, double dpi);

}  // namespace bp
