// By keys alone, and what aids are told.
#include <QAccessible>
#include <catch2/catch.hpp>

#include "io/reader.h"
#include "support/night.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

// Goes on by Tab until something of that name has the focus.
void go_by_keys(Window& w, const QString& name) {
    constexpr int most_tabs = 250;
    std::string way;
    for (int i = 0; i < most_tabs && w.focus()->objectName() != name; ++i) {
        // Of buttons of which one is down Tab stops at that one; arrows go to the others.
        const bool among = name.startsWith("page_") && w.focus()->objectName().startsWith("page_");
        w.key(among ? Qt::Key_Right : Qt::Key_Tab);
        way += w.focus()->objectName().toStdString() + " ";
    }
    INFO("to " << name.toStdString() << " by way of " << way);
    REQUIRE(w.focus()->objectName().toStdString() == name.toStdString());
}
void press_by_keys(Window& w, const QString& name) {
    go_by_keys(w, name);
    w.key(Qt::Key_Space);
    let_pass();
}

void open_by_keys(Window& w, Outcome outcome, const Folder& folder) {
    std::vector<fs::path> frames;
    for (const std::string& name : folder.names())
        if (fs::is_regular_file(folder / name)) frames.push_back(folder / name);
    const Answering dialog(choose(frames));
    press_by_keys(w, QStringLiteral("outcome_%1").arg(int(outcome)));
    REQUIRE(dialog.came());
    REQUIRE(wait_for([&] { return w.studio().document().open(); }));
    REQUIRE(w.settle());
}

Raster16 exported_by_keys(Window& w, const fs::path& file) {
    const Answering dialog(choose({file}));
    w.key(Qt::Key_E, Qt::ControlModifier | Qt::ShiftModifier);
    REQUIRE(dialog.came());
    REQUIRE(w.quiet());
    return read_picture(file).value();
}

int squares_in(const Raster16& picture) {
    int out = 0;
    for (int k = 0; k < 7; ++k) out += picture.at(24 + 36 * k, 118, 1) > 55000 ? 1 : 0;
    return out;
}

}  // namespace

TEST_CASE("trails, clear, quiet and a sequence come about by keys alone", "[window]") {
    for (const auto& [outcome, squares] : {std::pair{Outcome::trails, 7}, {Outcome::clear, 0}, {Outcome::quiet, 0}}) {
        const Folder folder, out;
        write_passing(folder, 7);
        Window w;
        open_by_keys(w, outcome, folder);
        CHECK(squares_in(exported_by_keys(w, out / "made.tif")) == squares);
    }
    const Folder folder, out;
    write_passing(folder, 7);
    Window w;
    open_by_keys(w, Outcome::sequence, folder);
    w.key(Qt::Key_5, Qt::ControlModifier);
    REQUIRE(w.settle());
    press_by_keys(w, "page_sequence");
    press_by_keys(w, "subjects_find");
    REQUIRE(w.settle());
    CHECK(squares_in(exported_by_keys(w, out / "made.tif")) == 7);
}

TEST_CASE("a shower and the best of frames come about by keys alone", "[window]") {
    {
        const Folder folder, out;
        REQUIRE(write_night(folder));
        Window w;
        open_by_keys(w, Outcome::shower, folder);
        w.key(Qt::Key_5, Qt::ControlModifier);
        REQUIRE(w.settle());
        press_by_keys(w, "page_shower");
        press_by_keys(w, "meteors_find");
        REQUIRE(w.settle());
        CHECK(w.pile().parts.size() >= 3);
        const Raster16 made = exported_by_keys(w, out / "made.tif");
        CHECK(difference(made, render_all(w.pile()).value()).empty());
    }
    const Folder folder, out;
    write_passing(folder, 4);
    Window w;
    open_by_keys(w, Outcome::best_of, folder);
    // The mark goes to where the third frame has its square; that place is held, and taken from there.
    w.key(Qt::Key_5, Qt::ControlModifier);
    REQUIRE(w.settle());
    go_by_keys(w, "canvas");
    w.walk(w.middle_of_canvas(), {96, 118});
    press_by_keys(w, "patches_hold");
    go_by_keys(w, "time_rail");
    for (int i = 0; i < 2; ++i) w.key(Qt::Key_Right);
    REQUIRE(w.studio().current() == w.pile().frames[2].id);
    press_by_keys(w, "patches_take");
    REQUIRE(w.settle());
    const Raster16 made = exported_by_keys(w, out / "made.tif");
    CHECK(made.at(96, 118, 1) > 55000);
}

TEST_CASE("what can have the focus tells aids its name, on every page of every step", "[window]") {
    const Folder folder;
    write_passing(folder, 4);
    Window w;
    const auto look = [&] {
        int seen = 0;
        for (QWidget* widget : w.window.findChildren<QWidget*>()) {
            if (!widget->isVisible() || !(widget->focusPolicy() & Qt::TabFocus)) continue;
            // The field in a box is the box's, and what scrolls has nothing to say of its own.
            if (qobject_cast<QAbstractSpinBox*>(widget->parentWidget()) || widget->focusProxy()) continue;
            if (qobject_cast<QAbstractScrollArea*>(widget) && !qobject_cast<QAbstractItemView*>(widget)) continue;
            QAccessibleInterface* told = QAccessible::queryAccessibleInterface(widget);
            REQUIRE(told);
            INFO(widget->metaObject()->className() << " " << widget->objectName().toStdString() << " in "
                                                   << widget->parentWidget()->objectName().toStdString());
            CHECK_FALSE(told->text(QAccessible::Name).isEmpty());
            CHECK(told->role() != QAccessible::NoRole);
            CHECK(told->state().focusable);
            // A box of choices tells what is chosen, and of what.
            if (const auto* box = qobject_cast<QComboBox*>(widget); box && !box->currentText().isEmpty()) {
                CHECK(told->text(QAccessible::Name).endsWith(QStringLiteral(", ") + box->currentText()));
                CHECK(told->text(QAccessible::Value) == box->currentText());
            }
            ++seen;
        }
        // What is written is what is told.
        for (const QLabel* label : w.window.findChildren<QLabel*>()) {
            if (!label->isVisible() || label->text().isEmpty() || label->textFormat() == Qt::RichText) continue;
            QAccessibleInterface* told = QAccessible::queryAccessibleInterface(const_cast<QLabel*>(label));
            CHECK(told->text(QAccessible::Name).toStdString() == label->text().toStdString());
        }
        return seen;
    };
    CHECK(look() > 10);
    REQUIRE(w.open(folder));
    on_every_page(w, [&] { CHECK(look() > 20); });
}
