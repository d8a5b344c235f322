// States in which a pile cannot give the picture that is meant, each with its sentence and its button.
#include <catch2/catch.hpp>
#include <random>

#include "engine/odd_state.h"
#include "io/writer.h"
#include "pile/edits.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

std::vector<int> ids_of(const Pile& pile) {
    std::vector<int> out;
    for (const Frame& frame : pile.frames) out.push_back(frame.id);
    return out;
}

QString told(Window& w) {
    auto* card = w.find<QWidget>("odd_card");
    return card->isVisible() ? w.find<QLabel>("odd_words")->text() : QString();
}

// Nothing in common: the frames lie side by side.
Pile apart(Pile pile) {
    std::map<int, Alignment> places;
    double x = 0;
    for (const Frame& frame : pile.frames) {
        places[frame.id].to_reference = Matrix::shift(x, 0);
        places[frame.id].aligned = true;
        places[frame.id].confidence = 1;
        x += 2 * pile.size.width;
    }
    return with_alignments(pile, Model::shift, pile.reference, places);
}

}  // namespace

TEST_CASE("each state that is odd is told from the others, and a usual pile has none", "[window]") {
    const Folder folder;
    const Pile pile = speckle_pile(folder, 4, {60, 40}, 8);
    const std::vector<int> all = ids_of(pile);
    CHECK(odd_state(pile) == OddState::none);
    CHECK(odd_state(with_aside(pile, all, true)) == OddState::all_aside);
    // Unless parts lie on the empty canvas.
    Part part;
    part.id = 1;
    part.frame = all.front();
    Pile placed = with_aside(pile, all, true);
    placed.parts.push_back(part);
    CHECK(odd_state(placed) == OddState::none);
    placed.parts.front().on = false;
    CHECK(odd_state(placed) == OddState::all_aside);
    CHECK(odd_state(with_aside(pile, std::vector<int>(all.begin() + 1, all.end()), true)) == OddState::none);
    CHECK(odd_state(with_role(pile, all, Role::dark)) == OddState::only_darks);
    Pile broken = pile;
    for (const int id : all) broken = with_problem(std::move(broken), id, Saying(std::string("gone")));
    CHECK(odd_state(broken) == OddState::unreadable);
    std::map<int, Alignment> none;
    for (const int id : all) none[id].aligned = false;
    none[pile.reference].aligned = true;
    CHECK(odd_state(with_alignments(pile, Model::shift, pile.reference, none)) == OddState::unaligned);
    // One more that is aligned makes a picture.
    none[all.back()].aligned = true;
    CHECK(odd_state(with_alignments(pile, Model::shift, pile.reference, none)) == OddState::none);
    CHECK(odd_state(apart(pile)) == OddState::no_cover);
    Pile any = apart(pile);
    any.cover = Cover::any;
    CHECK(odd_state(any) == OddState::none);
    CHECK(odd_state(with_crop(apart(pile), Rect{0, 0, 20, 20})) == OddState::none);
}

TEST_CASE("with all frames set aside the window says so, and one click takes them back", "[window]") {
    const Folder folder;
    write_moving(folder, 3, {320, 240}, {0, 0});
    Window w;
    CHECK_FALSE(w.find<QWidget>("odd_card")->isVisible());
    REQUIRE(w.open(folder));
    CHECK(told(w) == "");
    w.key(Qt::Key_A, Qt::ControlModifier);
    w.key(Qt::Key_A);
    CHECK(told(w) == "All frames are set aside: none is left to merge.");
    // It is the result that is missing: a frame can be looked at.
    w.key(Qt::Key_2);
    CHECK(told(w) == "");
    w.key(Qt::Key_1);
    CHECK(told(w) != "");
    w.click("odd_mend");
    CHECK(told(w) == "");
    CHECK(merged_ids(w.pile()).size() == 3);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(told(w) != "");
    // By keys, too.
    w.tab_to("odd_mend");
    w.key(Qt::Key_Space);
    CHECK(merged_ids(w.pile()).size() == 3);
    CHECK(w.settle());
}

TEST_CASE("frames that do not come to lie on the reference can be left as shot", "[window]") {
    const Folder folder;
    // Nothing in one is in another.
    std::mt19937 random{3};
    for (int k = 0; k < 3; ++k) {
        Raster16 noise({320, 240}, 3);
        for (std::uint16_t& v : noise.data()) v = std::uint16_t(random());
        REQUIRE(
            write_picture(folder / ("n" + std::to_string(k) + ".tif"), noise, Profile::srgb(), {8, 95, Sync::no}, {})
                .ok());
    }
    Window w;
    REQUIRE(w.open(folder));
    w.studio().document().edit(
        [&] {
            std::map<int, Alignment> none;
            for (const int id : ids_of(w.pile())) none[id].aligned = false;
            none[w.pile().reference].aligned = true;
            return with_alignments(w.pile(), Model::shift, w.pile().reference, none);
        }(),
        "Align");
    CHECK(told(w) == "No other frame came to lie on the reference, so that it stands alone.");
    w.click("odd_mend");
    CHECK(told(w) == "");
    CHECK(w.pile().methods.sky.model == Model::none);
    CHECK(merged_ids(w.pile()).size() == 3);
    w.studio().document().edit(apart(w.pile()), "Apart");
    CHECK(told(w) == "The frames have no area in common to crop to. All that any reaches is shown.");
    w.click("odd_mend");
    CHECK(told(w) == "");
    CHECK(w.pile().cover == Cover::any);
    CHECK(w.settle());
}

TEST_CASE("a pile of darks, or of frames that cannot be read goes on by one click", "[window]") {
    const Folder folder, others;
    write_moving(folder, 3, {320, 240}, {0, 0});
    write_moving(others, 4, {320, 240}, {0, 0});
    Window w;
    REQUIRE(w.open(folder));
    const std::vector<int> all = ids_of(w.pile());
    w.studio().document().edit(with_role(w.pile(), all, Role::dark), "Darks");
    CHECK(told(w) == "All frames are darks, and none shows the scene.");
    w.click("odd_mend");
    CHECK(odd_state(w.pile()) == OddState::none);
    Pile broken = w.pile();
    for (const int id : ids_of(broken)) broken = with_problem(std::move(broken), id, Saying(std::string("gone")));
    w.studio().document().edit(broken, "Broken");
    CHECK(told(w).startsWith("None of these frames can be read."));
    std::vector<fs::path> wanted;
    for (int k = 1; k <= 4; ++k) wanted.push_back(others / ("f" + std::to_string(k) + ".tif"));
    {
        // Work that is not saved is asked about first.
        const Answering question(answer(1)), dialog(choose(wanted));
        w.click("odd_mend");
        wait_for([&] { return w.pile().frames.size() == 4; }, 10000);
    }
    CHECK(w.pile().frames.size() == 4);
    CHECK(told(w) == "");
    CHECK(w.settle());
}
