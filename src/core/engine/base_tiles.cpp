#include "engine/base_tiles.h"

#include <algorithm>
#include <optional>
#include <vector>

#include "engine/knitting.h"
#include "pile/fingerprint.h"

namespace bp {
namespace {

// The tiles of a grid that begins at the canvas's own corner, as far as the canvas goes: whole ones, so that a region
// that reaches a little further or less finds them again.
std::vector<Rect> tiles_of(const Rect& region, const Rect& canvas) {
    std::vector<Rect> out;
    constexpr int side = BaseTiles::side;
    for (int y = floor_div(region.top, side) * side; y < region.bottom(); y += side)
        for (int x = floor_div(region.left, side) * side; x < region.right(); x += side)
            out.push_back(intersect({x, y, side, side}, unite(canvas, region)));
    return out;
}

std::vector<Rect> united(const std::vector<Rect>& tiles) {
    Rect around;
    for (const Rect& tile : tiles) around = unite(around, tile);
    return tiles.empty() ? std::vector<Rect>() : std::vector<Rect>{around};
}

// Tiles that lie side by side as one rectangle each, those that lie over each other too when they are as wide: what is
// missing after a move along a diagonal is two of them, not all that lies around.
std::vector<Rect> joined(const std::vector<Rect>& tiles) {
    std::vector<Rect> rows;
    for (const Rect& tile : tiles) {
        Rect* last = rows.empty() ? nullptr : &rows.back();
        if (last && last->top == tile.top && last->height == tile.height && last->right() == tile.left)
            last->width += tile.width;
        else
            rows.push_back(tile);
    }
    std::vector<Rect> out;
    for (const Rect& row : rows) {
        const auto above = std::find_if(out.begin(), out.end(), [&](const Rect& r) {
            return r.left == row.left && r.width == row.width && r.bottom() == row.top;
        });
        if (above == out.end())
            out.push_back(row);
        else
            above->height += row.height;
    }
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
Fingerprint recipe_of_zone(const Pile& pile, Zone zone) {
    const ModeEntry& mode = entry_of(method_of(pile, zone).mode);
    const std::vector<int> ids = merged_ids(pile, zone);
    const std::vector<double> strengths = strengths_of(pile, zone);
    const std::vector<Softening> softenings = softenings_of(pile, zone);
    std::vector<Fingerprint> frames;
    for (std::size_t i = 0; i < ids.size(); ++i) {
        frames.push_back(
            pile::fingerprint(frame_recipe(pile, *find_frame(pile, ids[i]), zone), strengths[i], softenings[i]));
    }
    const By by = mode.chooses_pixels() ? method_of(pile, zone).by : By::channel;
    const bool soft_white = mode.mode == Mode::add && method_of(pile, zone).soft_white;
    return pile::fingerprint(mode.mode, by, soft_white, frames);
}

}  // namespace

Fingerprint frame_recipe(const Pile& pile, const Frame& frame, Zone zone) {
    const DarkChoice darks = darks_of(pile, frame);
    std::vector<SharedFrameFile> less;
    less.reserve(darks.ids.size());
    for (const int id : darks.ids) less.push_back(find_frame(pile, id)->file);
    return pile::fingerprint(frame.file, darks.scale, less, placement(pile, frame, zone), gains_of(pile, frame),
                             look_of(pile, frame), frame.silence);
}

Fingerprint base_recipe(const Pile& pile) {
    const std::optional<Fingerprint> land = pile.zones ? std::optional(recipe_of_zone(pile, Zone::land)) : std::nullopt;
    // What is added depends on frames that are set aside, too.
    const std::optional<Fingerprint> lights = knits(pile) ? std::optional(recipe_of_lights(pile)) : std::nullopt;
    const Knit knit = lights ? pile.knit : Knit{};
    // It shows where nobody votes.
    const bool left_out =
        std::any_of(pile.frames.begin(), pile.frames.end(), [](const Frame& f) { return !f.silence.empty(); });
    const int reference = left_out ? pile.reference : 0;
    const Mask soft = pile.zones ? pile.zones->soft : Mask();
    return pile::fingerprint(pile.size, pile.channels, pile.profile, pile.balance, pile.hot, pile.spots,
                             pile.canvas.background, pile.light, knit, lights, reference,
                             recipe_of_zone(pile, Zone::sky), land, soft);
}

BaseTiles::Key BaseTiles::key_of(const Fingerprint& recipe, int level, const Rect& tile) {
    return {recipe, level, tile.left, tile.top, tile.width, tile.height};
}

Result<Raster16> BaseTiles::base(const Pile& pile, const Rect& region, int level, bool apart,
                                 const std::function<Result<Raster16>(const Rect& area)>& merge) {
    const Fingerprint recipe = base_recipe(pile);
    Raster16 out(region.size(), pile.channels);
    std::vector<Rect> missing;
    for (const Rect& tile : tiles_of(region, at_level(canvas_of(pile), level))) {
        if (const SharedRaster known = find(key_of(recipe, level, tile))) {
            copy_common(*known, tile, out, region);
        } else {
            missing.push_back(tile);
        }
    }
    for (const Rect& area : apart ? joined(missing) : united(missing)) {
        Result<Raster16> fresh = merge(area);
        if (!fresh.ok()) return fresh.failure();
        copy_common(fresh.value(), area, out, region);
        for (const Rect& tile : missing) {
            if (intersect(tile, area) != tile) continue;
            auto raster = std::make_shared<Raster16>(tile.size(), pile.channels);
            copy_common(fresh.value(), area, *raster, tile);
            keep(key_of(recipe, level, tile), raster);
        }
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
