#include "app/panels/zone_switch.h"

#include <QButtonGroup>
#include <QHBoxLayout>

#include "app/looks/controls.h"

namespace bp::app {

ZoneSwitch::ZoneSwitch(Studio& studio, const QString& name, QWidget* parent) : QWidget(parent), studio_(studio) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    auto* group = new QButtonGroup(this);
    sky_ = push(tr("Sky"), name + QStringLiteral("_sky"), tr("What is set below goes for the sky"), this);
    land_ = push(tr("Land"), name + QStringLiteral("_land"), tr("What is set below goes for the land"), this);
    for (QPushButton* button : {sky_, land_}) {
        button->setCheckable(true);
        group->addButton(button);
        row->addWidget(button);
        connect(button, &QPushButton::clicked, this,
                [this, button] { studio_.set_zone(button == land_ ? Zone::land : Zone::sky); });
    }
    connect(&studio.document(), &Document::changed, this, &ZoneSwitch::refresh);
    connect(&studio, &Studio::zone_changed, this, &ZoneSwitch::refresh);
    refresh();
}

void ZoneSwitch::set_wanted(bool wanted) {
    wanted_ = wanted;
    refresh();
}

void ZoneSwitch::refresh() {
    setVisible(wanted_ && studio_.pile().zones.has_value());
    (studio_.zone() == Zone::land ? land_ : sky_)->setChecked(true);
}

}  // namespace bp::app
