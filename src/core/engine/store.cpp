#include "engine/store.h"

#include <unistd.h>

#include <algorithm>
#include <optional>

#include "pile/fingerprint.h"

namespace bp {

std::size_t MemoryBudget::machine_bytes() {
    return std::size_t(::sysconf(_SC_PHYS_PAGES)) * std::size_t(::sysconf(_SC_PAGESIZE));
}

MemoryBudget MemoryBudget::of_machine() {
    return {machine_bytes() / 4, machine_bytes() / 4};
}

FrameStore::FrameStore(WorkingSpace space, MemoryBudget budget, std::shared_ptr<Scratch> scratch,
                       std::shared_ptr<Derived> derived)
    : space_(std::move(space)),
      budget_(budget),
      scratch_(std::move(scratch)),
      derived_(std::move(derived)),
      pixels_(budget.keep_bytes) {}

MemoryBudget FrameStore::budget() const {
    const std::lock_guard lock(mutex_);
    return budget_;
}

void FrameStore::set_budget(const MemoryBudget& budget) {
    const std::lock_guard lock(mutex_);
    budget_ = budget;
    pixels_.set_budget(budget.keep_bytes);
}

// Scale counts only where there is something to scale.
Fingerprint FrameStore::key_of(const FrameFile& file, int level, const Developing& how) {
    if (!how.dark) return pile::fingerprint(file, level, how.stops);
    return pile::fingerprint(file, level, how.dark->values, how.scale);
}

SharedPixels FrameStore::held(const FrameFile& file, int level, const Developing& how) {
    const std::lock_guard lock(mutex_);
    return pixels_.find(key_of(file, level, how));
}

void FrameStore::keep_read(const FrameFile& file, int level, const SharedPixels& pixels) {
    const std::lock_guard lock(mutex_);
    pixels_.keep(key_of(file, level, {}), pixels);
}

SharedTiles FrameStore::held_tiles(const FrameFile& file, int level, const Developing& how) const {
    const std::lock_guard lock(mutex_);
    const auto found = tiles_.find(key_of(file, level, how));
    return found == tiles_.end() ? SharedTiles{} : found->second;
}

// Only small pictures: those that a pile is first seen by.
std::optional<Fingerprint> FrameStore::scaled_key(const FrameFile& file, int level, const Developing& how) const {
    constexpr int longest_side = 1024;
    const Size size = at_level(file.facts.size, level);
    if (level == 0 || how.dark || std::max(size.width, size.height) > longest_side) return std::nullopt;
    const std::optional<Fingerprint> content = content_of(file);
    if (!content) return std::nullopt;
    return derived_key("scaled frame",
                       pile::fingerprint(*content, level, space_.profile, space_.channels, space_.balance, how.stops));
}

Result<SharedPixels> FrameStore::load(const FrameFile& file, int level, Job& job, const Developing& how) {
    if (SharedPixels known = held(file, level, how)) return known;
    SharedPixels pixels;
    if (level > scaled_levels) {
        // By way of the nearest level that is decoded, which is wanted sooner or later.
        Result<SharedPixels> near = load(file, scaled_levels, job, how);
        if (!near.ok()) return near;
        pixels = std::make_shared<const FramePixels>(further(*near.value(), level - scaled_levels));
    } else {
        Result<FramePixels> read = solved<FramePixels>(derived_.get(), scaled_key(file, level, how),
                                                       [&] { return read_pixels(file, level, space_, job, how); });
        if (!read.ok()) return read.failure();
        pixels = std::make_shared<const FramePixels>(std::move(read).value());
    }
    const std::lock_guard lock(mutex_);
    pixels_.keep(key_of(file, level, how), pixels);
    return pixels;
}

Result<SharedTiles> FrameStore::load_tiles(const FrameFile& file, int level, OpenFrame& open, Job& job,
                                           const Developing& how) {
    if (SharedTiles known = held_tiles(file, level, how)) return known;
    Result<SharedTiles> made = TiledFrame::make(open, *scratch_, job);
    if (!made.ok()) return made;
    const std::lock_guard lock(mutex_);
    tiles_.emplace(key_of(file, level, how), made.value());
    return made;
}

SharedRaster FrameStore::mean_of(const Fingerprint& recipe) {
    const std::lock_guard lock(mutex_);
    return means_.find(recipe);
}

void FrameStore::keep_mean(const Fingerprint& recipe, const SharedRaster& raster) {
    const std::lock_guard lock(mutex_);
    means_.keep(recipe, raster);
}

std::shared_ptr<const RawDark> FrameStore::raw_dark(const Fingerprint& recipe) {
    const std::lock_guard lock(mutex_);
    return raw_darks_.find(recipe);
}

void FrameStore::keep_raw_dark(const Fingerprint& recipe, const std::shared_ptr<const RawDark>& dark) {
    const std::lock_guard lock(mutex_);
    raw_darks_.keep(recipe, dark);
}

std::shared_ptr<const FrameStore::Kept> FrameStore::find_kept(const Fingerprint& key) {
    const std::lock_guard lock(mutex_);
    return kept_.find(key);
}

void FrameStore::keep_kept(const Fingerprint& key, const std::shared_ptr<const Kept>& value) {
    const std::lock_guard lock(mutex_);
    kept_.keep(key, value);
}

bool FrameStore::keeps(const FrameFile& file, int level, int together) const {
    const Size size = at_level(file.facts.size, level);
    // What is converted is held in 16 bits, whatever the file has.
    const bool as_it_is = file.facts.profile == space_.profile && file.facts.channels == space_.channels;
    const double sample = as_it_is ? file.facts.bits / 8.0 : 2;
    return sample * size.width * size.height * space_.channels * together <= double(budget().keep_bytes);
}

bool FrameStore::keeps_tiles(const FrameFile& file, int level, int missing) const {
    if (budget().keep_bytes == 0) return false;
    const std::size_t pixel = std::size_t(file.facts.bits / 8) * std::size_t(space_.channels);
    const double each = double(TiledFrame::bytes_for(at_level(file.facts.size, level), pixel));
    return each * missing <= double(scratch_->room());
}

void FrameStore::clear() {
    const std::lock_guard lock(mutex_);
    pixels_.clear();
    tiles_.clear();
    means_.clear();
    raw_darks_.clear();
    kept_.clear();
}

std::size_t FrameStore::bytes() const {
    const std::lock_guard lock(mutex_);
    return pixels_.bytes();
}

}  // namespace bp
