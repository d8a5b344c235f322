// Which frame each pixel of a base comes from.
#pragma once

#include <vector>

#include "base/job.h"
#include "engine/store.h"
#include "pile/pile.h"

namespace bp {

// Modes that take their samples from frames, and not from the light of all.
bool has_origins(const Pile& pile);

struct Origins {
    std::vector<int> frames;  // ids
    // By pixel: 1 and the frame's place in `frames`; 0 where no frame reaches. A median of an even number comes from
    // two, elsewhere both are alike.
    Raster16 first, second;

    // Ids; 0 for none. Pixels of the raster.
    int first_at(int x, int y) const { return id(first.at(x, y, 0)); }
    int second_at(int x, int y) const { return id(second.at(x, y, 0)); }

  private:
    int id(std::uint16_t place) const { return place == 0 ? 0 : frames[std::size_t(place) - 1]; }
};

// Of `region` in canvas pixels of `level`. Where each channel is chosen for itself, a pixel comes from where the
// channel does that gives most to its brightness; of frames that give the same the earliest. In a border between zones
// it comes from the one that has more of it. Where at least half of a part shows, a pixel comes from the part's frame:
// of one that lightens, darkens or adds where its brightness is what tells. What knitting adds is not told. Fails as
// render() does.
Result<Origins> origins_of(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job);

}  // namespace bp
