// Merged bases kept for the window, so that a stroke, a switch of parts or a mode tried before costs no merge.
#pragma once

#include <list>
#include <mutex>
#include <string>

#include "engine/render.h"

namespace bp {

// Keyed by all that makes a base: emptying it never changes a pixel. All members may be called from any thread.
class BaseCache {
  public:
    explicit BaseCache(std::size_t budget_bytes = std::size_t(512) << 20) : budget_(budget_bytes) {}

    // As render_base().
    Result<SharedRaster> base(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job);
    void clear();

  private:
    struct Entry {
        std::string key;
        SharedRaster raster;
    };

    SharedRaster find(const std::string& key);
    void keep(const std::string& key, const SharedRaster& raster);

    std::size_t budget_;
    std::mutex mutex_;
    std::list<Entry> entries_;  // the latest used first
    std::size_t bytes_ = 0;
};

}  // namespace bp
