// A picture is a function of a pile.
//
// All of these work on `region` in canvas pixels of `level`, give rasters of its size in the pile's working space, hold
// only bands of rows of each frame unless the store keeps the frames in memory, and give the same samples for every
// store, number of threads and division into regions. A failure with fault `input` names the frame's file. They may be
// called from any thread.
#pragma once

#include "base/job.h"
#include "engine/in_step.h"
#include "engine/store.h"
#include "pile/pile.h"

namespace bp {

WorkingSpace working_space(const Pile& pile);

// The base and the parts that are on, in one pass through the frames.
Result<Raster16> render(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job);

// Where the rows of a picture go as they are made.
class RowSink {
  public:
    virtual ~RowSink() = default;
    // Once, before any row: rows of two of the plan's bands are in work at a time.
    virtual void begin([[maybe_unused]] const StripPlan& plan) {}
    // Memory for canvas row y, any thread.
    virtual std::uint16_t* row(int y) = 0;
    // The rows of a band are made. Called in order, one call at a time, while rows of the next band are made.
    virtual Status finish([[maybe_unused]] const Band& band) { return Done{}; }
    // Once, after all.
    virtual void end([[maybe_unused]] const StepTimes& spent) {}
};

// As render(), without the whole picture ever being in memory. The pile must have a frame to merge.
Status render_to(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job, RowSink& sink);

// The base without parts, and parts laid over a base that is already there; render() is one after the other.
Result<Raster16> render_base(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job);
Status lay_parts(const Pile& pile, FrameStore& store, const Rect& region, int level, Raster16& base, Job& job);

// One frame, placed on the canvas; black where it does not reach.
Result<Raster16> render_frame(const Pile& pile, FrameStore& store, int frame, const Rect& region, int level, Job& job);
// gain * |frame - against|, both placed on the canvas.
Result<Raster16> render_difference(const Pile& pile, FrameStore& store, int frame, int against, int gain,
                                   const Rect& region, int level, Job& job);

}  // namespace bp
