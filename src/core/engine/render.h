// A picture is a function of a pile.
//
// All of these work on `region` in canvas pixels of `level`, give rasters of its size in the pile's working space, hold
// only bands of rows of each frame unless the store keeps the frames in memory, and give the same samples for every
// store, number of threads and division into regions. A failure with fault `input` names the frame's file. They may be
// called from any thread.
#pragma once

#include "base/job.h"
#include "engine/picture.h"
#include "engine/store.h"
#include "pile/pile.h"

namespace bp {

WorkingSpace working_space(const Pile& pile);

// All of the picture, turned as the pile says (turning.h): `region` lies on the turned picture. In one pass through the
// frames. What `tiles` keep of the base is not merged again.
Result<Raster16> render(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job,
                        BaseTiles* tiles = nullptr);
// The same before it is finished and turned: base and parts alone, which is what frames are held against.
Result<Raster16> composed(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job,
                          BaseTiles* tiles = nullptr);
// As render() gives it, without the whole picture ever being in memory. The pile must have a frame to merge.
Status render_to(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job, RowSink& sink);

// One frame, placed on the canvas; black where it does not reach.
Result<Raster16> render_frame(const Pile& pile, FrameStore& store, int frame, const Rect& region, int level, Job& job);
// gain * |frame - against|, both placed on the canvas.
Result<Raster16> render_difference(const Pile& pile, FrameStore& store, int frame, int against, int gain,
                                   const Rect& region, int level, Job& job);

}  // namespace bp
