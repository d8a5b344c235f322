#include "pile/part_edits.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <set>

#include "base/text.h"
#include "pile/limits.h"

namespace bp {
namespace {

// Looking for them again makes them anew.
bool is_found(PartOf kind) {
    return kind == PartOf::subject || kind == PartOf::meteor;
}

// Something that a person does to one part.
template <class Change>
Pile one_part(Pile pile, int id, Change change) {
    for (Part& part : pile.parts)
        if (part.id == id) {
            const Part before = part;
            change(part);
            part.by_hand = part.by_hand || (is_found(part.of) && !(part == before));
        }
    return pile;
}

int next_id(const Pile& pile) {
    int out = 1;
    for (const Part& part : pile.parts) out = std::max(out, part.id + 1);
    return out;
}

// Puts the parts of a sequence into their order; the places that they have among all parts stay theirs.
void order_sequence(Pile& pile) {
    std::vector<Part> parts;
    for (Part& part : pile.parts)
        if (part.of == PartOf::subject) parts.push_back(std::move(part));
    const bool late = pile.sequence.on_top == OnTop::late;
    std::stable_sort(parts.begin(), parts.end(), [&](const Part& a, const Part& b) {
        const int x = number_of(pile, a.frame), y = number_of(pile, b.frame);
        return late ? x < y : y < x;
    });
    auto next = parts.begin();
    for (Part& part : pile.parts)
        if (part.of == PartOf::subject) part = std::move(*next++);
}

Point middle_of(const Pile& pile, const Part& part) {
    const Rect bounds = part.mask.empty() ? whole(pile.size) : part.mask.bounds();
    return {bounds.left + (bounds.width - 1) / 2.0, bounds.top + (bounds.height - 1) / 2.0};
}

// What a person changed among parts that were found.
bool kept(const Part& part, PartOf kind) {
    return part.of != kind || part.by_hand;
}

}  // namespace

std::pair<Pile, int> with_new_part(Pile pile, int frame) {
    Part part;
    part.id = next_id(pile);
    part.frame = frame;
    part.mask = Mask(pile.size);
    const int id = part.id;
    pile.parts.push_back(std::move(part));
    return {std::move(pile), id};
}

Pile with_part_mask(Pile pile, int part, const Mask& mask) {
    return one_part(std::move(pile), part, [&](Part& p) { p.mask = mask; });
}

Pile with_meteor_band(Pile pile, int part, const DrawnShape& band) {
    const std::array<Point, 2> ends{band.from, band.to};
    Mask mask = along(ends, band.width, band.width / 2, pile.size);
    if (pile.zones) mask = within(std::move(mask), pile.zones->soft);
    return with_part_mask(std::move(pile), part, mask);
}

Pile with_part_join(Pile pile, int part, Join join) {
    return one_part(std::move(pile), part, [join](Part& p) { p.join = join; });
}

Pile with_part_on(Pile pile, int part, bool on) {
    return one_part(std::move(pile), part, [on](Part& p) { p.on = on; });
}

Pile with_part_strength(Pile pile, int part, double strength) {
    return one_part(std::move(pile), part,
                    [=](Part& p) { p.strength = std::isfinite(strength) ? std::clamp(strength, 0.0, 1.0) : 1; });
}

Pile with_part_edge(Pile pile, int part, Edge edge) {
    return one_part(std::move(pile), part, [edge](Part& p) { p.edge = edge; });
}

Pile with_part_band(Pile pile, int part, double band_px) {
    return one_part(std::move(pile), part, [=](Part& p) {
        p.band_px = std::isfinite(band_px) ? std::clamp(band_px, 0.0, pile::widest_band_px) : 0;
    });
}

Pile with_part_look(Pile pile, int part, const Look& look) {
    return one_part(std::move(pile), part, [&](Part& p) { p.look = limited(look); });
}

Pile with_part_place(Pile pile, int part, std::optional<PartPlace> place) {
    if (place) {
        const auto held = [](double v, double least, double most, double otherwise) {
            return std::isfinite(v) ? std::clamp(v, least, most) : otherwise;
        };
        constexpr double far = pile::largest_side_px;
        place->moved = {held(place->moved.x, -far, far, 0), held(place->moved.y, -far, far, 0)};
        place->turn_degrees = held(place->turn_degrees, -180, 180, 0);
        place->scale = held(place->scale, PartPlace::smallest, PartPlace::largest, 1);
        if (*place == PartPlace{}) place.reset();
    }
    return one_part(std::move(pile), part, [&](Part& p) { p.place = place; });
}

Pile with_part_placed_on(Pile pile, int part, const Matrix& change) {
    const Part* of = find_part(pile, part);
    if (!of || !change.finite()) return pile;
    const Matrix now = of->place ? matrix_of(*of->place, pile.size) : Matrix{};
    const Size size = pile.size;
    return with_part_place(std::move(pile), part, place_of(change * now, size));
}

MovedBy moved_by(const Pile& pile, const Part& part) {
    if (!part.place) return {};
    const Point middle = middle_of(pile, part), there = matrix_of(*part.place, pile.size)(middle);
    return {there.x - middle.x, there.y - middle.y, part.place->turn_degrees, part.place->scale};
}

Pile with_part_moved_to(Pile pile, int part, const MovedBy& by, bool mirrored) {
    const Part* of = find_part(pile, part);
    if (!of) return pile;
    const Point middle = middle_of(pile, *of);
    const auto about = [&](const PartPlace& place) {
        // As if the reference had its middle there.
        const Size size = pile.size;
        const Point own{(size.width - 1) / 2.0, (size.height - 1) / 2.0};
        const Matrix to = Matrix::shift(middle.x - own.x, middle.y - own.y);
        return place_of(to * matrix_of(place, size) * inverse(to), size);
    };
    const PartPlace place = about({{by.right_px, by.down_px}, by.turn_degrees, by.scale, mirrored});
    return with_part_place(std::move(pile), part, place);
}

std::vector<const Part*> showing_parts(const Pile& pile) {
    std::vector<const Part*> out;
    for (const Part& part : pile.parts) {
        const Frame* frame = find_frame(pile, part.frame);
        if (part.on && part.strength > 0 && frame && usable(*frame) && !part.mask.empty()) out.push_back(&part);
    }
    return out;
}

bool shows_parts(const Pile& pile) {
    return !showing_parts(pile).empty();
}

const Part* part_at(const Pile& pile, Point canvas) {
    constexpr int seen = 64;  // of 255
    for (auto part = pile.parts.rbegin(); part != pile.parts.rend(); ++part) {
        if (!part->on) continue;
        const Point p = part->place ? inverse(matrix_of(*part->place, pile.size))(canvas) : canvas;
        if (part->mask.at(int(std::lround(p.x)), int(std::lround(p.y))) >= seen) return &*part;
    }
    return nullptr;
}

Pile with_part_name(Pile pile, int part, const std::string& name) {
    return one_part(std::move(pile), part, [&](Part& p) { p.name = valid_utf8(name); });
}

Pile with_part_moved(Pile pile, int part, int steps) {
    const auto found =
        std::find_if(pile.parts.begin(), pile.parts.end(), [part](const Part& p) { return p.id == part; });
    if (found == pile.parts.end()) return pile;
    const auto from = found - pile.parts.begin();
    const auto to = std::clamp<std::ptrdiff_t>(from + steps, 0, std::ptrdiff_t(pile.parts.size()) - 1);
    const auto first = pile.parts.begin();
    if (to > from)
        std::rotate(first + from, first + from + 1, first + to + 1);
    else
        std::rotate(first + to, first + from, first + from + 1);
    return pile;
}

Pile without_part(Pile pile, int part) {
    std::erase_if(pile.parts, [part](const Part& p) { return p.id == part; });
    return pile;
}

std::pair<Pile, int> with_taken(Pile pile, int frame, const Mask& place, bool take) {
    // One that was placed is not where the picture shows the place.
    const auto painted_here = [](const Part& p) { return p.of == PartOf::painted && !p.place; };
    const auto of_frame = [&](const Part& p) { return painted_here(p) && p.frame == frame; };
    int id = 0;
    if (const auto own = std::find_if(pile.parts.rbegin(), pile.parts.rend(), of_frame); own != pile.parts.rend())
        id = own->id;
    if (!find_frame(pile, frame) || place.empty() || (id == 0 && !take)) return {std::move(pile), id};
    if (id == 0) {
        auto [more, made] = with_new_part(std::move(pile), frame);
        pile = std::move(more);
        id = made;
    }
    bool above = false;
    for (Part& part : pile.parts) {
        if (part.id == id) {
            above = true;
            part.mask = take ? united(std::move(part.mask), place) : without(std::move(part.mask), place);
        } else if (above && take && painted_here(part)) {
            part.mask = without(std::move(part.mask), place);
        }
    }
    return {std::move(pile), id};
}

Pile with_found_parts(Pile pile, PartOf kind, std::vector<Part> found) {
    std::erase_if(pile.parts, [kind](const Part& p) { return !kept(p, kind); });
    std::vector<std::pair<int, Outline>> stays;
    for (const Part& part : pile.parts)
        if (part.of == kind) stays.emplace_back(part.frame, Outline(part.mask));
    std::vector<Part> fresh;
    int id = next_id(pile);
    for (Part& part : found) {
        const Outline outline(part.mask);
        const bool there = std::any_of(stays.begin(), stays.end(), [&](const auto& other) {
            return other.first == part.frame && other.second.meets(outline, 0);
        });
        if (there || !find_frame(pile, part.frame)) continue;
        part.id = id++;
        part.of = kind;
        fresh.push_back(std::move(part));
    }
    const auto at = kind == PartOf::subject ? pile.parts.begin() : pile.parts.end();
    pile.parts.insert(at, std::make_move_iterator(fresh.begin()), std::make_move_iterator(fresh.end()));
    return pile;
}

Pile with_subjects(Pile pile, std::span<const FoundSubject> found) {
    std::vector<Part> parts;
    for (std::size_t s = 0; s < found.size(); ++s)
        for (const FoundPlace& place : found[s]) {
            Part part;
            part.frame = place.frame;
            part.mask = place.mask;
            part.subject = int(s) + 1;
            parts.push_back(std::move(part));
        }
    pile = with_found_parts(std::move(pile), PartOf::subject, std::move(parts));
    order_sequence(pile);
    const Sequence sequence(pile);
    const double spacing = pile.sequence.spacing;
    return sequence.spaced(std::move(pile), spacing);
}

const Part* foreground_part(const Pile& pile, int frame) {
    const auto own = std::find_if(pile.parts.begin(), pile.parts.end(),
                                  [frame](const Part& p) { return p.of == PartOf::foreground && p.frame == frame; });
    return own == pile.parts.end() ? nullptr : &*own;
}

Pile with_foreground(Pile pile, int frame, bool on) {
    if (const Part* own = foreground_part(pile, frame)) return with_part_on(std::move(pile), own->id, on);
    if (!on || !find_frame(pile, frame)) return pile;
    Mask mask = Mask::full(pile.size);
    if (pile.zones)
        mask.edit(whole(pile.size),
                  [&](int x, int y, std::uint8_t) { return std::uint8_t(255 - pile.zones->soft.at(x, y)); });
    pile = with_new_part(std::move(pile), frame).first;
    Part& light = pile.parts.back();
    light.of = PartOf::foreground;
    light.join = Join::lighter;
    light.mask = std::move(mask);
    return pile;
}

std::vector<SubjectOf> subjects_of(const Pile& pile) {
    std::vector<SubjectOf> out;
    for (const Part& part : pile.parts) {
        if (part.of != PartOf::subject) continue;
        auto own = std::find_if(out.begin(), out.end(), [&](const SubjectOf& s) { return s.subject == part.subject; });
        if (own == out.end()) own = out.insert(out.end(), {part.subject, 0, 0});
        ++own->parts;
        own->shown += int(part.on);
    }
    std::sort(out.begin(), out.end(), [](const SubjectOf& a, const SubjectOf& b) { return a.subject < b.subject; });
    return out;
}

Sequence::Sequence(const Pile& pile) {
    std::vector<std::pair<int, const Part*>> parts;
    for (const Part& part : pile.parts)
        if (part.of == PartOf::subject && !part.place) parts.emplace_back(number_of(pile, part.frame), &part);
    std::stable_sort(parts.begin(), parts.end(), [](const auto& a, const auto& b) {
        return std::pair(a.second->subject, a.first) < std::pair(b.second->subject, b.first);
    });
    for (const auto& [number, part] : parts) places_.push_back({part->id, part->subject, Outline(part->mask)});
}

Pile Sequence::spaced(Pile pile, double spacing) const {
    pile.sequence.spacing =
        std::isfinite(spacing) ? std::clamp(spacing, 0.0, pile::widest_spacing) : SequenceSettings{}.spacing;
    std::set<int> out_of_picture;
    for (const SubjectOf& s : subjects_of(pile))
        if (s.shown == 0) out_of_picture.insert(s.subject);
    std::set<int> shown;
    std::vector<const Place*> before;
    for (const Place& place : places_) {
        if (out_of_picture.contains(place.subject)) continue;
        const double gap = pile.sequence.spacing * place.outline.length();
        if (std::any_of(before.begin(), before.end(),
                        [&](const Place* other) { return other->outline.meets(place.outline, gap); }))
            continue;
        before.push_back(&place);
        shown.insert(place.part);
    }
    for (const Place& place : places_)
        for (Part& part : pile.parts)
            if (part.id == place.part) part.on = shown.contains(part.id);
    return pile;
}

const Outline* Sequence::outline_of(const Part& part) const {
    const auto own = std::find_if(places_.begin(), places_.end(), [&](const Place& p) { return p.part == part.id; });
    return own == places_.end() || !part.on ? nullptr : &own->outline;
}

// Outlines are told to a thousandth of the picture; of those that touch, the masks decide.
bool Sequence::cover_each_other(const Part& a, const Part& b) const {
    const Outline *first = outline_of(a), *second = outline_of(b);
    if (!first || !second || !first->meets(*second, 0)) return false;
    const Rect both = intersect(a.mask.bounds(), b.mask.bounds());
    for (int y = both.top; y < both.top + both.height; ++y)
        for (int x = both.left; x < both.left + both.width; ++x)
            if (a.mask.at(x, y) >= 128 && b.mask.at(x, y) >= 128) return true;
    return false;
}

Pile Sequence::solved(Pile pile) const {
    std::vector<const Part*> kept;
    for (auto part = pile.parts.rbegin(); part != pile.parts.rend(); ++part) {
        if (!outline_of(*part)) continue;
        part->on = std::none_of(kept.begin(), kept.end(), [&](const Part* k) { return cover_each_other(*k, *part); });
        if (part->on) kept.push_back(&*part);
    }
    return pile;
}

Pile Sequence::cut(Pile pile) const {
    const auto with_id = [&](int id) -> Part& {
        return *std::find_if(pile.parts.begin(), pile.parts.end(), [id](const Part& p) { return p.id == id; });
    };
    for (const auto& [below, above] : overlaps(pile)) {
        Part &lower = with_id(below), &upper = with_id(above);
        if (!cover_each_other(lower, upper)) continue;  // one was cut before, or left out
        auto [of_lower, of_upper] = parted(lower.mask, upper.mask);
        for (auto& [part, mask] : {std::pair(&lower, &of_lower), std::pair(&upper, &of_upper)}) {
            part->by_hand = true;
            if (mask->empty())
                part->on = false;
            else
                part->mask = std::move(*mask);
        }
    }
    return pile;
}

std::vector<std::pair<int, int>> Sequence::overlaps(const Pile& pile) const {
    std::vector<std::pair<int, int>> out;
    for (std::size_t i = 0; i < pile.parts.size(); ++i) {
        for (std::size_t k = i + 1; k < pile.parts.size(); ++k)
            if (cover_each_other(pile.parts[i], pile.parts[k])) out.emplace_back(pile.parts[i].id, pile.parts[k].id);
    }
    return out;
}

Pile with_every(Pile pile, int nth) {
    for (const SubjectOf& subject : subjects_of(pile)) {
        if (subject.shown == 0) continue;
        std::vector<Part*> parts;
        for (Part& part : pile.parts)
            if (part.of == PartOf::subject && part.subject == subject.subject) parts.push_back(&part);
        std::stable_sort(parts.begin(), parts.end(), [&](const Part* a, const Part* b) {
            return number_of(pile, a->frame) < number_of(pile, b->frame);
        });
        for (std::size_t i = 0; i < parts.size(); ++i) parts[i]->on = i % std::size_t(std::max(1, nth)) == 0;
    }
    return pile;
}

Pile with_subject_on(Pile pile, int subject, bool on) {
    for (Part& part : pile.parts)
        if (part.of == PartOf::subject && part.subject == subject) part.on = on;
    if (!on) return pile;
    const Sequence sequence(pile);
    const double spacing = pile.sequence.spacing;
    return sequence.spaced(std::move(pile), spacing);
}

Pile with_on_top(Pile pile, OnTop on_top) {
    pile.sequence.on_top = on_top;
    order_sequence(pile);
    return pile;
}

}  // namespace bp
