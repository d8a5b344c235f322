#include "app/steps/parts_shower.h"

#include <algorithm>

#include "app/looks/controls.h"
#include "pile/part_edits.h"

namespace bp::app {

PartsShower::PartsShower(Studio& studio, Viewer& viewer, Canvas& canvas, PartTarget& target, QWidget* parent)
    : Page(parent), studio_(studio), viewer_(viewer), canvas_(canvas), tool_(studio, viewer, canvas) {
    QPushButton* find = push(tr("Find meteors"), QStringLiteral("meteors_find"),
                             tr("Aligns the frames by their stars and lays the meteors of all of them over the "
                                "picture, each without the sky of its own frame. What you changed stays"),
                             this);
    column()->addWidget(find);
    connect(find, &QPushButton::clicked, this, [this] {
        viewer_.set_view(View::result);  // where they will be seen
        studio_.find_shower();
    });
    hint_ = quiet_label({}, this);
    hint_->setObjectName(QStringLiteral("meteors_shown"));
    column()->addWidget(hint_);
    all_ = push(tr("Show all"), QStringLiteral("meteors_all"),
                tr("All meteors at once. The list below has them one by one"), this);
    column()->addWidget(all_);
    connect(all_, &QPushButton::clicked, this, [this] {
        const bool on = count(true) < count(false);
        Pile next = studio_.pile();
        for (const Part& part : studio_.pile().parts)
            if (part.of == PartOf::meteor) next = with_part_on(std::move(next), part.id, on);
        studio_.document().edit(std::move(next), on ? tr("Show all meteors") : tr("Hide all meteors"));
    });
    connect(&studio.document(), &Document::changed, this, &PartsShower::out_of_date);
    connect(&target, &PartTarget::active_changed, this, [this, &target] { tool_.set_part(target.active()); });
    connect(&tool_, &MeteorTool::chosen, this, [&target](int part) { target.set_active(part); });
}

void PartsShower::opened() {
    viewer_.set_view(View::result);
    canvas_.set_tool(&tool_);
    refresh();
}

void PartsShower::closed() {
    canvas_.set_tool(nullptr);
}

int PartsShower::count(bool shown) const {
    const auto& parts = studio_.pile().parts;
    return int(std::count_if(parts.begin(), parts.end(),
                             [shown](const Part& p) { return p.of == PartOf::meteor && (p.on || !shown); }));
}

void PartsShower::refresh() {
    const int all = count(false), shown = count(true);
    hint_->setText(all == 0
                       ? tr("For frames of one night, with stars: each meteor comes to where it was among them.")
                       : tr("%1 of %2 meteors show. Click one to pull its ends and its side.").arg(shown).arg(all));
    all_->setVisible(all > 0);
    all_->setText(shown < all ? tr("Show all") : tr("Hide all"));
}

}  // namespace bp::app
