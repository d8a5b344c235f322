// What is alike in all that change the tones of a picture, square roots of luminance, and leave its colours. Internal
// to the room.
#pragma once

#include "finish/plane.h"
#include "kernels/light_rows.h"

namespace bp {

inline std::array<float, 3> as_floats(const std::array<double, 3>& v) {
    return {float(v[0]), float(v[1]), float(v[2])};
}

class ToneTool : public FinishTool {
  public:
    explicit ToneTool(const std::array<double, 3>& luminance) : luminance_(as_floats(luminance)) {}
    void run(Sheet& sheet, const Rect& wanted) const final {
        const Plane tones = tones_of(sheet, luminance_);
        const Plane made = changed(tones, wanted);
        sheet.narrow_to(wanted);
        for (int y = wanted.top; y < wanted.bottom(); ++y)
            kernels::bring_to_tones(tones.row(y) + (wanted.left - tones.area.left), made.row(y),
                                    std::size_t(wanted.width), sheet.channels, sheet.row(y));
    }

  private:
    // The tones of `wanted`; those at hand reach as far around it as the tool does.
    virtual Plane changed(const Plane& tones, const Rect& wanted) const = 0;
    std::array<float, 3> luminance_;
};

}  // namespace bp
