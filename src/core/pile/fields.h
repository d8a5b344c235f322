// One table a value type: what its fields are called in pile files, and between which limits they lie. Reading,
// writing, checking, telling apart and the schema all go through it.
//
// fields(value, visit) calls visit(name, member, limits) for every field. Each table begins by naming every member of
// its type in a structured binding: one that is added to the type and not here does not compile.
#pragma once

#include <concepts>
#include <limits>
#include <string_view>
#include <type_traits>
#include <utility>
#include <vector>

#include "pile/limits.h"
#include "pile/outcomes.h"
#include "pile/pile.h"

namespace bp::pile {

// A number between these, both inclusive.
template <class T>
struct Between {
    T least, most;
};
// Any number that can be counted, text, a choice, or a value with a table or a form of its own.
struct Any {};
// What a reader cannot do without.
struct Needed {};
// A number that is one of these.
template <class T>
struct OneOf {
    std::vector<T> values;
};
// Found out anew whenever a pile is opened: neither written nor read.
struct FoundAnew {};

// A rectangle that may lie anywhere around the reference.
struct AroundTheReference {};
// One that lies on the canvas.
struct OnCanvas {};

template <class T>
constexpr bool is_per_zone = false;
template <class T>
constexpr bool is_per_zone<PerZone<T>> = true;

template <class Self, class Value>
concept Is = std::same_as<std::remove_const_t<Self>, Value>;

template <class Self, class Visit>
requires is_per_zone<std::remove_const_t<Self>>
void fields(Self& both, Visit&& visit) {
    auto& [sky, land] = both;
    visit("sky", sky, Any{});
    visit("land", land, Any{});
}

template <Is<Look> Self, class Visit>
void fields(Self& look, Visit&& visit) {
    for (const LookValue& v : look_values()) visit(v.name, look.*v.value, Between<double>{v.least, v.most});
}

template <Is<Lens> Self, class Visit>
void fields(Self& lens, Visit&& visit) {
    auto& [middle, unit, k1, k2] = lens;
    visit("middle", middle, Between<double>{-furthest_px, furthest_px});
    visit("unit_px", unit, Between<double>{1, furthest_px});
    visit("k1", k1, Between<double>{-longest_lens, longest_lens});
    visit("k2", k2, Between<double>{-longest_lens, longest_lens});
}

template <Is<Placement> Self, class Visit>
void fields(Self& place, Visit&& visit) {
    auto& [matrix, lens, sensor, flex, after] = place;
    visit("matrix", matrix, Any{});
    visit("lens", lens, Any{});
    visit("sensor", sensor, Any{});
    visit("flex", flex, Any{});
    visit("after", after, Any{});
}

template <Is<Alignment> Self, class Visit>
void fields(Self& place, Visit&& visit) {
    auto& [to_reference, lens, sensor, flex, residual_px, confidence, aligned, by_clock, by_hand, insisted] = place;
    visit("to_reference", to_reference, Needed{});
    visit("lens", lens, Any{});
    visit("sensor_px", sensor, Between<double>{-furthest_px, furthest_px});
    visit("flex", flex, Any{});
    visit("residual_px", residual_px, Between<double>{0, furthest_px});
    visit("confidence", confidence, Between<double>{0, 1});
    visit("aligned", aligned, Any{});
    visit("by_clock", by_clock, Any{});
    visit("by_hand", by_hand, Any{});
    visit("insisted", insisted, Any{});
}

template <Is<LightGains> Self, class Visit>
void fields(Self& gains, Visit&& visit) {
    auto& [gain, by_person] = gains;
    visit("gain", gain, Between<double>{1 / most_gain, most_gain});
    visit("by_person", by_person, Any{});
}

template <Is<FrameFile> Self, class Visit>
void fields(Self& file, Visit&& visit) {
    auto& [path, bytes, hash, facts, capture, modified] = file;
    visit("path", path, Needed{});
    visit("bytes", bytes, Any{});
    visit("hash", hash, Any{});
    visit("facts", facts, FoundAnew{});
    visit("capture", capture, FoundAnew{});
    visit("modified", modified, FoundAnew{});
}

template <Is<Line> Self, class Visit>
void fields(Self& line, Visit&& visit) {
    auto& [from, to, width_px, brightness, blinks, even, confidence] = line;
    visit("from", from, Between<double>{-furthest_px, furthest_px});
    visit("to", to, Between<double>{-furthest_px, furthest_px});
    visit("width_px", width_px, Between<double>{1, widest_streak_px});
    visit("brightness", brightness, Between<double>{0, brightest_streak});
    visit("blinks", blinks, Between<double>{0, brightest_streak});
    visit("even", even, Between<double>{0, brightest_streak});
    visit("confidence", confidence, Between<double>{0, 1});
}

template <Is<FrameStreak> Self, class Visit>
void fields(Self& streak, Visit&& visit) {
    auto& [kind, thing, line, left_out, by_hand] = streak;
    visit("kind", kind, Any{});
    visit("thing", thing, Between<int>{0, most_things});
    visit("line", line, Needed{});
    visit("left_out", left_out, Any{});
    visit("by_hand", by_hand, Any{});
}

template <Is<Frame> Self, class Visit>
void fields(Self& frame, Visit&& visit) {
    auto& [id, file, role, role_from, note, aside, problem, changed, strength, places, look, gains, left_out, streaks,
           silence] = frame;
    visit("id", id, Needed{});
    visit("file", file, Needed{});
    visit("role", role, Any{});
    visit("role_from", role_from, Any{});
    visit("note", note, Any{});
    visit("aside", aside, Any{});
    visit("problem", problem, FoundAnew{});
    visit("changed", changed, FoundAnew{});
    visit("strength", strength, Between<double>{0, 1});
    visit("places", places, Any{});
    visit("look", look, Any{});
    visit("gains", gains, Any{});
    visit("left_out", left_out, Any{});
    visit("streaks", streaks, Any{});
    visit("silence", silence, FoundAnew{});
}

template <Is<PartPlace> Self, class Visit>
void fields(Self& place, Visit&& visit) {
    auto& [moved, turn_degrees, scale, mirrored] = place;
    visit("moved_px", moved, Between<double>{-largest_side_px, largest_side_px});
    visit("turn_degrees", turn_degrees, Between<double>{-180, 180});
    visit("scale", scale, Between<double>{PartPlace::smallest, PartPlace::largest});
    visit("mirrored", mirrored, Any{});
}

template <Is<Part> Self, class Visit>
void fields(Self& part, Visit&& visit) {
    auto& [id, name, frame, mask, edge, band_px, place, look, join, on, strength, lowered, of, subject, by_hand] = part;
    visit("id", id, Needed{});
    visit("name", name, Any{});
    visit("frame", frame, Needed{});
    visit("mask", mask, Any{});
    visit("edge", edge, Any{});
    visit("band_px", band_px, Between<double>{0, widest_band_px});
    visit("place", place, Any{});
    visit("look", look, Any{});
    visit("join", join, Any{});
    visit("on", on, Any{});
    visit("strength", strength, Between<double>{0, 1});
    visit("lowered", lowered, Between<double>{0, 1});
    visit("of", of, Any{});
    visit("subject", subject, Between<int>{0, most_subjects});
    visit("by_hand", by_hand, Any{});
}

template <Is<Zones> Self, class Visit>
void fields(Self& zones, Visit&& visit) {
    auto& [sky, feather_px, soft] = zones;
    visit("sky", sky, Any{});
    visit("feather_px", feather_px, Between<double>{0, Mask::widest_softening});
    visit("soft", soft, FoundAnew{});
}

template <Is<SensorSpot> Self, class Visit>
void fields(Self& spot, Visit&& visit) {
    auto& [at, radius_px, area, passes] = spot;
    visit("at", at, Between<double>{-furthest_px, furthest_px});
    visit("radius_px", radius_px, Between<double>{smallest_spot_px, largest_spot_px});
    visit("area", area, Needed{});
    visit("passes", passes, Needed{});
}

template <Is<Taper> Self, class Visit>
void fields(Self& taper, Visit&& visit) {
    auto& [end, over, knot] = taper;
    visit("end", end, Any{});
    visit("over", over, Between<double>{Taper::shortest, 1});
    visit("knot", knot, Between<double>{Taper::nearest_knot, 1 - Taper::nearest_knot});
}

template <Is<Softening> Self, class Visit>
void fields(Self& softening, Visit&& visit) {
    auto& [radius_px, as_bright] = softening;
    visit("radius_px", radius_px, Between<double>{0, Softening::widest_px});
    visit("as_bright", as_bright, Any{});
}

template <Is<Head> Self, class Visit>
void fields(Self& head, Visit&& visit) {
    auto& [on, frames, apart, softening] = head;
    visit("on", on, Any{});
    visit("frames", frames, Between<int>{1, Head::most_frames});
    visit("apart", apart, Between<int>{0, Head::most_apart});
    visit("softening", softening, Any{});
}

template <Is<Knit> Self, class Visit>
void fields(Self& knit, Visit&& visit) {
    auto& [on, longest_s] = knit;
    visit("on", on, Any{});
    visit("longest_s", longest_s, Between<double>{0, Knit::longest_pause_s});
}

template <Is<Method> Self, class Visit>
void fields(Self& method, Visit&& visit) {
    auto& [model, mode, by, taper, head, soft_white] = method;
    visit("model", model, Any{});
    visit("mode", mode, Any{});
    visit("by", by, Any{});
    visit("taper", taper, Any{});
    visit("head", head, Any{});
    visit("soft_white", soft_white, Any{});
}

template <Is<CanvasSettings> Self, class Visit>
void fields(Self& canvas, Visit&& visit) {
    auto& [area, background, measure, dpi] = canvas;
    visit("area", area, AroundTheReference{});
    visit("background", background, Between<double>{0, 1});
    visit("measure", measure, Any{});
    visit("dpi", dpi, Between<double>{lowest_dpi, highest_dpi});
}

template <Is<SequenceSettings> Self, class Visit>
void fields(Self& sequence, Visit&& visit) {
    auto& [spacing, on_top] = sequence;
    visit("spacing", spacing, Between<double>{0, widest_spacing});
    visit("on_top", on_top, Any{});
}

template <Is<ExportSettings> Self, class Visit>
void fields(Self& to, Visit&& visit) {
    auto& [ending, bits, quality, profile, from_file, long_edge_px, sharpen, whereabouts, name] = to;
    visit("ending", ending, OneOf<std::string>{{".tif", ".png", ".jpg", ".webp", ".jxl", ".exr", ".ora"}});
    visit("bits", bits, OneOf<int>{{8, 16, 32}});
    visit("quality", quality, Between<int>{1, 100});
    visit("profile", profile, Any{});
    visit("from_file", from_file, Any{});
    visit("long_edge_px", long_edge_px, Between<int>{0, largest_side_px});
    visit("sharpen", sharpen, Between<double>{0, 300});
    visit("whereabouts", whereabouts, Any{});
    visit("name", name, Any{});
}

template <Is<GrowthSettings> Self, class Visit>
void fields(Self& growth, Visit&& visit) {
    auto& [ending, rate, seconds, hold_s, lines, quality] = growth;
    visit("ending", ending, OneOf<std::string>{{".mp4", ".webm", ""}});
    visit("rate", rate, Between<double>{lowest_rate, highest_rate});
    visit("seconds", seconds, Between<double>{0, longest_growth_s});
    visit("hold_s", hold_s, Between<double>{0, longest_hold_s});
    visit("lines", lines, Between<int>{fewest_lines, most_lines});
    visit("quality", quality, Between<int>{1, 100});
}

template <Is<Curve> Self, class Visit>
void fields(Self& curve, Visit&& visit) {
    auto& [points] = curve;
    visit("points", points, Between<double>{0, 1});
}

template <Is<Curves> Self, class Visit>
void fields(Self& curves, Visit&& visit) {
    auto& [brightness, red, green, blue] = curves;
    visit("brightness", brightness, Any{});
    visit("red", red, Any{});
    visit("green", green, Any{});
    visit("blue", blue, Any{});
}

template <Is<ColourRange> Self, class Visit>
void fields(Self& range, Visit&& visit) {
    auto& [hue_at, hue_turn, strength, brightness] = range;
    visit("hue_at", hue_at, Between<double>{0, 360});
    visit("hue_turn", hue_turn, Between<double>{-60, 60});
    visit("strength", strength, Between<double>{-100, 100});
    visit("brightness", brightness, Between<double>{-200, 200});
}

template <Is<TwoTints> Self, class Visit>
void fields(Self& tints, Visit&& visit) {
    auto& [dark_hue, dark_strength, bright_hue, bright_strength, middle] = tints;
    visit("dark_hue", dark_hue, Between<double>{0, 360});
    visit("dark_strength", dark_strength, Between<double>{0, 100});
    visit("bright_hue", bright_hue, Between<double>{0, 360});
    visit("bright_strength", bright_strength, Between<double>{0, 100});
    visit("middle", middle, Between<double>{-100, 100});
}

template <Is<Detail> Self, class Visit>
void fields(Self& detail, Visit&& visit) {
    auto& [sharpen, sharpen_px, halo, flat, local, local_px, wide, smooth, smooth_colour, stars] = detail;
    visit("sharpen", sharpen, Between<double>{0, 300});
    visit("sharpen_px", sharpen_px, Between<double>{0.3, 3});
    visit("halo", halo, Between<double>{0, 200});
    visit("flat", flat, Between<double>{0, 100});
    visit("local", local, Between<double>{-100, 100});
    visit("local_px", local_px, Between<double>{2, 20});
    visit("wide", wide, Between<double>{-100, 100});
    visit("smooth", smooth, Between<double>{0, 100});
    visit("smooth_colour", smooth_colour, Between<double>{0, 100});
    visit("stars", stars, Between<double>{-100, 100});
}

template <Is<EdgeShade> Self, class Visit>
void fields(Self& shade, Visit&& visit) {
    auto& [stops, from, round] = shade;
    visit("stops", stops, Between<double>{-4, 4});
    visit("from", from, Between<double>{0, 95});
    visit("round", round, Between<double>{0, 100});
}

template <Is<DrawnShape> Self, class Visit>
void fields(Self& shape, Visit&& visit) {
    auto& [kind, from, to, width] = shape;
    visit("kind", kind, Any{});
    visit("from", from, Between<double>{-furthest_px, furthest_px});
    visit("to", to, Between<double>{-furthest_px, furthest_px});
    visit("width_px", width, Between<double>{0, furthest_px});
}

template <Is<FinishPlace> Self, class Visit>
void fields(Self& place, Visit&& visit) {
    auto& [id, name, shape, soft, mask, in, look, detail, on, strength] = place;
    visit("id", id, Needed{});
    visit("name", name, Any{});
    visit("mask", mask, Any{});
    visit("shape", shape, Any{});
    visit("soft", soft, Between<double>{0, 1});
    visit("in", in, Any{});
    visit("look", look, Any{});
    visit("detail", detail, Any{});
    visit("on", on, Any{});
    visit("strength", strength, Between<double>{0, 1});
}

template <Is<Mended> Self, class Visit>
void fields(Self& mended, Visit&& visit) {
    auto& [id, way, width_px, from, source, frame, on] = mended;
    visit("id", id, Needed{});
    visit("way", way, Between<double>{-furthest_px, furthest_px});
    visit("width_px", width_px, Between<double>{Mended::narrowest, Mended::widest});
    visit("from", from, Between<double>{-Mended::furthest * Mended::widest, Mended::furthest * Mended::widest});
    visit("source", source, Any{});
    visit("frame", frame, Any{});
    visit("on", on, Any{});
}

template <Is<Finish> Self, class Visit>
void fields(Self& finish, Visit&& visit) {
    auto& [look, curves, colours, tints, places, detail, edges, give_back, mended, glow] = finish;
    visit("look", look, Any{});
    visit("curves", curves, Any{});
    visit("colours", colours, Any{});
    visit("tints", tints, Any{});
    visit("places", places, Any{});
    visit("detail", detail, Any{});
    visit("edges", edges, Any{});
    visit("give_back", give_back, Any{});
    visit("mended", mended, Any{});
    visit("glow", glow, Between<double>{0, 100});
}

template <Is<Pile> Self, class Visit>
void fields(Self& pile, Visit&& visit) {
    auto& [outcome, size, channels, profile, balance, frames, reference, base, methods, trust, look, levelling, darks,
           hot, spots, knit, light, zones, canvas, cover, crop, turn_deg, parts, sequence, finish, exporting, also,
           growth] = pile;
    visit("outcome", outcome, Any{});
    visit("size", size, Needed{});
    visit("channels", channels, OneOf<int>{{1, 3}});
    visit("profile", profile, Any{});
    visit("balance", balance, Between<float>{0.01F, 100.0F});
    visit("reference", reference, Any{});
    visit("base", base, Any{});
    visit("methods", methods, Any{});
    visit("trust", trust, Any{});
    visit("look", look, Any{});
    visit("levelling", levelling, Any{});
    visit("darks", darks, Any{});
    visit("hot_pixels", hot, Any{});
    visit("spots", spots, Any{});
    visit("knit", knit, Any{});
    visit("light", light, Any{});
    visit("zones", zones, Any{});
    visit("canvas", canvas, Any{});
    visit("cover", cover, Any{});
    visit("crop", crop, OnCanvas{});
    visit("turn_deg", turn_deg, Between<double>{-most_turn_deg, most_turn_deg});
    visit("export", exporting, Any{});
    visit("also", also, Any{});
    visit("growth", growth, Any{});
    visit("frames", frames, Needed{});
    visit("parts", parts, Any{});
    visit("sequence", sequence, Any{});
    visit("finish", finish, Any{});
}

template <class T>
concept HasFields = requires(T& value) {
    fields(value, [](std::string_view, auto&, const auto&) {});
};

// The words for a choice, in the order in which they are told.
template <class E>
using Words = std::vector<std::pair<E, std::string_view>>;

template <class Entries, class E>
Words<E> words_in(const Entries& entries,
                  E std::remove_cvref_t<decltype(*std::declval<const Entries&>().begin())>::*value) {
    Words<E> out;
    for (const auto& entry : entries) out.emplace_back(entry.*value, entry.name);
    return out;
}
inline Words<Outcome> words_of(Outcome) {
    return words_in(outcomes(), &OutcomeEntry::outcome);
}
inline Words<Model> words_of(Model) {
    return words_in(models(), &ModelEntry::model);
}
inline Words<Mode> words_of(Mode) {
    return words_in(modes(), &ModeEntry::mode);
}
inline Words<Levelling> words_of(Levelling) {
    Words<Levelling> out;
    for (const Levelling kind : {Levelling::off, Levelling::light, Levelling::colour})
        out.emplace_back(kind, name_of(kind));
    return out;
}
inline Words<Role> words_of(Role) {
    return {{Role::scene, "scene"}, {Role::dark, "dark"}, {Role::foreground, "foreground"}};
}
inline Words<RoleFrom> words_of(RoleFrom) {
    return {{RoleFrom::nobody, "nobody"}, {RoleFrom::guess, "guess"}, {RoleFrom::person, "person"}};
}
inline Words<Cover> words_of(Cover) {
    return {{Cover::full, "full"}, {Cover::any, "any"}};
}
inline Words<Join> words_of(Join) {
    return words_in(joins(), &JoinEntry::join);
}
inline Words<Edge> words_of(Edge) {
    return {{Edge::painted, "painted"}, {Edge::seam, "seam"}, {Edge::blended, "blended"}};
}
inline Words<Measure> words_of(Measure) {
    return words_in(measures(), &MeasureEntry::measure);
}
inline Words<PartOf> words_of(PartOf) {
    return {{PartOf::painted, "painted"},
            {PartOf::subject, "subject"},
            {PartOf::meteor, "meteor"},
            {PartOf::foreground, "foreground"}};
}
inline Words<ExportProfile> words_of(ExportProfile) {
    return {{ExportProfile::own, "own"},
            {ExportProfile::srgb, "srgb"},
            {ExportProfile::display_p3, "p3"},
            {ExportProfile::rec2020, "rec2020"},
            {ExportProfile::file, "file"}};
}
inline Words<ShapeKind> words_of(ShapeKind) {
    return {{ShapeKind::ellipse, "ellipse"}, {ShapeKind::band, "band"}, {ShapeKind::ramp, "ramp"}};
}
inline Words<MendFrom> words_of(MendFrom) {
    return {{MendFrom::around, "around"}, {MendFrom::frame, "frame"}, {MendFrom::median, "median"}};
}
inline Words<PlaceIn> words_of(PlaceIn) {
    return {{PlaceIn::everywhere, "everywhere"}, {PlaceIn::sky, "sky"}, {PlaceIn::land, "land"}};
}
inline Words<OnTop> words_of(OnTop) {
    return {{OnTop::early, "early"}, {OnTop::late, "late"}};
}
inline Words<Darks> words_of(Darks) {
    return {{Darks::off, "off"}, {Darks::on, "on"}, {Darks::scaled, "scaled"}};
}
inline Words<TaperEnd> words_of(TaperEnd) {
    return words_in(taper_ends(), &TaperEndEntry::end);
}
inline Words<StreakKind> words_of(StreakKind) {
    return words_in(streak_kinds(), &StreakKindEntry::kind);
}
inline Words<By> words_of(By) {
    return {{By::channel, "channel"}, {By::pixel, "pixel"}};
}
inline Words<Light> words_of(Light) {
    return {{Light::linear, "linear"}, {Light::encoded, "encoded"}};
}

}  // namespace bp::pile
