// The picture turned, so that a horizon is level: what is shown and exported is the picture as it is composed and
// finished, turned about the middle of the reference. Its places are those of the turned picture, whose canvas is as
// large.
#pragma once

#include <functional>

#include "engine/picture.h"

namespace bp {

class Turn {
  public:
    // In pixels of a level.
    explicit Turn(const Pile& pile, int level = 0);

    bool none() const { return there_.is_identity(); }
    Point to_turned(Point on_canvas) const { return there_(on_canvas); }
    Point to_canvas(Point turned) const { return back_(turned); }
    const Matrix& matrix() const { return there_; }
    // What a region of the turned picture is made from, as far as the canvas goes; and what a region of the canvas
    // shows in.
    Rect made_from(const Rect& turned) const;
    Rect shown_in(const Rect& on_canvas) const;
    const Rect& canvas() const { return canvas_; }

  private:
    Matrix there_, back_;
    Rect canvas_;
};

// The largest rectangle of the turned picture of the same ratio as a rectangle of the canvas that shows nothing but it,
// about its middle, to whole pixels.
Rect inside_turned(const Turn& turn, const Rect& on_canvas);

// A region of the turned picture from `make`, which gives regions of the canvas, of any channels; beyond the canvas the
// background shows. Resampled as moved frames are (kernels/warp.h).
Result<Raster16> turned(const Pile& pile, const Rect& region, int level,
                        const std::function<Result<Raster16>(const Rect& on_canvas)>& make);

// The same for rows on their way: those of made_from(region) come in, those of `region` go on.
class Turner final : public RowSink {
  public:
    // The pile must live as long.
    Turner(const Pile& pile, const Rect& region, int level, RowSink& sink);

    const Rect& area() const { return area_; }
    void begin(const StripPlan& plan) override;
    std::uint16_t* row(int y) override { return rows_.data() + std::size_t((y - area_.top) % held_) * stride_; }
    Status finish(const Band& band) override;
    void end(const StepTimes& spent) override { sink_.end(spent); }

    // Memory for bands of so many rows.
    static std::size_t bytes(const Pile& pile, const Rect& region, int level, int band_rows);

  private:
    static int rows_held(const Turn& turn, const Rect& region, const Rect& area, int band_rows);

    const Turn turn_;
    Rect region_, area_;
    int channels_;
    std::size_t stride_;  // samples
    std::array<std::uint16_t, 3> background_;
    RowSink& sink_;
    std::vector<int> last_;  // of each turned row, the last row that it is made from
    int held_ = 1, at_once_ = 1;
    int next_;
    std::vector<std::uint16_t> rows_;
};

}  // namespace bp
