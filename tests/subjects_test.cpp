// Subjects against the truth of a scene, and how a sequence is laid out.
#include "engine/subjects.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "engine/aligning.h"
#include "engine/open.h"
#include "engine/render.h"
#include "pile/edits.h"
#include "pile/part_edits.h"
#include "practice/practice.h"
#include "practice/scene.h"
#include "practice/texture.h"
#include "support/fixtures.h"

using namespace bp;

namespace {

Pile aligned(Pile pile) {
    Job job;
    const auto placed = align_frames(pile, Model::rigid, pile.reference, job);
    REQUIRE(placed.ok());
    return with_alignments(std::move(pile), Model::rigid, pile.reference, placed.value());
}

std::vector<FoundSubject> subjects_in_pile(const Pile& pile) {
    Job job;
    FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
    Result<std::vector<FoundSubject>> found = find_subjects(pile, store, job);
    REQUIRE(found.ok());
    return std::move(found).value();
}

// What two areas have in common over what either has. In a shadow that fades out either is right.
double agreement(const Mask& mask, const practice::Shape& truth, const practice::Shape& shade) {
    const double scale = mask.size().width / practice::scene_width;
    const auto in = [](const practice::Shape& shape, Point at) {
        return at.x > shape.box.left && at.x < shape.box.right && at.y > shape.box.top && at.y < shape.box.bottom &&
               shape.distance(at) < 0;
    };
    int common = 0, either = 0;
    for (int y = 0; y < mask.size().height; ++y)
        for (int x = 0; x < mask.size().width; ++x) {
            const Point at{(x + 0.5) / scale - 0.5, (y + 0.5) / scale - 0.5};
            const bool b = in(truth, at);
            const bool a = mask.at(x, y) >= 128 && (b || !in(shade, at));
            common += int(a && b);
            either += int(a || b);
        }
    return double(common) / either;
}

struct Ball {
    Point from, step;
    double radius;
    std::uint16_t light;
};

// Frames of a landscape through which balls move, each frame with noise and a brightness of its own.
Pile rolling(const test::Folder& folder, int frames, const std::vector<Ball>& balls, double drift = 0) {
    for (int k = 0; k < frames; ++k) {
        Raster16 picture = test::landscape({320, 240}, Matrix(), unsigned(k + 1), 0.004);
        picture = test::lit(std::move(picture), 1 + drift * std::sin(k * 1.7));
        for (const Ball& ball : balls)
            for (int y = 0; y < picture.height(); ++y)
                for (int x = 0; x < picture.width(); ++x)
                    if (std::hypot(x - ball.from.x - k * ball.step.x, y - ball.from.y - k * ball.step.y) < ball.radius)
                        for (int c = 0; c < picture.channels(); ++c) picture.at(x, y, c) = ball.light;
        test::write(folder / ("f" + std::to_string(10 + k) + ".png"), picture, 8);
    }
    Job job;
    Result<Pile> pile = open_frames(gather_run({folder.path().string()}).value(), Outcome::sequence, Order::name, job);
    REQUIRE(pile.ok());
    return std::move(pile).value();
}

}  // namespace

TEST_CASE("the heron is found in every frame with its mirror, and nothing else is; its sequence has no ghosts") {
    const test::Folder folder;
    const Pile pile = aligned(test::practised(folder, "heron", 0, Outcome::sequence));
    const std::vector<FoundSubject> found = subjects_in_pile(pile);
    REQUIRE(found.size() == 1);
    const auto scene = practice::scene_named("heron")->make(int(pile.frames.size()), practice::PracticeOptions{}.seed);
    REQUIRE(found[0].size() == pile.frames.size());
    double sum = 0;
    int looked_at = 0;
    for (const FoundPlace& place : found[0]) {
        if (number_of(pile, place.frame) % 3 != 2) continue;  // the hardest among them: behind reeds
        const auto index = std::size_t(number_of(pile, place.frame) - 1);
        const double agrees = agreement(place.mask, *scene->subject(index), *scene->shade(index));
        INFO("frame " << index + 1);
        CHECK(agrees >= 0.9);
        sum += agrees;
        ++looked_at;
    }
    CHECK(sum / looked_at >= 0.92);
    // Aligning that keeps what it reads says the same, and then no file is read again.
    Job job;
    FrameStore keeping(working_space(pile), {0, std::size_t(1) << 30});
    const Pile unplaced = with_alignments(pile, Model::none, pile.reference, {});
    const auto placed = align_for_subjects(unplaced, Model::rigid, keeping, job);
    REQUIRE(placed.ok());
    for (const Frame& frame : pile.frames) CHECK(placed.value().at(frame.id) == *frame.places.sky);
    Pile away = pile;
    for (Frame& frame : away.frames) {
        FrameFile file = *frame.file;
        file.path = folder / "nowhere.jpg";
        frame.file = std::make_shared<const FrameFile>(std::move(file));
    }
    CHECK_FALSE(find_subjects(away, keeping, job).ok());
    for (const std::string& name : folder.names()) fs::rename(folder / name, folder / (name + ".away"));
    const auto again = find_subjects(pile, keeping, job);
    for (const std::string& name : folder.names())
        fs::rename(folder / name, folder / name.substr(0, name.size() - std::string(".away").size()));
    REQUIRE(again.ok());
    REQUIRE(again.value().size() == 1);
    bool same = again.value()[0].size() == found[0].size();
    for (std::size_t i = 0; same && i < found[0].size(); ++i) same = again.value()[0][i].mask == found[0][i].mask;
    CHECK(same);
    // Laid out so that none touches another.
    const Pile laid = with_subjects(pile, found);
    const auto subjects = subjects_of(laid);
    REQUIRE(subjects.size() == 1);
    CHECK(subjects[0].shown >= 4);
    CHECK(Sequence(laid).overlaps(laid).empty());
    // Where no part lies it is the cleared scene to the bit; where one lies whole it is the frame.
    const Raster16 picture = test::render_all(laid).value();
    const Raster16 cleared = test::render_all(test::base_of(laid)).value();
    const Mask touched = test::touched_by(laid.parts);
    std::size_t wrong = 0;
    for (int y = 0; y < picture.height(); ++y)
        for (int x = 0; x < picture.width(); ++x) {
            if (touched.at(x, y) == 0) wrong += picture.at(x, y, 1) != cleared.at(x, y, 1);
        }
    CHECK(wrong == 0);
}

TEST_CASE("two subjects are told apart, one is left out and comes back, whatever the light does") {
    const test::Folder folder;
    const Pile pile = rolling(folder, 9, {{{30, 70}, {30, 0}, 14, 60000}, {{290, 180}, {-25, 0}, 9, 2000}}, 0.01);
    const std::vector<FoundSubject> found = subjects_in_pile(pile);
    REQUIRE(found.size() == 2);
    // What does not come with its brightness is not kept.
    Job job;
    FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
    REQUIRE(align_for_subjects(pile, Model::rigid, store, job).ok());
    CHECK(store.bytes() == 0);
    CHECK(store.budget().keep_bytes == 0);
    for (const FoundSubject& subject : found) CHECK(subject.size() == 9);
    // The larger one first: each mask lies where the ball was.
    for (const auto& [which, from, step, radius] :
         {std::tuple{std::size_t(0), Point{30, 70}, 30, 14.0}, std::tuple{std::size_t(1), Point{290, 180}, -25, 9.0}})
        for (const FoundPlace& place : found[which]) {
            const int k = number_of(pile, place.frame) - 1;
            const Rect box = place.mask.bounds();
            CHECK(box.left + box.width / 2.0 == Approx(from.x + k * step).margin(3));
            CHECK(box.width == Approx(2 * radius).margin(7));
        }
    const Pile both = with_subjects(pile, found);
    CHECK(subjects_of(both)[1].shown > 0);
    const Pile without = with_subject_on(both, 2, false);
    CHECK(subjects_of(without)[1].shown == 0);
    // A subject that is left out stays so when places are spaced anew.
    CHECK(subjects_of(Sequence(without).spaced(without, 1))[1].shown == 0);
    CHECK(subjects_of(with_subject_on(without, 2, true))[1].shown == subjects_of(both)[1].shown);
    // What no longer is there is not looked for among what was painted.
    Pile painted = with_part_mask(both, both.parts.front().id, both.parts.front().mask.softened(3));
    painted = with_subjects(std::move(painted), found);
    CHECK(painted.parts.size() == both.parts.size());
    CHECK(std::count_if(painted.parts.begin(), painted.parts.end(), [](const Part& p) { return p.by_hand; }) == 1);
}

TEST_CASE("wider spacing shows fewer places, every nth shows the rest, early or late lies on top") {
    const test::Folder folder;
    const Pile pile = rolling(folder, 10, {{{24, 120}, {28, 0}, 20, 64000}});
    Pile laid = with_subjects(pile, subjects_in_pile(pile));
    const Sequence sequence(laid);
    int before = 100;
    for (const double spacing : {0.0, 0.5, 1.5, 4.0}) {
        const Pile now = sequence.spaced(laid, spacing);
        const int shown = subjects_of(now).front().shown;
        CHECK(shown < before);
        CHECK(shown >= 1);
        CHECK(sequence.overlaps(now).empty());
        CHECK(now.sequence.spacing == spacing);
        before = shown;
    }
    const Pile all = with_every(laid, 1);
    CHECK(subjects_of(all).front().shown == 10);
    CHECK(sequence.overlaps(all).size() == 9);
    CHECK(subjects_of(sequence.solved(all)).front().shown == 5);
    CHECK(sequence.overlaps(sequence.solved(all)).empty());
    CHECK(subjects_of(with_every(laid, 3)).front().shown == 4);
    const auto top = [](const Pile& p) { return number_of(p, p.parts.back().frame); };
    CHECK(top(with_on_top(laid, OnTop::late)) == 10);
    CHECK(top(with_on_top(laid, OnTop::early)) == 1);
}

TEST_CASE("nothing is found where nothing moves, nor in too few frames") {
    const test::Folder folder;
    const Pile pile = rolling(folder, 6, {}, 0.01);
    CHECK(subjects_in_pile(pile).empty());
    const test::Folder two;
    Job job;
    const Pile few = rolling(two, 2, {});
    FrameStore store(working_space(few), {0, std::size_t(1) << 30});
    const auto none = find_subjects(few, store, job);
    REQUIRE_FALSE(none.ok());
    CHECK(none.failure().english().find("three frames") != std::string::npos);
}
