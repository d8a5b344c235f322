// A piece of the picture on its way through finishing, and what a tool of finishing is.
#pragma once

#include <memory>
#include <vector>

#include "base/raw_vector.h"
#include "image/geometry.h"

namespace bp {

// Light as 32-bit floats, 0 to 1 and beyond, pixel by pixel.
struct Sheet {
    Rect area;  // pixels of the canvas, seen at a level
    int channels = 3;
    RawVector<float> light;  // row by row of all that the sheet was made for; undefined at first

    Sheet() = default;
    Sheet(const Rect& of, int of_channels)
        : area(of),
          channels(of_channels),
          light(std::size_t(of.width) * std::size_t(of.height) * std::size_t(of_channels)),
          made_for_(of) {}

    std::size_t row_samples() const { return std::size_t(area.width) * std::size_t(channels); }
    // From the first column of the area on.
    float* row(int y) { return light.data() + place_of(y); }
    const float* row(int y) const { return light.data() + place_of(y); }
    // What lies around an area of it is let go. Nothing moves.
    void narrow_to(const Rect& inside) { area = inside; }

  private:
    std::size_t place_of(int y) const {
        return (std::size_t(y - made_for_.top) * std::size_t(made_for_.width) +
                std::size_t(area.left - made_for_.left)) *
               std::size_t(channels);
    }
    Rect made_for_;
};

// One thing that is done to the picture as a whole: a pure function that gives every pixel the same, however the
// picture is divided. Any thread.
class FinishTool {
  public:
    virtual ~FinishTool() = default;
    // Pixels of the level that it reads around each.
    virtual int reach() const { return 0; }
    // The same where only an area is made: less for what changes a few places alone.
    virtual int reach_in([[maybe_unused]] const Rect& area) const { return reach(); }
    // Done to a sheet that holds `wanted` with the reach around it, as far as the canvas goes; it may hold no more than
    // `wanted` afterwards. Where the sheet ends the canvas does.
    virtual void run(Sheet& sheet, const Rect& wanted) const = 0;
};
// From the first that is done to the last.
using FinishTools = std::vector<std::shared_ptr<const FinishTool>>;

int reach_of(const FinishTools& tools);
// `wanted` and what all of the tools read around it, on a canvas.
Rect around(const Rect& wanted, int reach, const Rect& canvas);
// What all of them read for an area, on a canvas: no more than around(wanted, reach_of(tools), canvas).
Rect read_by(const FinishTools& tools, const Rect& wanted, const Rect& canvas);
// All of them, on a sheet that holds read_by(tools, wanted, canvas).
void run_tools(const FinishTools& tools, Sheet& sheet, const Rect& wanted, const Rect& canvas);
// What of a sheet lies in an area of it.
Sheet cut_out(const Sheet& sheet, const Rect& area);

}  // namespace bp
