// What the canvas draws.
#include <QPaintEvent>
#include <QPainter>
#include <QPainterPath>

#include "app/canvas/band_outline.h"
#include "app/canvas/canvas.h"
#include "app/canvas/clipping.h"
#include "app/looks/theme.h"

namespace bp::app {
namespace {

constexpr double pixels_shown_from = 2.5;  // from this zoom on pixels are squares

// Words over the picture, on a ground that lets little of it through.
void draw_words(QPainter& painter, const QRectF& place, const QString& text, const QColor& colour) {
    QColor ground = theme().ground;
    ground.setAlpha(215);
    painter.setPen(Qt::NoPen);
    painter.setBrush(ground);
    painter.drawRoundedRect(place, space::rounding, space::rounding);
    painter.setPen(colour);
    painter.drawText(place, Qt::AlignCenter, text);
}

}  // namespace

void Canvas::draw_layer(QPainter& painter, const Layer& layer) const {
    if (layer.image.isNull()) return;
    const QPointF a = shown_to_screen({double(layer.area.left), double(layer.area.top)});
    const QPointF b = shown_to_screen({double(layer.area.right()), double(layer.area.bottom())});
    const double shown = layer.image.width() > 0 ? (b.x() - a.x()) / layer.image.width() : 1;
    painter.setRenderHint(QPainter::SmoothPixmapTransform, shown < pixels_shown_from);
    painter.drawImage(QRectF(a, b), layer.image);
    if (!show_clipping_) return;
    auto& [key, hatch] = clipping_[&layer];
    if (key != layer.image.cacheKey()) {
        key = layer.image.cacheKey();
        hatch = clipping_of(layer.image, theme().coral);
    }
    painter.setRenderHint(QPainter::SmoothPixmapTransform, false);
    painter.drawImage(QRectF(a, b), hatch);
}

void Canvas::draw_picture(QPainter& painter, const Viewer& viewer, const QRectF& frame, const QRectF& clip) const {
    painter.setClipRect(frame & clip);
    const Layer& overview = viewer.overview();
    const Layer& detail = viewer.detail();
    const bool finely = detail.serial >= overview.serial && !detail.image.isNull();
    const QRectF seen = frame & clip & QRectF(rect());
    const QRectF covered(shown_to_screen({double(detail.area.left), double(detail.area.top)}),
                         shown_to_screen({double(detail.area.right()), double(detail.area.bottom())}));
    if (!finely || !covered.contains(seen)) draw_layer(painter, overview);
    if (finely) draw_layer(painter, detail);
    if (!overview.image.isNull() || !detail.image.isNull()) return;
    const QImage first = studio_.thumbnails().of(studio_.current());
    if (first.isNull()) return;
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    painter.drawImage(frame, first);
}

void Canvas::draw_divider(QPainter& painter) const {
    const double x = divider_x();
    painter.setRenderHint(QPainter::Antialiasing, false);
    painter.setPen(QPen(theme().ground, 3));
    painter.drawLine(QPointF(x, 0), QPointF(x, height()));
    painter.setPen(QPen(theme().teal, 1));
    painter.drawLine(QPointF(x, 0), QPointF(x, height()));
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(theme().ground);
    painter.setPen(QPen(theme().teal, 1.5));
    painter.drawRoundedRect(QRectF(x - 5, height() / 2.0 - 16, 10, 32), 5, 5);
    const QString text = comparison_.name();
    painter.setFont(face(type::small));
    const QRect box = QFontMetrics(painter.font()).boundingRect(text).adjusted(-9, -5, 9, 5);
    const QRectF place(width() - box.width() - space::medium, height() - box.height() - space::medium, box.width(),
                       box.height());
    draw_words(painter, place, text, theme().teal);
}

// A ring with a gap at its middle, so that the place itself is seen; dark below, for bright skies.
void Canvas::draw_pole(QPainter& painter) const {
    const auto pole = pole_in(studio_.pile());
    if (!pole) return;
    constexpr double ring = 11;
    constexpr double inner = 4;
    const QPointF at = to_screen({pole->x + 0.5, pole->y + 0.5});
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(Qt::NoBrush);
    for (const QPen& pen : {QPen(theme().ground, 3.5), QPen(theme().amber, 1.5)}) {
        painter.setPen(pen);
        painter.drawEllipse(at, ring, ring);
        for (const QPointF& way : {QPointF(1, 0), QPointF(-1, 0), QPointF(0, 1), QPointF(0, -1)})
            painter.drawLine(at + way * inner, at + way * ring);
    }
}

void Canvas::draw_marked(QPainter& painter) const {
    constexpr double nearest = 5;  // screen pixels beside the line itself
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(Qt::NoBrush);
    for (const MarkedLine& line : marked_lines_) {
        const QPointF from = to_screen(line.from + QPointF(0.5, 0.5)), to = to_screen(line.to + QPointF(0.5, 0.5));
        const double radius = std::max(nearest, line.width * zoom_ / 2 + nearest / 2);
        painter.setPen(QPen(theme().ground, line.strong ? 4 : 3));
        draw_band(painter, from, to, radius);
        painter.setPen(QPen(theme().amber, line.strong ? 2 : 1.2, line.style));
        draw_band(painter, from, to, radius);
    }
}

void Canvas::draw_outlined(QPainter& painter) const {
    painter.setRenderHint(QPainter::Antialiasing);
    const auto on_screen = [this](const QPolygonF& line) {
        QPolygonF seen;
        for (const QPointF& p : line) seen << to_screen(p + QPointF(0.5, 0.5));
        return seen;
    };
    // All at once: a line around a hole in another leaves it out.
    QPainterPath places;
    for (const QPolygonF& line : hatched_) {
        places.addPolygon(on_screen(line));
        places.closeSubpath();
    }
    painter.setPen(Qt::NoPen);
    painter.fillPath(places, QColor(0, 0, 0, 110));
    painter.fillPath(places, QBrush(theme().hatch, Qt::BDiagPattern));
    painter.setBrush(Qt::NoBrush);
    for (const QPolygonF& line : outlined_) {
        const QPolygonF seen = on_screen(line);
        for (const QPen& pen : {QPen(QColor(0, 0, 0, 170), 3.5), QPen(theme().amber, 1.6)}) {
            painter.setPen(pen);
            painter.drawPolygon(seen);
        }
    }
}

void Canvas::draw_plumb(QPainter& painter) const {
    if (!plumb_) return;
    constexpr double ring = 7;
    constexpr double tick = 5;
    const QPointF at = to_screen(*plumb_ + QPointF(0.5, 0.5));
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(Qt::NoBrush);
    for (const QPen& pen : {QPen(QColor(0, 0, 0, 170), 4), QPen(theme().amber, 1.8)}) {
        painter.setPen(pen);
        painter.drawEllipse(at, ring, ring);
        for (const QPointF way : {QPointF(1, 0), QPointF(-1, 0), QPointF(0, 1), QPointF(0, -1)})
            painter.drawLine(at + way * ring, at + way * (ring + tick));
    }
}

void Canvas::draw_readout(QPainter& painter) const {
    painter.setFont(face(type::small));
    const QString text = readout().trimmed();
    readout_drawn_ = {};
    if (text.isEmpty()) return;
    const QRect place = readout_place(text);
    readout_drawn_ = place;
    draw_words(painter, place, text, theme().text);
}

void Canvas::draw_mark(QPainter& painter) const {
    constexpr double arm = 11;
    constexpr double gap = 3;
    painter.setRenderHint(QPainter::Antialiasing);
    for (const QPen& pen :
         {QPen(QColor(0, 0, 0, 150), 3.5), QPen(down_by_key_ ? theme().amber : QColor(Qt::white), 1.5)}) {
        painter.setPen(pen);
        for (const QPointF way : {QPointF(1, 0), QPointF(-1, 0), QPointF(0, 1), QPointF(0, -1)})
            painter.drawLine(pointer_ + gap * way, pointer_ + arm * way);
    }
}

void Canvas::paintEvent(QPaintEvent* event) {
    QPainter painter(this);
    painter.setLayoutDirection(layoutDirection());
    const Rect area = viewer_.area();
    const QRectF frame(shown_to_screen({double(area.left), double(area.top)}),
                       shown_to_screen({double(area.right()), double(area.bottom())}));
    // The picture covers what is within its edges.
    QRegion beside(rect());
    if (!comparison_.on() && !viewer_.overview().image.isNull() && viewer_.overview().area == area)
        beside -= frame.toAlignedRect().adjusted(2, 2, -2, -2);
    for (const QRect& part : beside) painter.fillRect(part, theme().surround);
    if (area.empty()) return;
    painter.save();
    const bool turns = flickers() && comparison_.on();
    const bool pair = comparison_.on() && !turns;
    const QRectF all(rect());
    const QRectF left(0, 0, pair ? divider_x() : width(), height());
    if (turns)
        draw_picture(painter, second_in_turn_ ? comparison_.viewer() : viewer_, frame, all);
    else if (!pair || !flipped_)
        draw_picture(painter, viewer_, frame, pair ? left : all);
    if (pair) draw_picture(painter, comparison_.viewer(), frame, flipped_ ? all : all.adjusted(divider_x(), 0, 0, 0));
    painter.setClipRect(frame & (pair ? left : all));
    const CanvasTool* tool = at_hand();
    if (tool) tool->paint_below(painter, event->rect());
    if (show_pole_) draw_pole(painter);
    draw_marked(painter);
    draw_plumb(painter);
    draw_outlined(painter);
    painter.restore();
    if (pair && !flipped_) draw_divider(painter);
    if (tool) tool->paint(painter);
    if (marked_ && !painting()) draw_mark(painter);
    draw_readout(painter);
    if (hasFocus()) {
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(theme().line, 1));
        painter.drawRect(rect().adjusted(0, 0, -1, -1));
    }
}

}  // namespace bp::app
