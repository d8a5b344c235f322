// The Parts step used as a person uses it: joins, lit frames, a sequence and a shower.
#include <QComboBox>
#include <QLabel>
#include <QListWidget>
#include <QSlider>
#include <catch2/catch.hpp>
#include <cmath>
#include <stdexcept>

#include "app/rail/time_rail.h"
#include "engine/render.h"
#include "io/reader.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "pile/part_edits.h"
#include "practice/practice.h"
#include "support/night.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

void flats(const Folder& folder, std::initializer_list<int> values) {
    int n = 0;
    for (const int value : values) {
        Raster16 flat({300, 200}, 3);
        std::fill(flat.data().begin(), flat.data().end(), std::uint16_t(257 * value));
        write(folder / ("f" + std::to_string(++n) + ".png"), flat, 8);
    }
}

// A ball that rolls over a landscape.
void rolling(const Folder& folder, int frames) {
    for (int k = 0; k < frames; ++k) {
        Raster16 picture = landscape({320, 240}, Matrix(), unsigned(k + 1), 0.004);
        for (int y = 100; y < 140; ++y)
            for (int x = 0; x < 320; ++x)
                if (std::hypot(x - 24 - k * 28, y - 120) < 20)
                    for (int c = 0; c < picture.channels(); ++c) picture.at(x, y, c) = 64000;
        write(folder / ("r" + std::to_string(10 + k) + ".png"), picture, 8);
    }
}

int shown(Window& w) {
    const auto found = subjects_of(w.pile());
    return found.empty() ? 0 : found.front().shown;
}

// Clicks the tick of a row.
void tick(Window& w, const char* list, int row) {
    auto* of = w.find<QListWidget>(list);
    w.click(of->viewport()->parentWidget());
    const QRect place = of->visualItemRect(of->item(row));
    QTest::mouseClick(of->viewport(), Qt::LeftButton, Qt::NoModifier, {place.left() + 12, place.center().y()});
    let_pass();
}

}  // namespace

TEST_CASE("a part joins as its list says: over, lighter, darker, added, and back by undo", "[window]") {
    const Folder folder;
    flats(folder, {120, 60, 30});
    Window w;
    REQUIRE(w.open(folder, Outcome::best_of));
    w.click("knot_4");
    w.slide("brush_softness", 0);
    w.studio().select(w.pile().frames[1].id);
    w.key(Qt::Key_2);
    w.stroke({{100, 100}});
    REQUIRE(w.pile().parts.size() == 1);
    CHECK(w.result_at(100, 100) == 257 * 60);
    w.pick("part_join", QStringLiteral("Lighter"));
    CHECK(w.result_at(100, 100) == 257 * 120);
    w.pick("part_join", QStringLiteral("Darker"));
    CHECK(w.result_at(100, 100) == 257 * 60);
    w.pick("part_join", QStringLiteral("Add"));
    CHECK(w.result_at(100, 100) > 257 * 125);
    CHECK(w.result_at(10, 10) == 257 * 120);
    for (int i = 0; i < 3; ++i) w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().parts[0].join == Join::replace);
    CHECK(w.find<QComboBox>("part_join")->currentText() == QStringLiteral("Lay over"));
}

TEST_CASE("lit frames offer themselves: each on and off with one click, named by its note", "[window]") {
    const Folder folder;
    flats(folder, {40, 90, 160});
    Window w;
    REQUIRE(w.open(folder, Outcome::best_of));
    w.click("knot_4");
    CHECK_FALSE(w.find<QListWidget>("lit_frames")->isVisible());
    const int lit[] = {w.pile().frames[1].id, w.pile().frames[2].id};
    w.studio().document().edit(with_note(with_role(w.pile(), lit, Role::foreground), lit[1], "lamp from the left"),
                               QStringLiteral("Foreground"));
    let_pass();
    auto* list = w.find<QListWidget>("lit_frames");
    REQUIRE(list->isVisible());
    REQUIRE(list->count() == 2);
    CHECK(list->item(1)->text().contains(QStringLiteral("lamp from the left")));
    CHECK(w.result_at(50, 50) == 257 * 40);
    tick(w, "lit_frames", 0);
    CHECK(w.result_at(50, 50) == 257 * 90);
    tick(w, "lit_frames", 1);
    CHECK(w.result_at(50, 50) == 257 * 160);
    tick(w, "lit_frames", 1);
    CHECK(w.result_at(50, 50) == 257 * 90);
    CHECK(w.pile().parts.size() == 2);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.result_at(50, 50) == 257 * 160);
}

TEST_CASE("Parts opens at the page of the outcome, its tabs stay where they are, and what is found shows at once",
          "[window]") {
    const Folder folder;
    rolling(folder, 10);
    Window w;
    REQUIRE(w.open(folder, Outcome::sequence));
    w.click("knot_4");
    auto* tab = w.find<QPushButton>("page_sequence");
    CHECK(tab->isChecked());
    // The page of painting is longer, and the steps above make room; a page that needs less gives none back.
    w.click("page_paint");
    let_pass();
    const int top = tab->mapTo(&w.window, QPoint(0, 0)).y();
    w.click("page_sequence");
    let_pass();
    CHECK(tab->mapTo(&w.window, QPoint(0, 0)).y() == top);
    w.key(Qt::Key_2);
    CHECK(w.window.viewer().view() == app::View::frame);
    w.click("subjects_find");
    CHECK(w.window.viewer().view() == app::View::result);
    REQUIRE(w.settle());
    CHECK(w.pile().parts.size() == 10);
    Window other;
    REQUIRE(other.open(folder, Outcome::best_of));
    other.click("knot_4");
    CHECK(other.find<QPushButton>("page_paint")->isChecked());
}

TEST_CASE("what moves is found with one click, spread by the slider, thinned, solved, left out, undone and saved",
          "[window]") {
    const Folder folder;
    rolling(folder, 10);
    Window w;
    REQUIRE(w.open(folder, Outcome::sequence));
    w.click("knot_4");
    w.click("page_sequence");
    const Pile before = w.pile();
    CHECK_FALSE(w.find<QSlider>("sequence_spacing")->isVisible());
    w.click("subjects_find");
    REQUIRE(w.settle());
    REQUIRE(w.pile().parts.size() == 10);
    CHECK(w.told().contains(QStringLiteral("1 subject")));
    const int first = shown(w);
    CHECK(first >= 4);
    w.slide("sequence_spacing", 200);
    CHECK(shown(w) < first);
    CHECK(w.pile().sequence.spacing == 2);
    CHECK_FALSE(w.find<QLabel>("sequence_overlaps")->isVisible());
    w.enter("sequence_every", 1);
    w.click("sequence_thin");
    CHECK(shown(w) == 10);
    CHECK(w.find<QLabel>("sequence_overlaps")->isVisible());
    w.click("sequence_early");
    CHECK(number_of(w.pile(), w.pile().parts.back().frame) == 1);
    // What both have is cut between them, and nothing is lost of the picture but that.
    w.click("sequence_cut");
    CHECK(shown(w) == 10);
    CHECK(Sequence(w.pile()).overlaps(w.pile()).empty());
    CHECK_FALSE(w.find<QLabel>("sequence_overlaps")->isVisible());
    w.key(Qt::Key_Z, Qt::ControlModifier);
    REQUIRE(w.find<QLabel>("sequence_overlaps")->isVisible());
    w.click("sequence_solve");
    CHECK(Sequence(w.pile()).overlaps(w.pile()).empty());
    CHECK(shown(w) >= 3);
    // One more place by its tick in the list of parts.
    const int now = shown(w);
    const auto hidden =
        std::find_if(w.pile().parts.rbegin(), w.pile().parts.rend(), [](const Part& p) { return !p.on; });
    tick(w, "parts_list", int(hidden - w.pile().parts.rbegin()));
    CHECK(shown(w) == now + 1);
    tick(w, "subjects", 0);
    CHECK(shown(w) == 0);
    tick(w, "subjects", 0);
    CHECK(shown(w) > 0);
    const Pile last = w.pile();
    REQUIRE(w.save_as(folder / "rolling.pile"));
    CHECK(load_pile(folder / "rolling.pile").value().pile.parts == last.parts);
    while (!(w.pile() == before)) {
        const Pile then = w.pile();
        w.key(Qt::Key_Z, Qt::ControlModifier);
        REQUIRE_FALSE(w.pile() == then);
    }
    CHECK_FALSE(w.find<QSlider>("sequence_spacing")->isVisible());
}

TEST_CASE("a place of a sequence is painted like any part, and stays when what moves is looked for again", "[window]") {
    const Folder folder;
    rolling(folder, 8);
    Window w;
    REQUIRE(w.open(folder, Outcome::sequence));
    w.click("knot_4");
    w.click("page_sequence");
    w.click("subjects_find");
    REQUIRE(w.settle());
    REQUIRE(w.pile().parts.size() == 8);
    auto* list = w.find<QListWidget>("parts_list");
    w.click("page_paint");
    w.click(list);
    list->setFocus();
    w.key(Qt::Key_Home);
    w.slide("brush_softness", 0);
    const int part = list->currentItem()->data(Qt::UserRole).toInt();
    w.key(Qt::Key_1);
    w.stroke({{160, 30}});
    CHECK(find_part(w.pile(), part)->mask.at(160, 30) == 255);
    CHECK(find_part(w.pile(), part)->by_hand);
    w.click("page_sequence");
    w.click("subjects_find");
    REQUIRE(w.settle());
    CHECK(w.pile().parts.size() == 8);
    REQUIRE(find_part(w.pile(), part));
    CHECK(find_part(w.pile(), part)->mask.at(160, 30) == 255);
}

TEST_CASE("nothing that moves, and no meteors, is said and changes nothing", "[window]") {
    const Folder folder;
    for (int k = 0; k < 4; ++k)
        write(folder / ("s" + std::to_string(k) + ".png"), landscape({160, 120}, Matrix(), unsigned(k + 1), 0.004), 8);
    Window w;
    REQUIRE(w.open(folder, Outcome::clear));
    const Pile before = w.pile();
    w.click("knot_4");
    w.click("page_sequence");
    w.click("subjects_find");
    REQUIRE(w.settle());
    CHECK(w.told().contains(QStringLiteral("Nothing was found that moves")));
    w.click("page_shower");
    w.click("meteors_find");
    REQUIRE(w.settle());
    CHECK_FALSE(w.told().isEmpty());
    CHECK(w.pile() == before);
}

TEST_CASE("meteors come over one frame with one click, and go one by one and together", "[window]") {
    const Folder folder;
    REQUIRE(write_night(folder));
    Window w;
    REQUIRE(w.open(folder, Outcome::shower));
    w.click("knot_4");
    w.click("page_shower");
    w.click("meteors_find");
    REQUIRE(w.settle());
    const std::size_t found = w.pile().parts.size();
    REQUIRE(found >= 3);
    CHECK(w.pile().methods.sky.model == Model::stars);
    const auto on = [&] {
        return std::count_if(w.pile().parts.begin(), w.pile().parts.end(), [](const Part& p) { return p.on; });
    };
    CHECK(on() == std::ptrdiff_t(found));
    // Chosen on the picture, pulled further by one end, and wider.
    const auto longest =
        *std::max_element(w.pile().parts.begin(), w.pile().parts.end(), [](const Part& a, const Part& b) {
            const DrawnShape x = band_around(a.mask), y = band_around(b.mask);
            return std::hypot(x.to.x - x.from.x, x.to.y - x.from.y) < std::hypot(y.to.x - y.from.x, y.to.y - y.from.y);
        });
    const auto band = [&] { return band_around(find_part(w.pile(), longest.id)->mask); };
    const DrawnShape first = band();
    const Point middle{(first.from.x + first.to.x) / 2, (first.from.y + first.to.y) / 2};
    w.stroke({{middle.x, middle.y}});
    const double length = std::hypot(first.to.x - first.from.x, first.to.y - first.from.y);
    const QPointF way((first.to.x - first.from.x) / length, (first.to.y - first.from.y) / length);
    const QPointF end(first.to.x, first.to.y);
    w.stroke({end, end + 20 * way, end + 40 * way});
    const DrawnShape longer = band();
    CHECK(std::hypot(longer.to.x - end.x(), longer.to.y - end.y()) == Approx(40).margin(3));
    CHECK(std::hypot(longer.from.x - first.from.x, longer.from.y - first.from.y) < 3);
    CHECK(std::abs(longer.width - first.width) < 2);
    CHECK(find_part(w.pile(), longest.id)->by_hand);
    const double zoom = w.window.canvas().zoom();
    const QPointF across(-way.y(), way.x());
    const QPointF side = QPointF((longer.from.x + longer.to.x) / 2, (longer.from.y + longer.to.y) / 2) +
                         across * std::max(12 / zoom, longer.width / 2);
    w.stroke({side, side + 4 * across, side + 8 * across});
    CHECK(std::abs(band().width - longer.width - 16) < 3);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(find_part(w.pile(), longest.id)->mask == longest.mask);
    tick(w, "parts_list", 0);
    CHECK(on() == std::ptrdiff_t(found) - 1);
    CHECK(w.find<QLabel>("meteors_shown")->text().startsWith(QString::number(found - 1)));
    w.click("meteors_all");
    CHECK(on() == std::ptrdiff_t(found));
    w.click("meteors_all");
    CHECK(on() == 0);
}

namespace {

// Two frames of a landscape; the second has a box and, beside it, a smaller one.
void boxes(const Folder& folder) {
    for (int k = 0; k < 2; ++k) {
        Raster16 picture = landscape({320, 240}, Matrix(), unsigned(k + 1), 0.004);
        if (k == 1)
            for (const Rect box : {Rect{100, 100, 24, 24}, Rect{136, 100, 12, 12}})
                for (int y = box.top; y < box.bottom(); ++y)
                    for (int x = box.left; x < box.right(); ++x)
                        for (int c = 0; c < picture.channels(); ++c) picture.at(x, y, c) = 62000;
        write(folder / ("t" + std::to_string(k) + ".png"), picture, 8);
    }
}

}  // namespace

TEST_CASE("a place is taken from a frame by pointing, holding T and clicking its slat; more, less, and by keys alone",
          "[window]") {
    const Folder folder;
    boxes(folder);
    Window w;
    REQUIRE(w.open(folder, Outcome::best_of));
    w.click("knot_4");
    w.slide("brush_size", 60);
    auto* rail = w.window.findChild<app::TimeRail*>();
    const int first = w.pile().frames[0].id, other = w.pile().frames[1].id;
    const auto click_slat = [&](int id, Qt::KeyboardModifiers with = Qt::NoModifier) {
        QTest::mouseClick(rail, Qt::LeftButton, with, rail->slat_of(id).center().toPoint());
        REQUIRE(w.settle());
    };
    w.window.canvas().setFocus();
    w.move_over_canvas({112, 112});
    REQUIRE(rail->patch_place());
    CHECK(rail->differs(other));
    CHECK_FALSE(rail->differs(first));
    w.move_over_canvas({250, 200});
    CHECK_FALSE(rail->differs(other));
    w.move_over_canvas({112, 112});
    QTest::keyPress(w.focus(), Qt::Key_T);
    CHECK(rail->holds_patches());
    w.move_over_canvas({112, 230});
    CHECK(rail->patch_place()->at.y() < 120);
    const Pile before = w.pile();
    click_slat(other);
    REQUIRE(w.pile().parts.size() == 1);
    CHECK(w.pile().parts[0].frame == other);
    CHECK(w.result_at(112, 112) > 50000);
    CHECK(w.result_at(142, 106) < 50000);
    click_slat(other);
    CHECK(w.result_at(142, 106) > 50000);
    click_slat(other, Qt::ShiftModifier);
    CHECK(w.result_at(112, 112) < 50000);
    QTest::keyRelease(w.focus(), Qt::Key_T);
    CHECK_FALSE(rail->holds_patches());
    // Let go, a click chooses a frame as ever.
    const Pile then = w.pile();
    click_slat(first);
    CHECK(w.studio().current() == first);
    CHECK(w.pile() == then);
    while (!(w.pile() == before)) {
        const Pile now = w.pile();
        w.key(Qt::Key_Z, Qt::ControlModifier);
        REQUIRE_FALSE(w.pile() == now);
    }
    // By buttons: the place is held, the frame chosen, and taken.
    w.key(Qt::Key_1);
    w.move_over_canvas({112, 112});
    w.click("patches_hold");
    w.studio().select(other);
    w.click("patches_take");
    REQUIRE(w.settle());
    CHECK(w.result_at(112, 112) > 50000);
    // Another page: the rail shows whole frames again.
    w.click("page_sequence");
    CHECK_FALSE(rail->shows_patches());
    CHECK_FALSE(rail->holds_patches());
}

TEST_CASE("five clicks on the rail make all five cats look", "[window]") {
    const Folder folder;
    Job job;
    REQUIRE(practice::practise(*practice::scene_named("harbour-cats"), folder / "run", {}, job).ok());
    FrameFile truth_file;
    truth_file.path = folder / "run" / "truth" / "best.tif";
    truth_file.facts = probe_picture(truth_file.path).value();
    std::vector<fs::path> frames;
    for (const auto& entry : fs::directory_iterator(folder / "run"))
        if (entry.path().extension() == ".jpg") frames.push_back(entry.path());
    Window w;
    {
        const Answering dialog(choose(frames));
        w.click(("outcome_" + std::to_string(int(Outcome::best_of))).c_str());
        REQUIRE(dialog.came());
    }
    REQUIRE(wait_for([&] { return w.studio().document().open(); }));
    REQUIRE(w.settle());
    w.click("knot_1");
    w.click("level_light");
    REQUIRE(w.settle());
    w.click("knot_4");
    auto* rail = w.window.findChild<app::TimeRail*>();
    struct Cat {
        QPointF face;
        std::size_t frame;
    };
    // The first one looks in the base: a click on the base's own slat says that there is nothing to take.
    const Cat cats[] = {{{250, 525}, 0}, {{520, 540}, 3}, {{795, 520}, 1}, {{1070, 535}, 4}, {{1345, 525}, 2}};
    const Raster16 truth = read_frame(truth_file, 0, working_space(w.pile()), job).value();
    const auto apart = [&](const Raster16& made, QPointF face) {
        double sum = 0;
        for (int y = int(face.y()) - 60; y < int(face.y()) + 60; ++y)
            for (int x = int(face.x()) - 60; x < int(face.x()) + 60; ++x)
                for (int c = 0; c < 3; ++c) sum += std::abs(int(made.at(x, y, c)) - int(truth.at(x, y, c))) / 257.0;
        return sum / (3.0 * 120 * 120);
    };
    const double noise = apart(render_all(w.pile()).value(), cats[0].face);
    for (const Cat& cat : cats) {
        w.window.canvas().setFocus();
        w.move_over_canvas(cat.face);
        QTest::keyPress(w.focus(), Qt::Key_T);
        const int frame = w.pile().frames[cat.frame].id;
        QTest::mouseClick(rail, Qt::LeftButton, Qt::NoModifier, rail->slat_of(frame).center().toPoint());
        REQUIRE(w.settle());
        QTest::keyRelease(w.focus(), Qt::Key_T);
    }
    CHECK(w.pile().parts.size() == 4);
    const Raster16 after = render_all(w.pile()).value();
    for (const Cat& cat : cats) {
        INFO("cat at " << cat.face.x());
        CHECK(apart(after, cat.face) < 1.35 * noise);
    }
}
