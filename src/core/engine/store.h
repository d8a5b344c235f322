// Decoded frames kept in memory or on the scratch disk, within a budget. Emptying it never changes a pixel.
#pragma once

#include <cstddef>
#include <map>
#include <memory>
#include <mutex>

#include "base/fingerprint.h"
#include "base/latest.h"
#include "engine/derived.h"
#include "engine/tiled_frame.h"

namespace bp {

struct MemoryBudget {
    std::size_t keep_bytes = 0;  // frames that stay decoded
    std::size_t work_bytes = 0;  // what a merge may take while it runs
    // A quarter of the machine's memory for work, and as much to keep.
    static MemoryBudget of_machine();
    static std::size_t machine_bytes();
};

// All members may be called from any thread.
class FrameStore {
  public:
    explicit FrameStore(WorkingSpace space, MemoryBudget budget = MemoryBudget::of_machine(),
                        std::shared_ptr<Scratch> scratch = Scratch::in_cache(),
                        std::shared_ptr<Derived> derived = nullptr);
    // Null where nothing is to be kept on the disk.
    Derived* derived() const { return derived_.get(); }

    const WorkingSpace& space() const { return space_; }
    MemoryBudget budget() const;
    void set_budget(const MemoryBudget& budget);
    // Null when it is not held. A file is held once for every way that it is developed in.
    SharedPixels held(const FrameFile& file, int level, const Developing& how = {});
    // What was read as load() reads it.
    void keep_read(const FrameFile& file, int level, const SharedPixels& pixels);
    SharedTiles held_tiles(const FrameFile& file, int level, const Developing& how = {}) const;
    // From memory; scaled down, from derived data; or decoded and kept.
    Result<SharedPixels> load(const FrameFile& file, int level, Job& job, const Developing& how = {});
    // From scratch, or by way of `open` put there and kept.
    Result<SharedTiles> load_tiles(const FrameFile& file, int level, OpenFrame& open, Job& job,
                                   const Developing& how = {});
    // Means of darks, kept beside the frames: null when one is not here.
    SharedRaster mean_of(const Fingerprint& recipe);
    void keep_mean(const Fingerprint& recipe, const SharedRaster& raster);
    std::shared_ptr<const RawDark> raw_dark(const Fingerprint& recipe);
    void keep_raw_dark(const Fingerprint& recipe, const std::shared_ptr<const RawDark>& dark);
    // What was worked out under a key that names its kind; null when it is not here. T has bytes().
    template <class T>
    std::shared_ptr<const T> kept(const Fingerprint& key) {
        const std::shared_ptr<const Kept> found = find_kept(key);
        return found ? std::static_pointer_cast<const T>(found->value) : nullptr;
    }
    template <class T>
    void keep(const Fingerprint& key, const std::shared_ptr<const T>& value) {
        keep_kept(key, std::make_shared<const Kept>(Kept{value, value->bytes()}));
    }
    // True when `together` frames of this size fit into what is kept in memory, so that they are better loaded than
    // streamed.
    bool keeps(const FrameFile& file, int level, int together) const;
    // True when frames that will be looked at again, of which `missing` are not there yet, are better put into scratch
    // than streamed every time.
    bool keeps_tiles(const FrameFile& file, int level, int missing) const;
    void clear();
    std::size_t bytes() const;

  private:
    struct Kept {
        std::shared_ptr<const void> value;
        std::size_t size;
        std::size_t bytes() const { return size; }
    };
    std::shared_ptr<const Kept> find_kept(const Fingerprint& key);
    void keep_kept(const Fingerprint& key, const std::shared_ptr<const Kept>& value);
    std::optional<Fingerprint> scaled_key(const FrameFile& file, int level, const Developing& how) const;
    static Fingerprint key_of(const FrameFile& file, int level, const Developing& how);

    WorkingSpace space_;
    MemoryBudget budget_;
    std::shared_ptr<Scratch> scratch_;
    std::shared_ptr<Derived> derived_;
    mutable std::mutex mutex_;
    Latest<Fingerprint, SharedPixels> pixels_;
    std::map<Fingerprint, SharedTiles> tiles_;
    static constexpr std::size_t means_bytes = std::size_t(512) << 20;
    Latest<Fingerprint, SharedRaster> means_{means_bytes};
    Latest<Fingerprint, std::shared_ptr<const RawDark>> raw_darks_{means_bytes};
    Latest<Fingerprint, std::shared_ptr<const Kept>> kept_{means_bytes};
};

}  // namespace bp
