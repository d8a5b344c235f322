#include "app/steps/parts_step.h"

#include <QHBoxLayout>
#include <QSignalBlocker>
#include <algorithm>
#include <cmath>

#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "app/panels/brush_panel.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

QString percent(int value) {
    return PartsStep::tr("%1%").arg(value);
}

}  // namespace

PartsStep::PartsStep(Studio& studio, Viewer& viewer, Canvas& canvas)
    : studio_(studio), viewer_(viewer), canvas_(canvas), target_(studio, viewer) {
    hint_ = quiet_label({}, this);
    column()->addWidget(hint_);
    build_brush();
    build_list();
    connect(&studio.document(), &Document::changed, this, &PartsStep::out_of_date);
    connect(&studio, &Studio::selection_changed, this, &PartsStep::out_of_date);
    connect(&viewer, &Viewer::view_changed, this, &PartsStep::out_of_date);
    connect(&target_, &PartTarget::active_changed, this, &PartsStep::out_of_date);
    refresh();
}

void PartsStep::build_brush() {
    column()->addWidget(
        new BrushPanel(canvas_, QStringLiteral("brush"),
                       {tr("Keep"), tr("Paints: what you paint over shows this frame (K)"), tr("Give back"),
                        tr("Paints: what you paint over shows what lies below again (K)")},
                       BrushPanel::Kind::soft, target_, this));
}

void PartsStep::build_list() {
    list_ = new QListWidget(this);
    list_->setObjectName(QStringLiteral("parts_list"));
    list_->setAccessibleName(tr("Parts, the uppermost first"));
    list_->setToolTip(tr("The tick shows or hides a part. Press F2 or double-click to name it."));
    list_->setIconSize({30, 20});
    list_->setMaximumHeight(84);
    column()->addWidget(list_);
    part_strength_ = new NamedSlider(tr("Strength of the part"), tr("How strongly the part covers what lies below"), 0,
                                     100, percent, this);
    part_strength_->slider()->setObjectName(QStringLiteral("part_strength"));
    column()->addWidget(part_strength_);
    auto* row = new QHBoxLayout;
    const auto tool = [&](const QString& picture, const QString& name, const QString& words) {
        auto* b = push({}, name, words, this);
        set_icon(b, picture);
        b->setAccessibleName(words);
        row->addWidget(b);
        return b;
    };
    up_ = tool(QStringLiteral("up"), QStringLiteral("part_up"), tr("Lay the part over the next one"));
    down_ = tool(QStringLiteral("down"), QStringLiteral("part_down"), tr("Lay the part under the next one"));
    remove_ = tool(QStringLiteral("remove"), QStringLiteral("part_remove"), tr("Remove the part"));
    column()->addLayout(row);
    connect(list_, &QListWidget::currentRowChanged, this, [this] {
        if (chosen() == 0) return;
        target_.set_active(chosen());
        if (const Part* part = find_part(studio_.pile(), chosen()); part && part->frame != studio_.current())
            studio_.select(part->frame);
    });
    connect(list_, &QListWidget::itemChanged, this, [this](QListWidgetItem* item) {
        const int id = item->data(Qt::UserRole).toInt();
        const Part* part = find_part(studio_.pile(), id);
        if (!part) return;
        const bool on = item->checkState() == Qt::Checked;
        const std::string name = item->text().trimmed().toStdString();
        if (on != part->on)
            studio_.document().edit(with_part_on(studio_.pile(), id, on), on ? tr("Show part") : tr("Hide part"));
        else if (!name.empty() && item->text().trimmed() != name_of_part(*part))
            studio_.document().edit(with_part_name(studio_.pile(), id, name), tr("Name part"));
    });
    connect(part_strength_, &NamedSlider::changed, this,
            [this](int value) { viewer_.try_out(with_part_strength(studio_.pile(), chosen(), value / 100.0)); });
    connect(part_strength_, &NamedSlider::settled, this, [this](int value) {
        studio_.document().edit(with_part_strength(studio_.pile(), chosen(), value / 100.0), tr("Strength of part"),
                                QStringLiteral("part strength %1").arg(chosen()));
        viewer_.leave_trial();
    });
    connect(part_strength_, &NamedSlider::left, &viewer_, &Viewer::leave_trial);
    connect(up_, &QPushButton::clicked, this,
            [this] { studio_.document().edit(with_part_moved(studio_.pile(), chosen(), 1), tr("Move part")); });
    connect(down_, &QPushButton::clicked, this,
            [this] { studio_.document().edit(with_part_moved(studio_.pile(), chosen(), -1), tr("Move part")); });
    connect(remove_, &QPushButton::clicked, this,
            [this] { studio_.document().edit(without_part(studio_.pile(), chosen()), tr("Remove part")); });
}

int PartsStep::chosen() const {
    const QListWidgetItem* item = list_->currentItem();
    return item ? item->data(Qt::UserRole).toInt() : 0;
}

QString PartsStep::summary() const {
    const auto& parts = studio_.pile().parts;
    if (parts.empty()) return tr("none");
    const auto on = std::count_if(parts.begin(), parts.end(), [](const Part& p) { return p.on; });
    if (parts.size() == 1)
        return tr("1 part: %1, frame %2")
            .arg(name_of_part(parts.front()))
            .arg(number_of(studio_.pile(), parts.front().frame));
    return tr("%1 parts, %2 shown").arg(parts.size()).arg(on);
}

void PartsStep::refresh() {
    const int number = number_of(studio_.pile(), studio_.current());
    if (viewer_.view() == View::frame)
        hint_->setText(tr("Paint over what you want of frame %1.").arg(number));
    else if (find_part(studio_.pile(), target_.active()))
        hint_->setText(tr("Painting works on the chosen part, from frame %1.")
                           .arg(number_of(studio_.pile(), find_part(studio_.pile(), target_.active())->frame)));
    else
        hint_->setText(tr("Choose a frame below, flip to Frame, and paint over what you want of it."));
    refresh_list();
}

void PartsStep::refresh_list() {
    const QSignalBlocker quiet(list_);
    const auto& parts = studio_.pile().parts;
    list_->clear();
    for (auto it = parts.rbegin(); it != parts.rend(); ++it) {
        auto* item = new QListWidgetItem(name_of_part(*it), list_);
        item->setData(Qt::UserRole, it->id);
        item->setFlags(item->flags() | Qt::ItemIsUserCheckable | Qt::ItemIsEditable);
        item->setCheckState(it->on ? Qt::Checked : Qt::Unchecked);
        item->setIcon(QIcon(QPixmap::fromImage(studio_.thumbnails().of(it->frame))));
        item->setToolTip(tr("From frame %1").arg(number_of(studio_.pile(), it->frame)));
        if (it->id == target_.active()) list_->setCurrentItem(item);
    }
    const Part* part = find_part(studio_.pile(), chosen());
    for (QWidget* w : std::initializer_list<QWidget*>{list_, part_strength_, up_, down_, remove_})
        w->setVisible(!parts.empty());
    for (QWidget* w : std::initializer_list<QWidget*>{part_strength_, up_, down_, remove_}) w->setEnabled(part);
    if (part) part_strength_->set_value(int(std::lround(part->strength * 100)));
}

}  // namespace bp::app
