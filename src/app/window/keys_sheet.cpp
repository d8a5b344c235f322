#include "app/window/keys_sheet.h"

#include <QGridLayout>
#include <QLabel>
#include <QScrollArea>
#include <QVBoxLayout>

#include "app/looks/controls.h"
#include "app/looks/theme.h"
#include "app/work/commands.h"

namespace bp::app {
namespace {

constexpr int sheet_width = 720;
constexpr int sheet_height = 560;

}  // namespace

KeysSheet::KeysSheet(QWidget* parent) : QDialog(parent) {
    setObjectName(QStringLiteral("keys_sheet"));
    setWindowTitle(tr("Keys"));
    resize(sheet_width, sheet_height);
    auto* list = new QWidget;
    auto* grid = new QGridLayout(list);
    grid->setContentsMargins(space::large, space::medium, space::large, space::medium);
    grid->setHorizontalSpacing(space::large);
    grid->setVerticalSpacing(space::hair);
    grid->setColumnStretch(2, 1);
    int row = 0;
    std::optional<Topic> topic;
    for (const Command& c : commands()) {
        if (topic != c.topic) {
            topic = c.topic;
            auto* title = new QLabel(word(c.topic), list);
            title->setFont(face(type::step, QFont::DemiBold));
            title->setContentsMargins(0, row == 0 ? 0 : space::medium, 0, 2);
            grid->addWidget(title, row++, 0, 1, 3);
        }
        auto* keys = new QLabel(c.keys_in_words(), list);
        keys->setProperty("differs", true);
        grid->addWidget(keys, row, 0, Qt::AlignTop);
        grid->addWidget(new QLabel(c.name(), list), row, 1, Qt::AlignTop);
        grid->addWidget(quiet_label(c.what_it_does(), list), row, 2);
        ++row;
    }
    auto* scroll = new QScrollArea(this);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setAccessibleName(tr("What every key does"));
    scroll->setWidget(list);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(scroll);
    scroll->setFocus();
}

}  // namespace bp::app
