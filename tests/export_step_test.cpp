// Export in the window: several versions in one order, names, growth, what was used last; the turned picture.
#include <QDialog>
#include <QLabel>
#include <QListWidget>
#include <QSettings>
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "app/rail/time_rail.h"
#include "engine/cover.h"
#include "io/reader.h"
#include "pile/edits.h"
#include "pile/finish_edits.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

void still_frames(const Folder& folder, int count = 3) {
    write_moving(folder, count, {320, 240}, {0, 0});
}

void open_export(Window& w) {
    w.click("export");
}

// Answers the dialog of a growth: its kind by the list's line, then its button.
std::function<bool(QWidget&)> grow(int kind) {
    return [=](QWidget& widget) {
        auto* dialog = qobject_cast<QDialog*>(&widget);
        if (!dialog || dialog->objectName() != QStringLiteral("growth_dialog")) return false;
        auto* list = dialog->findChild<QComboBox*>(QStringLiteral("growth_kind"));
        list->setFocus();
        QTest::keyClick(list, Qt::Key_Home);
        for (int i = 0; i < kind; ++i) QTest::keyClick(list, Qt::Key_Down);
        let_pass();
        QTest::mouseClick(dialog->findChild<QPushButton*>(QStringLiteral("growth_write")), Qt::LeftButton);
        return true;
    };
}

}  // namespace

TEST_CASE("a large picture and a small one are written in one order, to one folder, under names of their own",
          "[window]") {
    const Folder folder, out;
    still_frames(folder);
    Window w;
    REQUIRE(w.open(folder));
    open_export(w);
    auto* versions = w.find<QListWidget>("export_versions");
    CHECK_FALSE(versions->isVisible());
    w.click("export_add_version");
    REQUIRE(w.pile().also.size() == 1);
    CHECK(w.pile().also[0].ending == ".jpg");
    CHECK(versions->count() == 2);
    CHECK(versions->currentRow() == 1);
    // The controls are those of the one that is chosen.
    w.enter("export_edge", 80);
    CHECK(w.pile().also[0].long_edge_px == 80);
    CHECK(w.pile().exporting.long_edge_px == 0);
    auto* name = w.find<QLineEdit>("export_name");
    w.click(name);
    // What is typed counts before the field is left: a button that is clicked leaves the keys where they are.
    QTest::keyClicks(name, QStringLiteral("small {width}"));
    let_pass();
    CHECK(name->hasFocus());
    CHECK(w.pile().also[0].name == "small {width}");
    CHECK(w.find<QLabel>("export_facts")->text().startsWith(QStringLiteral("small 80.jpg")));
    CHECK(w.find<QPushButton>("export_now")->text().contains(QLatin1Char('2')));
    const std::string large = out.path() / (w.studio().document().name().toStdString() + ".tif");
    {
        const Answering dialog(choose({out.path()}));
        w.click("export_now");
        REQUIRE(dialog.came());
        REQUIRE(w.quiet());
    }
    REQUIRE(fs::exists(large));
    REQUIRE(fs::exists(out / "small 80.jpg"));
    CHECK(difference(read_picture(large).value(), render_all(w.pile()).value()).empty());
    CHECK(probe_picture(out / "small 80.jpg").value().size == Size{80, 60});
    const QString report = w.find<QLabel>("export_report")->text();
    CHECK(report.contains(QStringLiteral("small 80.jpg")));
    CHECK(report.contains(QStringLiteral(".tif")));
    // What is there is asked about, and stays when the answer is to leave it.
    const std::string before = bytes_of(out / "small 80.jpg");
    {
        w.slide("export_quality", 20);
        const Answering dialog(choose({out.path()}));
        const Answering question(answer(-1, QStringLiteral("there already")));
        w.click("export_now");
        REQUIRE(question.came());
        REQUIRE(w.quiet());
    }
    CHECK(bytes_of(out / "small 80.jpg") == before);
    // Delete means what is chosen in the list, and no frame.
    versions->setFocus();
    w.key(Qt::Key_Delete);
    CHECK(w.pile().frames.size() == 3);
    CHECK(w.pile().also.empty());
    CHECK_FALSE(versions->isVisible());
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().also.size() == 1);
}

TEST_CASE("what was used last is offered for the next pile, and a picture is exported by two keys and a name",
          "[window]") {
    const Folder folder, other, out;
    still_frames(folder);
    still_frames(other);
    QSettings().remove(QStringLiteral("export"));
    {
        Window w;
        REQUIRE(w.open(folder));
        CHECK(w.pile().exporting.ending == ".tif");
        open_export(w);
        w.pick("export_format", QStringLiteral("JPEG"));
        w.enter("export_edge", 100);
        w.click("export_whereabouts");
        REQUIRE(w.export_to(out / "a.jpg"));
    }
    Window w;
    REQUIRE(w.open(other));
    CHECK(w.pile().exporting.ending == ".jpg");
    CHECK(w.pile().exporting.long_edge_px == 100);
    CHECK_FALSE(w.pile().exporting.whereabouts);
    {
        const Answering dialog(choose({out / "b.jpg"}));
        w.key(Qt::Key_E, Qt::ControlModifier | Qt::ShiftModifier);
        REQUIRE(dialog.came());
        REQUIRE(w.quiet());
    }
    CHECK(probe_picture(out / "b.jpg").value().size == Size{100, 75});
    QSettings().remove(QStringLiteral("export"));
}

TEST_CASE("a growth is written as a clip, or as numbered pictures in a new folder", "[window]") {
    const Folder folder, out;
    still_frames(folder);
    Window w;
    REQUIRE(w.open(folder));
    open_export(w);
    {
        const Answering dialog(grow(0));
        const Answering file(choose({out / "grown.mp4"}));
        w.click("export_growth");
        REQUIRE(file.came());
        REQUIRE(w.quiet());
    }
    CHECK(fs::file_size(out / "grown.mp4") > 1000);
    CHECK(w.find<QLabel>("export_report")->text().contains(QStringLiteral("grown.mp4")));
    {
        const Answering dialog(grow(2));
        const Answering file(choose({out / "pictures"}));
        w.click("export_growth");
        REQUIRE(file.came());
        REQUIRE(w.quiet());
    }
    CHECK(w.pile().growth.ending.empty());
    // Three frames, and two seconds in which the whole picture stays.
    CHECK(fs::exists(out / "pictures" / "0003.png"));
    CHECK(std::distance(fs::directory_iterator(out / "pictures"), fs::directory_iterator()) == 3 + 48);
    CHECK(difference(read_picture(out / "pictures" / "0003.png").value(), render_all(w.pile()).value()).empty());
    QSettings().remove(QStringLiteral("export"));
}

TEST_CASE("the picture is turned by a number, along a drawn line and to a horizon that is found; tools follow it",
          "[window]") {
    const Folder folder;
    const double lean = 4;
    Raster16 sea({320, 240}, 3);
    for (int y = 0; y < 240; ++y)
        for (int x = 0; x < 320; ++x) {
            const bool sky = y < 120 + std::tan(lean * std::numbers::pi / 180) * (x - 160);
            const bool spot = std::hypot(x - 100, y - 170) < 6;
            for (int c = 0; c < 3; ++c) sea.at(x, y, c) = std::uint16_t(spot ? 65535 : sky ? 40000 : 12000);
        }
    for (const char* name : {"f1.tif", "f2.tif"}) write(folder / name, sea, 16);
    Window w;
    REQUIRE(w.open(folder));
    w.key(Qt::Key_6, Qt::ControlModifier);
    w.click("page_finish_crop");
    w.enter("finish_crop_degrees", 2.5);
    CHECK(w.pile().turn_deg == Approx(2.5));
    CHECK(output_area(w.pile()).width < 320);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().turn_deg == 0);
    w.click("finish_crop_find_horizon");
    REQUIRE(w.quiet());
    CHECK(w.pile().turn_deg == Approx(-lean).margin(0.1));
    w.key(Qt::Key_Z, Qt::ControlModifier);
    w.click("finish_crop_horizon");
    const double rise = std::tan(lean * std::numbers::pi / 180) * 100;
    w.stroke({{60, 120 - rise}, {160, 120}, {260, 120 + rise}});
    CHECK(w.pile().turn_deg == Approx(-lean).margin(0.3));
    CHECK_FALSE(w.find<QPushButton>("finish_crop_horizon")->isChecked());
    REQUIRE(w.settle());
    // The horizon is level in what is seen: left and right alike.
    w.click("page_finish_mend");
    REQUIRE(w.settle());
    const Rect area = output_area(w.pile());
    for (const int off : {-8, 8}) {
        const auto left = w.window.viewer().colour_at(area.left + 20, 120 + off);
        const auto right = w.window.viewer().colour_at(area.right() - 20, 120 + off);
        REQUIRE(left.has_value());
        REQUIRE(right.has_value());
        CHECK(std::abs(left->green() - right->green()) < 12);
    }
    // A click on the spot where it is seen mends it where it lies.
    w.slide("mend_size", 20);
    w.stroke({{100, 170}});
    REQUIRE(w.quiet());
    REQUIRE(w.pile().finish.mended.size() == 1);
    CHECK(w.pile().finish.mended[0].way[0].x == Approx(100).margin(1.5));
    CHECK(w.pile().finish.mended[0].way[0].y == Approx(170).margin(1.5));
    Pile straight = w.pile();
    straight.turn_deg = 0;
    CHECK(render_all(straight).value().at(100, 170, 1) < 20000);
}

TEST_CASE("glow is evened and shown alone, stars become smaller, and a spot is mended from the median", "[window]") {
    const Folder folder;
    for (int k = 0; k < 3; ++k) {
        Raster16 picture({320, 240}, 3);
        for (int y = 0; y < 240; ++y)
            for (int x = 0; x < 320; ++x)
                for (int c = 0; c < 3; ++c) picture.at(x, y, c) = std::uint16_t(8000 + 60 * x + (x + y + k) % 7 * 30);
        for (int y = 100; k == 1 && y < 110; ++y)
            for (int x = 100; x < 110; ++x)
                for (int c = 0; c < 3; ++c) picture.at(x, y, c) = 65535;
        write(folder / ("f" + std::to_string(k) + ".tif"), picture, 16);
    }
    Window w;
    REQUIRE(w.open(folder));
    w.key(Qt::Key_6, Qt::ControlModifier);
    w.click("page_finish_detail");
    const int dark = w.result_at(20, 60), bright = w.result_at(300, 60);
    w.slide("finish_glow", 100);
    CHECK(w.pile().finish.glow == 100);
    CHECK(std::abs(w.result_at(300, 60) - w.result_at(20, 60)) < (bright - dark) / 10);
    w.click("finish_glow_alone");
    REQUIRE(w.settle());
    const auto left = w.window.viewer().colour_at(20, 60), right = w.window.viewer().colour_at(300, 60);
    REQUIRE(left.has_value());
    CHECK(right->green() > left->green() + 30);
    w.slide("detail_stars", -50);
    CHECK(w.pile().finish.detail.stars == -50);
    w.slide("detail_wide", 20);
    CHECK(w.pile().finish.detail.wide == 20);
    w.click("page_finish_mend");
    CHECK_FALSE(w.find<QCheckBox>("finish_glow_alone")->isChecked());
    while (w.pile().finish != Finish{}) w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.result_at(105, 105) == 65535);
    w.pick("mend_source", 2);
    w.slide("mend_size", 24);
    w.stroke({{105, 105}});
    REQUIRE(w.quiet());
    REQUIRE(w.pile().finish.mended.size() == 1);
    CHECK(w.pile().finish.mended[0].source == MendFrom::median);
    CHECK(w.result_at(105, 105) < 20000);
    // From the frame that has the spot it is there again.
    w.studio().select(w.pile().frames[1].id);
    w.pick("mend_source", 1);
    CHECK(w.pile().finish.mended[0].frame == w.pile().frames[1].id);
    CHECK(w.result_at(105, 105) > 40000);
}
