// One table of colours, spacing and type sizes; no widget carries its own.
#pragma once

#include <QColor>
#include <QFont>
#include <QIcon>
#include <QString>

class QAbstractButton;
class QApplication;

namespace bp::app {

enum class ThemeName { dusk, noon };

struct Theme {
    QColor ground;  // panels
    QColor raised;  // buttons, cards
    QColor hover;
    QColor line;      // hairlines, the step line
    QColor surround;  // around the picture: neutral grey
    QColor text, quiet, faint;
    QColor amber;     // the one accent
    QColor on_amber;  // text on it
    QColor teal;      // only the second of two compared things
    QColor coral;     // only trouble
    QColor hatch;     // masks on the picture
    QColor on_hatch;  // text on it
};

namespace space {
constexpr int hair = 4;
constexpr int small = 8;
constexpr int medium = 14;
constexpr int large = 22;
constexpr int step_line_width = 300;
constexpr int bar_height = 44;
constexpr int rounding = 5;
constexpr int knot = 15;
constexpr int knot_indent = 58;
}  // namespace space

namespace type {
constexpr int small = 11;
constexpr int body = 13;
constexpr int step = 14;
constexpr int title = 26;
}  // namespace type

const Theme& theme();
ThemeName theme_name();
const Theme& theme_of(ThemeName name);
// Sets palette, style sheet and font of the application and tells every widget.
void apply_theme(QApplication& application, ThemeName name);
// Loads the fonts that ship with the program; once, before the first widget.
void load_fonts();

QFont face(int pixels, QFont::Weight weight = QFont::Normal);
// One of our own icons, drawn in the theme's text colour.
QIcon icon(const QString& name);
// The button's icon follows the theme from then on.
void set_icon(QAbstractButton* button, const QString& name);

}  // namespace bp::app
