#include "app/looks/theme.h"

#include <QAbstractButton>
#include <QApplication>
#include <QFile>
#include <QFontDatabase>
#include <QPainter>
#include <QPalette>
#include <QStyleFactory>
#include <QSvgRenderer>
#include <QWidget>
#include <array>

// Resources of a static library are only there once they are asked for, and not from inside a namespace.
static void ship_resources() {
    Q_INIT_RESOURCE(resources);
}

namespace bp::app {
namespace {

const Theme dusk{QColor(0x2b2b29), QColor(0x383835), QColor(0x44443f), QColor(0x57564f), QColor(0x333332),
                 QColor(0xeae7df), QColor(0xa9a69d), QColor(0x7d7a72), QColor(0xe9a23b), QColor(0x241a08),
                 QColor(0x4fb3a5), QColor(0xf08878), QColor(0xffd48a), QColor(0x241a08)};
const Theme noon{QColor(0xf1efea), QColor(0xe3e0d9), QColor(0xd7d3ca), QColor(0xb9b5ab), QColor(0xbcbcba),
                 QColor(0x26241f), QColor(0x5f5b52), QColor(0x86827a), QColor(0x804e05), QColor(0xfffaf0),
                 QColor(0x126b60), QColor(0xa83424), QColor(0xffd48a), QColor(0x241a08)};

ThemeName current = ThemeName::dusk;

QString style_sheet(const Theme& t) {
    QString sheet = QStringLiteral(R"(
QWidget { color: @text; }
QToolTip { background: @raised; color: @text; border: 1px solid @line; padding: 4px; }
QPushButton, QToolButton { background: @raised; border: 1px solid transparent; border-radius: 5px; padding: 5px 12px; }
QToolButton[flat="true"], QPushButton[flat="true"] { background: transparent; padding: 5px 8px; color: @quiet; }
QPushButton[low="true"] { padding: 2px 10px; }
QComboBox[low="true"] { padding: 1px 6px; }
QToolButton[over="true"] { background: @ground; color: @text; padding: 3px 9px; font-size: 11px; }
QToolButton[over="true"]:hover { background: @hover; }
QPushButton[tab="true"] { padding: 5px 2px; }
QPushButton:hover, QToolButton:hover { background: @hover; color: @text; }
QPushButton:focus, QToolButton:focus { border: 1px solid @amber; }
QPushButton:disabled, QToolButton:disabled { color: @faint; }
QPushButton:checked, QToolButton:checked { background: @hover; color: @text; border-bottom: 2px solid @amber; }
QPushButton[lamp="true"] { background: @amber; color: @on_amber; font-weight: 600; padding: 6px 18px; }
QPushButton[lamp="true"]:hover { background: @hatch; color: @on_hatch; }
QPushButton[lamp="true"]:focus { border: 1px solid @text; }
QPushButton[lamp="true"]:disabled { background: @raised; color: @faint; }
QToolButton[pill="true"] { background: transparent; border: 1px solid @amber; color: @amber; border-radius: 12px; padding: 3px 18px; }
QToolButton[pill="true"]:hover { background: @raised; }
QToolButton::menu-indicator { image: none; }
QLabel[quiet="true"] { color: @quiet; }
QLabel[trouble="true"] { color: @coral; }
QLabel[differs="true"] { color: @amber; }
QLineEdit, QComboBox, QAbstractSpinBox { background: @raised; border: 1px solid @line; border-radius: 4px; padding: 3px 6px; }
QLineEdit:focus, QComboBox:focus, QAbstractSpinBox:focus { border: 1px solid @amber; }
QAbstractSpinBox::up-button, QAbstractSpinBox::down-button { border: none; background: transparent; width: 18px; }
QAbstractSpinBox::up-arrow { image: url(:/icons/step_up.svg); width: 9px; height: 9px; }
QAbstractSpinBox::down-arrow { image: url(:/icons/step_down.svg); width: 9px; height: 9px; }
QComboBox::drop-down { border: none; width: 20px; }
QComboBox::down-arrow { image: url(:/icons/more.svg); width: 12px; height: 12px; }
QComboBox QAbstractItemView, QMenu { background: @raised; border: 1px solid @line; selection-background-color: @hover; }
#notices, #odd_card, #keys_sheet, #preferences, #guide { background: @ground; border: 1px solid @line; }
#notices, #odd_card { border-radius: 5px; }
QMenu::item { padding: 5px 22px; }
QMenu::item:selected { background: @hover; }
QListWidget { background: transparent; border: 1px solid @line; border-radius: 5px; outline: none; }
QListWidget::item { padding: 3px 2px; border-radius: 4px; }
QListWidget::item:selected { background: @hover; color: @text; }
QListWidget:focus { border: 1px solid @amber; }
QTreeWidget { background: transparent; border: 1px solid @line; border-radius: 5px; outline: none; }
QTreeWidget::item { padding: 1px 2px; border: 1px solid transparent; }
QTreeWidget::item:selected { background: @hover; color: @amber; }
QTreeWidget:focus { border: 1px solid @amber; }
QHeaderView, QHeaderView::section { background: transparent; color: @quiet; border: none; padding: 4px 3px 4px 0; }
QFileDialog QToolButton { padding: 2px; }
QFileDialog QHeaderView { min-height: 26px; }
QFileDialog QTreeView::item, QFileDialog QListView::item { padding: 2px; }
QHeaderView::up-arrow { image: url(:/icons/step_up.svg); }
QHeaderView::down-arrow { image: url(:/icons/step_down.svg); }
QHeaderView::up-arrow, QHeaderView::down-arrow { width: 8px; height: 8px; subcontrol-origin: padding; subcontrol-position: top right; right: 3px; top: -3px; }
QScrollBar:horizontal { background: transparent; height: 8px; margin: 0; }
QScrollBar::handle:horizontal { background: @line; border-radius: 4px; min-width: 24px; }
QCheckBox { spacing: 8px; }
QCheckBox::indicator, QListWidget::indicator { width: 13px; height: 13px; border: 1px solid @quiet; border-radius: 3px; }
QCheckBox::indicator:checked, QListWidget::indicator:checked { background: @amber; border: 1px solid @amber; image: url(:/icons/tick.svg); }
QCheckBox:focus { color: @amber; }
QCheckBox:disabled { color: @faint; }
QSlider::groove:horizontal { height: 3px; background: @line; border-radius: 1px; }
QSlider::sub-page:horizontal { background: @amber; border-radius: 1px; }
QSlider::handle:horizontal { background: @text; width: 12px; margin: -5px 0; border-radius: 6px; }
QSlider::handle:horizontal:focus { background: @amber; }
QSlider::sub-page:horizontal:disabled { background: @line; }
QSlider[both_ways="true"]::sub-page:horizontal { background: @line; }
QSlider::handle:horizontal:disabled { background: @faint; }
QScrollArea { border: none; background: transparent; }
QScrollBar:vertical { background: transparent; width: 8px; margin: 0; }
QScrollBar::handle:vertical { background: @line; border-radius: 4px; min-height: 24px; }
QScrollBar::add-line, QScrollBar::sub-line { height: 0; width: 0; }
QProgressBar { background: @raised; border: none; border-radius: 2px; }
QProgressBar::chunk { background: @amber; border-radius: 2px; }
)");
    // The longer names first: one is the beginning of another.
    const std::array<std::pair<const char*, QColor>, 11> names{{{"@on_amber", t.on_amber},
                                                                {"@on_hatch", t.on_hatch},
                                                                {"@ground", t.ground},
                                                                {"@raised", t.raised},
                                                                {"@hover", t.hover},
                                                                {"@line", t.line},
                                                                {"@quiet", t.quiet},
                                                                {"@faint", t.faint},
                                                                {"@hatch", t.hatch},
                                                                {"@coral", t.coral},
                                                                {"@amber", t.amber}}};
    for (const auto& [name, colour] : names) sheet.replace(QLatin1String(name), colour.name());
    sheet.replace(QLatin1String("@text"), t.text.name());
    return sheet;
}

QPalette palette_of(const Theme& t) {
    QPalette p;
    p.setColor(QPalette::Window, t.ground);
    p.setColor(QPalette::WindowText, t.text);
    p.setColor(QPalette::Base, t.raised);
    p.setColor(QPalette::AlternateBase, t.ground);
    p.setColor(QPalette::Text, t.text);
    p.setColor(QPalette::Button, t.raised);
    p.setColor(QPalette::ButtonText, t.text);
    p.setColor(QPalette::Highlight, t.amber);
    p.setColor(QPalette::HighlightedText, t.on_amber);
    p.setColor(QPalette::PlaceholderText, t.faint);
    p.setColor(QPalette::ToolTipBase, t.raised);
    p.setColor(QPalette::ToolTipText, t.text);
    p.setColor(QPalette::Disabled, QPalette::Text, t.faint);
    p.setColor(QPalette::Disabled, QPalette::ButtonText, t.faint);
    p.setColor(QPalette::Disabled, QPalette::WindowText, t.faint);
    return p;
}

}  // namespace

const Theme& theme_of(ThemeName name) {
    return name == ThemeName::dusk ? dusk : noon;
}

const Theme& theme() {
    return current == ThemeName::dusk ? dusk : noon;
}

ThemeName theme_name() {
    return current;
}

void apply_theme(QApplication& application, ThemeName name) {
    current = name;
    application.setStyle(QStyleFactory::create(QStringLiteral("Fusion")));
    application.setPalette(palette_of(theme()));
    application.setFont(face(type::body));
    application.setStyleSheet(style_sheet(theme()));
    for (QWidget* widget : QApplication::allWidgets()) {
        auto* button = qobject_cast<QAbstractButton*>(widget);
        if (button && button->property("picture").isValid()) set_icon(button, button->property("picture").toString());
        widget->update();
    }
}

void load_fonts() {
    ship_resources();
    for (const char* weight : {"Regular", "Medium", "SemiBold"})
        QFontDatabase::addApplicationFont(QStringLiteral(":/fonts/Inter-%1.otf").arg(QLatin1String(weight)));
}

QFont face(int pixels, QFont::Weight weight) {
    QFont out(QStringLiteral("Inter"));
    out.setPixelSize(pixels);
    out.setWeight(weight);
    return out;
}

void set_icon(QAbstractButton* button, const QString& name) {
    button->setProperty("picture", name);
    button->setIcon(icon(name));
}

QIcon icon(const QString& name) {
    QFile file(QStringLiteral(":/icons/%1.svg").arg(name));
    if (!file.open(QIODevice::ReadOnly)) return {};
    QByteArray svg = file.readAll();
    svg.replace("currentColor", theme().text.name().toLatin1());
    QSvgRenderer renderer(svg);
    QPixmap pixmap(40, 40);
    pixmap.fill(Qt::transparent);
    QPainter painter(&pixmap);
    renderer.render(&painter);
    painter.end();
    pixmap.setDevicePixelRatio(2);
    return QIcon(pixmap);
}

}  // namespace bp::app
