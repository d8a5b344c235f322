#include "app/panels/plumb_panel.h"

#include <algorithm>
#include <cmath>

#include "app/looks/pictures.h"
#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "app/panels/side_panel.h"
#include "parts/shapes.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

constexpr int patch_reach = 12;  // pixels of the level

// When the frames were taken; none where it is not known of all, or goes backwards.
std::vector<double> times_of(const Pile& pile, const Plumb& plumb) {
    std::vector<double> out;
    for (const PlumbFrame& f : plumb.frames) {
        const Frame* frame = find_frame(pile, f.frame);
        if (!frame || !frame->file->capture.captured) return {};
        if (!out.empty() && *frame->file->capture.captured < out.back()) return {};
        out.push_back(*frame->file->capture.captured);
    }
    return out;
}

}  // namespace

PlumbPanel::PlumbPanel(Studio& studio, Viewer& viewer, QWidget* parent)
    : QFrame(parent), studio_(studio), viewer_(viewer), lane_(this) {
    QVBoxLayout* column = side_column(*this, QStringLiteral("plumb_panel"), tr("Plumb"));
    QWidget* inside = column->parentWidget();
    column->setSpacing(space::small);
    auto* title = new QLabel(tr("Plumb"), inside);
    title->setFont(face(type::step, QFont::DemiBold));
    column->addWidget(title);
    where_ = quiet_label({}, inside);
    where_->setObjectName(QStringLiteral("plumb_where"));
    column->addWidget(where_);
    chart_ = new PlumbChart(inside);
    column->addWidget(chart_);
    shows_ = new QLabel(inside);
    shows_->setObjectName(QStringLiteral("plumb_shows"));
    shows_->setWordWrap(true);
    column->addWidget(shows_);
    of_chosen_ = quiet_label({}, inside);
    of_chosen_->setObjectName(QStringLiteral("plumb_chosen"));
    column->addWidget(of_chosen_);
    go_ = push(tr("Go to this frame"), QStringLiteral("plumb_go"), tr("Shows the frame itself, at this place"), inside);
    aside_ = push(tr("Set this frame aside"), QStringLiteral("plumb_aside"),
                  tr("Leaves the frame out of the picture without forgetting it"), inside);
    leave_out_ = push(tr("Leave this place out"), QStringLiteral("plumb_leave_out"),
                      tr("This frame gives nothing to the picture here, in a circle of the size below"), inside);
    for (QPushButton* button : {go_, aside_, leave_out_}) column->addWidget(button);
    size_ = new NamedSlider(
        tr("Size of the place"), tr("How wide a circle is left out"), 4, 200,
        [](int px) { return tr("%1 px").arg(px); }, inside);
    size_->slider()->setObjectName(QStringLiteral("plumb_size"));
    size_->set_value(24);
    column->addWidget(size_);
    with_patches_ = new QCheckBox(tr("The place in every frame"), inside);
    with_patches_->setObjectName(QStringLiteral("plumb_with_patches"));
    with_patches_->setToolTip(tr("Shows a small piece of every frame around the point"));
    column->addWidget(with_patches_);
    patches_ = new PlumbPatches(inside);
    patches_->hide();
    column->addWidget(patches_);
    column->addStretch();
    connect(with_patches_, &QCheckBox::toggled, patches_, &QWidget::setVisible);
    connect(chart_, &PlumbChart::frame_chosen, this, &PlumbPanel::choose);
    connect(patches_, &PlumbPatches::frame_chosen, this, &PlumbPanel::choose);
    connect(go_, &QPushButton::clicked, this, [this] {
        studio_.select(chosen_);
        viewer_.set_view(View::frame);
    });
    connect(aside_, &QPushButton::clicked, this, [this] {
        const int only[] = {chosen_};
        const int number = number_of(studio_.pile(), chosen_);
        studio_.document().edit(with_aside(studio_.pile(), only, true), tr("Set frame %1 aside").arg(number));
    });
    connect(leave_out_, &QPushButton::clicked, this, &PlumbPanel::leave_place_out);
    connect(&studio.document(), &Document::changed, this, [this] {
        if (isVisible()) look();
    });
    // What was told of squares is told of pixels, once these are seen.
    connect(&viewer, &Viewer::settled, this, [this] {
        if (isVisible() && place_ && plumb_ && !lane_.busy() && level() != level_) look();
    });
    connect(&studio.document(), &Document::opened, this, [this] {
        place_.reset();
        if (isVisible()) look();
        emit place_changed();
    });
    show_found();
}

void PlumbPanel::showEvent(QShowEvent*) {
    look();
    emit place_changed();
}

void PlumbPanel::hideEvent(QHideEvent*) {
    lane_.stop();
    emit place_changed();
}

int PlumbPanel::level() const {
    const Layer& layer = viewer_.seen_finely() ? viewer_.detail() : viewer_.overview();
    return layer.image.isNull() ? viewer_.overview().level : layer.level;
}

void PlumbPanel::look_at(QPointF place) {
    if (!isVisible()) return;
    const int x = int(std::floor(place.x())), y = int(std::floor(place.y()));
    if (intersect(canvas_of(studio_.pile()), {x, y, 1, 1}).empty()) return;
    place_ = QPointF(x, y);
    chosen_ = 0;
    look();
    emit place_changed();
}

void PlumbPanel::look() {
    if (!studio_.document().open() || !place_) {
        plumb_.reset();
        lane_.stop();
        show_found();
        return;
    }
    const Pile pile = studio_.pile();
    const int level = this->level();
    const int x = int(place_->x()) >> level, y = int(place_->y()) >> level;
    lane_.run<Result<Plumb>>([pile, store = studio_.stores().frames(), x, y,
                              level](Job& job) { return plumb_at(pile, *store, x, y, level, patch_reach, job); },
                             [this, level](Result<Plumb> found) {
                                 if (!found.ok()) {
                                     plumb_.reset();
                                     show_found();
                                     if (found.failure().fault != Fault::stopped)
                                         shows_->setText(said(found.failure()));
                                     return;
                                 }
                                 plumb_ = std::move(found).value();
                                 ++found_;
                                 level_ = level;
                                 show_found();
                             });
}

void PlumbPanel::show_found() {
    const bool there = plumb_.has_value() && place_.has_value();
    if (!there) {
        where_->setText(tr("Click on the picture: the point is seen through all frames."));
        chart_->clear();
        shows_->clear();
        patches_->set_patches({});
        refresh_chosen();
        return;
    }
    const Pile& pile = studio_.pile();
    where_->setText(level_ == 0
                        ? tr("x %1, y %2").arg(place_->x()).arg(place_->y())
                        : tr("x %1, y %2, in squares of %3 px").arg(place_->x()).arg(place_->y()).arg(1 << level_));
    chart_->show_plumb(*plumb_, pile.channels, times_of(pile, *plumb_));
    const QString value = shares_in_words(plumb_->result, pile.channels);
    if (plumb_->first == 0)
        shows_->setText(tr("The result, %1, comes from all frames together.").arg(value));
    else if (plumb_->first == plumb_->second)
        shows_->setText(tr("Frame %1 shows here: %2.").arg(number_of(pile, plumb_->first)).arg(value));
    else
        shows_->setText(tr("Frames %1 and %2 show here: %3.")
                            .arg(number_of(pile, plumb_->first))
                            .arg(number_of(pile, plumb_->second))
                            .arg(value));
    std::vector<PlumbPatches::Patch> patches;
    for (const PlumbFrame& f : plumb_->frames)
        patches.push_back({f.frame, number_of(pile, f.frame), to_image(f.patch, pile.profile),
                           f.frame == plumb_->first || f.frame == plumb_->second, f.there && !f.votes});
    patches_->set_patches(std::move(patches));
    const auto has = [this](int id) {
        return std::any_of(plumb_->frames.begin(), plumb_->frames.end(),
                           [id](const PlumbFrame& f) { return f.frame == id; });
    };
    if (!has(chosen_)) chosen_ = plumb_->first;
    if (!has(chosen_)) chosen_ = has(studio_.current()) ? studio_.current() : 0;
    refresh_chosen();
}

void PlumbPanel::choose(int frame) {
    chosen_ = frame;
    studio_.select(frame);
    refresh_chosen();
}

void PlumbPanel::refresh_chosen() {
    const Pile& pile = studio_.pile();
    const PlumbFrame* found = nullptr;
    if (plumb_)
        for (const PlumbFrame& f : plumb_->frames)
            if (f.frame == chosen_) found = &f;
    const Frame* frame = found && studio_.document().open() ? find_frame(pile, chosen_) : nullptr;
    for (QWidget* widget : std::initializer_list<QWidget*>{go_, aside_, leave_out_, size_}) widget->setEnabled(frame);
    chart_->set_chosen(frame ? chosen_ : 0);
    patches_->set_chosen(frame ? chosen_ : 0);
    if (!frame) {
        of_chosen_->clear();
        return;
    }
    leave_out_->setEnabled(found->votes);
    QStringList words{tr("Frame %1").arg(number_of(pile, chosen_))};
    if (frame->file->capture.captured) words << time_in_words(*frame->file->capture.captured);
    if (!found->there) words << tr("does not reach here");
    if (found->there && !found->votes) words << tr("left out here");
    if (found->strength < 1) words << tr("strength %1%").arg(std::lround(100 * found->strength));
    const QString who = words.join(QStringLiteral(", "));
    of_chosen_->setText(found->there ? tr("%1: %2").arg(who, shares_in_words(found->samples, pile.channels)) : who);
}

void PlumbPanel::leave_place_out() {
    const Pile& pile = studio_.pile();
    const Frame* frame = find_frame(pile, chosen_);
    if (!frame || !plumb_ || !place_) return;
    const Point at = placement(pile, *frame, plumb_->zone).to_frame({place_->x(), place_->y()});
    const double radius = size_->value() / 2.0;
    const Mask before = frame->left_out.empty() ? Mask(pile.size) : frame->left_out;
    const DrawnShape circle{ShapeKind::ellipse, {at.x - radius, at.y - radius}, {at.x + radius, at.y + radius}, 1};
    const int only[] = {chosen_};
    studio_.document().edit(with_left_out(pile, only, with_shape(before, circle, true)),
                            tr("Leave a place of frame %1 out").arg(number_of(pile, chosen_)));
}

}  // namespace bp::app
