#include "engine/store.h"

#include <unistd.h>

namespace bp {

std::size_t FrameStore::default_budget() {
    const auto pages = std::size_t(::sysconf(_SC_PHYS_PAGES));
    const auto page = std::size_t(::sysconf(_SC_PAGESIZE));
    return pages * page / 4;
}

FrameStore::FrameStore(WorkingSpace space, std::size_t budget_bytes)
    : space_(std::move(space)), budget_(budget_bytes) {}

SharedRaster FrameStore::held(const FrameFile& file, int level) {
    const std::lock_guard lock(mutex_);
    const auto found = entries_.find({file.hash, file.path.string(), level});
    if (found == entries_.end()) return {};
    recent_.splice(recent_.begin(), recent_, found->second.place);
    return found->second.raster;
}

Result<SharedRaster> FrameStore::load(const FrameFile& file, int level) {
    if (SharedRaster known = held(file, level)) return known;
    Result<Raster16> read = read_frame(file, level, space_);
    if (!read.ok()) return read.failure();
    auto raster = std::make_shared<const Raster16>(std::move(read).value());
    keep({file.hash, file.path.string(), level}, raster);
    return SharedRaster(raster);
}

Result<std::unique_ptr<FrameRows>> FrameStore::rows(const FrameFile& file, int level, int together) {
    const Size size = at_level(file.facts.size, level);
    const double each = 2.0 * size.width * size.height * space_.channels;
    if (each * together > double(budget_)) {
        if (SharedRaster known = held(file, level)) return held_rows(known);
        return streamed_rows(file, level, space_);
    }
    Result<SharedRaster> raster = load(file, level);
    if (!raster.ok()) return raster.failure();
    return held_rows(raster.value());
}

void FrameStore::keep(const Key& key, const SharedRaster& raster) {
    const std::lock_guard lock(mutex_);
    if (entries_.contains(key)) return;
    recent_.push_front(key);
    entries_[key] = {raster, recent_.begin()};
    bytes_ += raster->bytes();
    while (bytes_ > budget_ && recent_.size() > 1) {
        const auto oldest = entries_.find(recent_.back());
        bytes_ -= oldest->second.raster->bytes();
        entries_.erase(oldest);
        recent_.pop_back();
    }
}

void FrameStore::clear() {
    const std::lock_guard lock(mutex_);
    entries_.clear();
    recent_.clear();
    bytes_ = 0;
}

std::size_t FrameStore::bytes() const {
    const std::lock_guard lock(mutex_);
    return bytes_;
}

}  // namespace bp
