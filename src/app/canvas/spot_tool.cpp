#include "app/canvas/spot_tool.h"

#include <algorithm>
#include <cmath>

#include "app/looks/theme.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

double between(Point a, Point b) {
    return std::hypot(a.x - b.x, a.y - b.y);
}

Placement place_of(const Pile& pile, int id) {
    const Frame* frame = find_frame(pile, id);
    return frame ? placement(pile, *frame) : Placement();
}

}  // namespace

Point SpotTool::on_sensor(QPointF screen) const {
    const QPointF p = canvas_.to_canvas(screen);
    return place_of(studio_.pile(), studio_.current()).to_frame({p.x() - 0.5, p.y() - 0.5});
}

QPointF SpotTool::on_screen(Point sensor) const {
    const Point p = place_of(studio_.pile(), studio_.current()).to_canvas(sensor);
    return canvas_.to_screen({p.x + 0.5, p.y + 0.5});
}

bool SpotTool::press(QPointF at) {
    if (viewer_.view() != View::frame) {
        studio_.say(QObject::tr("Switch to Frame to mark sensor spots: there they are where the sensor has them."));
        return true;
    }
    const Pile& pile = studio_.pile();
    const Point sensor = on_sensor(at);
    const Rect all = whole(pile.size);
    if (intersect(all, {int(std::floor(sensor.x)), int(std::floor(sensor.y)), 1, 1}).empty()) return false;
    const Pile without = without_spot(pile, sensor);
    if (without.spots != pile.spots) {
        studio_.document().edit(without, QObject::tr("Give back sensor spot"));
        return true;
    }
    for (const SpotGuess& guess : studio_.spot_guesses())
        if (between(guess.at, sensor) <= mended_radius(guess)) {
            studio_.mend_spots({{guess.at, mended_radius(guess)}});
            return true;
        }
    studio_.mend_spots({{sensor, canvas_.brush().size / 2}});
    return true;
}

void SpotTool::look_at(Point sensor) {
    const Point p = place_of(studio_.pile(), studio_.current()).to_canvas(sensor);
    canvas_.look_at({p.x + 0.5, p.y + 0.5});
}

std::optional<Qt::CursorShape> SpotTool::cursor_at(QPointF) const {
    return Qt::CrossCursor;
}

void SpotTool::paint(QPainter& painter) const {
    if (viewer_.view() != View::frame || !studio_.document().open()) return;
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(Qt::NoBrush);
    const auto ring = [&](Point at, double radius_px, Qt::PenStyle style) {
        const QPointF middle = on_screen(at);
        const double radius = std::max(6.0, radius_px * canvas_.zoom());
        painter.setPen(QPen(theme().ground, 3.5));
        painter.drawEllipse(middle, radius, radius);
        painter.setPen(QPen(theme().amber, 1.5, style));
        painter.drawEllipse(middle, radius, radius);
    };
    const SharedSpots& spots = studio_.pile().spots;
    if (spots)
        for (const SensorSpot& spot : *spots) ring(spot.at, spot.radius_px, Qt::SolidLine);
    for (const SpotGuess& guess : studio_.spot_guesses()) ring(guess.at, mended_radius(guess), Qt::DotLine);
}

}  // namespace bp::app
