#include "engine/cover.h"

#include <algorithm>
#include <cmath>
#include <memory>
#include <mutex>
#include <vector>

#include "base/latest.h"
#include "base/parallel.h"
#include "kernels/source_map.h"
#include "pile/fingerprint.h"

namespace bp {
namespace {

using kernels::Span;

// For every row of the canvas, the pixels that a frame reaches.
struct Reached {
    std::vector<Span> rows;
    std::size_t bytes() const { return rows.size() * sizeof(Span); }
};
using SharedReached = std::shared_ptr<const Reached>;

SharedReached reached_by(const Placement& place, Size frame, Size canvas) {
    const kernels::SourceMap map(place, frame);
    kernels::RowPlaces places(map, {0, canvas.width});
    auto out = std::make_shared<Reached>();
    out->rows.reserve(std::size_t(canvas.height));
    for (int y = 0; y < canvas.height; ++y) {
        places.go_to(y);
        out->rows.push_back(places.covered({0, canvas.width}));
    }
    return out;
}

// The same, kept: the area is asked for after every edit, and under a lens it takes its time. Any thread.
SharedReached known_reach(const Placement& place, Size frame, Size canvas) {
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
    std::vector<const Frame*> frames;
    for (const Frame& frame : pile.frames)
        if (merged(pile, frame, zone) && !placement(pile, frame, zone).is_identity()) frames.push_back(&frame);
    std::vector<Span> out(std::size_t(pile.size.height), Span{0, pile.size.width});
    std::mutex mutex;
    parallel_for(0, int(frames.size()), [&](int i) {
        const Frame& frame = *frames[std::size_t(i)];
        const SharedReached own = known_reach(placement(pile, frame, zone), frame.file->facts.size, pile.size);
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
    const int level = level_within(pile.size, cells_across);
    const int unit = 1 << level;
    const Size cells = at_level(pile.size, level);
    std::vector<std::vector<char>> full(std::size_t(cells.height), std::vector<char>(std::size_t(cells.width), 1));
    std::vector<std::uint8_t> sky(std::size_t(cells.width));
    for (const Zone zone : {Zone::sky, Zone::land}) {
        const std::vector<Span> spans = shared_spans(pile, zone);
        for (int y = 0; y < cells.height; ++y) {
            pile.zones->soft.read_row(level, y, 0, cells.width, sky.data());
            Span shared{0, pile.size.width};
            for (int v = y * unit; v < std::min((y + 1) * unit, pile.size.height); ++v)
                shared = {std::max(shared.begin, spans[std::size_t(v)].begin),
                          std::min(shared.end, spans[std::size_t(v)].end)};
            for (int x = 0; x < cells.width; ++x) {
                const auto at = std::size_t(x);
                const bool counts = zone == Zone::sky ? sky[at] > 0 : sky[at] < 255;
                const int end = std::min((x + 1) * unit, pile.size.width);
                if (counts && (x * unit < shared.begin || end > shared.end)) full[std::size_t(y)][at] = 0;
            }
        }
    }
    const Rect best = largest_of(full);
    return intersect({best.left * unit, best.top * unit, best.width * unit, best.height * unit}, whole(pile.size));
}

struct KnownRect {
    Rect rect;
    static std::size_t bytes() { return sizeof(Rect); }
};

// The same, kept: it is asked for after every edit.
Rect full_cover_in_zones(const Pile& pile) {
    static std::mutex mutex;
    static Latest<Fingerprint, std::shared_ptr<const KnownRect>> latest(std::size_t(1) << 12);
    std::vector<Fingerprint> of_all{pile::fingerprint(pile.size, pile.zones->soft)};
    for (const Zone zone : {Zone::sky, Zone::land})
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
std::vector<float> shares_of_row(const std::vector<SharedReached>& frames, std::size_t still, int y, const Rect& region,
                                 int level) {
    const int unit = 1 << level;
    std::vector<int> steps(std::size_t(region.width) + 1, 0);
    for (const SharedReached& frame : frames) {
        const Span row = frame->rows[std::size_t(y)];
        if (row.empty()) continue;
        // Whole pixels of the level.
        const int begin = std::clamp((row.begin + unit - 1) / unit - region.left, 0, region.width);
        const int end = std::clamp((row.end + unit - 1) / unit - region.left, begin, region.width);
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
    const int height = pile.size.height;
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
            best = {shared.begin, top, int(width), bottom - top + 1};
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
    std::vector<std::vector<SharedReached>> reached(2);
    std::vector<std::size_t> still(2, 0);
    for (const Zone zone : {Zone::sky, Zone::land})
        for (const Frame& frame : pile.frames) {
            if (!merged(pile, frame, zone)) continue;
            const Placement place = placement(pile, frame, zone);
            const auto z = std::size_t(zone);
            if (place.is_identity() && frame.file->facts.size == pile.size)
                ++still[z];
            else
                reached[z].push_back(known_reach(place, frame.file->facts.size, pile.size));
        }
    const int unit = 1 << level;
    parallel_for(0, region.height, [&](int row) {
        const int y = std::min((region.top + row) * unit + unit / 2, pile.size.height - 1);
        std::vector<float> share = shares_of_row(reached[0], still[0], y, region, level);
        if (pile.zones) {
            const std::vector<float> land = shares_of_row(reached[1], still[1], y, region, level);
            std::vector<std::uint8_t> sky(share.size());
            pile.zones->soft.read_row(level, region.top + row, region.left, region.width, sky.data());
            for (std::size_t x = 0; x < share.size(); ++x)
                share[x] = land[x] + (share[x] - land[x]) * float(sky[x]) / 255.0F;
        }
        for (std::size_t x = 0; x < share.size(); ++x) out.row(row)[x] = std::uint16_t(std::lround(share[x] * 65535));
    });
    return out;
}

Rect output_area(const Pile& pile) {
    if (pile.crop) return *pile.crop;
    if (pile.cover == Cover::any) return whole(pile.size);
    const Rect shared = full_cover(pile);
    return shared.empty() ? whole(pile.size) : shared;
}

}  // namespace bp
