// Decoded frames kept in memory for the window, within a budget. Emptying it never changes a pixel.
#pragma once

#include <cstdint>
#include <list>
#include <map>
#include <memory>
#include <mutex>

#include "engine/source.h"

namespace bp {

// All members may be called from any thread.
class FrameStore {
  public:
    // A quarter of the machine's memory.
    static std::size_t default_budget();

    explicit FrameStore(WorkingSpace space, std::size_t budget_bytes = default_budget());

    const WorkingSpace& space() const { return space_; }
    // Null when it is not held.
    SharedRaster held(const FrameFile& file, int level);
    // From memory, or decoded and kept.
    Result<SharedRaster> load(const FrameFile& file, int level);
    // Rows of a frame: from memory when `together` frames of this size fit into the budget, else streamed.
    Result<std::unique_ptr<FrameRows>> rows(const FrameFile& file, int level, int together);
    void clear();
    std::size_t bytes() const;

  private:
    struct Key {
        std::string hash;
        std::string path;
        int level;
        auto operator<=>(const Key&) const = default;
    };
    struct Entry {
        SharedRaster raster;
        std::list<Key>::iterator place;
    };

    void keep(const Key& key, const SharedRaster& raster);

    WorkingSpace space_;
    std::size_t budget_;
    mutable std::mutex mutex_;
    std::size_t bytes_ = 0;
    std::map<Key, Entry> entries_;
    std::list<Key> recent_;  // the latest first
};

}  // namespace bp
