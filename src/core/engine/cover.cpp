#include "engine/cover.h"

#include <algorithm>
#include <cmath>
#include <memory>
#include <mutex>
#include <vector>

#include "base/latest.h"
#include "base/parallel.h"
#include "engine/carried_mask.h"
#include "engine/turning.h"
#include "engine/zone_rows.h"
#include "kernels/source_map.h"
#include "pile/fingerprint.h"

namespace bp {
namespace {

using kernels::Span;

// For every row of the canvas, from its top, the pixels that a frame reaches.
struct Reached {
    std::vector<Span> rows;
    std::size_t bytes() const { return rows.size() * sizeof(Span); }
};
using SharedReached = std::shared_ptr<const Reached>;

SharedReached reached_by(const Placement& place, Size frame, const Rect& canvas) {
    const kernels::SourceMap map(place, frame);
    const Span columns{canvas.left, canvas.right()};
    kernels::RowPlaces places(map, columns);
    auto out = std::make_shared<Reached>();
    out->rows.reserve(std::size_t(canvas.height));
    for (int y = canvas.top; y < canvas.bottom(); ++y) {
        places.go_to(y);
        out->rows.push_back(places.covered(columns));
    }
    return out;
}

// True where a frame reaches all of the canvas without being looked at.
bool fills(const Placement& place, Size frame, const Rect& canvas) {
    return place.is_identity() && intersect(canvas, whole(frame)) == canvas;
}

// The same, kept: the area is asked for after every edit, and under a lens it takes its time. Any thread.
SharedReached known_reach(const Placement& place, Size frame, const Rect& canvas) {
    static std::mutex mutex;
    static Latest<Fingerprint, SharedReached> latest(std::size_t(64) << 20);
    const Fingerprint key = pile::fingerprint(place, frame, canvas);
    {
        const std::lock_guard lock(mutex);
        if (SharedReached known = latest.find(key)) return known;
    }
    SharedReached made = reached_by(place, frame, canvas);
    const std::lock_guard lock(mutex);
    latest.keep(key, made);
    return made;
}

// For every row of the canvas, the pixels that all merged frames reach.
std::vector<Span> shared_spans(const Pile& pile, Zone zone) {
    const Rect canvas = canvas_of(pile);
    std::vector<const Frame*> frames;
    for (const Frame& frame : pile.frames)
        if (merged(pile, frame, zone) && !fills(placement(pile, frame, zone), frame.file->facts.size, canvas))
            frames.push_back(&frame);
    std::vector<Span> out(std::size_t(canvas.height), Span{canvas.left, canvas.right()});
    std::mutex mutex;
    parallel_for(0, int(frames.size()), [&](int i) {
        const Frame& frame = *frames[std::size_t(i)];
        const SharedReached own = known_reach(placement(pile, frame, zone), frame.file->facts.size, canvas);
        const std::lock_guard lock(mutex);
        for (std::size_t y = 0; y < out.size(); ++y)
            out[y] = {std::max(out[y].begin, own->rows[y].begin), std::min(out[y].end, own->rows[y].end)};
    });
    return out;
}

// The largest rectangle of true cells; `rows` of equal length. By heights of columns over each row and a stack of those
// that still rise.
Rect largest_of(const std::vector<std::vector<char>>& rows) {
    if (rows.empty()) return {};
    const std::size_t width = rows.front().size();
    std::vector<int> heights(width + 1, 0);
    Rect best;
    long best_area = 0;
    for (std::size_t y = 0; y < rows.size(); ++y) {
        std::vector<std::size_t> rising;
        for (std::size_t x = 0; x <= width; ++x) {
            if (x < width) heights[x] = rows[y][x] ? heights[x] + 1 : 0;
            const int here = x < width ? heights[x] : 0;
            while (!rising.empty() && heights[rising.back()] >= here) {
                const int high = heights[rising.back()];
                rising.pop_back();
                const std::size_t from = rising.empty() ? 0 : rising.back() + 1;
                const long area = long(high) * long(x - from);
                if (area <= best_area) continue;
                best_area = area;
                best = {int(from), int(y) - high + 1, int(x - from), high};
            }
            rising.push_back(x);
        }
    }
    return best;
}

// In zones the area that counts has any shape, so it is looked at in cells of a few pixels, each full or not.
Rect found_in_zones(const Pile& pile) {
    constexpr int cells_across = 1600;
    const Rect canvas = canvas_of(pile);
    const int level = level_within(canvas.size(), cells_across);
    const int unit = 1 << level;
    const Rect cells = at_level(canvas, level);
    std::vector<std::vector<char>> full(std::size_t(cells.height), std::vector<char>(std::size_t(cells.width), 1));
    std::vector<std::uint8_t> sky(std::size_t(cells.width));
    for (const Zone zone : both_zones) {
        const std::vector<Span> spans = shared_spans(pile, zone);
        for (int y = 0; y < cells.height; ++y) {
            read_sky(*pile.zones, level, cells.top + y, cells.left, cells.width, sky.data());
            Span shared{canvas.left, canvas.right()};
            const int first = std::max((cells.top + y) * unit, canvas.top);
            for (int v = first; v < std::min((cells.top + y + 1) * unit, canvas.bottom()); ++v) {
                const Span& row = spans[std::size_t(v - canvas.top)];
                shared = {std::max(shared.begin, row.begin), std::min(shared.end, row.end)};
            }
            for (int x = 0; x < cells.width; ++x) {
                const auto at = std::size_t(x);
                const bool counts = zone == Zone::sky ? sky[at] > 0 : sky[at] < 255;
                const int begin = std::max((cells.left + x) * unit, canvas.left);
                const int end = std::min((cells.left + x + 1) * unit, canvas.right());
                if (counts && (begin < shared.begin || end > shared.end)) full[std::size_t(y)][at] = 0;
            }
        }
    }
    const Rect best = largest_of(full);
    return intersect(
        {(cells.left + best.left) * unit, (cells.top + best.top) * unit, best.width * unit, best.height * unit},
        canvas);
}

struct KnownRect {
    Rect rect;
    static std::size_t bytes() { return sizeof(Rect); }
};

// The same, kept: it is asked for after every edit.
Rect full_cover_in_zones(const Pile& pile) {
    static std::mutex mutex;
    static Latest<Fingerprint, std::shared_ptr<const KnownRect>> latest(std::size_t(1) << 12);
    std::vector<Fingerprint> of_all{pile::fingerprint(canvas_of(pile), pile.zones->soft)};
    for (const Zone zone : both_zones)
        for (const Frame& frame : pile.frames)
            if (merged(pile, frame, zone))
                of_all.push_back(pile::fingerprint(zone, placement(pile, frame, zone), frame.file->facts.size));
    const Fingerprint key = pile::fingerprint(of_all);
    {
        const std::lock_guard lock(mutex);
        if (const auto known = latest.find(key)) return known->rect;
    }
    const Rect rect = found_in_zones(pile);
    const std::lock_guard lock(mutex);
    latest.keep(key, std::make_shared<const KnownRect>(KnownRect{rect}));
    return rect;
}

// Of a row of the canvas, how many of a zone's frames reach each pixel of `level`, as a share of `full`.
std::vector<float> shares_of_row(const std::vector<SharedReached>& frames, std::size_t still, std::size_t y,
                                 const Rect& region, int level) {
    const int unit = 1 << level;
    std::vector<int> steps(std::size_t(region.width) + 1, 0);
    for (const SharedReached& frame : frames) {
        const Span row = frame->rows[y];
        if (row.empty()) continue;
        // Whole pixels of the level.
        const int begin = std::clamp(floor_div(row.begin + unit - 1, unit) - region.left, 0, region.width);
        const int end = std::clamp(floor_div(row.end + unit - 1, unit) - region.left, begin, region.width);
        ++steps[std::size_t(begin)];
        --steps[std::size_t(end)];
    }
    std::vector<float> out;
    int reached = int(still);
    const auto all = float(std::max<std::size_t>(1, frames.size() + still));
    for (int x = 0; x < region.width; ++x) {
        reached += steps[std::size_t(x)];
        out.push_back(float(reached) / all);
    }
    return out;
}

Rect full_cover_of_all(const Pile& pile) {
    const std::vector<Span> spans = shared_spans(pile, Zone::sky);
    Rect best;
    long best_area = 0;
    const int height = int(spans.size());
    for (int top = 0; top < height; ++top) {
        // What all rows from here down share.
        Span shared = spans[std::size_t(top)];
        for (int bottom = top; bottom < height && !shared.empty(); ++bottom) {
            const Span& row = spans[std::size_t(bottom)];
            shared = {std::max(shared.begin, row.begin), std::min(shared.end, row.end)};
            const long width = shared.end - shared.begin;
            if (width * (height - top) <= best_area) break;
            if (width * (bottom - top + 1) <= best_area) continue;
            best_area = width * (bottom - top + 1);
            best = {shared.begin, canvas_of(pile).top + top, int(width), bottom - top + 1};
        }
    }
    return best;
}

}  // namespace

Rect full_cover(const Pile& pile) {
    return pile.zones ? full_cover_in_zones(pile) : full_cover_of_all(pile);
}

Raster16 cover_shares(const Pile& pile, const Rect& region, int level) {
    Raster16 out(region.size(), 1);
    const Rect canvas = canvas_of(pile);
    std::vector<std::vector<SharedReached>> reached(2);
    std::vector<std::size_t> still(2, 0);
    for (const Zone zone : both_zones)
        for (const Frame& frame : pile.frames) {
            if (!merged(pile, frame, zone)) continue;
            const Placement place = placement(pile, frame, zone);
            const auto z = std::size_t(zone);
            if (fills(place, frame.file->facts.size, canvas))
                ++still[z];
            else
                reached[z].push_back(known_reach(place, frame.file->facts.size, canvas));
        }
    const int unit = 1 << level;
    parallel_for(0, region.height, [&](int row) {
        const int middle = std::clamp((region.top + row) * unit + unit / 2, canvas.top, canvas.bottom() - 1);
        const auto y = std::size_t(middle - canvas.top);
        std::vector<float> share = shares_of_row(reached[0], still[0], y, region, level);
        if (pile.zones) {
            const std::vector<float> land = shares_of_row(reached[1], still[1], y, region, level);
            std::vector<std::uint8_t> sky(share.size());
            read_sky(*pile.zones, level, region.top + row, region.left, region.width, sky.data());
            for (std::size_t x = 0; x < share.size(); ++x)
                share[x] = land[x] + (share[x] - land[x]) * float(sky[x]) / 255.0F;
        }
        for (std::size_t x = 0; x < share.size(); ++x) out.row(row)[x] = std::uint16_t(std::lround(share[x] * 65535));
    });
    return out;
}

std::optional<Rect> unvoted_area(const Pile& pile, Zone zone) {
    constexpr int looked_at_side = 400;
    constexpr std::uint8_t half = 128;
    std::vector<const Frame*> frames;
    Rect area = canvas_of(pile);
    for (const int id : merged_ids(pile, zone)) {
        const Frame* frame = find_frame(pile, id);
        if (frame->silence.empty()) return std::nullopt;
        frames.push_back(frame);
        area = intersect(area, on_canvas(frame->silence, placement(pile, *frame, zone)).bounds());
        if (area.empty()) return std::nullopt;
    }
    if (frames.empty()) return std::nullopt;
    const int step = 1 << level_within(area.size(), looked_at_side);
    std::vector<Placement> places;
    for (const Frame* frame : frames) places.push_back(placement(pile, *frame, zone));
    const auto nobody = [&](double x, double y) {
        bool any = false;
        for (std::size_t k = 0; k < frames.size(); ++k) {
            const Point p = places[k].to_frame({x, y});
            if (!std::isfinite(p.x) || !std::isfinite(p.y)) continue;
            const int u = int(std::lround(p.x)), v = int(std::lround(p.y));
            if (intersect(whole(pile.size), {u, v, 1, 1}).empty()) continue;
            if (frames[k]->silence.at(u, v) < half) return false;
            any = true;
        }
        return any;
    };
    Rect out;
    for (int y = area.top; y < area.bottom(); y += step)
        for (int x = area.left; x < area.right(); x += step)
            if (nobody(x, y)) out = unite(out, {x, y, step, step});
    return out.empty() ? std::nullopt : std::optional(out);
}

Rect output_area(const Pile& pile) {
    const Turn turn(pile);
    // One that nothing of the turned picture reaches is none.
    if (pile.crop && !turn.made_from(*pile.crop).empty()) return *pile.crop;
    const Rect canvas = canvas_of(pile), shared = pile.cover == Cover::any ? canvas : full_cover(pile);
    return inside_turned(turn, shared.empty() ? canvas : shared);
}

Rect seen_area(const Pile& pile) {
    return Turn(pile).made_from(output_area(pile));
}

}  // namespace bp
