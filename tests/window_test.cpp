#include "support/window.h"

#include <QAbstractButton>
#include <QComboBox>
#include <QLabel>
#include <QMimeData>
#include <QSignalSpy>
#include <QSlider>
#include <QToolButton>
#include <catch2/catch.hpp>
#include <fstream>

#include "app/looks/controls.h"
#include "app/looks/theme.h"
#include "io/reader.h"
#include "practice/practice.h"
#include "support/program.h"

using namespace bp;
using namespace bp::test;

namespace {

void landscapes(const Folder& folder, int count, double step) {
    for (int i = 0; i < count; ++i) {
        CaptureData capture;
        capture.captured = 1789251245.0 + 30 * i;
        capture.exposure_s = 25;
        write(folder / ("f" + std::to_string(i + 1) + ".tif"),
              landscape({320, 240}, Matrix::shift(step * i, -step * i), unsigned(i), 0.02), 8, {}, capture);
    }
}

}  // namespace

TEST_CASE("the whole way: demo, mode, aside, align, part, undo, save, open again, export", "[window]") {
    const Folder demo;
    practice::PracticeOptions options;
    options.size = {480, 320};
    options.frames = 6;
    Job job;
    REQUIRE(practice::practise(*practice::scene_named("quay"), demo / "quay", options, job).ok());
    qputenv("BRIGHT_PILE_DEMO", QByteArray::fromStdString(demo.path().string()));

    Window w;
    w.click("demo_quay");
    REQUIRE(wait_for([&] { return w.studio().document().open(); }));
    REQUIRE(w.settle());
    CHECK(w.pile().frames.size() == 6);
    CHECK(w.pile().methods.sky.mode == Mode::median);

    w.click("knot_3");
    w.click("mode_mean");
    CHECK(w.pile().methods.sky.mode == Mode::mean);
    w.click("mode_maximum");
    CHECK(w.pile().methods.sky.mode == Mode::maximum);

    const int third = w.pile().frames[2].id;
    w.studio().select(third);
    w.key(Qt::Key_A);
    CHECK(w.pile().frames[2].aside);

    w.click("knot_2");
    w.click("align_shift");
    REQUIRE(w.quiet());
    CHECK(w.pile().methods.sky.model == Model::shift);
    CHECK(w.pile().frames[1].places.sky.has_value());

    w.click("knot_4");
    w.studio().select(w.pile().frames[4].id);
    w.key(Qt::Key_2);
    REQUIRE(w.window.viewer().view() == app::View::frame);
    w.stroke({{200, 150}, {240, 160}, {260, 200}});
    REQUIRE(w.pile().parts.size() == 1);
    CHECK(w.pile().parts[0].frame == w.pile().frames[4].id);
    CHECK(w.pile().parts[0].mask.at(240, 160) == 255);

    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().parts.empty());
    w.key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    REQUIRE(w.pile().parts.size() == 1);

    const QString saved = QString::fromStdString((demo / "a.pile").string());
    REQUIRE(w.save_as(demo / "a.pile"));
    CHECK_FALSE(w.studio().document().edited());
    const Raster16 before = render_all(w.pile()).value();

    w.click("home");
    REQUIRE(wait_for([&] { return !w.studio().document().open(); }));
    w.drop({demo / "a.pile"});
    REQUIRE(wait_for([&] { return w.studio().document().open(); }));
    REQUIRE(w.settle());
    CHECK(difference(render_all(w.pile()).value(), before) == "");
    CHECK(w.pile().frames[2].aside);

    const fs::path by_window = demo / "window.tif";
    REQUIRE(w.export_to(by_window));
    const fs::path by_program = demo / "program.tif";
    REQUIRE(run_program("render " + saved.toStdString() + " -o " + by_program.string()).code == 0);
    CHECK(difference(read_picture(by_window).value(), read_picture(by_program).value()) == "");
    CHECK(bytes_of(by_window) == bytes_of(by_program));
}

TEST_CASE("every edit can be undone, back to the pile that was opened", "[window]") {
    const Folder folder;
    landscapes(folder, 3, 2);
    Window w;
    REQUIRE(w.open(folder));
    const Pile first = w.pile();
    w.click("knot_3");
    w.click("mode_median");
    w.key(Qt::Key_A);
    w.click("knot_2");
    w.click("align_rigid");
    REQUIRE(w.quiet());
    w.studio().choose_outcome(Outcome::quiet);
    REQUIRE(w.quiet());
    CHECK_FALSE(w.pile() == first);
    int steps = 0;
    while (w.studio().document().can_undo() && ++steps < 20) w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(steps >= 4);
    CHECK(w.pile() == first);
    CHECK_FALSE(w.find<QToolButton>("undo")->isEnabled());
    CHECK(w.find<QToolButton>("redo")->isEnabled());
}

TEST_CASE("the window shows the samples that are exported", "[window]") {
    const Folder folder;
    landscapes(folder, 4, 1.5);
    Window w;
    REQUIRE(w.open(folder, Outcome::quiet));
    REQUIRE(w.settle());
    w.window.canvas().zoom_to(1, {400, 300});
    REQUIRE(w.settle());
    const app::Layer& layer = w.window.viewer().detail();
    REQUIRE_FALSE(layer.image.isNull());
    REQUIRE(layer.area.width == layer.image.width());
    const Raster16 all = render_all(w.pile()).value();
    int wrong = 0;
    for (int y = 0; y < layer.image.height(); ++y)
        for (int x = 0; x < layer.image.width(); ++x) {
            const QColor c = layer.image.pixelColor(x, y);
            const int u = layer.area.left + x;
            const int v = layer.area.top + y;
            wrong += c.red() != (all.at(u, v, 0) + 128) / 257 || c.blue() != (all.at(u, v, 2) + 128) / 257;
        }
    CHECK(wrong == 0);
}

TEST_CASE("zoom goes from fit to 800 percent, about the pointer, and pans within the picture", "[window]") {
    const Folder folder;
    landscapes(folder, 2, 0);
    Window w;
    REQUIRE(w.open(folder));
    app::Canvas& canvas = w.window.canvas();
    const double fit = canvas.zoom();
    const QPointF anchor(canvas.width() / 2.0 + 60, canvas.height() / 2.0 - 40);
    const QPointF under = canvas.to_canvas(anchor);
    canvas.zoom_to(100, anchor);
    CHECK(canvas.zoom() == Approx(8));
    CHECK(canvas.to_canvas(anchor).x() == Approx(under.x()));
    CHECK(canvas.to_canvas(anchor).y() == Approx(under.y()));
    const QPointF before = canvas.to_canvas({0, 0});
    w.key(Qt::Key_Right, Qt::ShiftModifier);
    CHECK(canvas.to_canvas({0, 0}).x() > before.x());
    for (int i = 0; i < 100; ++i) w.key(Qt::Key_Left, Qt::ShiftModifier);
    CHECK(canvas.to_canvas({0, 0}).x() > -40);
    canvas.zoom_to(0.0001, anchor);
    CHECK(canvas.zoom() == Approx(fit));
    w.key(Qt::Key_P);
    CHECK(canvas.zoom() == Approx(1));
    w.key(Qt::Key_F);
    CHECK(canvas.zoom() == Approx(fit));
}

TEST_CASE("views are chosen by key and button, and Space flips while it is held", "[window]") {
    const Folder folder;
    landscapes(folder, 2, 0);
    Window w;
    REQUIRE(w.open(folder));
    app::Viewer& viewer = w.window.viewer();
    w.click("view_2");
    CHECK(viewer.view() == app::View::difference);
    w.key(Qt::Key_1);
    CHECK(viewer.view() == app::View::result);
    QTest::keyPress(&w.window.canvas(), Qt::Key_Space);
    CHECK(viewer.view() == app::View::frame);
    QTest::keyRelease(&w.window.canvas(), Qt::Key_Space);
    CHECK(viewer.view() == app::View::result);
    w.key(Qt::Key_Right);
    CHECK(viewer.view() == app::View::frame);
    CHECK(w.studio().current() == w.pile().frames[1].id);
}

TEST_CASE("broken frames and broken piles are told in the window, and the rest goes on", "[window]") {
    const Folder folder;
    landscapes(folder, 3, 0);
    std::ofstream(folder / "z.jpg") << "no picture";
    Window w;
    REQUIRE(w.open(folder));
    CHECK(merged_ids(w.pile()).size() == 3);
    CHECK(w.find<QWidget>("look_in")->isVisible());
    std::ofstream(folder / "bad.pile") << "x";
    w.drop({folder / "bad.pile"});
    REQUIRE(wait_for([&] { return w.told().contains(QStringLiteral("bad.pile is not a pile")); }));
    CHECK(merged_ids(w.pile()).size() == 3);
}

TEST_CASE("a frame that breaks while the pile is open is set aside", "[window]") {
    const Folder folder;
    for (int i = 1; i <= 3; ++i)
        write(folder / ("f" + std::to_string(i) + ".jpg"), landscape({900, 700}, Matrix::shift(i * 20.0, 0)), 8);
    const std::string bytes = bytes_of(folder / "f2.jpg");
    std::ofstream(folder / "f2.jpg", std::ios::binary) << bytes.substr(0, bytes.size() / 3);
    Window w;
    REQUIRE(w.open(folder));
    REQUIRE(wait_for([&] { return !usable(w.pile().frames[1]); }));
    CHECK(merged_ids(w.pile()).size() == 2);
    CHECK(w.studio().document().can_undo() == false);
}

TEST_CASE("files that are dropped join the pile", "[window]") {
    const Folder folder;
    landscapes(folder, 2, 0);
    const Folder more;
    landscapes(more, 1, 0);
    fs::rename(more / "f1.tif", more / "g1.tif");
    Window w;
    REQUIRE(w.open(folder));
    QMimeData data;
    data.setUrls({QUrl::fromLocalFile(QString::fromStdString((more / "g1.tif").string()))});
    QDragEnterEvent enter({100, 100}, Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&w.window, &enter);
    CHECK(enter.isAccepted());
    QDropEvent drop(QPointF(100, 100), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&w.window, &drop);
    REQUIRE(wait_for([&] { return w.pile().frames.size() == 3; }));
    REQUIRE(w.quiet());
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().frames.size() == 2);
}

TEST_CASE("long work can be stopped and leaves the pile as it was", "[window]") {
    const Folder folder;
    landscapes(folder, 6, 2);
    Window w;
    REQUIRE(w.open(folder));
    const Pile before = w.pile();
    w.click("knot_2");
    w.click("align_rigid");
    CHECK(w.studio().busy());
    w.studio().finding().stop();
    CHECK_FALSE(w.studio().busy());
    REQUIRE(has_ended(w.studio().finding()));
    CHECK(w.pile() == before);
}

TEST_CASE("everything that can be used has a name for those who cannot see it", "[window]") {
    const Folder folder;
    landscapes(folder, 2, 0);
    Window w;
    REQUIRE(w.open(folder));
    int checked = 0;
    for (QWidget* widget : w.window.findChildren<QWidget*>()) {
        const bool control = qobject_cast<QAbstractButton*>(widget) || qobject_cast<QSlider*>(widget) ||
                             qobject_cast<QComboBox*>(widget);
        if (!control || widget->objectName().startsWith(QStringLiteral("qt_"))) continue;
        ++checked;
        const auto* button = qobject_cast<QAbstractButton*>(widget);
        INFO(widget->metaObject()->className() << ' ' << widget->objectName().toStdString());
        CHECK((!widget->accessibleName().isEmpty() || (button && !button->text().isEmpty())));
        CHECK(widget->focusPolicy() != Qt::NoFocus);
    }
    CHECK(checked > 25);
}

TEST_CASE("both themes dress the whole window", "[window]") {
    Window w;
    app::apply_theme(*qApp, app::ThemeName::noon);
    const QColor light = w.window.grab().toImage().pixelColor(5, 400);
    app::apply_theme(*qApp, app::ThemeName::dusk);
    const QColor dark = w.window.grab().toImage().pixelColor(5, 400);
    CHECK(light.lightness() > 200);
    CHECK(dark.lightness() < 80);
}

TEST_CASE("words count: one frame, two frames", "[window]") {
    const auto counted = [](int n) { return app::Studio::tr("%n frame(s) missing.", nullptr, n); };
    CHECK(counted(0) == "0 frames missing.");
    CHECK(counted(1) == "1 frame missing.");
    CHECK(counted(2) == "2 frames missing.");
}

TEST_CASE("a slider that goes both ways is filled from nothing to where it stands", "[window]") {
    const auto filled = [](int low, int value) {
        app::NamedSlider slider(
            "Tone", "Makes it lighter", low, 100, [](int v) { return QString::number(v); }, nullptr);
        slider.resize(240, 60);
        slider.set_value(value);
        slider.show();
        const QImage image = slider.grab().toImage();
        int left = 0, right = 0;
        for (int y = 0; y < image.height(); ++y)
            for (int x = 0; x < image.width(); ++x)
                if (image.pixelColor(x, y) == app::theme().amber) ++(x < image.width() / 2 ? left : right);
        return std::pair{left, right};
    };
    const auto [none_left, none_right] = filled(-100, 0);
    CHECK(none_left == 0);
    CHECK(none_right == 0);
    const auto [up_left, up_right] = filled(-100, 60);
    CHECK(up_left <= 3);
    CHECK(up_right > 100);
    const auto [down_left, down_right] = filled(-100, -60);
    CHECK(down_left > 100);
    CHECK(down_right <= 3);
    const auto [one_way_left, one_way_right] = filled(0, 60);
    CHECK(one_way_left > 100);
    CHECK(one_way_right > 0);
}
