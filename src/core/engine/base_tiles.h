// Merged bases kept for the window in tiles, so that a stroke, a switch of parts, a mode tried before or a place looked
// at before costs no merge.
#pragma once

#include <functional>
#include <mutex>
#include <tuple>

#include "base/fingerprint.h"
#include "base/latest.h"
#include "base/result.h"
#include "image/raster.h"
#include "pile/pile.h"

namespace bp {

// All that makes the base of a pile.
Fingerprint base_recipe(const Pile& pile);
// All that a frame as it is placed in a zone depends on.
Fingerprint frame_recipe(const Pile& pile, const Frame& frame, Zone zone);

// Tiles are keyed by the fingerprint of all that makes a base: emptying the cache never changes a pixel. All
// members may be called from any thread.
class BaseTiles {
  public:
    static constexpr int side = 256;  // pixels of the level

    explicit BaseTiles(std::size_t budget_bytes = std::size_t(512) << 20) : tiles_(budget_bytes) {}

    // The base of `region`; merge(area) makes it, and is asked for tiles that are not here: for what lies around all of
    // them once, or, where it may be asked several times (`apart`), for no more than they cover.
    Result<Raster16> base(const Pile& pile, const Rect& region, int level, bool apart,
                          const std::function<Result<Raster16>(const Rect& area)>& merge);
    void clear();
    void set_budget(std::size_t bytes);
    std::size_t made() const;  // tiles that had to be merged so far

  private:
    using Key = std::tuple<Fingerprint, int, int, int, int, int>;  // level, left, top, width, height

    static Key key_of(const Fingerprint& recipe, int level, const Rect& tile);
    SharedRaster find(const Key& key);
    void keep(const Key& key, const SharedRaster& raster);

    mutable std::mutex mutex_;
    Latest<Key, SharedRaster> tiles_;
    std::size_t made_ = 0;
};

}  // namespace bp
