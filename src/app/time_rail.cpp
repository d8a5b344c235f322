#include "app/time_rail.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QSettings>
#include <QToolButton>
#include <QToolTip>
#include <algorithm>
#include <cmath>
#include <set>

#include "app/theme.h"
#include "app/words.h"

namespace bp::app {
namespace {

constexpr auto traces_key = "rail/traces";
constexpr double side = 76;
constexpr double header = 30;
constexpr double lane = 17;   // of one trace
constexpr double marks = 14;  // between traces and slats
constexpr double slat_height = 42;
constexpr double footer = 24;
constexpr double most_zoom = 60;
constexpr double reach = 12;  // how far from a slat a click may be

bool is_out(const Frame& frame) {
    return frame.aside || !usable(frame);
}

bool is_lost(const Pile& pile, const Frame& frame) {
    return frame.alignment && pile.model != Model::none && !frame.alignment->aligned;
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

TimeRail::TimeRail(Studio& studio, Surveyor& surveyor, QWidget* parent)
    : QWidget(parent), studio_(studio), surveyor_(surveyor) {
    setObjectName(QStringLiteral("time_rail"));
    setAccessibleName(tr("Time rail: the frames in order"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    const QStringList usual{QStringLiteral("sharpness"), QStringLiteral("shift"), QStringLiteral("light")};
    for (const QString& key : QSettings().value(traces_key, usual).toStringList())
        if (trace_named(key)) shown_ << key;
    choose_ = new QToolButton(this);
    choose_->setObjectName(QStringLiteral("choose_traces"));
    choose_->setText(tr("Traces"));
    choose_->setToolTip(tr("Chooses what is drawn over the frames"));
    choose_->setAccessibleName(tr("Traces over the time rail"));
    choose_->setProperty("flat", true);
    choose_->setPopupMode(QToolButton::InstantPopup);
    choose_->setMenu(new QMenu(choose_));
    fill_menu();
    fit_height();
    connect(&studio.document(), &Document::opened, this, [this] {
        zoom_ = 1;
        scroll_ = 0;
        miniatures_.clear();
    });
    connect(&studio.document(), &Document::changed, this, [this] {
        lay_out();
        update();
    });
    connect(&studio, &Studio::selection_changed, this, [this] {
        follow_current();
        update();
    });
    connect(&studio, &Studio::thumbnail_arrived, this, [this](int id) {
        miniatures_.erase(id);
        update();
    });
    connect(&surveyor, &Surveyor::changed, this, qOverload<>(&QWidget::update));
}

void TimeRail::fill_menu() {
    for (const Trace& trace : traces()) {
        QAction* action = choose_->menu()->addAction(trace.name);
        action->setObjectName(QStringLiteral("trace_") + trace.key);
        action->setToolTip(trace.tip);
        action->setCheckable(true);
        action->setChecked(shown_.contains(trace.key));
        connect(action, &QAction::toggled, this, [this, key = trace.key](bool on) { show_trace(key, on); });
    }
    choose_->menu()->setToolTipsVisible(true);
}

void TimeRail::show_trace(const QString& key, bool on) {
    if (shown_.contains(key) == on) return;
    // In the order of the table, so that a trace always stands at the same place among the others.
    QStringList now;
    for (const Trace& trace : traces())
        if (trace.key == key ? on : shown_.contains(trace.key)) now << trace.key;
    shown_ = now;
    QSettings().setValue(traces_key, shown_);
    fit_height();
    update();
}

void TimeRail::fit_height() {
    setFixedHeight(int(slat_top() + slat_height + footer));
    choose_->move(2, int(slat_top() + slat_height / 2 - choose_->sizeHint().height() / 2.0));
}

double TimeRail::slat_top() const {
    return header + lane * double(shown_.size()) + marks;
}

double TimeRail::room() const {
    return std::max(50.0, width() - 2 * side);
}

QRectF TimeRail::place_of(const Slat& slat) const {
    return {side + slat.left - scroll_, slat_top(), slat.width, slat_height};
}

QRectF TimeRail::slat_of(int id) const {
    const auto found =
        std::find_if(layout_.slats.begin(), layout_.slats.end(), [id](const Slat& s) { return s.id == id; });
    return found == layout_.slats.end() ? QRectF() : place_of(*found);
}

void TimeRail::lay_out() {
    layout_ = lay_out_rail(studio_.pile(), room(), zoom_);
    scroll_ = std::clamp(scroll_, 0.0, std::max(0.0, layout_.length - room()));
}

void TimeRail::resizeEvent(QResizeEvent*) {
    lay_out();
    fit_height();
}

void TimeRail::zoom_to(double zoom, double at) {
    const double before = layout_.length;
    const double place = at - side + scroll_;
    zoom_ = std::clamp(zoom, 1.0, most_zoom);
    lay_out();
    if (before > 0) scroll_ = place * layout_.length / before - (at - side);
    scroll_ = std::clamp(scroll_, 0.0, std::max(0.0, layout_.length - room()));
    update();
}

// The current frame stays in sight.
void TimeRail::follow_current() {
    const QRectF place = slat_of(studio_.current());
    if (place.isNull()) return;
    const double margin = std::min(room() / 4, place.width() + 20);
    if (place.left() < side + margin) scroll_ -= side + margin - place.left();
    if (place.right() > side + room() - margin) scroll_ += place.right() - (side + room() - margin);
    scroll_ = std::clamp(scroll_, 0.0, std::max(0.0, layout_.length - room()));
}

QPixmap TimeRail::miniature(int id, QSize size) const {
    QPixmap& kept = miniatures_[id];
    const qreal ratio = devicePixelRatioF();
    const QSize pixels = (QSizeF(size) * ratio).toSize();
    if (kept.size() == pixels) return kept;
    const QImage picture = studio_.thumbnail(id);
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
    const QSize size(std::max(1, int(std::lround(place.width()))), int(std::lround(place.height())));
    const QPixmap picture = miniature(id, size);
    if (picture.isNull())
        painter.fillRect(place, theme().raised);
    else
        painter.drawPixmap(QPointF(std::round(place.left()), place.top()), picture);
}

// Below the slat: a dark carries a filled knot, a foreground an open one, the reference a cross, the base a square; a
// guessed role is dotted.
void TimeRail::draw_role(QPainter& painter, const Frame& frame, const QRectF& place) const {
    const Pile& pile = studio_.pile();
    QPointF at(place.center().x(), slat_top() + slat_height + 9);
    painter.setPen(QPen(theme().quiet, 1.3, (frame.role_from == RoleFrom::guess) ? Qt::DotLine : Qt::SolidLine));
    painter.setBrush(frame.role == Role::dark && !(frame.role_from == RoleFrom::guess) ? QBrush(theme().quiet)
                                                                                       : Qt::NoBrush);
    if (frame.role != Role::scene) {
        painter.drawEllipse(at, 3.5, 3.5);
        if (frame.role == Role::dark && (frame.role_from == RoleFrom::guess)) painter.drawPoint(at);
        at.rx() += 11;
    }
    painter.setPen(QPen(theme().quiet, 1.3));
    painter.setBrush(Qt::NoBrush);
    if (frame.id == pile.reference && (pile.model != Model::none || surveyor_.of(frame.id))) {
        painter.drawLine(at - QPointF(4, 0), at + QPointF(4, 0));
        painter.drawLine(at - QPointF(0, 4), at + QPointF(0, 4));
        at.rx() += 11;
    }
    if (frame.id == pile.base && pile.merge.mode == Mode::one)
        painter.drawRect(QRectF(at.x() - 3.5, at.y() - 3.5, 7, 7));
}

void TimeRail::draw_marks(QPainter& painter, const Frame& frame, const QRectF& place) const {
    const double x = place.center().x();
    if (!usable(frame) || is_lost(studio_.pile(), frame)) {
        draw_problem(painter, {x, slat_top() - 4});
        return;
    }
    const Known* known = surveyor_.of(frame.id);
    if (known && !known->marks.empty()) draw_oddity(painter, {x, slat_top() - 8}, !frame.aside);
}

void TimeRail::draw_slat(QPainter& painter, std::size_t i, bool selected) const {
    const Frame& frame = studio_.pile().frames[i];
    const bool current = frame.id == studio_.current();
    QRectF place = place_of(layout_.slats[i]);
    painter.setOpacity(is_out(frame) ? 0.28 : 1.0);
    draw_picture(painter, frame.id, place);
    painter.setOpacity(1);
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
    draw_role(painter, frame, place);
    draw_marks(painter, frame, place);
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
    painter.drawText(QRectF(space::medium, 8, 120, 16), Qt::AlignLeft, time(pile.frames.front()));
    painter.drawText(QRectF(width() - 120 - space::medium, 8, 120, 16), Qt::AlignRight, time(pile.frames.back()));
    const Frame* frame = find_frame(pile, studio_.current());
    if (!frame) return;
    QStringList words{tr("Frame %1 of %2").arg(number_of(pile, frame->id)).arg(pile.frames.size()),
                      name_of_frame(*frame)};
    const CaptureData& c = frame->file->capture;
    if (c.captured) words << time(*frame);
    if (c.exposure_s) words << exposure_in_words(*c.exposure_s);
    if (c.iso) words << tr("ISO %1").arg(*c.iso);
    if (frame->role != Role::scene)
        words << (frame->role_from == RoleFrom::guess ? tr("%1, a guess").arg(word(frame->role).toLower())
                                                      : word(frame->role).toLower());
    if (frame->aside) words << tr("set aside");
    const auto selected = studio_.selected().size();
    if (selected > 1) words << tr("%1 selected").arg(selected);
    QString text = words.join(QStringLiteral("   "));
    const Known* known = surveyor_.of(frame->id);
    const QString odd = known ? reasons_in_words(known->marks) : QString();
    const QString more = odd.isEmpty() ? QString() : QStringLiteral("   ") + odd;
    const QFontMetricsF metrics(painter.font());
    const QRectF line(90, 8, width() - 180, 16);
    const double wide = metrics.horizontalAdvance(text + more);
    QRectF place = line;
    place.setLeft(line.left() + std::max(0.0, (line.width() - wide) / 2));
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
        const Known* known = usable(frame) && frame.role == Role::scene ? surveyor_.of(frame.id) : nullptr;
        values.push_back(known ? trace.value(known->measures) : std::nullopt);
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
    const Known* current = surveyor_.of(studio_.current());
    if (const auto value = current ? trace.value(current->measures) : std::nullopt)
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
        const Known* known = values[i] ? surveyor_.of(pile.frames[i].id) : nullptr;
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
    painter.fillRect(rect(), theme().ground);
    painter.setPen(theme().line);
    painter.drawLine(0, 0, width(), 0);
    const auto& slats = layout_.slats;
    if (slats.empty() || slats.size() != studio_.pile().frames.size()) return;
    draw_times(painter);
    painter.setRenderHint(QPainter::Antialiasing);
    double top = header;
    for (const QString& key : shown_) {
        draw_trace(painter, *trace_named(key), top);
        top += lane;
    }
    painter.save();
    painter.setClipRect(QRectF(side - 8, header, room() + 16, height() - header));
    painter.setPen(QPen(theme().line, 1));
    const double rope = slat_top() + slat_height / 2;
    painter.drawLine(QPointF(place_of(slats.front()).left(), rope), QPointF(place_of(slats.back()).right(), rope));
    draw_breaks(painter);
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
    painter.restore();
    draw_extent(painter);
    if (hasFocus()) {
        painter.setPen(QPen(theme().amber, 1));
        painter.drawLine(0, 0, width(), 0);
    }
}

int TimeRail::frame_at(QPointF p) const {
    int best = 0;
    double nearest = reach;
    for (const Slat& slat : layout_.slats) {
        const QRectF place = place_of(slat);
        const double d = std::abs(p.x() - place.center().x()) - place.width() / 2;
        if (d < nearest) {
            nearest = d;
            best = slat.id;
        }
    }
    return best;
}

void TimeRail::choose(int id, Qt::KeyboardModifiers modifiers) {
    if (id == 0) return;
    studio_.select(id, modifiers.testFlag(Qt::ShiftModifier), modifiers.testFlag(Qt::ControlModifier));
    emit frame_chosen();
}

void TimeRail::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    scrubbing_ = event->modifiers() == Qt::NoModifier;
    choose(frame_at(event->position()), event->modifiers());
}

void TimeRail::mouseMoveEvent(QMouseEvent* event) {
    if (!scrubbing_) return;
    const int id = frame_at(event->position());
    if (id != 0 && id != studio_.current()) choose(id, Qt::NoModifier);
}

void TimeRail::mouseReleaseEvent(QMouseEvent*) {
    scrubbing_ = false;
}

void TimeRail::mouseDoubleClickEvent(QMouseEvent* event) {
    if (frame_at(event->position()) != 0) studio_.toggle_aside();
}

void TimeRail::wheelEvent(QWheelEvent* event) {
    // Touch pads give pixels, wheels give eighths of a degree.
    const double steps = event->angleDelta().y() / 120.0;
    const double pixels = event->pixelDelta().isNull() ? steps * 80 : event->pixelDelta().y() + event->pixelDelta().x();
    if (event->modifiers().testFlag(Qt::ControlModifier)) {
        zoom_to(zoom_ * std::pow(1.25, steps), event->position().x());
    } else if (layout_.length > room() + 1) {
        scroll_ = std::clamp(scroll_ - pixels, 0.0, layout_.length - room());
        update();
    } else if (steps != 0) {
        studio_.step_current(steps > 0 ? -1 : 1);
        emit frame_chosen();
    }
    event->accept();
}

void TimeRail::keyPressEvent(QKeyEvent* event) {
    const Pile& pile = studio_.pile();
    if (pile.frames.empty()) return;
    const auto go = [&](int number) {
        number = std::clamp(number, 1, int(pile.frames.size()));
        choose(pile.frames[std::size_t(number) - 1].id, event->modifiers() & Qt::ShiftModifier);
    };
    const double at = slat_of(studio_.current()).center().x();
    switch (event->key()) {
        case Qt::Key_Home:
            go(1);
            break;
        case Qt::Key_End:
            go(int(pile.frames.size()));
            break;
        case Qt::Key_PageUp:
            go(number_of(pile, studio_.current()) - 10);
            break;
        case Qt::Key_PageDown:
            go(number_of(pile, studio_.current()) + 10);
            break;
        case Qt::Key_Up:
            zoom_to(zoom_ * 1.5, at);
            break;
        case Qt::Key_Down:
            zoom_to(zoom_ / 1.5, at);
            break;
        default:
            QWidget::keyPressEvent(event);
    }
}

QString TimeRail::tip_for(int id) const {
    const Frame* frame = find_frame(studio_.pile(), id);
    if (!frame) return {};
    QStringList lines{name_of_frame(*frame)};
    const CaptureData& c = frame->file->capture;
    if (c.captured) lines << time_in_words(*c.captured);
    if (c.exposure_s) lines << exposure_in_words(*c.exposure_s);
    if (frame->role != Role::scene)
        lines << (frame->role_from == RoleFrom::guess ? tr("%1 (a guess)").arg(word(frame->role)) : word(frame->role));
    if (!frame->note.empty()) lines << QString::fromStdString(frame->note);
    if (!usable(*frame)) lines << QString::fromStdString(frame->problem);
    if (frame->aside) lines << tr("Set aside");
    if (const Known* known = surveyor_.of(id); known && !known->marks.empty())
        lines << tr("Odd: %1").arg(reasons_in_words(known->marks));
    if (is_lost(studio_.pile(), *frame)) lines << tr("Could not be aligned: not merged");
    return lines.join(QLatin1Char('\n'));
}

bool TimeRail::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        auto* help = static_cast<QHelpEvent*>(event);
        QToolTip::showText(help->globalPos(), tip_for(frame_at(help->pos())), this);
        return true;
    }
    return QWidget::event(event);
}

}  // namespace bp::app
