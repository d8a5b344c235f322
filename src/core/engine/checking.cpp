#include "engine/checking.h"

#include <algorithm>
#include <cmath>

#include "engine/cover.h"
#include "engine/picture.h"
#include "engine/render.h"
#include "parts/pieces.h"
#include "pile/part_edits.h"

namespace bp {
namespace {

constexpr int cover_side = 800;

// A box of a region of a level, in pixels of level 0.
Rect at_full_size(const Rect& box, const Rect& region, int level) {
    const int unit = 1 << level;
    return {(region.left + box.left) * unit, (region.top + box.top) * unit, box.width * unit, box.height * unit};
}

void add_holes(const Pile& pile, std::vector<Flawed>& out) {
    if (pile.canvas.area || merged_ids(pile).empty()) return;
    const Rect area = seen_area(pile);
    const int level = level_within(area.size(), cover_side);
    const Rect region = at_level(area, level);
    const Raster16 shares = cover_shares(pile, region, level);
    Raster8 empty(region.size(), 1);
    for (int y = 0; y < region.height; ++y)
        for (int x = 0; x < region.width; ++x)
            if (shares.at(x, y, 0) == 0) empty.at(x, y, 0) = 255;
    // What a part lays down there is no hole.
    for (const Part& part : pile.parts) {
        if (!part.on) continue;
        const LaidMask mask(pile, part, level);
        std::vector<std::uint8_t> row(std::size_t(region.width), 0);
        for (int y = 0; y < region.height; ++y) {
            mask.read_row(region.top + y, region.left, region.width, row.data());
            for (int x = 0; x < region.width; ++x)
                if (row[std::size_t(x)] > 0) empty.at(x, y, 0) = 0;
        }
    }
    constexpr int least = 4;
    for (const Rect& box : pieces_of(empty, least)) out.push_back({Flaw::hole, 0, 0, at_full_size(box, region, level)});
}

void add_overlaps(const Pile& pile, std::vector<Flawed>& out) {
    for (const auto& [lower, upper] : Sequence(pile).overlaps(pile))
        out.push_back({Flaw::overlap, upper, lower,
                       intersect(find_part(pile, upper)->mask.bounds(), find_part(pile, lower)->mask.bounds())});
}

// Where the part and what lies below it differ strongly right at the border between them.
Result<std::vector<Rect>> cuts_of(const Pile& pile, std::size_t at, FrameStore& store, Job& job) {
    constexpr double strong = 0.10;  // of white, beyond the usual difference along the border
    constexpr int least = 5;         // pixels along the border
    const Part& part = pile.parts[at];
    const int level = level_of_edges(pile);
    Rect box = at_level(reach_of(pile, part), level);
    constexpr int beside = 2;
    box = intersect({box.left - beside, box.top - beside, box.width + 2 * beside, box.height + 2 * beside},
                    at_level(canvas_of(pile), level));
    if (box.empty()) return std::vector<Rect>();
    Pile below = pile;
    below.parts.resize(at);
    const Result<Raster16> ground = composed(below, store, box, level, job);
    if (!ground.ok()) return ground.failure();
    const Result<PartAlone> own = part_alone(pile, part, store, box, level, job);
    if (!own.ok()) return own.failure();
    below.parts.push_back(part);
    const Result<SolvedEdges> edges = Picture(below, level, {}).edges(store, box, job, nullptr);
    if (!edges.ok()) return edges.failure();
    Gathering unread(below, box, level);
    const auto edge = edges.value().find(part.id);
    const PartRows rows(below, below.parts.back(), edge == edges.value().end() ? nullptr : edge->second, unread, level);
    Raster8 mask(box.size(), 1);
    for (int y = 0; y < box.height; ++y) rows.read_mask(box.top + y, box.left, box.width, mask.row(y));
    // The border: where less than half is kept beside where more is.
    const auto kept = [&](int x, int y) {
        return x >= 0 && y >= 0 && x < box.width && y < box.height && mask.at(x, y, 0) >= 128;
    };
    const auto on_border = [&](int x, int y) {
        if (kept(x, y)) return false;
        for (int v = y - 1; v <= y + 1; ++v)
            for (int u = x - 1; u <= x + 1; ++u)
                if (kept(u, v)) return true;
        return false;
    };
    const LightField* light = edge != edges.value().end() && edge->second->light ? &*edge->second->light : nullptr;
    const LightCurve curve = LightCurve::of(pile.profile, pile.channels);
    std::vector<double> apart(std::size_t(box.width) * std::size_t(box.height), 0), along;
    std::vector<std::uint16_t> row;
    for (int y = 0; y < box.height; ++y) {
        row.assign(own.value().samples.row(y), own.value().samples.row(y) + own.value().samples.row_samples());
        if (light)
            change_light(row.data(), *light, level, box.top + y, box.left, std::size_t(box.width), pile.channels,
                         curve);
        for (int x = 0; x < box.width; ++x) {
            if (!on_border(x, y) || !own.value().covered.at(x, y, 0)) continue;
            double sum = 0;
            for (int c = 0; c < pile.channels; ++c) {
                const double d = (double(row[std::size_t(x * pile.channels + c)]) - ground.value().at(x, y, c)) / 65535;
                sum += d * d;
            }
            along.push_back(std::sqrt(sum / pile.channels));
            apart[std::size_t(y) * std::size_t(box.width) + std::size_t(x)] = along.back();
        }
    }
    if (along.empty()) return std::vector<Rect>();
    // As where the two agree: a fourth of the border does, however much of it cuts through something.
    const auto low = along.begin() + std::ptrdiff_t(along.size() / 4);
    std::nth_element(along.begin(), low, along.end());
    const double usual = *low;
    Raster8 cut(box.size(), 1);
    for (int y = 0; y < box.height; ++y)
        for (int x = 0; x < box.width; ++x)
            if (apart[std::size_t(y) * std::size_t(box.width) + std::size_t(x)] > usual + strong) cut.at(x, y, 0) = 255;
    std::vector<Rect> out;
    for (const Rect& piece : pieces_of(cut, least)) out.push_back(at_full_size(piece, box, level));
    return out;
}

}  // namespace

Result<std::vector<Flawed>> flaws_of(const Pile& pile, FrameStore& store, Job& job) {
    std::vector<Flawed> out;
    add_holes(pile, out);
    add_overlaps(pile, out);
    for (std::size_t k = 0; k < pile.parts.size(); ++k) {
        const Part& part = pile.parts[k];
        const Frame* frame = find_frame(pile, part.frame);
        const bool lies_over = part.on && part.join == Join::replace && part.strength > 0 && !part.place && frame &&
                               usable(*frame) && !part.mask.empty();
        if (!lies_over) continue;
        if (job.stopped()) return stopped_failure();
        const Result<std::vector<Rect>> cuts = cuts_of(pile, k, store, job);
        if (!cuts.ok()) return cuts.failure();
        for (const Rect& box : cuts.value()) out.push_back({Flaw::ghost, part.id, 0, box});
    }
    return out;
}

}  // namespace bp
