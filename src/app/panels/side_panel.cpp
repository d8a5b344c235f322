#include "app/panels/side_panel.h"

#include <QScrollArea>

#include "app/looks/theme.h"

namespace bp::app {

QVBoxLayout* side_column(QFrame& panel, const QString& object, const QString& words) {
    constexpr int panel_width = 280;
    panel.setObjectName(object);
    panel.setAccessibleName(words);
    panel.setFixedWidth(panel_width);
    auto* outer = new QVBoxLayout(&panel);
    outer->setContentsMargins(0, 0, 0, 0);
    auto* scroll = new QScrollArea(&panel);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setAccessibleName(words);
    auto* inside = new QWidget(scroll);
    scroll->setWidget(inside);
    outer->addWidget(scroll);
    auto* column = new QVBoxLayout(inside);
    column->setContentsMargins(space::medium, space::medium, space::medium, space::medium);
    return column;
}

}  // namespace bp::app
