#include "app/steps/parts_pointing.h"

#include <QEvent>
#include <algorithm>

#include "engine/hiding.h"
#include "parts/outlines.h"
#include "pile/part_edits.h"

namespace bp::app {
namespace {

constexpr int fine_enough = 1000;

// Around what lies under other parts.
std::vector<QPolygonF> hidden_lines(const Pile& pile, int part) {
    const HiddenPlace place = hidden_place(pile, part, fine_enough);
    const double unit = double(1 << place.level);
    std::vector<QPolygonF> out;
    for (const auto& line : outlines_of(place.mask, fine_enough)) {
        QPolygonF& closed = out.emplace_back();
        for (const Point& p : line)
            closed << QPointF((p.x + place.left + 0.5) * unit - 0.5, (p.y + place.top + 0.5) * unit - 0.5);
    }
    return out;
}

}  // namespace

PartsPointing::PartsPointing(Studio& studio, Viewer& viewer, Canvas& canvas, TimeRail& rail, QListWidget& list,
                             QObject* parent)
    : QObject(parent), studio_(studio), viewer_(viewer), canvas_(canvas), rail_(rail), list_(list) {
    list.setMouseTracking(true);
    list.viewport()->installEventFilter(this);
    list.installEventFilter(this);
    connect(&list, &QListWidget::itemEntered, this,
            [this](const QListWidgetItem* item) { outline(item->data(Qt::UserRole).toInt()); });
    connect(&rail, &TimeRail::slat_pointed, this, &PartsPointing::outline_of_frame);
    connect(&rail, &TimeRail::tag_clicked, this, &PartsPointing::show_or_hide);
    connect(&canvas, &Canvas::pointed, this, &PartsPointing::point_at);
    connect(&viewer, &Viewer::view_changed, this, [this] { outline(0); });
    connect(&studio.document(), &Document::changed, this, [this] { outline(0); });
}

bool PartsPointing::eventFilter(QObject*, QEvent* event) {
    if (event->type() == QEvent::Leave || event->type() == QEvent::Hide) {
        outline(0);
        if (event->type() == QEvent::Hide) rail_.point_at(0);
    }
    if (event->type() == QEvent::Show || event->type() == QEvent::Hide)
        rail_.set_tags_clickable(event->type() == QEvent::Show);
    return false;
}

void PartsPointing::outline(int id) {
    if (part_ == id) return;
    part_ = id;
    std::vector<QPolygonF> lines, hidden;
    const Pile& pile = studio_.pile();
    const Part* part = find_part(pile, id);
    const bool in_frame = viewer_.view() == View::frame && part && part->frame == studio_.current();
    if (part && (viewer_.view() == View::result || in_frame)) {
        const Matrix to = part->place && !in_frame ? matrix_of(*part->place, pile.size) : Matrix{};
        for (const auto& line : outlines_of(part->mask, fine_enough)) {
            QPolygonF& closed = lines.emplace_back();
            for (const Point& p : line) {
                const Point there = to(p);
                closed << QPointF(there.x, there.y);
            }
        }
    }
    if (part && viewer_.view() == View::result) hidden = hidden_lines(pile, id);
    canvas_.set_outlined(std::move(lines), std::move(hidden));
}

void PartsPointing::outline_of_frame(int frame) {
    if (!list_.isVisible()) return;
    const auto& parts = studio_.pile().parts;
    const auto part =
        std::find_if(parts.rbegin(), parts.rend(), [frame](const Part& p) { return p.frame == frame && p.on; });
    outline(part == parts.rend() ? 0 : part->id);
}

void PartsPointing::show_or_hide(int frame) {
    if (!list_.isVisible()) return;
    const auto& parts = studio_.pile().parts;
    const bool shown =
        std::any_of(parts.begin(), parts.end(), [frame](const Part& p) { return p.frame == frame && p.on; });
    Pile next = studio_.pile();
    for (const Part& part : parts)
        if (part.frame == frame) next = with_part_on(std::move(next), part.id, !shown);
    studio_.document().edit(std::move(next), shown ? tr("Hide part") : tr("Show part"));
}

void PartsPointing::point_at(QPointF canvas) {
    if (!list_.isVisible() || viewer_.view() != View::result) return;
    const Part* part = part_at(studio_.pile(), {canvas.x() - 0.5, canvas.y() - 0.5});
    rail_.point_at(part ? part->frame : 0);
}

}  // namespace bp::app
