// Rows of a base as it grows, picture by picture.
#pragma once

#include <memory>
#include <vector>

#include "engine/base_rows.h"

namespace bp {

// The frames that a pile merges in any zone, in the order of the run: in this order a picture grows.
std::vector<int> growing_ids(const Pile& pile);

// Where what one frame adds does not depend on those that came before it, so that each is gone through once: nothing
// is kept but what they were merged to.
bool grows_by_one(const Pile& pile);

// The bases of several pictures that follow each other, each with some frames more than the one before; the one
// with all frames is the base to the bit. Where no frame votes the reference shows from
// when it has come.
class Grown {
  public:
    // Of a region of a level. The pile and the knitting, which may be null, must live on.
    Grown(const Pile& pile, const Rect& region, int level, const Knitting* knitting);

    // The pictures that show the first `until[i]` of growing_ids(), in order; what comes after continues from here.
    Result<std::vector<Raster16>> next(const std::vector<int>& until, FrameStore& store, Job& job);
    // A picture that is done with: the next ones take its memory.
    void give_back(Raster16 picture);
    // Memory that a call takes for so many pictures.
    std::size_t bytes(std::size_t pictures) const;

  private:
    class Work;

    const Pile& pile_;
    Rect region_;
    int level_;
    const Knitting* knitting_;
    std::vector<int> ids_;
    int grown_ = 0;  // frames
    // What the frames so far were merged to, and where none of them has voted: 1. Where every frame is gone through
    // once.
    struct Zoned {
        Raster16 merged;
        Raster8 open;
    };
    std::vector<Zoned> zones_;  // sky, land
    std::vector<Raster16> spare_;
};

}  // namespace bp
