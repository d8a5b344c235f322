// From the start screen to an exported file, for the outcomes: by what a person does, counting clicks and keys.
#include <catch2/catch.hpp>
#include <cmath>

#include "io/reader.h"
#include "practice/practice.h"
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

// A bright square that goes over a landscape, one place a frame.
void passing(const Folder& folder, int frames) {
    for (int k = 0; k < frames; ++k) {
        Raster16 picture = landscape({320, 240}, Matrix(), unsigned(k + 1), 0.004);
        for (int y = 100; y < 136; ++y)
            for (int x = 10 + 36 * k; x < 38 + 36 * k; ++x)
                for (int c = 0; c < picture.channels(); ++c) picture.at(x, y, c) = 64000;
        write(folder / ("p" + std::to_string(10 + k) + ".png"), picture, 8);
    }
}

bool is_bright(const Raster16& picture, int place) {
    return picture.at(24 + 36 * place, 118, 1) > 55000;
}

}  // namespace

TEST_CASE("Trails, Clear and Quiet in seven clicks and keys, Sequence in ten", "[window]") {
    struct Wanted {
        Outcome outcome;
        int most;
        bool all_places;  // every place of the square is seen, or none
    };
    for (const Wanted& wanted :
         {Wanted{Outcome::trails, 12, true}, {Outcome::clear, 8, false}, {Outcome::quiet, 8, false}}) {
        const Folder folder, out;
        passing(folder, 7);
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
    passing(folder, 7);
    Window w;
    Counted person(w);
    REQUIRE(person.open(folder, Outcome::sequence));
    person.click("knot_4");
    person.click("page_sequence");
    person.click("subjects_find");
    const Raster16 made = person.exported(out / "made.tif");
    for (int place = 0; place < 7; ++place) CHECK(is_bright(made, place));
    CHECK(person.count() == 10);
}

TEST_CASE("Shower in ten clicks and keys", "[window]") {
    const Folder folder, out;
    Job job;
    practice::PracticeOptions options;
    options.frames = 6;
    options.size = {960, 640};
    options.truth = false;
    REQUIRE(practice::practise(*practice::scene_named("night-watch"), folder.path(), options, job).ok());
    Window w;
    Counted person(w);
    REQUIRE(person.open(folder, Outcome::shower));
    person.click("knot_4");
    person.click("page_shower");
    person.click("meteors_find");
    const Pile& pile = w.pile();
    REQUIRE(pile.parts.size() >= 3);
    const Raster16 made = person.exported(out / "made.tif");
    CHECK(probe_picture(out / "made.tif").value().bits == 16);
    CHECK(difference(made, render_all(pile).value()).empty());
    CHECK(person.count() == 10);
}
