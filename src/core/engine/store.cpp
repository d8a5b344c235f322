#include "engine/store.h"

#include <unistd.h>

namespace bp {

MemoryBudget MemoryBudget::of_machine() {
    const auto pages = std::size_t(::sysconf(_SC_PHYS_PAGES));
    const auto page = std::size_t(::sysconf(_SC_PAGESIZE));
    return {pages * page / 4, pages * page / 4};
}

FrameStore::FrameStore(WorkingSpace space, MemoryBudget budget) : space_(std::move(space)), budget_(budget) {}

SharedPixels FrameStore::held(const FrameFile& file, int level) {
    const std::lock_guard lock(mutex_);
    const auto found = entries_.find({file.hash, file.path.string(), level});
    if (found == entries_.end()) return {};
    recent_.splice(recent_.begin(), recent_, found->second.place);
    return found->second.pixels;
}

Result<SharedPixels> FrameStore::load(const FrameFile& file, int level) {
    if (SharedPixels known = held(file, level)) return known;
    Result<FramePixels> read = read_pixels(file, level, space_);
    if (!read.ok()) return read.failure();
    auto pixels = std::make_shared<const FramePixels>(std::move(read).value());
    keep({file.hash, file.path.string(), level}, pixels);
    return SharedPixels(pixels);
}

bool FrameStore::keeps(const FrameFile& file, int level, int together) const {
    const Size size = at_level(file.facts.size, level);
    const double sample = file.facts.bits / 8.0;
    return sample * size.width * size.height * space_.channels * together <= double(budget_.keep_bytes);
}

void FrameStore::keep(const Key& key, const SharedPixels& pixels) {
    const std::lock_guard lock(mutex_);
    if (entries_.contains(key)) return;
    recent_.push_front(key);
    entries_[key] = {pixels, recent_.begin()};
    bytes_ += pixels->bytes();
    while (bytes_ > budget_.keep_bytes && recent_.size() > 1) {
        const auto oldest = entries_.find(recent_.back());
        bytes_ -= oldest->second.pixels->bytes();
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
