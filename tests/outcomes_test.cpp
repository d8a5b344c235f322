// From the start screen to an exported file, for the outcomes: by what a person does, counting clicks and keys.
#include <catch2/catch.hpp>
#include <cmath>

#include "app/rail/time_rail.h"
#include "io/reader.h"
#include "support/night.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

// A name that is pasted counts as one, and so does every click and every other key.
class Counted {
  public:
    explicit Counted(Window& w) : w_(w) {}
    int count() const { return count_; }

    bool open(const Folder& folder, Outcome outcome) {
        constexpr int card_name_enter = 3;
        count_ += card_name_enter;
        std::vector<fs::path> frames;
        for (const std::string& name : folder.names())
            if (fs::is_regular_file(folder / name)) frames.push_back(folder / name);
        const Answering dialog(choose(frames));
        w_.click(("outcome_" + std::to_string(int(outcome))).c_str());
        return dialog.came() && wait_for([this] { return w_.studio().document().open(); }) && w_.settle();
    }
    void click(const char* name) {
        ++count_;
        w_.click(name);
        REQUIRE(w_.settle());
    }
    // Points at a place, holds T, and clicks on the frame that it is taken from.
    void take(app::TimeRail& rail, QPointF place, int frame) {
        constexpr int key_click = 2;
        count_ += key_click;
        w_.window.canvas().setFocus();
        w_.move_over_canvas(place);
        QTest::keyPress(w_.focus(), Qt::Key_T);
        QTest::mouseClick(&rail, Qt::LeftButton, Qt::NoModifier, rail.slat_of(frame).center().toPoint());
        REQUIRE(w_.settle());
        QTest::keyRelease(w_.focus(), Qt::Key_T);
    }
    Raster16 exported_at_once(const fs::path& file) {
        constexpr int key_name_enter = 3;
        count_ += key_name_enter;
        const Answering dialog(choose({file}));
        w_.key(Qt::Key_E, Qt::ControlModifier | Qt::ShiftModifier);
        REQUIRE(dialog.came());
        REQUIRE(w_.quiet());
        return read_picture(file).value();
    }
    Raster16 exported(const fs::path& file) {
        constexpr int step_button_name_enter = 4;
        count_ += step_button_name_enter;
        REQUIRE(w_.export_to(file));
        return read_picture(file).value();
    }

  private:
    Window& w_;
    int count_ = 0;
};

bool is_bright(const Raster16& picture, int place) {
    return picture.at(24 + 36 * place, 118, 1) > 55000;
}

}  // namespace

TEST_CASE("Trails, Clear and Quiet in seven clicks and keys, Sequence in nine", "[window]") {
    struct Wanted {
        Outcome outcome;
        int most;
        bool all_places;  // every place of the square is seen, or none
    };
    for (const Wanted& wanted :
         {Wanted{Outcome::trails, 12, true}, {Outcome::clear, 8, false}, {Outcome::quiet, 8, false}}) {
        const Folder folder, out;
        write_passing(folder, 7);
        Window w;
        Counted person(w);
        REQUIRE(person.open(folder, wanted.outcome));
        const Raster16 made = person.exported(out / "made.tif");
        INFO("outcome " << int(wanted.outcome) << ": " << person.count());
        for (int place = 0; place < 7; ++place) CHECK(is_bright(made, place) == wanted.all_places);
        CHECK(person.count() == 7);
        CHECK(person.count() <= wanted.most);
    }
    const Folder folder, out;
    write_passing(folder, 7);
    Window w;
    Counted person(w);
    REQUIRE(person.open(folder, Outcome::sequence));
    person.click("knot_4");
    person.click("subjects_find");
    const Raster16 made = person.exported(out / "made.tif");
    for (int place = 0; place < 7; ++place) CHECK(is_bright(made, place));
    CHECK(person.count() == 9);
}

TEST_CASE("Shower in nine clicks and keys", "[window]") {
    const Folder folder, out;
    REQUIRE(write_night(folder));
    Window w;
    Counted person(w);
    REQUIRE(person.open(folder, Outcome::shower));
    person.click("knot_4");
    person.click("meteors_find");
    const Pile& pile = w.pile();
    REQUIRE(pile.parts.size() >= 3);
    const Raster16 made = person.exported(out / "made.tif");
    CHECK(probe_picture(out / "made.tif").value().bits == 16);
    CHECK(difference(made, render_all(pile).value()).empty());
    CHECK(person.count() == 9);
}

TEST_CASE("Best of, four places taken, in fourteen clicks and keys", "[window]") {
    // In every frame another of four boxes is bright; the first has none.
    const Folder folder, out;
    for (int k = 0; k < 5; ++k) {
        Raster16 picture = landscape({320, 240}, Matrix(), unsigned(k + 1), 0.004);
        for (int y = 100; k > 0 && y < 124; ++y)
            for (int x = 60 * k - 20; x < 60 * k + 10; ++x)
                for (int c = 0; c < 3; ++c) picture.at(x, y, c) = 62000;
        write(folder / ("b" + std::to_string(k) + ".png"), picture, 8);
    }
    Window w;
    Counted person(w);
    REQUIRE(person.open(folder, Outcome::best_of));
    auto* rail = w.window.findChild<app::TimeRail*>();
    for (int k = 1; k < 5; ++k) person.take(*rail, {60.0 * k - 5, 112}, w.pile().frames[std::size_t(k)].id);
    CHECK(w.pile().parts.size() == 4);
    const Raster16 made = person.exported_at_once(out / "made.tif");
    for (int k = 1; k < 5; ++k) CHECK(made.at(60 * k - 5, 112, 1) > 55000);
    INFO(person.count());
    CHECK(person.count() == 14);
}
