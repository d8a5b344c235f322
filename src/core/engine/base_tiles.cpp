#include "engine/base_tiles.h"

#include <xxhash.h>

#include <algorithm>
#include <sstream>
#include <vector>

namespace bp {
namespace {

int floor_to(int value, int unit) {
    return (value >= 0 ? value / unit : -((-value + unit - 1) / unit)) * unit;
}

// The tiles of a grid that begins at the canvas's own corner, cut to the region.
std::vector<Rect> tiles_of(const Rect& region) {
    std::vector<Rect> out;
    constexpr int side = BaseTiles::side;
    for (int y = floor_to(region.top, side); y < region.bottom(); y += side)
        for (int x = floor_to(region.left, side); x < region.right(); x += side)
            out.push_back(intersect({x, y, side, side}, region));
    return out;
}

// Copies what the two have in common; both are rasters of their areas.
void copy_common(const Raster16& from, const Rect& from_area, Raster16& to, const Rect& to_area) {
    const Rect common = intersect(from_area, to_area);
    const int channels = to.channels();
    for (int y = common.top; y < common.bottom(); ++y)
        std::copy_n(from.row(y - from_area.top) + (common.left - from_area.left) * channels, common.width * channels,
                    to.row(y - to_area.top) + (common.left - to_area.left) * channels);
}

// All that makes the base of a zone.
void write_zone(const Pile& pile, Zone zone, std::ostream& out) {
    const ModeEntry& mode = entry_of(mode_of(pile, zone));
    out << '\n' << mode.name;
    for (const Frame& frame : pile.frames) {
        if (!merged(pile, frame, zone)) continue;
        out << '\n' << frame.file->hash << ' ' << frame.file->path.string();
        if (const DarkChoice darks = darks_of(pile, frame); !darks.ids.empty()) {
            out << " less " << darks.scale;
            for (const int id : darks.ids) {
                const FrameFile& file = *find_frame(pile, id)->file;
                out << ' ' << file.hash << ' ' << file.path.string();
            }
        }
        if (mode.uses_strength) out << ' ' << frame.strength;
        const Placement placed = placement(pile, frame, zone);
        for (const double m : placed.matrix.m()) out << ' ' << m;
        out << ' ' << placed.sensor.x << ' ' << placed.sensor.y;
        if (const auto& lens = placed.lens)
            out << " lens " << lens->middle.x << ' ' << lens->middle.y << ' ' << lens->unit << ' ' << lens->k1 << ' '
                << lens->k2;
        if (placed.flex) out << " flex " << placed.flex->fingerprint();
        for (const double gain : gains_of(pile, frame)) out << ' ' << gain;
        const Look look = look_of(pile, frame);
        for (const LookValue& v : look_values()) out << ' ' << look.*v.value;
    }
}

}  // namespace

BaseTiles::Recipe BaseTiles::recipe_of(const Pile& pile) {
    std::ostringstream out;
    out.precision(17);
    out << int(pile.merge.light) << ' ' << pile.channels << ' ' << pile.size.width << ' ' << pile.size.height << '\n';
    if (!pile.profile.is_srgb())
        for (const std::uint8_t byte : pile.profile.bytes()) out << char(byte);
    if (pile.hot)
        for (const HotPixel& p : *pile.hot) out << p.x << ',' << p.y << ' ';
    if (pile.spots)
        for (const SensorSpot& s : *pile.spots)
            out << s.at.x << ',' << s.at.y << ',' << s.radius_px << ','
                << XXH3_64bits(s.passes->data().data(), s.passes->bytes()) << ' ';
    write_zone(pile, Zone::sky, out);
    if (pile.zones) {
        write_zone(pile, Zone::land, out);
        out << '\n' << pile.zones->feather_px << ' ';
        for (const std::uint64_t word : pile.zones->sky.fingerprint()) out << word << ' ';
    }
    const std::string text = out.str();
    const XXH128_hash_t hash = XXH3_128bits(text.data(), text.size());
    return {hash.high64, hash.low64};
}

BaseTiles::Key BaseTiles::key_of(const Recipe& recipe, int level, const Rect& tile) {
    return {recipe, level, tile.left, tile.top, tile.width, tile.height};
}

Result<Raster16> BaseTiles::base(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job) {
    const Recipe recipe = recipe_of(pile);
    Raster16 out(region.size(), pile.channels);
    std::vector<Rect> missing;
    Rect around;
    for (const Rect& tile : tiles_of(region)) {
        if (const SharedRaster known = find(key_of(recipe, level, tile))) {
            copy_common(*known, tile, out, region);
        } else {
            missing.push_back(tile);
            around = unite(around, tile);
        }
    }
    if (missing.empty()) return out;
    Result<Raster16> fresh = render_base(pile, store, around, level, job);
    if (!fresh.ok()) return fresh.failure();
    copy_common(fresh.value(), around, out, region);
    for (const Rect& tile : missing) {
        auto raster = std::make_shared<Raster16>(tile.size(), pile.channels);
        copy_common(fresh.value(), around, *raster, tile);
        keep(key_of(recipe, level, tile), raster);
    }
    return out;
}

SharedRaster BaseTiles::find(const Key& key) {
    const std::lock_guard lock(mutex_);
    return tiles_.find(key);
}

void BaseTiles::keep(const Key& key, const SharedRaster& raster) {
    const std::lock_guard lock(mutex_);
    ++made_;
    tiles_.keep(key, raster);
}

void BaseTiles::set_budget(std::size_t bytes) {
    const std::lock_guard lock(mutex_);
    tiles_.set_budget(bytes);
}

void BaseTiles::clear() {
    const std::lock_guard lock(mutex_);
    tiles_.clear();
}

std::size_t BaseTiles::made() const {
    const std::lock_guard lock(mutex_);
    return made_;
}

}  // namespace bp
