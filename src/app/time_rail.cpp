#include "app/time_rail.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QToolTip>
#include <algorithm>
#include <cmath>

#include "app/theme.h"
#include "app/words.h"

namespace bp::app {
namespace {

constexpr double side = 70;
constexpr double slat_top = 58;
constexpr double slat_height = 46;
constexpr double least_slat = 3;
constexpr double most_zoom = 30;

struct Moment {
    double begin = 0;
    double length = 0;
};

// Begin and length of each frame on the rail's own axis: capture time, with pauses much longer than the run's usual
// step shortened. Without capture times the frames stand evenly.
std::vector<Moment> moments_of(const Pile& pile, std::vector<std::size_t>& shortened) {
    std::vector<Moment> out(pile.frames.size());
    const bool timed = std::all_of(pile.frames.begin(), pile.frames.end(),
                                   [](const Frame& f) { return f.file->capture.captured.has_value(); });
    std::vector<double> steps;
    for (std::size_t i = 1; timed && i < out.size(); ++i)
        steps.push_back(*pile.frames[i].file->capture.captured - *pile.frames[i - 1].file->capture.captured);
    double usual = 0;
    if (!steps.empty()) {
        std::nth_element(steps.begin(), steps.begin() + std::ptrdiff_t(steps.size() / 2), steps.end());
        usual = steps[steps.size() / 2];
    }
    if (!timed || usual <= 0) {
        for (std::size_t i = 0; i < out.size(); ++i) out[i] = {double(i), 0.86};
        return out;
    }
    double at = 0;
    for (std::size_t i = 0; i < out.size(); ++i) {
        if (i > 0) {
            double step = *pile.frames[i].file->capture.captured - *pile.frames[i - 1].file->capture.captured;
            const double longest = std::max(out[i - 1].length, 0.0) + 2.2 * usual;
            if (step > longest) {
                step = longest;
                shortened.push_back(i);
            }
            at += std::max(step, out[i - 1].length * 1.02);
        }
        const double exposure = pile.frames[i].file->capture.exposure_s.value_or(0);
        // Short exposures would vanish; very long ones would push the rest aside.
        out[i] = {at, std::clamp(exposure, usual * 0.34, usual * 2.0)};
    }
    return out;
}

void draw_problem(QPainter& painter, QPointF tip) {
    QPainterPath mark;
    mark.moveTo(tip + QPointF(0, -9));
    mark.lineTo(tip + QPointF(5, 0));
    mark.lineTo(tip + QPointF(-5, 0));
    mark.closeSubpath();
    painter.setPen(QPen(theme().coral, 1.5));
    painter.setBrush(Qt::NoBrush);
    painter.drawPath(mark);
}

}  // namespace

TimeRail::TimeRail(Studio& studio, QWidget* parent) : QWidget(parent), studio_(studio) {
    setObjectName(QStringLiteral("time_rail"));
    setAccessibleName(tr("Time rail: the frames in order"));
    setFocusPolicy(Qt::StrongFocus);
    setFixedHeight(space::rail_height);
    setMouseTracking(true);
    connect(&studio.document(), &Document::opened, this, [this] {
        zoom_ = 1;
        scroll_ = 0;
    });
    connect(&studio.document(), &Document::changed, this, [this] {
        lay_out();
        update();
    });
    connect(&studio, &Studio::selection_changed, this, qOverload<>(&QWidget::update));
    connect(&studio, &Studio::thumbnail_arrived, this, qOverload<>(&QWidget::update));
}

QRectF TimeRail::slat_of(int id) const {
    const auto found = std::find_if(slats_.begin(), slats_.end(), [id](const Slat& s) { return s.id == id; });
    return found == slats_.end() ? QRectF() : found->place;
}

void TimeRail::lay_out() {
    slats_.clear();
    breaks_.clear();
    const Pile& pile = studio_.pile();
    if (pile.frames.empty()) return;
    std::vector<std::size_t> shortened;
    const std::vector<Moment> moments = moments_of(pile, shortened);
    const double span = std::max(moments.back().begin + moments.back().length, 1e-9);
    const double room = std::max(50.0, width() - 2 * side);
    full_width_ = room * zoom_;
    scroll_ = std::clamp(scroll_, 0.0, std::max(0.0, full_width_ - room));
    // Few frames need not be spread over the whole rail.
    const double widest = 74 * zoom_;
    double longest = 0;
    for (const Moment& m : moments) longest = std::max(longest, m.length);
    const double scale = std::min(full_width_ / span, widest / longest);
    for (std::size_t i = 0; i < moments.size(); ++i) {
        const double x = side + moments[i].begin * scale - scroll_;
        const double w = std::max(least_slat, moments[i].length * scale);
        slats_.push_back({pile.frames[i].id, QRectF(x, slat_top, w, slat_height)});
    }
    for (const std::size_t i : shortened) {
        const double from = slats_[i - 1].place.right();
        breaks_.emplace_back(from, slat_top, slats_[i].place.left() - from, slat_height);
    }
}

void TimeRail::resizeEvent(QResizeEvent*) {
    lay_out();
}

void TimeRail::draw_slat(QPainter& painter, const Slat& slat, int number) const {
    const Frame& frame = studio_.pile().frames[std::size_t(number) - 1];
    const auto& selected = studio_.selected();
    const bool is_selected = std::find(selected.begin(), selected.end(), slat.id) != selected.end();
    const bool current = slat.id == studio_.current();
    const bool out = frame.aside || !usable(frame);
    QRectF place = slat.place;
    if (current) place.adjust(-1, -6, 1, 6);
    const QImage picture = studio_.thumbnail(slat.id);
    painter.setOpacity(out ? 0.28 : frame.role == Role::scene ? 1.0 : 0.85);
    if (picture.isNull()) {
        painter.fillRect(place, theme().raised);
    } else {
        // The middle of the picture, as much as the slat is wide.
        const double aspect = place.width() / place.height();
        QRectF from(QPointF(0, 0), QSizeF(picture.size()));
        const double w = std::min(from.width(), from.height() * aspect);
        const double h = std::min(from.height(), w / aspect);
        from = QRectF((from.width() - w) / 2, (from.height() - h) / 2, w, h);
        painter.setRenderHint(QPainter::SmoothPixmapTransform);
        painter.drawImage(place, picture, from);
    }
    painter.setOpacity(1);
    if (out) {
        painter.setPen(QPen(theme().quiet, 1.5));
        painter.drawLine(place.bottomLeft() + QPointF(1, -1), place.topRight() + QPointF(-1, 1));
        painter.setPen(QPen(theme().faint, 1));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(place.adjusted(0.5, 0.5, -0.5, -0.5));
    }
    if (frame.role == Role::dark || frame.role == Role::foreground) {
        // A dark carries a filled knot below, a foreground an open one.
        painter.setPen(QPen(theme().quiet, 1.2));
        painter.setBrush(frame.role == Role::dark ? QBrush(theme().quiet) : Qt::NoBrush);
        painter.drawEllipse(QPointF(place.center().x(), slat_top + slat_height + 9), 3, 3);
    }
    if (slat.id == studio_.pile().reference && studio_.pile().model != Model::none) {
        painter.setPen(QPen(theme().quiet, 1.5));
        painter.setBrush(Qt::NoBrush);
        const QPointF c(place.center().x(), slat_top - 9);
        painter.drawLine(c - QPointF(5, 0), c + QPointF(5, 0));
        painter.drawLine(c - QPointF(0, 5), c + QPointF(0, 5));
    }
    if (!usable(frame) || (frame.alignment && studio_.pile().model != Model::none && !frame.alignment->aligned))
        draw_problem(painter, QPointF(place.center().x(), slat_top - 8));
    if (is_selected) {
        painter.setPen(QPen(theme().amber, current ? 2.0 : 1.2));
        painter.setBrush(Qt::NoBrush);
        painter.drawRoundedRect(place.adjusted(-1, -1, 1, 1), 2, 2);
    }
    if (current) {
        painter.setFont(face(type::small, QFont::DemiBold));
        painter.setPen(theme().amber);
        painter.drawText(QRectF(place.center().x() - 40, slat_top + slat_height + 9, 80, 16), Qt::AlignCenter,
                         QString::number(number));
    }
}

void TimeRail::draw_times(QPainter& painter) const {
    painter.setFont(face(type::small));
    painter.setPen(theme().quiet);
    const Pile& pile = studio_.pile();
    const auto time = [](const Frame& f) {
        return f.file->capture.captured ? time_in_words(*f.file->capture.captured) : QString();
    };
    painter.drawText(QRectF(space::medium, 10, 200, 16), Qt::AlignLeft, time(pile.frames.front()));
    painter.drawText(QRectF(width() - 200 - space::medium, 10, 200, 16), Qt::AlignRight, time(pile.frames.back()));
    const Frame* frame = find_frame(pile, studio_.current());
    if (!frame) return;
    QStringList words{tr("Frame %1 of %2").arg(number_of(pile, frame->id)).arg(pile.frames.size()),
                      name_of_frame(*frame)};
    const CaptureData& c = frame->file->capture;
    if (c.captured) words << time(*frame);
    if (c.exposure_s) words << exposure_in_words(*c.exposure_s);
    if (c.iso) words << tr("ISO %1").arg(*c.iso);
    if (frame->role != Role::scene) words << word(frame->role).toLower();
    if (frame->aside) words << tr("set aside");
    painter.setPen(theme().text);
    painter.drawText(QRectF(120, 10, width() - 240, 16), Qt::AlignCenter, words.join(QStringLiteral("   ")));
}

// After aligning: how far each frame had moved, as a line above the slats.
void TimeRail::draw_shifts(QPainter& painter) const {
    const Pile& pile = studio_.pile();
    if (pile.model == Model::none) return;
    std::vector<std::pair<QPointF, double>> points;
    double most = 0;
    const Point middle{pile.size.width / 2.0, pile.size.height / 2.0};
    for (std::size_t i = 0; i < pile.frames.size(); ++i) {
        const auto& a = pile.frames[i].alignment;
        if (!a || !a->aligned) continue;
        const Point p = a->to_reference(middle);
        const double moved = std::hypot(p.x - middle.x, p.y - middle.y);
        most = std::max(most, moved);
        points.emplace_back(QPointF(slats_[i].place.center().x(), 0), moved);
    }
    if (points.size() < 2) return;
    QPainterPath path;
    for (std::size_t i = 0; i < points.size(); ++i) {
        const QPointF p(points[i].first.x(), slat_top - 8 - 16 * points[i].second / std::max(most, 1e-6));
        if (i == 0)
            path.moveTo(p);
        else
            path.lineTo(p);
    }
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(theme().amber, 1.2));
    painter.setBrush(Qt::NoBrush);
    painter.drawPath(path);
    painter.setFont(face(type::small));
    painter.drawText(QRectF(space::medium, slat_top - 26, side - space::medium, 30), Qt::AlignLeft | Qt::TextWordWrap,
                     tr("moved\n%1 px").arg(most, 0, 'f', 1));
}

void TimeRail::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), theme().ground);
    painter.setPen(theme().line);
    painter.drawLine(0, 0, width(), 0);
    if (slats_.empty() || slats_.size() != studio_.pile().frames.size()) return;
    draw_times(painter);
    painter.save();
    painter.setClipRect(QRectF(side - 8, 24, width() - 2 * side + 16, height() - 24));
    painter.setRenderHint(QPainter::Antialiasing);
    draw_shifts(painter);
    painter.setPen(QPen(theme().line, 1));
    const double rope = slat_top + slat_height / 2;
    painter.drawLine(QPointF(slats_.front().place.left(), rope), QPointF(slats_.back().place.right(), rope));
    for (const QRectF& gap : breaks_) {
        // A shortened pause: the line is cut.
        const QPointF c = gap.center();
        painter.fillRect(QRectF(c.x() - 4, c.y() - 6, 8, 12), theme().ground);
        painter.setPen(QPen(theme().quiet, 1.2));
        painter.drawLine(c + QPointF(-5, 5), c + QPointF(-1, -5));
        painter.drawLine(c + QPointF(1, 5), c + QPointF(5, -5));
    }
    int current = -1;
    for (std::size_t i = 0; i < slats_.size(); ++i) {
        if (slats_[i].id == studio_.current()) {
            current = int(i);
            continue;
        }
        draw_slat(painter, slats_[i], int(i) + 1);
    }
    if (current >= 0) draw_slat(painter, slats_[std::size_t(current)], current + 1);
    painter.restore();
    if (hasFocus()) {
        painter.setPen(QPen(theme().amber, 1));
        painter.drawLine(0, 0, width(), 0);
    }
}

int TimeRail::frame_at(QPointF p) const {
    int best = 0;
    double nearest = 1e9;
    for (const Slat& slat : slats_) {
        const double d = std::abs(p.x() - slat.place.center().x()) - slat.place.width() / 2;
        if (d < nearest) {
            nearest = d;
            best = slat.id;
        }
    }
    return nearest < 12 ? best : 0;
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
    const double steps = event->angleDelta().y() / 120.0;
    if (event->modifiers().testFlag(Qt::ControlModifier)) {
        const double at = event->position().x() - side + scroll_;
        const double before = zoom_;
        zoom_ = std::clamp(zoom_ * std::pow(1.25, steps), 1.0, most_zoom);
        scroll_ = at * zoom_ / before - (event->position().x() - side);
    } else if (zoom_ > 1) {
        scroll_ -= steps * 80;
    } else {
        studio_.step_current(steps > 0 ? -1 : 1);
        emit frame_chosen();
    }
    lay_out();
    update();
    event->accept();
}

void TimeRail::keyPressEvent(QKeyEvent* event) {
    const Pile& pile = studio_.pile();
    if (pile.frames.empty()) return;
    const auto go = [&](int number) {
        number = std::clamp(number, 1, int(pile.frames.size()));
        choose(pile.frames[std::size_t(number) - 1].id, event->modifiers() & Qt::ShiftModifier);
    };
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
    if (!usable(*frame)) lines << QString::fromStdString(frame->problem);
    if (frame->aside) lines << tr("Set aside");
    if (frame->alignment && studio_.pile().model != Model::none && !frame->alignment->aligned)
        lines << tr("Could not be aligned: not merged");
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
