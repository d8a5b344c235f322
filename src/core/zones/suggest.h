// Which part of a run turns with the stars and which stands still, told by fine detail.
#pragma once

#include <functional>

#include "image/raster.h"

namespace bp {

// What a picture has finer than a few pixels; `brightness` has one channel.
RasterF fine_detail(const RasterF& brightness);

// What frames that were laid over each other have in common, pixel by pixel.
class Common {
  public:
    explicit Common(Size size) : sum_(size, 1), squares_(size, 1), count_(size, 1) {}
    // `reached(x, y)`: the frame shows something there.
    void add(const RasterF& detail, const std::function<bool(int, int)>& reached);
    // How much the mean over the frames stands out of what differs between them: the square of it over its variance. 0
    // where fewer than three frames reach.
    RasterF sureness() const;

  private:
    RasterF sum_, squares_, count_;
};

// Detail that frames have in common when they are laid by the stars is surely sky, detail that they have in common as
// they were taken surely land; between, whichever is nearer is likely. In the words of snap.h; empty when either is
// nowhere.
Raster8 belief_of_motion(const Common& as_sky, const Common& as_land);

// A cut without islands: pieces of either kind that are smaller than `share` of the picture belong to what is around.
Raster8 without_islands(const Raster8& cut, double share);

}  // namespace bp
