#include "pile/finish_edits.h"

#include <algorithm>
#include <cmath>

#include "base/text.h"
#include "pile/fields.h"

namespace bp {
namespace {

// Every number within the limits that its table has; what is no number is as in a new value.
template <class T>
T within_limits(T value) {
    const T plain{};
    std::vector<double> standard;
    pile::fields(plain, [&]<class M, class L>(std::string_view, const M& member, const L&) {
        if constexpr (std::same_as<M, double> && std::same_as<L, pile::Between<double>>) standard.push_back(member);
    });
    std::size_t at = 0;
    pile::fields(value, [&]<class M, class L>(std::string_view, M& member, const L& limits) {
        if constexpr (std::same_as<M, double> && std::same_as<L, pile::Between<double>>) {
            const double usual = standard[at++];
            member = std::isfinite(member) ? std::clamp(member, limits.least, limits.most) : usual;
        }
    });
    return value;
}

FinishPlace tidy(FinishPlace place) {
    place.name = valid_utf8(place.name);
    place.look = limited(place.look);
    place.detail = within_limits(place.detail);
    return within_limits(std::move(place));
}

std::vector<FinishPlace>::iterator at(Finish& finish, int place) {
    return std::find_if(finish.places.begin(), finish.places.end(),
                        [&](const FinishPlace& p) { return p.id == place; });
}

int next_id(const Finish& finish) {
    int out = 0;
    for (const FinishPlace& place : finish.places) out = std::max(out, place.id);
    return out + 1;
}

Mask scaled(const Mask& mask, Size to) {
    if (mask.size() == to || mask.empty()) return mask.size() == to ? mask : Mask(to);
    const double across = double(mask.size().width) / to.width, down = double(mask.size().height) / to.height;
    Mask out(to);
    out.edit(whole(to), [&](int x, int y, std::uint8_t) {
        const int from_x = std::clamp(int((x + 0.5) * across), 0, mask.size().width - 1);
        const int from_y = std::clamp(int((y + 0.5) * down), 0, mask.size().height - 1);
        return mask.at(from_x, from_y);
    });
    return out;
}

Mended tidy(Mended mended) {
    mended = within_limits(std::move(mended));
    std::erase_if(mended.way, [](const Point& p) { return !std::isfinite(p.x) || !std::isfinite(p.y); });
    if (mended.way.size() > Mended::most_points) mended.way.resize(Mended::most_points);
    for (Point& p : mended.way)
        p = {std::clamp(p.x, -pile::furthest_px, pile::furthest_px),
             std::clamp(p.y, -pile::furthest_px, pile::furthest_px)};
    if (!std::isfinite(mended.from.x) || !std::isfinite(mended.from.y)) mended.from = {mended.width_px * 1.2, 0};
    const double far = std::hypot(mended.from.x, mended.from.y), most = Mended::furthest * mended.width_px;
    if (far > most) mended.from = {mended.from.x * most / far, mended.from.y * most / far};
    return mended;
}

}  // namespace

Pile with_finish(Pile pile, Finish finish) {
    pile.finish = std::move(finish);
    return pile;
}

Pile with_finish_look(Pile pile, const Look& look) {
    pile.finish.look = limited(look);
    return pile;
}

Pile with_curves(Pile pile, const Curves& curves) {
    pile.finish.curves = {tidied(curves.brightness), tidied(curves.red), tidied(curves.green), tidied(curves.blue)};
    return pile;
}

Pile with_colour_ranges(Pile pile, const std::vector<ColourRange>& ranges) {
    pile.finish.colours.clear();
    for (const ColourRange& range : ranges)
        if (pile.finish.colours.size() < ColourRange::most) pile.finish.colours.push_back(within_limits(range));
    return pile;
}

Pile with_tints(Pile pile, const TwoTints& tints) {
    pile.finish.tints = within_limits(tints);
    return pile;
}

Pile with_detail(Pile pile, const Detail& detail) {
    pile.finish.detail = within_limits(detail);
    return pile;
}

Pile with_given_back(Pile pile, bool on) {
    pile.finish.give_back = on;
    return pile;
}

Pile with_glow(Pile pile, double strength) {
    pile.finish.glow = std::isfinite(strength) ? std::clamp(strength, 0.0, 100.0) : 0;
    return pile;
}

Pile with_edge_shade(Pile pile, const EdgeShade& shade) {
    pile.finish.edges = within_limits(shade);
    return pile;
}

std::pair<Pile, int> with_new_place(Pile pile, PlaceIn in, const Mask& mask) {
    FinishPlace place;
    place.id = next_id(pile.finish);
    place.in = in;
    place.mask = mask;
    pile.finish.places.push_back(std::move(place));
    return {std::move(pile), next_id(pile.finish) - 1};
}

std::pair<Pile, int> with_new_place(Pile pile, const DrawnShape& shape) {
    auto [made, id] = with_new_place(std::move(pile), PlaceIn::everywhere, Mask());
    return {with_place_shape(std::move(made), id, shape, FinishPlace{}.soft), id};
}

Pile with_place_shape(Pile pile, int place, const DrawnShape& shape, double soft) {
    const auto to = at(pile.finish, place);
    if (to == pile.finish.places.end()) return pile;
    to->shape = within_limits(shape);
    for (Point* p : {&to->shape->from, &to->shape->to})
        *p = {std::isfinite(p->x) ? std::clamp(p->x, -pile::furthest_px, pile::furthest_px) : 0,
              std::isfinite(p->y) ? std::clamp(p->y, -pile::furthest_px, pile::furthest_px) : 0};
    to->soft = std::isfinite(soft) ? std::clamp(soft, 0.0, 1.0) : FinishPlace{}.soft;
    to->mask = Mask(pile.size);
    return pile;
}

Pile with_place_mask(Pile pile, int place, const Mask& mask) {
    const auto to = at(pile.finish, place);
    if (to == pile.finish.places.end()) return pile;
    to->shape.reset();
    to->mask = mask;
    return pile;
}

std::pair<Pile, int> with_copied_place(Pile pile, int place) {
    const auto from = at(pile.finish, place);
    if (from == pile.finish.places.end()) return {std::move(pile), 0};
    FinishPlace copy = *from;
    copy.id = next_id(pile.finish);
    const int id = copy.id;
    pile.finish.places.insert(from + 1, std::move(copy));
    return {std::move(pile), id};
}

Pile with_place(Pile pile, const FinishPlace& place) {
    const auto to = at(pile.finish, place.id);
    if (to != pile.finish.places.end()) *to = tidy(place);
    return pile;
}

Pile without_place(Pile pile, int place) {
    std::erase_if(pile.finish.places, [&](const FinishPlace& p) { return p.id == place; });
    return pile;
}

Pile with_place_moved(Pile pile, int place, int steps) {
    const auto from = at(pile.finish, place);
    if (from == pile.finish.places.end()) return pile;
    const int last = int(pile.finish.places.size()) - 1;
    const int here = int(from - pile.finish.places.begin()), there = std::clamp(here + steps, 0, last);
    FinishPlace moved = std::move(*from);
    pile.finish.places.erase(from);
    pile.finish.places.insert(pile.finish.places.begin() + there, std::move(moved));
    return pile;
}

const FinishPlace* find_place(const Pile& pile, int place) {
    for (const FinishPlace& p : pile.finish.places)
        if (p.id == place) return &p;
    return nullptr;
}

Mask mask_of(const FinishPlace& place, Size size) {
    return place.shape ? mask_of(*place.shape, place.soft, size) : place.mask;
}

std::pair<Pile, int> with_mended(Pile pile, Mended mended) {
    mended = tidy(std::move(mended));
    if (mended.way.empty()) return {std::move(pile), 0};
    mended.id = 1;
    for (const Mended& other : pile.finish.mended) mended.id = std::max(mended.id, other.id + 1);
    const int id = mended.id;
    pile.finish.mended.push_back(std::move(mended));
    return {std::move(pile), id};
}

Pile with_mended_changed(Pile pile, const Mended& mended) {
    const Mended made = tidy(mended);
    for (Mended& one : pile.finish.mended)
        if (one.id == made.id && !made.way.empty()) one = made;
    return pile;
}

Pile without_mended(Pile pile, int id) {
    std::erase_if(pile.finish.mended, [&](const Mended& m) { return m.id == id; });
    return pile;
}

const Mended* find_mended(const Pile& pile, int id) {
    for (const Mended& one : pile.finish.mended)
        if (one.id == id) return &one;
    return nullptr;
}

Finish fitted(const Finish& finish, Size from, Size to) {
    Finish out = finish;
    if (from == to) return out;
    const double across = double(to.width) / from.width, down = double(to.height) / from.height;
    for (FinishPlace& place : out.places) {
        place.mask = scaled(place.mask, to);
        if (!place.shape) continue;
        for (Point* p : {&place.shape->from, &place.shape->to})
            *p = {(p->x + 0.5) * across - 0.5, (p->y + 0.5) * down - 0.5};
    }
    for (Mended& one : out.mended) {
        for (Point& p : one.way) p = {(p.x + 0.5) * across - 0.5, (p.y + 0.5) * down - 0.5};
        one.width_px *= across;
        one.from = {one.from.x * across, one.from.y * down};
        one = tidy(std::move(one));
    }
    return out;
}

}  // namespace bp
