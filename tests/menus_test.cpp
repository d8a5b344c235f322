// Menus, lists that are asked for, preferences, and what the window remembers; by mouse and keys.
#include <QComboBox>
#include <QContextMenuEvent>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QListWidget>
#include <QMenu>
#include <QPushButton>
#include <QSettings>
#include <QToolButton>
#include <catch2/catch.hpp>
#include <fstream>
#include <set>

#include "app/looks/display.h"
#include "app/looks/pictures.h"
#include "app/looks/theme.h"
#include "app/panels/tones_panel.h"
#include "app/window/preferences.h"
#include "app/work/recents.h"
#include "image/known_profiles.h"
#include "io/writer.h"
#include "pile/edits.h"
#include "pile/outcomes.h"
#include "pile/part_edits.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

void run_of(const Folder& folder, int count) {
    write_moving(folder, count, {320, 240}, {2.5, -1});
}

// What takes a pick from a list that opens, when it opens: goes through submenus by their names, and clicks.
class Picking {
  public:
    explicit Picking(std::vector<std::string> way) : way_(std::move(way)) {
        QObject::connect(&timer_, &QTimer::timeout, [this] { look(); });
        timer_.start(10);
    }
    bool done() const { return at_ == way_.size(); }
    bool could() const { return could_; }

  private:
    void look() {
        auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
        if (!menu || done() || busy_) return;
        busy_ = true;
        for (QAction* action : menu->actions()) {
            const QString name = action->menu() ? action->menu()->objectName() : action->objectName();
            if (name != QString::fromStdString(way_[at_])) continue;
            ++at_;
            could_ = action->isEnabled();
            if (!could_) {
                while (QWidget* open = QApplication::activePopupWidget()) open->close();
                break;
            }
            QTest::mouseClick(menu, Qt::LeftButton, Qt::NoModifier, menu->actionGeometry(action).center());
            break;
        }
        busy_ = false;
    }

    std::vector<std::string> way_;
    std::size_t at_ = 0;
    bool could_ = false, busy_ = false;
    QTimer timer_;
};

// sRGB with red and green in each other's place: what stands for one in its table of tags stands for the other.
Profile swapped_srgb() {
    std::vector<std::uint8_t> icc = Profile::srgb().bytes();
    constexpr std::size_t head = 132, entry = 12;
    for (std::size_t at = head; at + entry <= icc.size() && at < head + 32 * entry; at += entry)
        if (icc[at + 1] == 'X' && icc[at + 2] == 'Y' && icc[at + 3] == 'Z') {
            if (icc[at] == 'r')
                icc[at] = 'g';
            else if (icc[at] == 'g')
                icc[at] = 'r';
        }
    return Profile(std::move(icc));
}

// Pictures that tell when and how they were taken.
void taken_run(const Folder& folder, int count, double exposure_s, double step_s, double iso) {
    for (int i = 0; i < count; ++i) {
        CaptureData capture;
        capture.captured = 1e9 + step_s * i;
        capture.exposure_s = exposure_s;
        capture.iso = iso;
        const Raster16 picture = landscape({320, 240}, Matrix(), unsigned(i), 0.01);
        REQUIRE(
            write_picture(folder / ("t" + std::to_string(i) + ".jpg"), picture, Profile::srgb(), {8}, capture).ok());
    }
}

std::vector<std::string> names_of(const Pile& pile) {
    std::vector<std::string> out;
    for (const Frame& frame : pile.frames) out.push_back(frame.file->path.filename().string());
    return out;
}

void right_click(QWidget& widget, QPoint at) {
    QContextMenuEvent event(QContextMenuEvent::Mouse, at, widget.mapToGlobal(at));
    QApplication::sendEvent(&widget, &event);
}

}  // namespace

TEST_CASE("the menu has every command that is no key held down, and does it", "[window]") {
    const Folder folder;
    run_of(folder, 4);
    Window w;
    REQUIRE(w.open(folder));
    {
        const Picking pick({"menu_1", "do_select_all"});
        w.key(Qt::Key_F10);
        REQUIRE(wait_for([&] { return pick.done(); }));
        let_pass();
    }
    CHECK(w.studio().selected().size() == 4);
    {
        const Picking pick({"menu_1", "do_aside"});
        w.click("menu");
        REQUIRE(wait_for([&] { return pick.done(); }));
        let_pass();
    }
    CHECK(merged_ids(w.pile()).empty());
    // What cannot be done now is dimmed.
    {
        const Picking pick({"menu_0", "do_redo"});
        w.click("menu");
        REQUIRE(wait_for([&] { return pick.done(); }));
        CHECK_FALSE(pick.could());
    }
    std::set<QString> in_menu;
    for (const QAction* action : w.find<QToolButton>("menu")->menu()->findChildren<QAction*>())
        in_menu.insert(action->objectName());
    for (const app::Command& c : app::commands())
        if (c.heard == app::Heard::everywhere && std::string_view(c.id) != "menu") {
            INFO(c.id);
            CHECK(in_menu.count(QStringLiteral("do_") + QLatin1String(c.id)) == 1);
        }
}

TEST_CASE("what was done is listed, and one click goes back to it and on again", "[window]") {
    const Folder folder;
    run_of(folder, 4);
    Window w;
    REQUIRE(w.open(folder));
    CHECK_FALSE(w.find<QToolButton>("history")->isEnabled());
    const Pile first = w.pile();
    w.key(Qt::Key_A);
    w.key(Qt::Key_Right);
    w.key(Qt::Key_A);
    const Pile last = w.pile();
    {
        const Picking pick({"step_of_history_0"});
        w.click("history");
        REQUIRE(wait_for([&] { return pick.done(); }));
        let_pass();
    }
    CHECK(w.pile() == first);
    CHECK(w.studio().document().steps().size() == 3);
    {
        const Picking pick({"step_of_history_2"});
        w.key(Qt::Key_Z, Qt::ControlModifier | Qt::AltModifier);
        REQUIRE(wait_for([&] { return pick.done(); }));
        let_pass();
    }
    CHECK(w.pile() == last);
}

TEST_CASE("frames have a list of what can be done with them; their order is changed by it, by keys and by dragging",
          "[window]") {
    const Folder folder;
    run_of(folder, 4);
    Window w;
    REQUIRE(w.open(folder));
    auto* rail = w.find<app::TimeRail>("time_rail");
    const auto middle = [&](std::size_t i) { return rail->slat_of(w.pile().frames[i].id).center().toPoint(); };
    {
        const Picking pick({"do_aside"});
        right_click(*rail, middle(2));
        REQUIRE(pick.done());
    }
    CHECK(w.pile().frames[2].aside);
    CHECK(w.studio().current() == w.pile().frames[2].id);
    w.studio().document().undo();
    {
        const Picking pick({"do_reference"});
        right_click(*rail, middle(2));
        REQUIRE(pick.done());
    }
    CHECK(w.pile().reference == w.pile().frames[2].id);
    // By keys, on the rail.
    rail->setFocus();
    w.key(Qt::Key_Left, Qt::ControlModifier);
    CHECK(names_of(w.pile()) == std::vector<std::string>{"f1.tif", "f3.tif", "f2.tif", "f4.tif"});
    w.key(Qt::Key_Right, Qt::ControlModifier);
    CHECK(names_of(w.pile()) == std::vector<std::string>{"f1.tif", "f2.tif", "f3.tif", "f4.tif"});
    // By their feet, in front of the first; Escape gives a drag up.
    const auto foot = [&](std::size_t i) {
        return QPoint(middle(i).x(), int(rail->slat_of(w.pile().frames[i].id).bottom()) + 12);
    };
    const auto drag = [&](QPoint from, QPoint to, bool leaves) {
        QTest::mousePress(rail, Qt::LeftButton, Qt::NoModifier, from);
        QTest::mouseMove(rail, (from + to) / 2);
        QTest::mouseMove(rail, to);
        let_pass();
        if (leaves) w.key(Qt::Key_Escape);
        QTest::mouseRelease(rail, Qt::LeftButton, Qt::NoModifier, to);
        let_pass();
    };
    // A click there is one on the frame.
    w.key(Qt::Key_A, Qt::ControlModifier);
    QTest::mouseClick(rail, Qt::LeftButton, Qt::NoModifier, foot(1));
    CHECK(w.studio().selected() == std::vector<int>{w.pile().frames[1].id});
    drag(foot(3), middle(0) - QPoint(30, 0), true);
    CHECK(names_of(w.pile()) == std::vector<std::string>{"f1.tif", "f2.tif", "f3.tif", "f4.tif"});
    drag(foot(3), middle(0) - QPoint(30, 0), false);
    CHECK(names_of(w.pile()) == std::vector<std::string>{"f4.tif", "f1.tif", "f2.tif", "f3.tif"});
    {
        const Picking pick({"do_by_name"});
        right_click(*rail, middle(1));
        REQUIRE(pick.done());
    }
    CHECK(names_of(w.pile()) == std::vector<std::string>{"f1.tif", "f2.tif", "f3.tif", "f4.tif"});
    w.key(Qt::Key_A, Qt::ControlModifier | Qt::ShiftModifier);
    CHECK(w.studio().selected().size() == 3);
}

TEST_CASE("the picture has a list of sizes, one of which is typed, and a list of what can be done with it",
          "[window]") {
    const Folder folder;
    write_moving(folder, 3, {1600, 1200}, {1, 1});
    Window w;
    REQUIRE(w.open(folder));
    app::Canvas& canvas = w.window.canvas();
    const double fits = canvas.zoom();
    {
        const Picking pick({"do_twice"});
        w.click("zoom");
        REQUIRE(wait_for([&] { return pick.done(); }));
    }
    // Of pixels of the screen, of which a unit of the window may have more than one.
    const double fine = canvas.devicePixelRatioF();
    CHECK(canvas.zoom() == Approx(2 / fine));
    CHECK(w.find<QToolButton>("zoom")->text() == QStringLiteral("200%"));
    {
        QTimer typing;
        bool typed = false;
        QObject::connect(&typing, &QTimer::timeout, [&] {
            auto* box = w.window.findChild<QDoubleSpinBox*>(QStringLiteral("size_typed"));
            if (!box || !box->hasFocus() || typed) return;
            typed = true;
            QTest::keyClicks(box, QStringLiteral("150"));
            QTest::keyClick(box, Qt::Key_Return);
        });
        typing.start(10);
        w.key(Qt::Key_Z);
        REQUIRE(typed);
    }
    CHECK(canvas.zoom() == Approx(1.5 / fine));
    {
        const Picking pick({"do_fit"});
        QTest::mouseClick(&canvas, Qt::RightButton, Qt::NoModifier, QPoint(200, 200));
        REQUIRE(pick.done());
    }
    CHECK(canvas.zoom() == Approx(fits));
    // The right button that moves the picture opens nothing.
    canvas.zoom_to(1, {300, 300});
    QTest::mousePress(&canvas, Qt::RightButton, Qt::NoModifier, QPoint(300, 300));
    QTest::mouseMove(&canvas, QPoint(340, 330));
    QTest::mouseRelease(&canvas, Qt::RightButton, Qt::NoModifier, QPoint(340, 330));
    CHECK(QApplication::activePopupWidget() == nullptr);
}

TEST_CASE("a list has what its buttons do", "[window]") {
    const Folder folder;
    run_of(folder, 3);
    Window w;
    REQUIRE(w.open(folder));
    auto [with_one, one] = with_new_part(w.pile(), w.pile().frames[1].id);
    auto [with_two, two] = with_new_part(std::move(with_one), w.pile().frames[2].id);
    w.studio().document().edit(std::move(with_two), QStringLiteral("parts"));
    w.click("knot_4");
    auto* list = w.find<QListWidget>("parts_list");
    list->setFocus();
    list->setCurrentRow(0);
    REQUIRE(find_part(w.pile(), two));
    {
        const Picking pick({"do_part_remove"});
        right_click(*list->viewport(), list->visualItemRect(list->item(0)).center());
        REQUIRE(pick.done());
    }
    CHECK_FALSE(find_part(w.pile(), two));
    CHECK(find_part(w.pile(), one));
}

TEST_CASE("steps and rail go away by their keys, and the picture gets more of the window", "[window]") {
    const Folder folder;
    write_moving(folder, 3, {1500, 1000}, {1, 1});
    Window w;
    REQUIRE(w.open(folder));
    const auto share = [&] {
        const QRectF seen(w.window.canvas().to_screen({0, 0}), w.window.canvas().to_screen({1500, 1000}));
        return seen.width() * seen.height() / (w.window.width() * w.window.height());
    };
    CHECK(w.window.size() == usual_size());
    if (usual_size() == QSize(1280, 800)) CHECK(share() > 0.45);
    const double before = share();
    w.key(Qt::Key_F8);
    CHECK_FALSE(w.find<QWidget>("time_rail")->isVisible());
    w.key(Qt::Key_F7);
    CHECK_FALSE(w.window.steps().isVisible());
    let_pass();
    CHECK(share() > 1.3 * before);
    w.key(Qt::Key_F7);
    w.key(Qt::Key_F8);
    let_pass();
    CHECK(share() == Approx(before));
    w.key(Qt::Key_F11);
    CHECK(w.window.isFullScreen());
    w.window.canvas().setFocus();
    w.key(Qt::Key_Escape);
    CHECK_FALSE(w.window.isFullScreen());
}

TEST_CASE("the window holds at 1024 x 700, and nothing in its bars lies over anything else", "[window]") {
    const Folder folder;
    run_of(folder, 3);
    Window w;
    w.window.resize(1024, 700);
    let_pass();
    CHECK(w.window.size() == QSize(1024, 700));
    REQUIRE(w.open(folder));
    w.key(Qt::Key_A);
    const auto apart = [&](const std::vector<const char*>& names) {
        std::vector<QRect> places;
        for (const char* name : names) {
            const auto* widget = w.find<QWidget>(name);
            if (!widget->isVisible()) continue;
            const QRect place(widget->mapTo(&w.window, QPoint(0, 0)), widget->size());
            INFO(name);
            CHECK(w.window.rect().contains(place));
            for (const QRect& other : places) CHECK_FALSE(place.intersects(other));
            places.push_back(place);
        }
        return places.size();
    };
    for (const QSize size : {QSize(1024, 700), QSize(1280, 800)}) {
        w.window.resize(size);
        let_pass();
        CHECK(w.window.size() == size);
        CHECK(apart({"home", "pile_name", "outcome", "view_0", "view_1", "view_2", "view_3", "view_4", "undo", "menu",
                     "export"}) == 11);
        CHECK(apart({"home", "pile_name", "outcome", "open", "save", "view_0", "view_4", "side_by_side", "undo", "redo",
                     "history", "menu", "export"}) >= 8);
        CHECK(apart({"play", "rate", "plumb", "tones", "capture_data"}) == 5);
        for (const char* panel : {"plumb", "tones", "capture_data"}) {
            w.click(panel);
            CHECK(w.window.size() == size);
            w.click(panel);
        }
        w.click("knot_3");
        w.key(Qt::Key_D);
        w.key(Qt::Key_3);
        let_pass();
        CHECK(w.window.size() == size);
        w.key(Qt::Key_D);
        w.key(Qt::Key_1);
    }
}

TEST_CASE("piles that were open are on the start screen with what they look like, and in the menu", "[window]") {
    QSettings().remove(QStringLiteral("recent"));
    const Folder folder, out;
    run_of(folder, 3);
    const fs::path file = out / "evening.pile";
    {
        Window w;
        REQUIRE(w.open(folder));
        REQUIRE(w.save_as(file));
        REQUIRE(w.settle());
    }
    const auto recent = app::recent_piles();
    REQUIRE(recent.size() == 1);
    CHECK(recent[0].path == QString::fromStdString(file.string()));
    CHECK_FALSE(recent[0].picture.isNull());
    Window w;
    w.click("recent_0");
    REQUIRE(wait_for([&] { return w.studio().document().open(); }));
    CHECK(w.studio().document().path() == recent[0].path);
    REQUIRE(w.settle());
    w.click("home");
    REQUIRE_FALSE(w.studio().document().open());
    REQUIRE(w.open(folder));
    {
        const Answering dialog(answer(1));
        const Picking pick({"menu_0", "menu_recent", "recent_pile"});
        w.click("menu");
        REQUIRE(wait_for([&] { return pick.done() && w.studio().document().path() == recent[0].path; }));
    }
    // One that is gone is no longer offered.
    w.click("home");
    fs::remove(file);
    CHECK(app::recent_piles().empty());
}

TEST_CASE("preferences: theme, folders and the display's profile hold at once and are kept", "[window]") {
    const Folder folder, out;
    run_of(folder, 3);
    // Its red is green, and the other way round.
    const Profile swapped = swapped_srgb();
    const std::vector<std::uint8_t> icc = swapped.bytes();
    std::ofstream(out / "swapped.icc", std::ios::binary)
        .write(reinterpret_cast<const char*>(icc.data()), std::streamsize(icc.size()));
    Window w;
    REQUIRE(w.open(folder));
    REQUIRE(w.settle());
    const QImage before = w.window.viewer().overview().image;
    REQUIRE(w.export_to(out / "before.tif"));
    w.window.resize(1280, 1100);
    {
        const Answering profile(choose({out / "swapped.icc"}));
        bool themes_seen = false;
        // The dialog stays open while another asks for the file.
        const Answering preferences([&](QWidget& dialog) {
            if (dialog.objectName() != QStringLiteral("preferences")) return false;
            w.pick("preferences_theme", 1);
            CHECK(app::theme_name() == app::ThemeName::noon);
            w.pick("preferences_theme", 0);
            themes_seen = true;
            return true;
        });
        QTimer display;
        bool asked = false;
        QObject::connect(&display, &QTimer::timeout, [&] {
            if (!themes_seen || asked) return;
            asked = true;
            w.pick("preferences_display", 2);
            QTest::keyClick(w.find<QComboBox>("preferences_display"), Qt::Key_Escape);
        });
        display.start(20);
        w.key(Qt::Key_Comma, Qt::ControlModifier);
        CHECK(profile.came());
    }
    CHECK(app::display_from() == app::DisplayFrom::file);
    REQUIRE(w.settle());
    REQUIRE(wait_for([&] { return w.window.viewer().overview().image != before; }));
    const QImage after = w.window.viewer().overview().image;
    const QColor was = before.pixelColor(20, 20), is = after.pixelColor(20, 20);
    CHECK(std::abs(was.red() - is.green()) <= 2);
    CHECK(std::abs(was.green() - is.red()) <= 2);
    // What is exported is as it was, to the bit.
    REQUIRE(w.export_to(out / "after.tif"));
    CHECK(bytes_of(out / "after.tif") == bytes_of(out / "before.tif"));
    REQUIRE(app::use_display(app::DisplayFrom::srgb, {}, nullptr).ok());
}

TEST_CASE("the size of type is kept, and held from the next start on", "[window]") {
    constexpr auto name = "QT_SCALE_FACTOR";
    const QByteArray before = qgetenv(name);
    Window w;
    {
        const Answering preferences([&](QWidget& dialog) {
            if (dialog.objectName() != QStringLiteral("preferences")) return false;
            CHECK_FALSE(w.find<QWidget>("preferences_size_later")->isVisible());
            w.pick("preferences_size", QStringLiteral("125%"));
            CHECK(w.find<QWidget>("preferences_size_later")->isVisible());
            QTest::keyClick(w.find<QComboBox>("preferences_size"), Qt::Key_Escape);
            return true;
        });
        w.click("start_preferences");
        CHECK(preferences.came());
    }
    CHECK(app::Preferences::size_percent() == 125);
    // What the surroundings ask for comes on top.
    qputenv(name, "2");
    app::Preferences::hold_size();
    CHECK(qgetenv(name).toDouble() == Approx(2.5));
    qunsetenv(name);
    app::Preferences::hold_size();
    CHECK(qgetenv(name).toDouble() == Approx(1.25));
    QSettings().remove(QStringLiteral("size_percent"));
    qunsetenv(name);
    app::Preferences::hold_size();
    CHECK_FALSE(qEnvironmentVariableIsSet(name));
    if (!before.isEmpty()) qputenv(name, before);
}

TEST_CASE("the program is started again with what is open, unsaved edits are asked about first", "[window]") {
    const Folder folder, out;
    run_of(folder, 3);
    Window w;
    QStringList names;
    int starts = 0;
    w.window.set_starter([&](const QStringList& given) {
        ++starts;
        names = given;
        return false;  // the tests go on in this one
    });
    REQUIRE(w.open(folder));
    const auto start_again = [&] {
        const Answering preferences([&](QWidget& dialog) {
            if (dialog.objectName() != QStringLiteral("preferences")) return false;
            w.pick("preferences_size",
                   app::Preferences::size_percent() == 150 ? QStringLiteral("125%") : QStringLiteral("150%"));
            w.click("preferences_start_again");
            return true;
        });
        w.key(Qt::Key_Comma, Qt::ControlModifier);
        CHECK(preferences.came());
    };
    // What was never saved comes again from its frames.
    start_again();
    CHECK(starts == 1);
    CHECK(names.size() == int(w.pile().frames.size()));
    CHECK(names.first() == QString::fromStdString(w.pile().frames.front().file->path.string()));
    CHECK(w.told().contains(QStringLiteral("by hand")));
    REQUIRE(w.save_as(out / "kept.pile"));
    w.key(Qt::Key_A);
    {
        const Answering stays(answer(2, QStringLiteral("not saved")));
        start_again();
        CHECK(stays.came());
    }
    CHECK(starts == 1);
    {
        const Answering saves(answer(0, QStringLiteral("not saved")));
        start_again();
        CHECK(wait_for([&] { return starts == 2; }));
    }
    CHECK(names == QStringList(QString::fromStdString((out / "kept.pile").string())));
    CHECK_FALSE(w.studio().document().edited());
    QSettings().remove(QStringLiteral("size_percent"));
}

TEST_CASE("the result is seen in the export's profile, and what that cannot hold is hatched", "[window]") {
    const Folder folder;
    // A green that only wide profiles have.
    Raster16 wide({120, 90}, 3);
    for (int y = 0; y < 90; ++y)
        for (int x = 0; x < 120; ++x) {
            wide.at(x, y, 0) = x < 60 ? 0 : 30000;
            wide.at(x, y, 1) = x < 60 ? 65535 : 30000;
            wide.at(x, y, 2) = x < 60 ? 0 : 30000;
        }
    for (const char* name : {"a.tif", "b.tif"})
        REQUIRE(write_picture(folder / name, wide, known_profile(KnownProfile::rec2020), {16}, {}).ok());
    Window w;
    REQUIRE(w.open(folder));
    Pile pile = w.pile();
    pile.exporting.profile = ExportProfile::srgb;
    w.studio().document().edit(std::move(pile), QStringLiteral("profile"));
    REQUIRE(w.settle());
    const auto hatched = [&](int from, int to) {
        int count = 0;
        const QImage& image = w.window.viewer().overview().image;
        for (int y = 0; y < image.height(); ++y)
            for (int x = image.width() * from / 120; x < image.width() * to / 120; ++x)
                count += image.pixelColor(x, y) == app::theme().coral ? 1 : 0;
        return count;
    };
    CHECK(hatched(0, 120) == 0);
    w.key(Qt::Key_Y);
    REQUIRE(wait_for([&] { return hatched(0, 60) > 0; }));
    CHECK(hatched(62, 120) == 0);
    w.key(Qt::Key_Y);
    REQUIRE(wait_for([&] { return hatched(0, 60) == 0; }));
}

TEST_CASE("tones are shown of what is seen, of an area that is chosen, and follow the look", "[window]") {
    const Folder folder;
    Raster16 halves({400, 300}, 3);
    for (int y = 0; y < 300; ++y)
        for (int x = 0; x < 400; ++x)
            for (int c = 0; c < 3; ++c) halves.at(x, y, c) = x < 200 ? 0 : c == 0 ? 65535 : 40000;
    for (const char* name : {"a.tif", "b.tif"}) write(folder / name, halves, 16);
    Window w;
    REQUIRE(w.open(folder));
    w.click("tones");
    REQUIRE(w.settle());
    const auto told = [&] { return w.find<QLabel>("tones_clipped")->text(); };
    REQUIRE(wait_for([&] { return told() == QStringLiteral("Black: 50.0%  50.0%  50.0%\nWhite: 50.0%  0.0%  0.0%"); }));
    const auto& shares = w.window.findChild<app::TonesPanel*>()->ribbons().counts().shares;
    REQUIRE(shares.size() == 4);
    const auto brightest = [&](std::size_t channel) {
        const auto& of = shares[channel];
        std::size_t last = 0;
        for (std::size_t i = 0; i < of.size(); ++i)
            if (of[i] > 0.2F) last = i;
        return last;
    };
    CHECK(brightest(1) > brightest(2) + 20);
    // The right half alone.
    w.click("tones_area");
    w.stroke({{230, 40}, {300, 120}, {380, 260}});
    REQUIRE(wait_for([&] { return told().startsWith(QStringLiteral("Black: 0.0%  0.0%  0.0%\nWhite: 100.0%")); }));
    CHECK(w.find<QLabel>("tones_of")->text().contains(QStringLiteral("150 x 220 px")));
    w.key(Qt::Key_Escape);
    REQUIRE(wait_for([&] { return told().startsWith(QStringLiteral("Black: 50.0%")); }));
    w.key(Qt::Key_G);
    CHECK_FALSE(w.find<QWidget>("tones_panel")->isVisible());
}

TEST_CASE("a place that was grey is pointed at, in Even and in Finish, and becomes grey", "[window]") {
    const Folder folder;
    Raster16 cast({200, 150}, 3);
    for (int y = 0; y < 150; ++y)
        for (int x = 0; x < 200; ++x) {
            cast.at(x, y, 0) = 30000;
            cast.at(x, y, 1) = 26000;
            cast.at(x, y, 2) = 22000;
        }
    for (const char* name : {"a.tif", "b.tif"}) write(folder / name, cast, 16);
    for (const auto& [knot, button] :
         {std::pair{"knot_1", "look_neutral"}, std::pair{"knot_5", "finish_look_neutral"}}) {
        Window w;
        REQUIRE(w.open(folder));
        w.click(knot);
        REQUIRE(w.settle());
        w.click(button);
        const QPoint at = w.window.canvas().to_screen({60, 60}).toPoint();
        QTest::mouseClick(&w.window.canvas(), Qt::LeftButton, Qt::NoModifier, at);
        REQUIRE(wait_for([&] { return w.studio().document().edited() && w.studio().document().step() == 1; }));
        CHECK_FALSE(w.find<QPushButton>(button)->isChecked());
        REQUIRE(w.settle());
        const auto seen = w.window.viewer().samples_at(100, 75);
        REQUIRE(seen);
        const auto [least, most] = std::minmax_element(seen->begin(), seen->end());
        CHECK(*most - *least < 250);
        const Look& look = std::string(knot) == "knot_1" ? w.pile().look : w.pile().finish.look;
        CHECK(look.warmth < -10);
    }
}

TEST_CASE("the readout tells samples of 16 bits and their light, in the result and in the frame", "[window]") {
    const Folder folder;
    for (const int sample : {31000, 12000}) {
        Raster16 grey({200, 150}, 3);
        std::fill(grey.data().begin(), grey.data().end(), std::uint16_t(sample));
        write(folder / (std::to_string(sample) + ".tif"), grey, 16);
    }
    Window w;
    REQUIRE(w.open(folder));
    w.move_over_canvas({60, 60});
    const double light = LightCurve::of(Profile::srgb(), 3).light(31000) / LightCurve::full;
    const QString result = QStringLiteral("31000 31000 31000   light %1%").arg(100 * light, 0, 'f', 2);
    CHECK(w.window.canvas().readout().contains(result));
    // Names are in the order of numbers.
    CHECK(w.window.canvas().readout().contains(QStringLiteral("frame 1: 12000 12000 12000")));
    // A flip shows the frame.
    w.key(Qt::Key_Right);
    w.key(Qt::Key_1);
    REQUIRE(w.settle());
    w.move_over_canvas({60, 60});
    CHECK(w.window.canvas().readout().contains(QStringLiteral("frame 2: 31000 31000 31000")));
    // Looked at alone it is the picture.
    w.key(Qt::Key_Left);
    w.key(Qt::Key_2);
    REQUIRE(w.settle());
    w.move_over_canvas({60, 60});
    CHECK(w.window.canvas().readout().contains(QStringLiteral("12000 12000 12000   light")));
}

TEST_CASE("all that is marked in a dialog for frames are the pictures, not the folders among them", "[window]") {
    const Folder folder;
    taken_run(folder, 4, 1 / 125.0, 6, 200);
    fs::create_directory(folder / "a folder");
    Window w;
    const Answering dialog([&](QWidget& widget) {
        auto* files = qobject_cast<QFileDialog*>(&widget);
        auto* list = files ? files->findChild<QTreeView*>(QStringLiteral("treeView")) : nullptr;
        if (!list) return false;
        files->setDirectory(QString::fromStdString(folder.path().string()));
        if (!wait_for([&] { return list->model()->rowCount(list->rootIndex()) == 5; }, 5000)) return false;
        // Beside what is in the list.
        QTest::mouseClick(list->viewport(), Qt::LeftButton, Qt::NoModifier, {60, list->viewport()->height() - 10});
        QTest::keyClick(list, Qt::Key_A, Qt::ControlModifier);
        // No column is cut while there is room.
        for (int column = 1; column < 4; ++column)
            if (list->columnWidth(column) <
                list->itemDelegate()
                    ->sizeHint(QStyleOptionViewItem(), list->model()->index(1, column, list->rootIndex()))
                    .width())
                return false;
        QTest::keyClick(list, Qt::Key_Return);
        return true;
    });
    w.click("outcome_1");
    REQUIRE(dialog.came());
    REQUIRE(wait_for([&] { return w.studio().document().open(); }));
    CHECK(w.pile().frames.size() == 4);
    CHECK(w.settle());
}

TEST_CASE("a folder is taken for what its capture data says, and one click says otherwise", "[window]") {
    const Folder folder;
    // Short exposures, some seconds apart.
    taken_run(folder, 9, 1 / 125.0, 6, 200);
    Window w;
    {
        const Answering dialog(choose({folder.path()}));
        w.click("start_folder");
        REQUIRE(dialog.came());
    }
    REQUIRE(wait_for([&] { return w.studio().document().open(); }));
    REQUIRE(w.settle());
    CHECK(w.pile().outcome == Outcome::clear);
    CHECK(w.find<QToolButton>("outcome")->text() == QStringLiteral("Clear?"));
    CHECK(w.find<QLabel>("outcome_guess_words")->text().contains(QStringLiteral("Taken for Clear")));
    w.click("outcome_is_0");
    CHECK(w.pile().outcome == Outcome::trails);
    CHECK(w.find<QToolButton>("outcome")->text() == QStringLiteral("Trails"));
    CHECK_FALSE(w.find<QWidget>("outcome_guess")->isVisible());
}

TEST_CASE("what is dropped together is asked for where it can mean several things", "[window]") {
    const Folder folder, more, out;
    run_of(folder, 3);
    write_moving(more, 2, {320, 240}, {1, 1});
    Window w;
    REQUIRE(w.open(folder));
    REQUIRE(w.save_as(out / "a.pile"));
    REQUIRE(w.save_as(out / "b.pile"));
    {
        const Answering question(answer(0, QStringLiteral("a.pile, and frames")));
        w.drop({out / "a.pile", more.path()});
        REQUIRE(question.came());
    }
    REQUIRE(wait_for([&] { return w.pile().frames.size() == 5; }));
    CHECK(w.studio().document().path().endsWith(QStringLiteral("a.pile")));
    REQUIRE(w.quiet());
    w.key(Qt::Key_Z, Qt::ControlModifier);
    {
        const Answering question(answer(1, QStringLiteral("Which of the piles")));
        w.drop({out / "a.pile", out / "b.pile"});
        REQUIRE(question.came());
    }
    REQUIRE(wait_for([&] { return w.studio().document().path().endsWith(QStringLiteral("b.pile")); }));
}

TEST_CASE("frames are opened like a pile that was saved, and what is not taken is said", "[window]") {
    const Folder folder, other, piles;
    run_of(folder, 4);
    write_moving(other, 5, {320, 240}, {-2, 1.5});
    {
        Window w;
        REQUIRE(w.open(folder, Outcome::quiet));
        w.key(Qt::Key_4, Qt::ControlModifier);
        let_pass();
        w.click("mode_median");
        REQUIRE(w.settle());
        w.studio().select(w.pile().frames[2].id);
        w.key(Qt::Key_A);
        REQUIRE(w.settle());
        REQUIRE(w.save_as(piles / "night.pile"));
    }
    Window w;
    std::vector<fs::path> frames;
    for (const std::string& name : other.names()) frames.push_back(other / name);
    {
        const Answering pile(choose({piles / "night.pile"}));
        // The second dialog comes when the first has gone.
        std::unique_ptr<Answering> run;
        QTimer next;
        QObject::connect(&next, &QTimer::timeout, [&] {
            if (pile.came() && !run) run = std::make_unique<Answering>(choose(frames));
        });
        next.start(10);
        w.click("start_like");
        REQUIRE(pile.came());
        REQUIRE(run);
        REQUIRE(run->came());
    }
    REQUIRE(wait_for([&] { return w.studio().document().open(); }));
    REQUIRE(w.settle());
    CHECK(w.pile().outcome == Outcome::quiet);
    CHECK(method_of(w.pile(), Zone::sky).mode == Mode::median);
    CHECK(method_of(w.pile(), Zone::sky).model == entry_of(Outcome::quiet).model);
    CHECK(merged_ids(w.pile()).size() == 5);
    for (const Frame& frame : w.pile().frames) CHECK(frame.places.sky);
    CHECK(w.told().contains("set aside"));
    CHECK(w.studio().document().path().isEmpty());
}

TEST_CASE("a mode that is chosen while a frame is looked at shows what it makes", "[window]") {
    const Folder folder;
    run_of(folder, 3);
    Window w;
    REQUIRE(w.open(folder));
    w.key(Qt::Key_2);
    REQUIRE(w.window.viewer().view() == app::View::frame);
    w.key(Qt::Key_4, Qt::ControlModifier);
    let_pass();
    w.click("mode_mean");
    REQUIRE(w.settle());
    CHECK(w.window.viewer().view() == app::View::result);
    // Cover and origins are of the result, and stay.
    w.key(Qt::Key_4);
    w.click("mode_maximum");
    CHECK(w.window.viewer().view() == app::View::cover);
}
