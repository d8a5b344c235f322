#include "engine/base_cache.h"

#include <algorithm>
#include <sstream>

namespace bp {
namespace {

std::string key_of(const Pile& pile, const Rect& region, int level) {
    std::ostringstream out;
    out.precision(17);
    out << entry_of(pile.merge.mode).name << ' ' << int(pile.merge.light) << ' ' << level << ' ' << region.left << ' '
        << region.top << ' ' << region.width << ' ' << region.height;
    for (const Frame& frame : pile.frames) {
        if (!merged(pile, frame)) continue;
        out << '\n' << frame.file->hash << ' ' << frame.file->path.string();
        if (entry_of(pile.merge.mode).uses_strength) out << ' ' << frame.strength;
        for (const double m : placement(pile, frame).m) out << ' ' << m;
    }
    return out.str();
}

}  // namespace

Result<SharedRaster> BaseCache::base(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job) {
    const std::string key = key_of(pile, region, level);
    if (SharedRaster known = find(key)) return known;
    Result<Raster16> fresh = render_base(pile, store, region, level, job);
    if (!fresh.ok()) return fresh.failure();
    auto raster = std::make_shared<const Raster16>(std::move(fresh).value());
    keep(key, raster);
    return SharedRaster(raster);
}

SharedRaster BaseCache::find(const std::string& key) {
    const std::lock_guard lock(mutex_);
    const auto found = std::find_if(entries_.begin(), entries_.end(), [&](const Entry& e) { return e.key == key; });
    if (found == entries_.end()) return {};
    entries_.splice(entries_.begin(), entries_, found);
    return entries_.front().raster;
}

void BaseCache::keep(const std::string& key, const SharedRaster& raster) {
    const std::lock_guard lock(mutex_);
    entries_.push_front({key, raster});
    bytes_ += raster->bytes();
    while (bytes_ > budget_ && entries_.size() > 1) {
        bytes_ -= entries_.back().raster->bytes();
        entries_.pop_back();
    }
}

void BaseCache::clear() {
    const std::lock_guard lock(mutex_);
    entries_.clear();
    bytes_ = 0;
}

}  // namespace bp
