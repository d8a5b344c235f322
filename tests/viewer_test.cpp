#include "app/canvas/viewer.h"

#include <catch2/catch.hpp>

#include "app/looks/pictures.h"
#include "engine/render.h"
#include "engine/sources.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

void frames(const Folder& folder, int count, Size size) {
    for (int i = 0; i < count; ++i)
        write(folder / ("f" + std::to_string(i + 1) + ".tif"), landscape(size, Matrix::shift(9.0 * i, 3.0 * i)), 8);
}

// How far two pictures of one size are apart on average, 0 to 255.
double apart(const QImage& a, const QImage& b) {
    double sum = 0;
    for (int y = 0; y < a.height(); ++y)
        for (int x = 0; x < a.width(); ++x) sum += std::abs(a.pixelColor(x, y).green() - b.pixelColor(x, y).green());
    return sum / (double(a.width()) * a.height());
}

}  // namespace

TEST_CASE("images round as an export of 8 bits does, grey and colour", "[window]") {
    Raster16 colour({2, 1}, 3);
    colour.at(0, 0, 0) = 257 * 9 + 129;
    colour.at(1, 0, 2) = 65535;
    const QImage image = app::to_image(colour, Profile::srgb());
    CHECK(image.pixelColor(0, 0) == QColor(10, 0, 0));
    CHECK(image.pixelColor(1, 0) == QColor(0, 0, 255));
    Raster16 grey({1, 1}, 1);
    grey.at(0, 0, 0) = 257 * 77;
    CHECK(app::to_image(grey, Profile::srgb()).pixelColor(0, 0) == QColor(77, 77, 77));
}

TEST_CASE("the level fits the zoom: no more pixels are made than the screen can show", "[window]") {
    const Folder folder;
    frames(folder, 2, {1800, 1200});
    Window w;
    REQUIRE(w.open(folder));
    const app::Viewer& viewer = w.window.viewer();
    REQUIRE(w.window.canvas().zoom() < 0.55);
    CHECK(viewer.overview().image.width() <= 256);
    REQUIRE(w.window.canvas().zoom() > 0.25);
    const int level = w.window.canvas().zoom() > 0.5 ? 0 : 1;
    CHECK(viewer.detail().image.width() == 1800 >> level);
    w.window.canvas().zoom_to(1, {300, 300});
    REQUIRE(w.settle());
    CHECK(viewer.detail().area.width == viewer.detail().image.width());
    CHECK(viewer.detail().area.width < 1800);
}

TEST_CASE("the coarse and the fine picture show the same", "[window]") {
    const Folder folder;
    frames(folder, 3, {640, 480});
    Window w;
    REQUIRE(w.open(folder, Outcome::clear));
    const QImage fine = w.window.viewer().detail().image;
    const QImage coarse =
        w.window.viewer().overview().image.scaled(fine.size(), Qt::IgnoreAspectRatio, Qt::SmoothTransformation);
    CHECK(apart(fine, coarse) < 4);
}

TEST_CASE("what is asked for last is what is shown in the end", "[window]") {
    const Folder folder;
    frames(folder, 4, {400, 300});
    Window w;
    REQUIRE(w.open(folder));
    for (int round = 0; round < 3; ++round)
        for (const Mode mode : {Mode::median, Mode::minimum, Mode::mean, Mode::maximum})
            w.studio().document().edit(with_mode(w.pile(), mode), QStringLiteral("mode"));
    REQUIRE(w.settle());
    Job job;
    FrameStore store(working_space(w.pile()));
    const Raster16 wanted = render(w.pile(), store, whole(w.pile().size), 0, job).value();
    CHECK(w.window.viewer().detail().image == app::to_image(wanted, Profile::srgb()));
}

TEST_CASE("a canvas that begins before the frames is shown whole, with its background", "[window]") {
    const Folder folder;
    frames(folder, 3, {400, 300});
    Window w;
    REQUIRE(w.open(folder));
    Pile pile = with_canvas(w.pile(), {Rect{-101, -53, 640, 430}, {0, 0.5, 1}});
    pile.cover = Cover::any;
    REQUIRE(save_pile(pile, folder / "wide.pile").ok());
    w.drop({folder / "wide.pile"});
    REQUIRE(wait_for([&] { return w.pile().canvas.area.has_value(); }));
    REQUIRE(w.settle());
    CHECK(w.window.viewer().area() == canvas_of(pile));
    CHECK(w.window.viewer().colour_at(-101, -53) == QColor(0, 128, 255));
    CHECK(w.window.viewer().colour_at(538, 376) == QColor(0, 128, 255));
    Job job;
    FrameStore store(working_space(pile));
    const Raster16 wanted = render(pile, store, canvas_of(pile), 0, job).value();
    const auto& detail = w.window.viewer().detail();
    REQUIRE(detail.area == canvas_of(pile));
    CHECK(detail.image == app::to_image(wanted, Profile::srgb()));
}

TEST_CASE("flipping through frames shows each of them", "[window]") {
    const Folder folder;
    frames(folder, 3, {400, 300});
    Window w;
    REQUIRE(w.open(folder));
    w.window.viewer().set_view(app::View::frame);
    for (const Frame& frame : w.pile().frames) {
        w.studio().select(frame.id);
        REQUIRE(w.settle());
        const Raster16 wanted = read_picture(frame.file->path).value();
        CHECK(w.window.viewer().detail().image == app::to_image(wanted, Profile::srgb()));
    }
    w.studio().select(w.pile().reference);
    w.window.viewer().set_view(app::View::difference);
    REQUIRE(w.settle());
    CHECK(w.window.viewer().colour_at(200, 150) == QColor(0, 0, 0));
}

TEST_CASE("thumbnails come for every frame, and the value under the pointer is the picture's", "[window]") {
    const Folder folder;
    frames(folder, 5, {400, 300});
    Window w;
    REQUIRE(w.open(folder));
    for (const Frame& frame : w.pile().frames) CHECK_FALSE(w.studio().thumbnails().of(frame.id).isNull());
    const auto colour = w.window.viewer().colour_at(123, 45);
    REQUIRE(colour.has_value());
    const Raster16 all = render_all(w.pile()).value();
    CHECK(colour->red() == (all.at(123, 45, 0) + 128) / 257);
    CHECK_FALSE(w.window.viewer().colour_at(4000, 45).has_value());
}

TEST_CASE("the picture grows while frames come in, and is whole in the end", "[window]") {
    const Folder folder;
    frames(folder, 12, {900, 600});
    Window w;
    app::Viewer& viewer = w.window.viewer();
    int early = 0;
    QObject::connect(&viewer, &app::Viewer::updated,
                     [&] { early += !w.studio().thumbnails().complete() && !viewer.overview().image.isNull(); });
    REQUIRE(w.open(folder));
    CHECK(early >= 1);
    Job job;
    FrameStore store(working_space(w.pile()));
    const app::Layer& coarse = viewer.overview();
    const Raster16 wanted =
        render(w.pile(), store, at_level(whole(w.pile().size), coarse.level), coarse.level, job).value();
    CHECK(coarse.image == app::to_image(wanted, Profile::srgb()));
}

TEST_CASE("at 1:1 there is something to see before all frames are read; they are brought nearer after", "[window]") {
    const Folder folder;
    frames(folder, 24, {1800, 1300});
    Window w;
    // No frame stays in memory.
    app::Allowance allowance = w.studio().stores().allowance();
    allowance.memory_bytes = app::Stores::limits().least_memory;
    w.studio().stores().set_allowance(allowance);
    REQUIRE(w.open(folder));
    app::Viewer& viewer = w.window.viewer();
    int of_few = 0;
    QObject::connect(&viewer, &app::Viewer::updated, [&] {
        of_few += viewer.detail().of_few ? 1 : 0;
        if (viewer.detail().of_few) CHECK_FALSE(viewer.seen_finely());
    });
    const std::vector<int> ids = merged_ids(w.pile());
    REQUIRE(frames_away(w.pile(), ids, 0, *w.studio().stores().frames()) > 12);
    w.key(Qt::Key_P);
    REQUIRE(wait_for([&] { return viewer.seen_finely() && viewer.detail().level == 0; }, 60000));
    CHECK(of_few == 1);
    CHECK_FALSE(viewer.detail().of_few);
    Job job;
    FrameStore store(working_space(w.pile()));
    const app::Layer& fine = viewer.detail();
    CHECK(fine.image == app::to_image(render(w.pile(), store, fine.area, 0, job).value(), Profile::srgb()));
    REQUIRE(wait_for([&] { return !viewer.bringing().busy(); }, 60000));
    CHECK(frames_away(w.pile(), ids, 0, *w.studio().stores().frames()) == 0);
}

TEST_CASE("a slider shows its picture while it is dragged, and is one step of the history", "[window]") {
    const Folder folder;
    frames(folder, 3, {400, 300});
    Window w;
    REQUIRE(w.open(folder));
    w.click("knot_3");
    w.studio().select(w.pile().frames[2].id);
    const Pile before = w.pile();
    auto* slider = w.find<QSlider>("strength");
    slider->setSliderDown(true);
    for (const int value : {80, 60, 30}) slider->setValue(value);
    REQUIRE(w.settle());
    CHECK(w.pile() == before);
    const int ids[] = {before.frames[2].id};
    const Pile tried = with_strength(before, ids, 0.3);
    Job job;
    FrameStore store(working_space(before));
    const QImage wanted = app::to_image(render(tried, store, whole(before.size), 0, job).value(), Profile::srgb());
    CHECK(w.window.viewer().detail().image == wanted);
    slider->setSliderDown(false);
    REQUIRE(w.settle());
    CHECK(w.pile() == tried);
    CHECK(w.window.viewer().detail().image == wanted);
    w.studio().document().undo();
    CHECK(w.pile() == before);
}

TEST_CASE("a stroke mends the pictures where it went, to the samples of a fresh render", "[window]") {
    const Folder folder;
    frames(folder, 3, {900, 600});
    Window w;
    REQUIRE(w.open(folder));
    w.click("knot_4");
    w.studio().select(w.pile().frames[1].id);
    w.window.viewer().set_view(app::View::frame);
    REQUIRE(w.settle());
    w.stroke({{200, 200}, {240, 220}});
    w.window.viewer().set_view(app::View::result);
    REQUIRE(w.settle());
    const long serial = w.window.viewer().detail().serial;
    int patches = 0;
    QObject::connect(&w.window.viewer(), &app::Viewer::patched, [&] { ++patches; });
    w.stroke({{400, 300}, {430, 310}, {520, 350}, {610, 300}});
    REQUIRE(w.settle());
    CHECK(patches >= 1);
    CHECK(w.window.viewer().detail().serial == serial);
    Job job;
    FrameStore store(working_space(w.pile()));
    for (const app::Layer* layer : {&w.window.viewer().detail(), &w.window.viewer().overview()}) {
        const Rect region = at_level(layer->area, layer->level);
        const Raster16 fresh = render(w.pile(), store, region, layer->level, job).value();
        CHECK(layer->image == app::to_image(fresh, Profile::srgb()));
    }
}

TEST_CASE("room for memory and working files is set by slider, holds at once and is kept", "[window]") {
    const Folder folder;
    frames(folder, 3, {400, 300});
    {
        Window w;
        REQUIRE(w.open(folder));
        CHECK(w.studio().stores().frames()->bytes() > 0);
        CHECK(w.studio().stores().derived().used() > 0);
        const Answering preferences([&](QWidget& dialog) {
            if (dialog.objectName() != QStringLiteral("preferences")) return false;
            CHECK(w.find<QLabel>("room_used")->text().contains(QStringLiteral("in memory")));
            CHECK(w.find<QLabel>("room_used")->text().contains(QStringLiteral("to open piles again sooner")));
            w.slide("room_memory", 0);
            w.slide("room_scratch", 0);
            QTest::keyClick(w.find<QSlider>("room_memory"), Qt::Key_Escape);
            return true;
        });
        w.key(Qt::Key_Comma, Qt::ControlModifier);
        CHECK(preferences.came());
        CHECK(w.studio().stores().allowance().memory_bytes == app::Stores::limits().least_memory);
        CHECK(w.studio().stores().frames()->budget().keep_bytes == app::Stores::limits().least_memory / 2);
        CHECK(w.studio().stores().scratch()->room() == app::Stores::limits().least_scratch / 2);
    }
    Window again;
    CHECK(again.studio().stores().allowance().memory_bytes == app::Stores::limits().least_memory);
    again.studio().stores().set_allowance({MemoryBudget::machine_bytes() / 4, std::uint64_t(4) << 30});
}
