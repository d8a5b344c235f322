#include "app/steps/parts_place.h"

#include <QHBoxLayout>
#include <algorithm>
#include <cmath>

#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "engine/part_rows.h"
#include "pile/edits.h"
#include "pile/limits.h"
#include "pile/part_edits.h"

namespace bp::app {
bool PlacedPart::works() const {
    return viewer_.view() == View::result && part() && !part()->mask.empty();
}

bool PlacedPart::take_up(Point canvas) {
    if (viewer_.view() != View::result) return false;
    const Part* there = part_at(studio_.pile(), canvas);
    // What is chosen stays so where it lies below another.
    const Part* chosen = part();
    if (chosen && there != chosen) {
        Pile alone = studio_.pile();
        std::erase_if(alone.parts, [&](const Part& p) { return p.id != chosen->id; });
        if (part_at(alone, canvas)) return true;
    }
    if (!there) return false;
    target_.set_active(there->id);
    return true;
}

Point PlacedPart::pivot() const {
    if (!part()) return {};
    const Rect box = part()->mask.bounds();
    const Point middle{box.left + (box.width - 1) / 2.0, box.top + (box.height - 1) / 2.0};
    return part()->place ? matrix_of(*part()->place, studio_.pile().size)(middle) : middle;
}

Point PlacedPart::snapped(Point by, double reach) const {
    const Rect canvas = canvas_of(studio_.pile());
    double left = 1e9, top = 1e9, right = -1e9, bottom = -1e9;
    for (const QPointF& p : outline()) {
        left = std::min(left, p.x());
        right = std::max(right, p.x());
        top = std::min(top, p.y());
        bottom = std::max(bottom, p.y());
    }
    // The nearest of the three, when one is near.
    const auto drawn = [reach](double way, double low, double high, double to_low, double to_high) {
        double best = reach, out = way;
        for (const double off : {to_low - low, (to_low + to_high) / 2 - (low + high) / 2, to_high - high})
            if (std::abs(off - way) <= best) {
                best = std::abs(off - way);
                out = off;
            }
        return out;
    };
    return {drawn(by.x, left, right, canvas.left - 0.5, canvas.right() - 0.5),
            drawn(by.y, top, bottom, canvas.top - 0.5, canvas.bottom() - 0.5)};
}

Pile PlacedPart::moved(const Matrix& change) const {
    return with_part_placed_on(studio_.pile(), target_.active(), change);
}

QString PlacedPart::words(Way way) const {
    return way == Way::turn    ? QObject::tr("Turn part")
           : way == Way::scale ? QObject::tr("Scale part")
                               : QObject::tr("Move part");
}

QPolygonF PlacedPart::outline() const {
    if (!part()) return {};
    const Rect box = part()->mask.bounds();
    const Matrix to = part()->place ? matrix_of(*part()->place, studio_.pile().size) : Matrix{};
    QPolygonF out;
    for (const Point& corner :
         {Point{box.left - 0.5, box.top - 0.5}, Point{box.right() - 0.5, box.top - 0.5},
          Point{box.right() - 0.5, box.bottom() - 0.5}, Point{box.left - 0.5, box.bottom() - 0.5}}) {
        const Point p = to(corner);
        out << QPointF(p.x, p.y);
    }
    return out;
}

PartsPlace::PartsPlace(Studio& studio, Viewer& viewer, Canvas& canvas, PartTarget& target, QWidget* parent)
    : Page(parent),
      studio_(studio),
      viewer_(viewer),
      canvas_(canvas),
      target_(target),
      subject_(studio, viewer, target),
      tool_(studio, viewer, canvas, subject_) {
    hint_ = quiet_label({}, this);
    column()->addWidget(hint_);
    of_part_ = new QWidget(this);
    auto* inside = new QVBoxLayout(of_part_);
    inside->setContentsMargins(0, 0, 0, 0);
    inside->setSpacing(space::small);
    numbers_ = new PlaceNumbers(QStringLiteral("part_place"), tr("the part"), of_part_);
    inside->addWidget(numbers_);
    auto* row = new QHBoxLayout;
    mirrored_ = new QCheckBox(tr("Mirrored"), of_part_);
    mirrored_->setObjectName(QStringLiteral("part_mirrored"));
    mirrored_->setToolTip(tr("Lays the part down left for right"));
    back_ = push(tr("Put back"), QStringLiteral("part_put_back"), tr("Lays the part where its frame has it"), of_part_);
    row->addWidget(mirrored_);
    row->addWidget(back_);
    inside->addLayout(row);
    column()->addWidget(of_part_);
    column()->addWidget(heading(tr("Canvas"), this));
    sheet_ = new CanvasControls(studio, viewer, QStringLiteral("sheet_"), this);
    column()->addWidget(sheet_);
    connect(numbers_, &PlaceNumbers::typed, this,
            [this](const MovedBy& by) { place(by, mirrored_->isChecked(), tr("Place part")); });
    connect(mirrored_, &QCheckBox::clicked, this, [this](bool on) {
        const Part* part = find_part(studio_.pile(), target_.active());
        if (part) place(moved_by(studio_.pile(), *part), on, tr("Mirror part"));
    });
    connect(back_, &QPushButton::clicked, this, [this] {
        studio_.document().edit(with_part_place(studio_.pile(), target_.active(), std::nullopt), tr("Put part back"));
    });
    connect(&studio.document(), &Document::changed, this, &PartsPlace::out_of_date);
    connect(&viewer, &Viewer::view_changed, this, &PartsPlace::out_of_date);
    connect(&target_, &PartTarget::active_changed, this, [this] {
        canvas_.update();
        out_of_date();
    });
    connect(&canvas, &Canvas::tool_left, this, [this] {
        if (isVisible()) canvas_.set_tool(nullptr);
    });
}

void PartsPlace::place(const MovedBy& by, bool mirrored, const QString& what) {
    studio_.document().edit(with_part_moved_to(studio_.pile(), target_.active(), by, mirrored), what);
}

void PartsPlace::opened() {
    viewer_.set_view(View::result);
    canvas_.set_tool(&tool_);
    refresh();
}

void PartsPlace::closed() {
    canvas_.set_tool(nullptr);
}

void PartsPlace::refresh() {
    const Pile& pile = studio_.pile();
    const Part* part = find_part(pile, target_.active());
    hint_->setText(pile.parts.empty() ? tr("There are no parts yet: paint one, or take a place from a frame.")
                   : part ? tr("Drag the part, turn it by the ring, scale it by the knot. It is drawn to the edges and "
                               "the middle of the canvas.")
                          : tr("Click on a part in the picture, or choose one in the list."));
    of_part_->setVisible(part != nullptr);
    if (part) {
        numbers_->set(moved_by(pile, *part));
        mirrored_->setChecked(part->place && part->place->mirrored);
        back_->setEnabled(part->place.has_value());
    }
    sheet_->show_canvas();
}

}  // namespace bp::app
