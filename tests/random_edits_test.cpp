// Whatever is done to a pile, it can be saved, opened and gets back equal; and undone to what it was.
#include <catch2/catch.hpp>
#include <cmath>
#include <limits>
#include <random>

#include "engine/open.h"
#include "image/flex.h"
#include "parts/brush.h"
#include "pile/archive.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "pile/finish_edits.h"
#include "pile/history.h"
#include "pile/part_edits.h"
#include "pile/streak_edits.h"
#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;

namespace {

class Dice {
  public:
    explicit Dice(unsigned seed) : engine_(seed) {}
    int below(int n) { return std::uniform_int_distribution<int>(0, std::max(0, n - 1))(engine_); }
    double between(double low, double high) { return std::uniform_real_distribution<double>(low, high)(engine_); }
    bool rarely() { return below(12) == 0; }
    // Mostly within; now and then what no value should be.
    double wild(double low, double high) {
        if (!rarely()) return between(low, high);
        constexpr double huge = 1e300;
        const double odd[] = {std::nan(""),
                              std::numeric_limits<double>::infinity(),
                              -std::numeric_limits<double>::infinity(),
                              huge,
                              -huge,
                              0,
                              -0.0,
                              1e-320};
        return odd[below(8)];
    }
    template <class T>
    T one_of(std::initializer_list<T> values) {
        return *(values.begin() + below(int(values.size())));
    }

  private:
    std::mt19937 engine_;
};

int any_frame(const Pile& pile, Dice& dice) {
    // Now and then one that is not there.
    if (dice.rarely() || pile.frames.empty()) return 999;
    return pile.frames[std::size_t(dice.below(int(pile.frames.size())))].id;
}

std::vector<int> some_frames(const Pile& pile, Dice& dice) {
    std::vector<int> out;
    for (int i = dice.below(3); i >= 0; --i) out.push_back(any_frame(pile, dice));
    return out;
}

int any_part(const Pile& pile, Dice& dice) {
    return pile.parts.empty() ? 7 : pile.parts[std::size_t(dice.below(int(pile.parts.size())))].id;
}

Look any_look(Dice& dice) {
    Look out;
    for (const LookValue& v : look_values())
        if (dice.below(3) == 0) out.*v.value = dice.wild(v.least * 1.2, v.most * 1.2);
    return out;
}

Mask painted(const Mask& on, Size size, Dice& dice) {
    Stroke stroke(on.size() == size ? on : Mask(size),
                  {dice.between(3, 60), dice.between(0, 1), dice.between(0.2, 1), dice.below(4) != 0});
    const Point at{dice.between(-20, size.width + 20), dice.between(-20, size.height + 20)};
    stroke.extend(at);
    stroke.extend({at.x + dice.between(-80, 80), at.y + dice.between(-80, 80)});
    return stroke.mask();
}

Matrix any_matrix(Size size, Dice& dice) {
    const double tilt = 0.3 / std::max(size.width, size.height);
    switch (dice.below(4)) {
        case 0:
            return Matrix::shift(dice.wild(-50, 50), dice.wild(-50, 50));
        case 1:
            return Matrix::rigid(dice.wild(-3, 3), {dice.between(0, size.width), 4}, dice.between(-9, 9), 0);
        case 2:
            return from_level(Matrix({1.01, 0.01, dice.between(-5, 5), -0.01, 0.99, 2, dice.wild(-tilt, tilt),
                                      dice.between(-tilt, tilt), 1}),
                              dice.below(5));
        default:
            return inverse(
                Matrix({dice.wild(0.5, 2), 0.1, 3, dice.between(-0.2, 0.2), 1, 4, 0, tilt, dice.between(0.5, 2)}));
    }
}

Alignment any_place(Size size, Model model, Dice& dice) {
    Alignment out;
    out.to_reference = any_matrix(size, dice);
    out.residual_px = dice.wild(0, 3);
    out.confidence = dice.wild(0, 1);
    out.aligned = dice.below(5) != 0;
    out.by_clock = dice.rarely();
    if (model == Model::stars) {
        out.lens = Lens{{size.width / 2.0, size.height / 2.0},
                        dice.wild(100, 5000),
                        dice.wild(-0.05, 0.05),
                        dice.wild(-0.01, 0.01)};
        out.sensor = {dice.wild(-9, 9), dice.wild(-9, 9)};
    }
    if (model == Model::flex) {
        std::vector<float> across, down;
        for (int i = 0; i < 12; ++i) {
            across.push_back(float(dice.wild(-3, 3)));
            down.push_back(float(dice.between(-3, 3)));
        }
        out.flex = std::make_shared<const Flex>(Flex::Grid{{-2, 1.5}, size.width / 3.0 + 1, 4, 3}, across, down);
    }
    return out;
}

SensorSpot any_spot(Size size, Dice& dice) {
    SensorSpot out;
    out.at = {dice.between(0, size.width), dice.between(0, size.height)};
    out.radius_px = dice.between(smallest_spot_px, 20);
    const int reach = int(out.radius_px) + 2;
    out.area = intersect({int(out.at.x) - reach, int(out.at.y) - reach, 2 * reach, 2 * reach}, whole(size));
    if (out.area.empty()) return out;
    auto passes = std::make_shared<Raster16>(out.area.size(), 1);
    for (std::uint16_t& v : passes->data()) v = std::uint16_t(1 + dice.below(65535));
    out.passes = passes;
    return out;
}

Pile edited(Pile pile, Dice& dice) {
    const auto models_there = {Model::none,        Model::shift, Model::rigid, Model::similarity,
                               Model::perspective, Model::flex,  Model::stars};
    const Size size = pile.size;
    const Zone zone = dice.one_of({Zone::sky, Zone::land});
    switch (dice.below(39)) {
        case 0:
            return with_aside(std::move(pile), some_frames(pile, dice), dice.below(2) == 0);
        case 1:
            return with_role(std::move(pile), some_frames(pile, dice),
                             dice.one_of({Role::scene, Role::dark, Role::foreground}));
        case 2:
            return with_guesses(std::move(pile), {{any_frame(pile, dice), Role::dark}});
        case 3:
            return with_note(std::move(pile), any_frame(pile, dice),
                             dice.one_of<std::string>(
                                 {"gull", "two\nlines", "m\xf6we", "", "\xe2\x98\x83 \"%1\"", std::string(3000, 'x')}));
        case 4:
            return with_reference(std::move(pile), any_frame(pile, dice));
        case 5:
            return dice.below(4) == 0 ? without_frames(std::move(pile), some_frames(pile, dice)) : pile;
        case 6:
            return with_strength(std::move(pile), some_frames(pile, dice), dice.wild(0, 1));
        case 7:
            return with_look(std::move(pile), any_look(dice));
        case 8:
            return with_own_look(std::move(pile), some_frames(pile, dice), any_look(dice));
        case 9: {
            HotPixels hot;
            for (int i = dice.below(9); i > 0; --i) hot.push_back({dice.below(size.width), dice.below(size.height)});
            return with_hot_pixels(std::move(pile), dice.rarely()
                                                        ? SharedHotPixels()
                                                        : std::make_shared<const HotPixels>(at_level(hot, 0)));
        }
        case 10:
            return with_darks(std::move(pile), dice.one_of({Darks::off, Darks::on, Darks::scaled}));
        case 11:
            return with_spot(std::move(pile), any_spot(size, dice));
        case 12:
            return without_spot(std::move(pile), {dice.between(0, size.width), dice.between(0, size.height)});
        case 13:
            return with_gains(std::move(pile), dice.one_of({Levelling::off, Levelling::light, Levelling::colour}),
                              {{any_frame(pile, dice), LightGains{{dice.wild(0.1, 9), 1, dice.wild(0.5, 2)}, false}}});
        case 14:
            return with_gain_by_person(std::move(pile), any_frame(pile, dice), dice.wild(-9, 9));
        case 15:
            pile = with_choice_by(std::move(pile), dice.one_of({By::channel, By::pixel}), zone);
            pile = with_taper(std::move(pile),
                              {taper_ends()[std::size_t(dice.below(int(taper_ends().size())))].end,
                               dice.wild(0, 1),
                               {dice.wild(0, 1), dice.wild(0, 1)}},
                              zone);
            pile = with_soft_white(std::move(pile), dice.below(2) == 0, zone);
            pile = with_head(
                std::move(pile),
                {dice.below(2) == 0, dice.below(20) - 5, dice.below(60) - 10, {dice.wild(-1, 40), dice.below(2) == 0}},
                zone);
            return with_mode(std::move(pile), modes()[std::size_t(dice.below(int(modes().size())))].mode, zone);
        case 16:
            return with_zones(std::move(pile), painted(pile.zones ? pile.zones->sky : Mask(size), size, dice));
        case 17:
            if (dice.below(2) == 0) {
                const std::vector<int> ids = some_frames(pile, dice);
                const Frame* first = ids.empty() ? nullptr : find_frame(pile, ids.front());
                const Mask before = first && !first->left_out.empty() ? first->left_out : Mask(size);
                pile = with_knit(std::move(pile), {dice.below(2) == 0, dice.wild(-5, 9999)});
                return with_left_out(std::move(pile), ids, painted(before, size, dice));
            }
            if (dice.below(2) == 0) {
                FrameStreak streak;
                streak.kind = StreakKind(dice.below(3));
                streak.line = {{dice.wild(-50, 200), dice.wild(-50, 200)}, {dice.wild(-50, 200), dice.wild(-50, 200)}};
                streak.line.width_px = dice.wild(0, 30);
                streak.left_out = dice.below(2) == 0;
                pile = with_drawn_streak(std::move(pile), any_frame(pile, dice), streak);
                const std::vector<StreakAt> all = all_streaks(pile);
                if (all.empty()) return pile;
                const StreakAt one = all[std::size_t(dice.below(int(all.size())))];
                switch (dice.below(4)) {
                    case 0:
                        return with_streak_line(std::move(pile), one, streak.line);
                    case 1:
                        return with_streak_kind(std::move(pile), one, streak.kind);
                    case 2:
                        return without_streak(std::move(pile), one);
                    default:
                        return with_streaks_left_out(pile, streaks_of(pile, streak.kind), !streak.left_out);
                }
            }
            return with_feather(std::move(pile), dice.wild(0, 220));
        case 18:
            return dice.rarely() ? without_zones(std::move(pile)) : pile;
        case 19:
            return with_crop(std::move(pile),
                             dice.rarely()
                                 ? std::nullopt
                                 : std::optional(Rect{dice.below(2 * size.width) - 20, dice.below(size.height) - 5,
                                                      dice.below(2 * size.width), dice.below(size.height)}));
        case 20:
            return with_base(std::move(pile), any_frame(pile, dice));
        case 21: {
            const Model model = dice.one_of(models_there);
            std::map<int, Alignment> places;
            for (const Frame& frame : pile.frames)
                if (!dice.rarely()) places[frame.id] = any_place(size, model, dice);
            return with_alignments(std::move(pile), model, any_frame(pile, dice), places, zone);
        }
        case 22:
            return with_trust(std::move(pile), dice.rarely() ? Mask(size) : painted(pile.trust, size, dice));
        case 23:
            return with_insisted(std::move(pile), some_frames(pile, dice), dice.below(2) == 0, zone);
        case 24:
            return with_moved_by_hand(std::move(pile), any_frame(pile, dice), any_matrix(size, dice), zone);
        case 25:
            return with_alignment(std::move(pile), any_frame(pile, dice), any_place(size, pile.methods.sky.model, dice),
                                  zone);
        case 26:
            return with_outcome(std::move(pile), dice.one_of({Outcome::trails, Outcome::clear, Outcome::quiet,
                                                              Outcome::sequence, Outcome::best_of, Outcome::shower}));
        case 27: {
            const int frame = any_frame(pile, dice);
            return find_frame(pile, frame) ? with_new_part(std::move(pile), frame).first : pile;
        }
        case 28:
            return pile.parts.empty() ? pile
                                      : with_part_mask(std::move(pile), any_part(pile, dice),
                                                       painted(pile.parts.back().mask, size, dice));
        case 29: {
            const int part = any_part(pile, dice);
            pile = with_part_on(std::move(pile), part, dice.below(2) == 0);
            pile = with_part_strength(std::move(pile), part, dice.wild(0, 1));
            return with_part_name(with_part_moved(std::move(pile), part, dice.below(5) - 2), part,
                                  dice.one_of<std::string>({"cat", "", "\xff"}));
        }
        case 30:
            return with_canvas(std::move(pile),
                               {dice.rarely() ? std::nullopt
                                              : std::optional(Rect{dice.below(size.width) - 20, dice.below(60) - 30,
                                                                   dice.below(2 * size.width) - 3, size.height}),
                                {dice.wild(0, 1), dice.wild(0, 1), dice.wild(0, 1)},
                                dice.one_of({Measure::px, Measure::mm, Measure::inch}),
                                dice.wild(20, 1200)});
        case 31: {
            pile = with_part_join(std::move(pile), any_part(pile, dice),
                                  dice.one_of({Join::replace, Join::lighter, Join::darker, Join::add}));
            const int part = any_part(pile, dice);
            pile = with_part_edge(std::move(pile), part, dice.one_of({Edge::painted, Edge::seam, Edge::blended}));
            pile = with_part_band(std::move(pile), part, dice.wild(0, 90));
            pile = with_part_place(std::move(pile), part,
                                   PartPlace{{dice.wild(-900, 900), dice.wild(-900, 900)},
                                             dice.wild(-180, 180),
                                             dice.wild(0.1, 9),
                                             dice.below(2) == 0});
            pile = with_part_placed_on(std::move(pile), part, any_matrix(size, dice));
            Look look;
            look.exposure_ev = dice.wild(-2, 2);
            pile = with_part_look(std::move(pile), part, look);
            // A mask of all of the largest would be a picture that no file holds.
            if (double(size.width) * size.height > 4e8) return pile;
            return with_foreground(std::move(pile), any_frame(pile, dice), dice.below(2) == 0);
        }
        case 32: {
            std::vector<FoundSubject> found(std::size_t(dice.below(3)));
            for (FoundSubject& subject : found)
                for (const Frame& frame : pile.frames)
                    if (dice.below(2) == 0) subject.push_back({frame.id, painted(Mask(size), size, dice)});
            return with_subjects(std::move(pile), found);
        }
        case 33: {
            const Sequence sequence(pile);
            pile = sequence.spaced(std::move(pile), dice.wild(0, 3));
            REQUIRE(sequence.overlaps(pile).empty());
            pile = with_subject_on(std::move(pile), 1 + dice.below(2), dice.below(2) == 0);
            return with_on_top(std::move(pile), dice.one_of({OnTop::early, OnTop::late}));
        }
        case 34:
            return with_every(std::move(pile), dice.below(4));
        case 35: {
            Part meteor;
            meteor.frame = any_frame(pile, dice);
            meteor.mask = painted(Mask(size), size, dice);
            meteor.lowered = {0.01, 0.02, 0.03};
            std::vector<Part> found;
            found.push_back(std::move(meteor));
            return with_found_parts(std::move(pile), PartOf::meteor, std::move(found));
        }
        case 36: {
            pile = with_curves(std::move(pile),
                               {{{{dice.wild(0, 1), dice.wild(0, 1)}, {dice.wild(0, 1), 0.5}}}, {}, {}, {}});
            pile = with_colour_ranges(std::move(pile), {{dice.wild(0, 400), dice.wild(-90, 90), dice.wild(-9, 9), 5}});
            Mended mended;
            mended.way = {{dice.wild(-9, 99), dice.wild(0, 70)}, {5, 5}};
            mended.way.resize(std::size_t(dice.below(3)));
            mended.width_px = dice.wild(0, 150);
            mended.from = {dice.wild(-500, 500), 3};
            mended.source = MendFrom(dice.below(3));
            mended.frame = 1 + dice.below(4);
            pile = with_mended(std::move(pile), mended).first;
            mended.id = 1 + dice.below(3);
            pile = with_mended_changed(std::move(pile), mended);
            if (dice.rarely()) pile = without_mended(std::move(pile), 1);
            pile = with_tints(std::move(pile), {dice.wild(0, 360), dice.wild(0, 120), 40, dice.wild(0, 9), 3});
            pile = with_detail(std::move(pile), {dice.wild(0, 400), dice.wild(0, 4), dice.wild(0, 300)});
            pile = with_glow(std::move(pile), dice.wild(-50, 150));
            pile = with_turn(std::move(pile), dice.wild(-60, 60));
            Look look;
            look.contrast = dice.wild(-150, 150);
            pile = with_finish_look(std::move(pile), look);
            return with_edge_shade(std::move(pile), {dice.wild(-5, 5), dice.wild(0, 100), dice.wild(0, 100)});
        }
        case 37: {
            const auto any_place_of = [&] {
                const auto& places = pile.finish.places;
                return places.empty() || dice.rarely() ? 999 : places[std::size_t(dice.below(int(places.size())))].id;
            };
            if (dice.below(2) == 0)
                pile = with_new_place(std::move(pile), dice.one_of({PlaceIn::everywhere, PlaceIn::sky, PlaceIn::land}),
                                      painted(Mask(size), size, dice))
                           .first;
            pile = with_copied_place(std::move(pile), any_place_of()).first;
            if (const FinishPlace* there = find_place(pile, any_place_of())) {
                FinishPlace place = *there;
                place.name = dice.one_of<std::string>({"cat", "", "\xff"});
                place.look.exposure_ev = dice.wild(-6, 6);
                place.detail.local = dice.wild(-200, 200);
                place.strength = dice.wild(0, 2);
                place.on = dice.below(2) == 0;
                pile = with_place(std::move(pile), place);
            }
            pile = with_place_moved(std::move(pile), any_place_of(), dice.below(5) - 2);
            return without_place(std::move(pile), any_place_of());
        }
        default:
            return dice.below(3) == 0 ? without_part(std::move(pile), any_part(pile, dice)) : pile;
    }
}

}  // namespace

TEST_CASE("random edits of every kind: saved and opened equal, undone to the first pile equal") {
    const Folder folder;
    for (unsigned seed = 1; seed <= 25; ++seed) {
        Dice dice(seed);
        const Pile first = test::speckle_pile(folder, 5, {90, 70}, 8);
        History history(first);
        for (int i = 0; i < 60; ++i) {
            INFO("seed " << seed << ", edit " << i);
            Pile next = edited(history.now(), dice);
            for (const Frame& frame : next.frames) REQUIRE(frame.file->hash.size() == 32);
            REQUIRE(find_frame(next, next.reference));
            REQUIRE(find_frame(next, next.base));
            if (next == history.now()) continue;
            history.push(std::move(next), "edit");
            if (i % 6 != 0) continue;
            const Status saved = save_pile(history.now(), folder / "p.pile");
            if (!saved.ok()) FAIL(saved.failure().english());
            const Result<LoadedPile> loaded = load_pile(folder / "p.pile");
            REQUIRE(loaded.ok());
            REQUIRE(loaded.value().remarks.empty());
            REQUIRE(loaded.value().pile == history.now());
        }
        while (history.can_undo()) history.undo();
        REQUIRE(history.now() == first);
    }
}

// Asked for by its name when the corpus is to grow: what is in it already is not written again.
TEST_CASE("piles for the corpus", "[.corpus]") {
    const Folder folder;
    for (unsigned seed = 1; seed <= 12; ++seed) {
        const fs::path file = SOURCE_DIR "/tests/piles/edits-" + std::to_string(100 + seed).substr(1) + ".pile";
        if (fs::exists(file)) continue;
        Dice dice(7000 + seed);
        Pile pile = test::speckle_pile(folder, 5, {90, 70}, 8);
        for (int i = 0; i < 80; ++i) pile = edited(std::move(pile), dice);
        REQUIRE(save_pile(pile, folder / "p.pile").ok());
        REQUIRE(fs::copy_file(folder / "p.pile", file));
    }
}

TEST_CASE("random edits of piles of any size up to 65,500 pixels are packed and unpacked equal") {
    const Folder folder;
    const Pile small = test::speckle_pile(folder, 4, {40, 30}, 8);
    unsigned seed = 100;
    for (const Size size :
         {Size{1, 1}, Size{7, 4000}, Size{3000, 2000}, Size{65500, 300}, Size{500, 65500}, Size{65500, 65500}}) {
        Dice dice(++seed);
        Pile pile = small;
        pile.size = size;
        for (int i = 0; i < 120; ++i) {
            INFO(size.width << " x " << size.height << ", edit " << i);
            pile = edited(std::move(pile), dice);
            if (i % 10 != 9) continue;
            const Result<Pieces> pieces = pile::pieces_of(pile, folder.path());
            REQUIRE(pieces.ok());
            Result<pile::Unpacked> back = pile::unpacked(pieces.value(), folder.path());
            REQUIRE(back.ok());
            for (const Saying& remark : back.value().remarks) FAIL(remark.english());
            REQUIRE(back.value().pile.frames.size() == pile.frames.size());
            for (std::size_t f = 0; f < pile.frames.size(); ++f) back.value().pile.frames[f].file = pile.frames[f].file;
            REQUIRE(back.value().pile == pile);
            // Masks of far places would be one picture between them.
            if (double(size.width) * size.height > 4e8) {
                pile.parts.clear();
                pile = without_zones(with_trust(std::move(pile), Mask(size)));
            }
        }
    }
}
