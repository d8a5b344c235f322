#include "pile/pile.h"

#include <catch2/catch.hpp>

#include "pile/edits.h"
#include "pile/history.h"
#include "pile/outcome_guess.h"
#include "pile/outcomes.h"
#include "pile/part_edits.h"
#include "support/fixtures.h"

using namespace bp;

namespace {

Frame frame(int id, const std::string& name, std::optional<double> captured = {}) {
    auto file = std::make_shared<FrameFile>();
    file->path = name;
    file->capture.captured = captured;
    file->capture.exposure_s = 10;
    Frame out;
    out.id = id;
    out.file = file;
    return out;
}

Pile three() {
    Pile pile;
    pile.size = {100, 80};
    pile.frames = {frame(1, "a1.jpg"), frame(2, "a2.jpg"), frame(3, "a3.jpg")};
    pile.reference = pile.base = 1;
    return pile;
}

using Ids = std::vector<int>;

}  // namespace

TEST_CASE("frames are ordered by time, then by natural name, the timeless last") {
    std::vector<Frame> frames{frame(1, "z10.jpg"), frame(2, "b.jpg", 20.5), frame(3, "z9.jpg"),
                              frame(4, "a.jpg", 20.75), frame(5, "c.jpg", 20.5)};
    order_frames(frames);
    Ids ids;
    for (const Frame& f : frames) ids.push_back(f.id);
    CHECK(ids == Ids{2, 5, 4, 3, 1});
}

TEST_CASE("frames join a run by time where they belong, and come last in one that was given its own order") {
    const auto order_of = [](const Pile& pile) {
        std::vector<std::string> names;
        for (const Frame& f : pile.frames) names.push_back(f.file->path.filename().string());
        return names;
    };
    using Names = std::vector<std::string>;
    Pile pile;
    pile.frames = {frame(1, "b.jpg", 20), frame(2, "a.jpg", 30)};
    CHECK(order_of(with_frames(pile, {frame(0, "d.jpg", 26), frame(0, "c.jpg", 25)})) ==
          Names{"b.jpg", "c.jpg", "d.jpg", "a.jpg"});
    std::swap(pile.frames[0], pile.frames[1]);
    CHECK(order_of(with_frames(pile, {frame(0, "d.jpg", 26), frame(0, "c.jpg", 25)})) ==
          Names{"a.jpg", "b.jpg", "c.jpg", "d.jpg"});
}

TEST_CASE("aside, role, problem and alignment decide what is merged") {
    Pile pile = three();
    CHECK(merged_ids(pile) == Ids{1, 2, 3});
    const int two[] = {2};
    CHECK(merged_ids(with_aside(pile, two, true)) == Ids{1, 3});
    CHECK(with_aside(with_aside(pile, two, true), two, false) == pile);
    CHECK(merged_ids(with_role(pile, two, Role::dark)) == Ids{1, 3});
    CHECK(merged_ids(with_problem(pile, 3, "broken")) == Ids{1, 2});
    Alignment lost;
    lost.aligned = false;
    Alignment fine;
    fine.to_reference = Matrix::shift(2, 3);
    const Pile aligned = with_alignments(pile, Model::shift, 1, {{1, {}}, {2, lost}, {3, fine}});
    CHECK(merged_ids(aligned) == Ids{1, 3});
    CHECK(placement(aligned, aligned.frames[2]).matrix == Matrix::shift(2, 3));
    CHECK(placement(with_alignments(aligned, Model::none, 1, {}), aligned.frames[2]).is_identity());
    pile.methods.sky.mode = Mode::one;
    CHECK(merged_ids(with_base(pile, 3)) == Ids{3});
    CHECK(with_base(pile, 99).base == 1);
    CHECK(with_base(with_problem(pile, 3, "broken"), 3).base == 1);
}

TEST_CASE("a broken base or reference gives way to a good frame") {
    const Pile pile = with_problem(three(), 1, "cut short");
    CHECK(pile.base == 2);
    CHECK(pile.reference == 2);
}

TEST_CASE("parts are made, moved, named and removed") {
    auto [pile, first] = with_new_part(three(), 2);
    int second = 0;
    std::tie(pile, second) = with_new_part(pile, 3);
    REQUIRE(first != second);
    CHECK(pile.parts.back().frame == 3);
    CHECK(with_part_moved(pile, first, 1).parts.back().id == first);
    CHECK(with_part_moved(pile, first, -5).parts.front().id == first);
    CHECK(with_part_moved(pile, second, 5) == pile);
    CHECK(find_part(with_part_name(pile, first, "gull"), first)->name == "gull");
    CHECK_FALSE(find_part(with_part_on(pile, first, false), first)->on);
    CHECK(find_part(with_part_strength(pile, first, 7), first)->strength == 1);
    CHECK(without_part(pile, first).parts.size() == 1);
    CHECK(without_part(pile, 99) == pile);
}

TEST_CASE("frames that join get ids that were never used") {
    const Pile pile = with_frames(three(), {frame(0, "a0.jpg"), frame(0, "a10.jpg")});
    Ids ids;
    for (const Frame& f : pile.frames) ids.push_back(f.id);
    CHECK(ids == Ids{4, 1, 2, 3, 5});
    CHECK(number_of(pile, 1) == 2);
    CHECK(number_of(pile, 77) == 0);
}

TEST_CASE("an outcome sets first values and loses nothing") {
    auto [pile, part] = with_new_part(three(), 2);
    const int two[] = {2};
    pile = with_aside(std::move(pile), two, true);
    for (const OutcomeEntry& entry : outcomes()) {
        const Pile next = with_outcome(pile, entry.outcome);
        CHECK(next.methods.sky.mode == entry.mode);
        CHECK(next.frames == pile.frames);
        CHECK(next.parts == pile.parts);
        CHECK(outcome_named(entry.name) == entry.outcome);
    }
}

TEST_CASE("the total exposure is carried over") {
    const int two[] = {2};
    CHECK(merged_capture(three()).exposure_s == 30.0);
    CHECK(merged_capture(with_aside(three(), two, true)).exposure_s == 20.0);
}

TEST_CASE("what a person placed is held against a new reference, and leaves with another kind of model") {
    const test::Folder folder;
    Pile pile = test::speckle_pile(folder, 3, {40, 30}, 8);
    Alignment second;
    second.to_reference = Matrix::shift(5, 1);
    pile = with_alignments(pile, Model::rigid, 1, {{1, {}}, {2, second}, {3, {}}});
    pile = with_moved_by_hand(pile, 3, Matrix::shift(2, 0));
    pile = with_gains(pile, Levelling::light, {{1, {}}, {2, LightGains{{2, 2, 2}, false}}});
    Alignment first;
    first.to_reference = Matrix::shift(-5, -1);
    const Pile other = with_alignments(pile, Model::shift, 2, {{1, first}, {2, {}}});
    CHECK(other.reference == 2);
    CHECK(placement(other, other.frames[2]).matrix == Matrix::shift(-3, -1));
    CHECK(placement(other, other.frames[1]).is_identity());
    CHECK(other.frames[1].gains->gain[0] == 1);
    CHECK(other.frames[0].gains->gain[0] == 0.5);
    const Pile stars = with_alignments(pile, Model::stars, 1, {{1, {}}, {2, second}});
    CHECK_FALSE(stars.frames[2].places.sky.has_value());
}

TEST_CASE("under a lens a hand shifts the picture the way it points") {
    const test::Folder folder;
    Pile pile = test::speckle_pile(folder, 2, {400, 300}, 8);
    Alignment turned;
    turned.lens = Lens{{199.5, 149.5}, 400, -0.02, 0};
    turned.to_reference = Matrix::rigid(0.5, {199.5, 149.5}, 0, 0);
    pile = with_alignments(pile, Model::stars, 1, {{1, {}}, {2, turned}});
    const Point before = placement(pile, pile.frames[1]).to_canvas({210, 150});
    pile = with_moved_by_hand(pile, 2, Matrix::shift(3, -2));
    const Point after = placement(pile, pile.frames[1]).to_canvas({210, 150});
    CHECK(after.x - before.x == Approx(3).margin(0.1));
    CHECK(after.y - before.y == Approx(-2).margin(0.1));
}

TEST_CASE("undo and redo walk the history, and a new edit ends what was undone") {
    const Pile first = three();
    History history(first);
    CHECK_FALSE(history.can_undo());
    CHECK_FALSE(history.edited());
    history.push(with_mode(history.now(), Mode::median), "median");
    history.push(with_mode(history.now(), Mode::mean), "mean");
    CHECK(history.edited());
    CHECK(history.undo_text() == "mean");
    history.undo();
    CHECK(history.now().methods.sky.mode == Mode::median);
    CHECK(history.redo_text() == "mean");
    history.undo();
    CHECK(history.now() == first);
    CHECK_FALSE(history.edited());
    history.undo();
    history.redo();
    CHECK(history.now().methods.sky.mode == Mode::median);
    history.mark_saved(history.serial());
    CHECK_FALSE(history.edited());
    history.push(with_mode(history.now(), Mode::minimum), "minimum");
    CHECK_FALSE(history.can_redo());
    CHECK(history.edited());
    history.undo();
    CHECK_FALSE(history.edited());
}

TEST_CASE("what comes to a pile after it was saved is still to be saved, in every step of the history") {
    History history(three());
    history.push(with_mode(history.now(), Mode::median), "median");
    // It is being written when more of what was asked for comes.
    const long written = history.serial();
    history.complete(with_strength(history.now(), std::vector{1}, 0.5));
    history.mark_saved(written);
    CHECK(history.edited());
    CHECK(history.now().frames[0].strength == 0.5);
    CHECK(history.undo_text() == "median");
    // What came from outside is in no pile that was written before.
    history.mark_saved(history.serial());
    const long before = history.serial();
    history.each([](Pile pile) { return with_strength(std::move(pile), std::vector{2}, 0.25); });
    history.mark_saved(before);
    CHECK(history.edited());
    history.undo();
    CHECK(history.edited());
    CHECK(history.now().frames[1].strength == 0.25);
    CHECK(history.goes_back_to_the_start());
    // What was found out and was nobody's wish is not.
    history.mark_saved(history.serial());
    history.replace(with_strength(history.now(), std::vector{1}, 0.1));
    CHECK_FALSE(history.edited());
}

TEST_CASE("what was found out of all piles is not to be saved, but what was being written then lacks it") {
    History history(three());
    history.push(with_mode(history.now(), Mode::median), "median");
    const long written = history.serial();
    const auto find_out = [&](double strength) {
        history.replace_each([=](Pile pile) { return with_strength(std::move(pile), std::vector{2}, strength); });
    };
    find_out(0.25);
    history.mark_saved(written);
    CHECK(history.edited());
    history.mark_saved(history.serial());
    find_out(0.5);
    CHECK_FALSE(history.edited());
    CHECK(history.now().frames[1].strength == 0.5);
    history.undo();
    CHECK(history.edited());
    CHECK(history.now().frames[1].strength == 0.5);
}

TEST_CASE("repeats are one step, which is taken back as a whole and counts as edited") {
    const Pile first = three();
    History history(first);
    history.push(with_mode(history.now(), Mode::median), "median");
    history.mark_saved(history.serial());
    history.push(with_strength(history.now(), std::vector{1}, 0.9), "strength");
    history.push(with_strength(history.now(), std::vector{1}, 0.8), "strength", true);
    history.push(with_strength(history.now(), std::vector{1}, 0.7), "strength", true);
    CHECK(history.now().frames[0].strength == 0.7);
    CHECK(history.edited());
    history.undo();
    CHECK(history.now() == with_mode(first, Mode::median));
    CHECK_FALSE(history.edited());
    history.undo();
    CHECK(history.now() == first);
    CHECK_FALSE(history.can_undo());
}

TEST_CASE("a history keeps to its budget of memory, and the last step can always be taken back") {
    constexpr std::size_t budget = 4 << 20;
    Pile pile = three();
    pile.size = {2000, 1500};
    History history(pile, budget);
    auto [with, part] = with_new_part(history.now(), 1);
    history.push(with, "part");
    for (int i = 0; i < 200; ++i) {
        Mask mask = history.now().parts[0].mask;
        // Another corner every time, so that little is shared.
        mask.edit({i * 7 % 1400, i * 5 % 1100, 300, 300},
                  [i](int, int, std::uint8_t v) { return std::uint8_t(v ^ unsigned(i + 1)); });
        const Pile before = history.now();
        history.push(with_part_mask(history.now(), part, mask), "stroke");
        CHECK(history.bytes() < budget + (2 << 20));
        REQUIRE(history.can_undo());
        history.undo();
        REQUIRE(history.now() == before);
        history.redo();
    }
    int steps = 0;
    while (history.can_undo()) {
        history.undo();
        ++steps;
    }
    CHECK(steps > 3);
    CHECK(steps < 190);
}

TEST_CASE("frames are carried to another place of the run, and put back by time or by name") {
    Pile pile;
    pile.frames = {frame(1, "e.jpg", 10), frame(2, "d.jpg", 20),   frame(3, "c.jpg", 30),
                   frame(4, "b.jpg", 40), frame(5, "a10.jpg", 50), frame(6, "a9.jpg", 60)};
    const auto ids = [](const Pile& of) {
        Ids out;
        for (const Frame& f : of.frames) out.push_back(f.id);
        return out;
    };
    const auto moved = [&](const Ids& which, std::size_t before) {
        return ids(with_moved_frames(pile, which, before));
    };
    CHECK(moved({4}, 0) == Ids{4, 1, 2, 3, 5, 6});
    CHECK(moved({1}, 6) == Ids{2, 3, 4, 5, 6, 1});
    CHECK(moved({1}, 99) == Ids{2, 3, 4, 5, 6, 1});
    CHECK(moved({1, 6}, 3) == Ids{2, 3, 1, 6, 4, 5});
    CHECK(moved({6, 2, 4}, 1) == Ids{1, 2, 4, 6, 3, 5});
    CHECK(moved({3}, 2) == ids(pile));
    CHECK(moved({3}, 3) == ids(pile));
    CHECK(in_order_of_time(pile));
    const Ids second{2};
    const Pile other = with_moved_frames(pile, second, 6);
    CHECK_FALSE(in_order_of_time(other));
    CHECK(ids(with_order_by_time(other)) == ids(pile));
    CHECK(ids(with_order_by_name(other)) == Ids{6, 5, 4, 3, 2, 1});
}

TEST_CASE("some of the frames that are merged stand for all, spread over the run") {
    Pile pile;
    for (int id = 1; id <= 20; ++id) pile.frames.push_back(frame(id, std::to_string(id), id));
    pile.reference = pile.base = 1;
    for (const std::size_t most : {1, 3, 7, 19, 20, 50}) {
        const Ids left = merged_ids(with_spread(pile, most));
        CHECK(left.size() == std::min<std::size_t>(most, 20));
        for (std::size_t i = 1; i < left.size(); ++i) CHECK(left[i] - left[i - 1] <= int(20 / most) + 1);
    }
}

TEST_CASE("an outcome is guessed from how frames were taken") {
    struct Run {
        int frames;
        double exposure_s, step_s, iso;
        std::optional<Outcome> outcome;
    };
    for (const Run& run : {Run{48, 75, 90, 800, Outcome::trails}, Run{24, 20, 24, 1600, Outcome::trails},
                           Run{20, 20, 946, 3200, Outcome::shower}, Run{6, 4, 42, 400, Outcome::shower},
                           Run{11, 1 / 125.0, 6, 200, Outcome::clear}, Run{5, 1 / 320.0, 7, 400, Outcome::best_of},
                           Run{16, 1 / 60.0, 0.12, 6400, Outcome::quiet},
                           Run{20, 1 / 1000.0, 0.1, 800, Outcome::sequence}, Run{2, 20, 24, 800, std::nullopt}}) {
        Pile pile;
        for (int i = 0; i < run.frames; ++i) {
            auto file = std::make_shared<FrameFile>();
            file->capture.captured = 1000 + run.step_s * i;
            file->capture.exposure_s = run.exposure_s;
            file->capture.iso = run.iso;
            Frame one;
            one.id = i + 1;
            one.file = file;
            pile.frames.push_back(one);
        }
        INFO(run.frames << " of " << run.exposure_s << " s");
        const auto guess = guessed_outcome(pile);
        REQUIRE(guess.has_value() == run.outcome.has_value());
        if (!guess) continue;
        CHECK(guess->outcome == *run.outcome);
        CHECK(guess->exposure_s == Approx(run.exposure_s));
        CHECK(guess->step_s == Approx(run.step_s));
    }
    // Lit from many sides.
    Pile lit;
    for (int i = 0; i < 6; ++i) {
        lit.frames.push_back(frame(i + 1, std::to_string(i), 100 * i));
        if (i > 0) lit.frames.back().role = Role::foreground;
    }
    CHECK(guessed_outcome(lit).value().outcome == Outcome::best_of);
    // Some that tell nothing: nobody knows.
    Pile silent;
    for (int i = 0; i < 6; ++i) silent.frames.push_back(frame(i + 1, std::to_string(i)));
    CHECK_FALSE(guessed_outcome(silent));
}

TEST_CASE("a history is gone through in leaps, and tells what was done") {
    Pile pile = three();
    History history(pile);
    for (const char* what : {"one", "two", "three"}) {
        pile.frames[0].note = what;
        history.push(pile, what);
    }
    CHECK(history.steps() == std::vector<std::string>{"", "one", "two", "three"});
    CHECK(history.at() == 3);
    history.go_to(1);
    CHECK(history.now().frames[0].note == "one");
    CHECK(history.undo_text() == "one");
    CHECK(history.redo_text() == "two");
    history.go_to(99);
    CHECK(history.now().frames[0].note == "three");
    history.go_to(0);
    CHECK(history.now().frames[0].note.empty());
    CHECK_FALSE(history.can_undo());
    CHECK(history.goes_back_to_the_start());
    // What takes too much room is forgotten, from the beginning.
    History small(pile, 1);
    for (const char* what : {"one", "two", "three"}) {
        pile.frames[1].note = std::string(100, what[0]);
        small.push(pile, what);
    }
    CHECK_FALSE(small.goes_back_to_the_start());
    CHECK(small.steps() == std::vector<std::string>{"", "three"});
}
