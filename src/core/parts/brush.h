// Painting into masks.
#pragma once

#include <optional>

#include "image/mask.h"

namespace bp {

struct Brush {
    double size = 80;       // diameter in pixels of the full-size picture, above 0
    double softness = 0.5;  // 0: a hard edge one pixel wide, 1: falling from the middle
    double strength = 1;    // 0 to 1, the most that one stroke gives or takes
    bool keep = true;       // true paints the part in, false gives it back to what lies below
};

// One stroke in the making. Crossing one's own stroke does not paint twice: within a stroke the strongest touch of a
// pixel counts, and the stroke as a whole is then laid on the mask that was there when it began.
class Stroke {
  public:
    Stroke(Mask before, Brush brush);

    // Extends the stroke to `to` and returns the area whose mask values may have changed. `pressure`, 0 to 1, is a
    // share of the brush's strength, which goes over evenly from that at the point before.
    Rect extend(Point to, double pressure = 1);
    const Mask& mask() const { return now_; }

  private:
    Brush brush_;
    Mask before_;
    Mask touch_;
    Mask now_;
    std::optional<Point> last_;
    double last_pressure_ = 1;
};

}  // namespace bp
