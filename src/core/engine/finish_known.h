// What tools of finishing must know of a pile's pictures: found by way of the store, and kept there for as long as what
// it comes from stays the same.
#pragma once

#include "engine/store.h"
#include "finish/glow.h"
#include "finish/mend.h"
#include "finish/wide.h"
#include "pile/pile.h"

namespace bp {

// The glow of the sky: fitted to the base of at most four frames, spread over the run, scaled down, in cells of a few
// pixels, the light of which is that of their darker pixels, so that stars and trails do not count. Without zones all
// of the picture is sky.
Result<std::shared_ptr<const GlowSurface>> glow_known(const Pile& pile, FrameStore& store, Job& job);

// The wide surroundings in the picture as it is composed of at most four frames, scaled down.
Result<std::shared_ptr<const WideTones>> wide_known(const Pile& pile, FrameStore& store, Job& job);

// What frames show where something is mended from them, by the ids of these places: a median is of at most fifteen.
Result<MendSources> mend_sources(const Pile& pile, int level, FrameStore& store, Job& job);

// A region of the glow alone, where the sky is; black elsewhere.
Result<Raster16> render_glow(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job);

}  // namespace bp
