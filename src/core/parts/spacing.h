// How far apart parts lie.
#pragma once

#include "image/mask.h"
#include "image/run_mask.h"

namespace bp {

// What a mask touches, in a picture of one size whatever the camera's: told to a thousandth of it.
class Outline {
  public:
    explicit Outline(const Mask& mask);

    // The longer side of the rectangle around it, in pixels of the mask.
    int length() const;
    // Whether something of the other lies less than `gap` pixels of the mask beside, above or below.
    bool meets(const Outline& other, double gap) const;

  private:
    int level_ = 0;
    RunMask shape_;
    Rect box_;  // of the shape
};

}  // namespace bp
