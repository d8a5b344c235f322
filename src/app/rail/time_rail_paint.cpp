// What the time rail draws.
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "app/rail/time_rail.h"
#include "engine/knitting.h"
#include "engine/moving_lights.h"

namespace bp::app {

using namespace rail;

namespace {

bool is_out(const Frame& frame) {
    return frame.aside || !usable(frame);
}

// Trouble: a triangle. Oddity: a diamond.
void draw_problem(QPainter& painter, QPointF foot) {
    painter.setPen(QPen(theme().coral, 1.5));
    painter.setBrush(Qt::NoBrush);
    painter.drawPolygon(QPolygonF({foot + QPointF(0, -9), foot + QPointF(5, 0), foot + QPointF(-5, 0)}));
}

void draw_oddity(QPainter& painter, QPointF centre, bool filled) {
    painter.setPen(QPen(theme().coral, 1.3));
    painter.setBrush(filled ? QBrush(theme().coral) : Qt::NoBrush);
    painter.drawPolygon(
        QPolygonF({centre + QPointF(0, -4), centre + QPointF(4, 0), centre + QPointF(0, 4), centre + QPointF(-4, 0)}));
}

}  // namespace

QPixmap TimeRail::miniature(int id, QSize size) const {
    QPixmap& kept = miniatures_[id];
    const qreal ratio = devicePixelRatioF();
    const QSize pixels = (QSizeF(size) * ratio).toSize();
    if (kept.size() == pixels) return kept;
    const QImage picture = studio_.thumbnails().of(id);
    if (picture.isNull()) return {};
    // The middle of the picture, as much as the slat is wide.
    const QSize scaled = picture.size().scaled(pixels, Qt::KeepAspectRatioByExpanding);
    const QImage fitted = picture.scaled(scaled, Qt::IgnoreAspectRatio, Qt::SmoothTransformation);
    kept = QPixmap::fromImage(fitted.copy((scaled.width() - pixels.width()) / 2,
                                          (scaled.height() - pixels.height()) / 2, pixels.width(), pixels.height()));
    kept.setDevicePixelRatio(ratio);
    return kept;
}

void TimeRail::draw_picture(QPainter& painter, int id, const QRectF& place) const {
    if (const QImage patch = patches_on_ ? patch_of(id, place.width() / place.height()) : QImage(); !patch.isNull()) {
        painter.setRenderHint(QPainter::SmoothPixmapTransform);
        painter.drawImage(place, patch);
        return;
    }
    const QSize size(std::max(1, int(std::lround(place.width()))), int(std::lround(place.height())));
    const QPixmap picture = miniature(id, size);
    if (picture.isNull())
        painter.fillRect(place, theme().raised);
    else
        painter.drawPixmap(QPointF(std::round(place.left()), place.top()), picture);
}

// Below the slat: a dark carries a filled knot, a foreground an open one, the reference a cross, the base a square; a
// guessed role is dotted. A frame of which parts lie over the base carries a tag, filled while one of them shows.
void TimeRail::draw_role(QPainter& painter, const Frame& frame, const QRectF& place) const {
    const Below marks = below(frame);
    int number = 0;
    const bool guessed = frame.role_from == RoleFrom::guess;
    if (marks.role) {
        const QPointF at = below_at(place, number++);
        painter.setPen(QPen(theme().quiet, 1.3, guessed ? Qt::DotLine : Qt::SolidLine));
        painter.setBrush(frame.role == Role::dark && !guessed ? QBrush(theme().quiet) : Qt::NoBrush);
        painter.drawEllipse(at, 3.5, 3.5);
        if (frame.role == Role::dark && guessed) painter.drawPoint(at);
    }
    painter.setPen(QPen(theme().quiet, 1.3));
    painter.setBrush(Qt::NoBrush);
    if (marks.reference) {
        const QPointF at = below_at(place, number++);
        painter.drawLine(at - QPointF(4, 0), at + QPointF(4, 0));
        painter.drawLine(at - QPointF(0, 4), at + QPointF(0, 4));
    }
    if (marks.base) {
        const QPointF at = below_at(place, number++);
        painter.drawRect(QRectF(at.x() - 3.5, at.y() - 3.5, 7, 7));
    }
    if (!marks.tag) return;
    const auto& parts = studio_.pile().parts;
    const bool shows =
        std::any_of(parts.begin(), parts.end(), [&](const Part& p) { return p.frame == frame.id && p.on; });
    const QColor colour = frame.id == pointed_ ? theme().amber : theme().quiet;
    const QPointF at = below_at(place, number);
    painter.setPen(QPen(colour, 1.3));
    painter.setBrush(shows ? QBrush(colour) : Qt::NoBrush);
    painter.drawPolygon(QPolygonF({at + QPointF(-3.5, -4), at + QPointF(3.5, -4), at + QPointF(3.5, 2),
                                   at + QPointF(0, 5), at + QPointF(-3.5, 2)}));
}

TimeRail::Below TimeRail::below(const Frame& frame) const {
    const Pile& pile = studio_.pile();
    return {frame.role != Role::scene,
            frame.id == pile.reference && (pile.methods.sky.model != Model::none || surveyor_.of(frame.id)),
            frame.id == pile.base && pile.methods.sky.mode == Mode::one,
            std::any_of(pile.parts.begin(), pile.parts.end(), [&](const Part& p) { return p.frame == frame.id; })};
}

QPointF TimeRail::below_at(const QRectF& slat, int number) const {
    constexpr double apart = 11;
    return {slat.center().x() + apart * number, slat_top() + slat_height + 9};
}

int TimeRail::tag_at(QPointF p) const {
    constexpr double reach = 6;
    if (!tags_clickable_) return 0;
    for (const Frame& frame : studio_.pile().frames) {
        const Below marks = below(frame);
        if (!marks.tag) continue;
        const QPointF at = below_at(slat_of(frame.id), marks.before_tag());
        if (std::abs(p.x() - at.x()) <= reach && std::abs(p.y() - at.y()) <= reach) return frame.id;
    }
    return 0;
}

void TimeRail::draw_marks(QPainter& painter, const Frame& frame, const QRectF& place) const {
    const double x = place.center().x();
    if (!usable(frame) || lost(studio_.pile(), frame)) {
        draw_problem(painter, {x, slat_top() - 4});
        return;
    }
    const Findings* known = surveyor_.of(frame.id);
    if (known && !known->marks.empty()) draw_oddity(painter, {x, slat_top() - 8}, !frame.aside);
    // Streaks: a slanted line, through which another goes when all of them are left out.
    if (frame.streaks.empty() || !taper_wanted_) return;
    const bool all_out =
        std::all_of(frame.streaks.begin(), frame.streaks.end(), [](const FrameStreak& s) { return s.left_out; });
    const QPointF at(x + (known && !known->marks.empty() ? 9 : 0), slat_top() - 8);
    painter.setPen(QPen(all_out ? theme().quiet : theme().text, 1.6));
    painter.drawLine(at + QPointF(-4, 4), at + QPointF(4, -4));
    if (all_out) painter.drawLine(at + QPointF(-3, -3), at + QPointF(3, 3));
}

void TimeRail::draw_slat(QPainter& painter, std::size_t i, bool selected) const {
    const Frame& frame = studio_.pile().frames[i];
    const bool current = frame.id == studio_.current();
    QRectF place = place_of(layout_.slats[i]);
    painter.setOpacity(is_out(frame) ? 0.28 : 1.0);
    draw_picture(painter, frame.id, place);
    painter.setOpacity(1);
    // All of the frame is shown, and how long it was exposed below it.
    if (const double exposed = layout_.slats[i].exposed; exposed < place.width() - 1) {
        painter.setPen(QPen(theme().quiet, 2, Qt::SolidLine, Qt::FlatCap));
        painter.drawLine(place.bottomLeft() + QPointF(0, 2), place.bottomLeft() + QPointF(exposed, 2));
    }
    if (is_out(frame)) {
        painter.setPen(QPen(theme().quiet, 1.5));
        painter.drawLine(place.bottomLeft() + QPointF(1, -1), place.topRight() + QPointF(-1, 1));
    }
    if (!frame.note.empty()) {
        // A note: the corner is turned down.
        painter.setPen(Qt::NoPen);
        painter.setBrush(theme().text);
        const double w = std::min(8.0, place.width());
        painter.drawPolygon(
            QPolygonF({place.topRight() - QPointF(w, 0), place.topRight(), place.topRight() + QPointF(0, 8)}));
    }
    // Under a patch that is not as the picture: a bar with ends, in amber while a click takes it.
    if (patches_on_ && patch_ && differs(frame.id)) {
        painter.setPen(QPen(patches_held_ ? theme().amber : theme().text, 2));
        const double y = place.bottom() + 3, half = std::min(14.0, place.width() / 2);
        painter.drawLine(QPointF(place.center().x() - half, y), QPointF(place.center().x() + half, y));
        for (const double x : {place.center().x() - half, place.center().x() + half})
            painter.drawLine(QPointF(x, y - 2), QPointF(x, y + 2));
    }
    draw_role(painter, frame, place);
    draw_marks(painter, frame, place);
    if (frame.id == pointed_) {
        painter.setPen(QPen(theme().text, 2));
        painter.setBrush(Qt::NoBrush);
        painter.drawRoundedRect(place.adjusted(-1, -4, 1, 4), 2, 2);
    }
    if (selected) {
        painter.setPen(QPen(theme().amber, current ? 2.0 : 1.2));
        painter.setBrush(Qt::NoBrush);
        painter.drawRoundedRect(place.adjusted(-1, current ? -4 : -1, 1, current ? 4 : 1), 2, 2);
    }
}

void TimeRail::draw_times(QPainter& painter) const {
    painter.setFont(face(type::small));
    painter.setPen(theme().quiet);
    const Pile& pile = studio_.pile();
    const auto time = [](const Frame& f) {
        return f.file->capture.captured ? time_in_words(*f.file->capture.captured) : QString();
    };
    const double line_top = (header - 16) / 2;
    painter.drawText(QRectF(space::medium, line_top, 120, 16), Qt::AlignLeft | Qt::AlignVCenter,
                     time(pile.frames.front()));
    painter.drawText(QRectF(width() - 120 - space::medium, line_top, 120, 16), Qt::AlignRight | Qt::AlignVCenter,
                     time(pile.frames.back()));
    const Frame* frame = find_frame(pile, studio_.current());
    if (!frame) return;
    QStringList words{tr("Frame %1 of %2").arg(number_of(pile, frame->id)).arg(pile.frames.size()),
                      name_of_frame(*frame)};
    const CaptureData& c = frame->file->capture;
    if (c.captured) words << time(*frame);
    if (c.exposure_s) words << exposure_in_words(*c.exposure_s);
    if (c.iso) words << tr("ISO %1").arg(figures_in_words(*c.iso, 6));
    if (frame->role != Role::scene)
        words << (frame->role_from == RoleFrom::guess ? tr("%1, a guess").arg(within_sentence(word(frame->role)))
                                                      : within_sentence(word(frame->role)));
    if (frame->aside) words << tr("set aside");
    const auto selected = studio_.selected().size();
    if (selected > 1) words << tr("%1 selected").arg(selected);
    if (!studio_.thumbnails().complete())
        words << tr("%1 of %2 read").arg(studio_.thumbnails().here()).arg(pile.frames.size());
    QString text = words.join(QStringLiteral("   "));
    const Findings* known = surveyor_.of(frame->id);
    const QString odd = known ? reasons_in_words(known->marks) : QString();
    const QString more = odd.isEmpty() ? QString() : QStringLiteral("   ") + odd;
    const QFontMetricsF metrics(painter.font());
    const QRectF line = words_place();
    const double wide = metrics.horizontalAdvance(text + more);
    if (wide > line.width())
        text = metrics.elidedText(text, Qt::ElideMiddle, line.width() - metrics.horizontalAdvance(more));
    QRectF place = line;
    // In the middle of the rail where it can be.
    place.setLeft(std::clamp((width() - wide) / 2, line.left(), std::max(line.left(), line.right() - wide)));
    painter.setPen(theme().text);
    painter.drawText(place, Qt::AlignLeft, text);
    place.setLeft(place.left() + metrics.horizontalAdvance(text));
    painter.setPen(theme().coral);
    painter.drawText(place, Qt::AlignLeft, more);
}

void TimeRail::draw_trace(QPainter& painter, const Trace& trace, double top) const {
    const Pile& pile = studio_.pile();
    std::vector<std::optional<double>> values;
    double low = 1e300, high = -1e300;
    for (const Frame& frame : pile.frames) {
        const Findings* known = surveyor_.of(frame.id);
        values.push_back(usable(frame) && frame.role == Role::scene
                             ? trace.value(frame, known ? known->measures : FrameMeasures{})
                             : std::nullopt);
        if (!values.back()) continue;
        low = std::min(low, *values.back());
        high = std::max(high, *values.back());
    }
    const double base = top + lane - 3;
    painter.setFont(face(type::small));
    painter.setPen(theme().quiet);
    painter.drawText(QRectF(space::medium, top - 1, side - space::medium, lane), Qt::AlignLeft | Qt::AlignVCenter,
                     trace.name);
    if (low > high) return;
    if (high - low < trace.least_span) {
        const double middle = (low + high) / 2;
        low = middle - trace.least_span / 2;
        high = middle + trace.least_span / 2;
    }
    const int current = number_of(pile, studio_.current());
    if (const auto value = current > 0 ? values[std::size_t(current - 1)] : std::nullopt)
        painter.drawText(QRectF(width() - side + 8, top - 1, side - 8 - space::small, lane),
                         Qt::AlignRight | Qt::AlignVCenter, trace.words(*value));
    const auto at = [&](std::size_t i) {
        const double x = side + layout_.slats[i].middle() - scroll_;
        return QPointF(x, base - (lane - 6) * (*values[i] - low) / (high - low));
    };
    painter.save();
    painter.setClipRect(QRectF(side - 6, top - 2, room() + 12, lane + 4));
    painter.setPen(QPen(theme().line, 1));
    painter.drawLine(QPointF(side, base + 1), QPointF(side + room(), base + 1));
    QPainterPath path;
    bool drawing = false;
    for (std::size_t i = 0; i < values.size(); ++i) {
        if (!values[i]) {
            drawing = false;
            continue;
        }
        if (drawing)
            path.lineTo(at(i));
        else
            path.moveTo(at(i));
        drawing = true;
    }
    painter.setPen(QPen(theme().text, 1.1));
    painter.setBrush(Qt::NoBrush);
    painter.drawPath(path);
    for (std::size_t i = 0; i < values.size(); ++i) {
        const Findings* known = values[i] ? surveyor_.of(pile.frames[i].id) : nullptr;
        const bool odd = known && std::any_of(known->marks.begin(), known->marks.end(), [&](const Mark& m) {
                             return std::find(trace.marks.begin(), trace.marks.end(), m.why) != trace.marks.end();
                         });
        if (odd) {
            painter.setPen(Qt::NoPen);
            painter.setBrush(theme().coral);
            painter.drawEllipse(at(i), 2.4, 2.4);
        }
        if (values[i] && pile.frames[i].id == studio_.current()) {
            painter.setPen(QPen(theme().amber, 1.2));
            painter.setBrush(Qt::NoBrush);
            painter.drawEllipse(at(i), 3.2, 3.2);
        }
    }
    painter.restore();
}

// Between the buttons of the head line.
QRectF TimeRail::words_place() const {
    const double left = heads_[0] && heads_[0]->isVisible() ? heads_[0]->geometry().right() + space::medium : 90;
    const double right = heads_[1] && heads_[1]->isVisible() ? heads_[1]->x() - space::medium : width() - 90;
    return {left, (header - 16) / 2, std::max(0.0, right - left), 16};
}

// Frames that are carried to another place of the run: where they would come to lie.
void TimeRail::draw_carried(QPainter& painter) const {
    const auto& slats = layout_.slats;
    const std::size_t before = *carried_;
    const double x = before < slats.size() ? place_of(slats[before]).left() - 2 : place_of(slats.back()).right() + 2;
    painter.setPen(QPen(theme().amber, 2));
    painter.drawLine(QPointF(x, slat_top() - 6), QPointF(x, slat_top() + slat_height + 6));
    painter.drawLine(QPointF(x - 4, slat_top() - 6), QPointF(x + 4, slat_top() - 6));
    painter.drawLine(QPointF(x - 4, slat_top() + slat_height + 6), QPointF(x + 4, slat_top() + slat_height + 6));
}

// A shortened pause: the line is cut.
void TimeRail::draw_breaks(QPainter& painter) const {
    for (const std::size_t i : layout_.breaks) {
        const QPointF c((place_of(layout_.slats[i - 1]).right() + place_of(layout_.slats[i]).left()) / 2,
                        slat_top() + slat_height / 2);
        painter.fillRect(QRectF(c.x() - 4, c.y() - 6, 8, 12), theme().ground);
        painter.setPen(QPen(theme().quiet, 1.2));
        painter.drawLine(c + QPointF(-5, 5), c + QPointF(-1, -5));
        painter.drawLine(c + QPointF(1, 5), c + QPointF(5, -5));
    }
}

// Pauses that are knitted: a stitch over the gap, at the foot of the slats. Those that stay open have none.
void TimeRail::draw_stitches(QPainter& painter) const {
    const Pile& pile = studio_.pile();
    if (!taper_wanted_ || !knits(pile)) return;
    std::map<int, const Slat*> slats;
    for (const Slat& slat : layout_.slats) slats[slat.id] = &slat;
    const double y = slat_top() + slat_height + 3;
    constexpr double grip = 2;  // to either side of the gap
    painter.setPen(QPen(theme().amber, 2, Qt::SolidLine, Qt::FlatCap));
    for (const Pause& pause : pauses_of(pile)) {
        if (!pause.closed) continue;
        const double left = place_of(*slats.at(pause.before)).right(), right = place_of(*slats.at(pause.after)).left();
        painter.drawLine(QPointF(left - grip, y), QPointF(std::max(left, right) + grip, y));
    }
}

// When only a piece of the run is seen: which.
void TimeRail::draw_extent(QPainter& painter) const {
    if (layout_.length <= room() + 1) return;
    const double y = height() - 3;
    painter.setPen(QPen(theme().line, 2));
    painter.drawLine(QPointF(side, y), QPointF(side + room(), y));
    painter.setPen(QPen(theme().quiet, 2));
    painter.drawLine(QPointF(side + room() * scroll_ / layout_.length, y),
                     QPointF(side + room() * (scroll_ + room()) / layout_.length, y));
}

void TimeRail::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setLayoutDirection(layoutDirection());
    painter.fillRect(rect(), theme().ground);
    painter.setPen(theme().line);
    painter.drawLine(0, 0, width(), 0);
    const auto& slats = layout_.slats;
    if (slats.empty() || slats.size() != studio_.pile().frames.size()) return;
    draw_times(painter);
    painter.setRenderHint(QPainter::Antialiasing);
    double top = header;
    for (const QString& key : drawn_traces()) {
        draw_trace(painter, *trace_named(key), top);
        top += lane;
    }
    if (const auto seen = wedge()) {
        painter.setFont(face(type::small));
        painter.setPen(theme().quiet);
        painter.drawText(QRectF(space::medium, top, side - space::medium, TaperWedge::height),
                         Qt::AlignLeft | Qt::AlignVCenter, tr("Strength"));
        painter.save();
        painter.setClipRect(QRectF(side - 8, top, room() + 16, TaperWedge::height));
        seen->paint(painter, held_ ? held_ : near_);
        painter.restore();
    }
    painter.save();
    painter.setClipRect(QRectF(side - 8, header, room() + 16, height() - header));
    painter.setPen(QPen(theme().line, 1));
    const double rope = slat_top() + slat_height / 2;
    painter.drawLine(QPointF(place_of(slats.front()).left(), rope), QPointF(place_of(slats.back()).right(), rope));
    draw_breaks(painter);
    draw_stitches(painter);
    const std::vector<int>& chosen = studio_.selected();
    const std::set<int> selected(chosen.begin(), chosen.end());
    std::optional<std::size_t> current;
    for (std::size_t i = 0; i < slats.size(); ++i) {
        const QRectF place = place_of(slats[i]);
        if (place.right() < side - 8 || place.left() > side + room() + 8) continue;
        if (slats[i].id == studio_.current())
            current = i;
        else
            draw_slat(painter, i, selected.count(slats[i].id) > 0);
    }
    if (current) draw_slat(painter, *current, true);
    if (carried_) draw_carried(painter);
    painter.restore();
    draw_extent(painter);
    if (hasFocus()) {
        painter.setPen(QPen(theme().amber, 1));
        painter.drawLine(0, 0, width(), 0);
    }
}

}  // namespace bp::app
