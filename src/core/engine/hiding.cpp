#include "engine/hiding.h"

#include <algorithm>
#include <map>

#include "engine/part_rows.h"

namespace bp {
namespace {

constexpr std::uint8_t kept_from = 128;

bool shows(const Pile& pile, const Part& part) {
    const Frame* frame = find_frame(pile, part.frame);
    return part.on && part.strength > 0 && frame && usable(*frame) && !part.mask.empty();
}

// One of which nothing can be seen through.
bool hides(const Pile& pile, const Part& part) {
    return shows(pile, part) && part.join == Join::replace && part.strength >= 0.5;
}

// Calls `at(x, y)` with every pixel of a region that the part keeps.
template <class At>
void each_kept(const Pile& pile, const Part& part, const Rect& region, int level, At at) {
    const LaidMask mask(pile, part, level);
    const Rect box = intersect(mask.bounds(), region);
    if (box.empty()) return;
    std::vector<std::uint8_t> row(std::size_t(box.width));
    for (int y = box.top; y < box.top + box.height; ++y) {
        mask.read_row(y, box.left, box.width, row.data());
        for (int x = 0; x < box.width; ++x)
            if (row[std::size_t(x)] >= kept_from) at(box.left + x, y);
    }
}

// By place among the parts: those of which something may lie under another, and those that lie there above them. The
// others, as a hundred lit frames that hide nothing, need not be read at all.
std::vector<bool> that_may_meet(const Pile& pile) {
    std::vector<bool> out(pile.parts.size());
    std::vector<Rect> reaches;
    for (const Part& part : pile.parts) reaches.push_back(shows(pile, part) ? reach_of(pile, part) : Rect{});
    for (std::size_t above = 0; above < pile.parts.size(); ++above) {
        if (!hides(pile, pile.parts[above])) continue;
        for (std::size_t below = 0; below < above; ++below)
            if (!intersect(reaches[above], reaches[below]).empty()) out[above] = out[below] = true;
    }
    return out;
}

}  // namespace

std::vector<Hidden> hidden_parts(const Pile& pile) {
    constexpr int side = 800;
    const int level = level_within(canvas_of(pile).size(), side);
    const Rect region = at_level(canvas_of(pile), level);
    const std::vector<bool> meets = that_may_meet(pile);
    // The part that lies uppermost, by its place among the parts and from 1 on.
    std::vector<std::size_t> uppermost(std::size_t(region.width) * std::size_t(region.height), 0);
    const auto here = [&](int x, int y) -> std::size_t& {
        return uppermost[std::size_t(y - region.top) * std::size_t(region.width) + std::size_t(x - region.left)];
    };
    std::vector<Hidden> out;
    for (std::size_t k = pile.parts.size(); k-- > 0;) {
        const Part& part = pile.parts[k];
        if (!meets[k]) continue;
        const bool covers = hides(pile, part);
        std::size_t kept = 0, hidden = 0;
        std::map<std::size_t, std::size_t> by;
        each_kept(pile, part, region, level, [&](int x, int y) {
            ++kept;
            std::size_t& above = here(x, y);
            if (above != 0) {
                ++hidden;
                ++by[above];
            } else if (covers) {
                above = k + 1;
            }
        });
        if (hidden == 0) continue;
        const auto most =
            std::max_element(by.begin(), by.end(), [](const auto& a, const auto& b) { return a.second < b.second; });
        out.push_back({part.id, double(hidden) / double(kept), pile.parts[most->first - 1].id});
    }
    std::reverse(out.begin(), out.end());
    return out;
}

HiddenPlace hidden_place(const Pile& pile, int id, int side) {
    HiddenPlace out;
    const Part* part = find_part(pile, id);
    if (!part || !shows(pile, *part)) return out;
    const Rect box = intersect(reach_of(pile, *part), canvas_of(pile));
    if (box.empty()) return out;
    out.level = level_within(box.size(), side);
    const Rect region = at_level(box, out.level);
    out.left = region.left;
    out.top = region.top;
    Raster8 own(region.size(), 1), above(region.size(), 1);
    each_kept(pile, *part, region, out.level, [&](int x, int y) { own.at(x - region.left, y - region.top, 0) = 255; });
    for (const Part* upper = part + 1; upper != pile.parts.data() + pile.parts.size(); ++upper)
        if (hides(pile, *upper))
            each_kept(pile, *upper, region, out.level,
                      [&](int x, int y) { above.at(x - region.left, y - region.top, 0) = 255; });
    out.mask = Mask(region.size());
    out.mask.edit(whole(region.size()),
                  [&](int x, int y, std::uint8_t) { return std::min(own.at(x, y, 0), above.at(x, y, 0)); });
    return out;
}

}  // namespace bp
