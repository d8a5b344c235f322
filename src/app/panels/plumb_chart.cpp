#include "app/panels/plumb_chart.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "app/looks/theme.h"

namespace bp::app {
namespace {

constexpr double dot = 2.5;
constexpr double ring = 5.5;
const std::array<QColor, 3> of_channel{QColor(226, 96, 84), QColor(108, 178, 96), QColor(104, 144, 230)};

double share_of(std::uint16_t sample) {
    return sample / 65535.0;
}

}  // namespace

QString shares_in_words(const std::array<std::uint16_t, 3>& samples, int channels) {
    QStringList out;
    for (std::size_t c = 0; c < std::size_t(channels); ++c)
        out << QString::number(std::lround(100 * share_of(samples[c])));
    if (std::all_of(out.begin(), out.end(), [&](const QString& s) { return s == out.front(); })) out = {out.front()};
    return PlumbChart::tr("%1%").arg(out.join(QStringLiteral(", ")));
}

PlumbChart::PlumbChart(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("plumb_chart"));
    setLayoutDirection(Qt::LeftToRight);  // Time runs one way in every language.
    setAccessibleName(tr("What every frame has here"));
    setAccessibleDescription(tr("Left and Right choose a frame"));
    setToolTip(
        tr("The point in every frame, over the run, by channel. Ringed in amber: the frame that shows. "
           "A click chooses a frame"));
    setFocusPolicy(Qt::StrongFocus);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    setFixedHeight(sizeHint().height());
}

void PlumbChart::show_plumb(const Plumb& plumb, int channels, std::vector<double> times) {
    plumb_.frames.clear();
    for (const PlumbFrame& f : plumb.frames)
        plumb_.frames.push_back({f.frame, f.there, f.votes, f.strength, f.samples, {}});
    plumb_.result = plumb.result;
    plumb_.first = plumb.first;
    plumb_.second = plumb.second;
    channels_ = channels;
    times_ = std::move(times);
    most_ = 0;
    for (const PlumbFrame& f : plumb_.frames)
        for (std::size_t c = 0; c < std::size_t(channels); ++c) most_ = std::max(most_, share_of(f.samples[c]));
    for (std::size_t c = 0; c < std::size_t(channels); ++c) most_ = std::max(most_, share_of(plumb_.result[c]));
    // Tens of per cent, so that the scale does not dance from point to point.
    most_ = std::clamp(std::ceil(most_ * 10 + 1e-9) / 10, 0.1, 1.0);
    update();
}

void PlumbChart::clear() {
    plumb_ = {};
    channels_ = 0;
    update();
}

void PlumbChart::set_chosen(int frame) {
    if (chosen_ == frame) return;
    chosen_ = frame;
    update();
}

QRectF PlumbChart::field() const {
    return QRectF(rect()).adjusted(34, 10, -10, -14);
}

double PlumbChart::x_of(std::size_t at) const {
    const std::size_t count = plumb_.frames.size();
    double share = count > 1 ? double(at) / double(count - 1) : 0.5;
    if (times_.size() == count && count > 1 && times_.back() > times_.front())
        share = (times_[at] - times_.front()) / (times_.back() - times_.front());
    return field().left() + share * field().width();
}

double PlumbChart::y_of(double share) const {
    return field().bottom() - std::min(1.0, share / most_) * field().height();
}

QPointF PlumbChart::place_of(int frame) const {
    for (std::size_t i = 0; i < plumb_.frames.size(); ++i)
        if (plumb_.frames[i].frame == frame) return {x_of(i), field().center().y()};
    return {};
}

void PlumbChart::choose_at(double x) {
    int best = 0;
    double nearest = 1e9;
    for (std::size_t i = 0; i < plumb_.frames.size(); ++i)
        if (const double far = std::abs(x_of(i) - x); far < nearest) {
            nearest = far;
            best = plumb_.frames[i].frame;
        }
    if (best != 0 && best != chosen_) emit frame_chosen(best);
}

void PlumbChart::mousePressEvent(QMouseEvent* event) {
    if (event->button() == Qt::LeftButton) choose_at(event->position().x());
}

void PlumbChart::mouseMoveEvent(QMouseEvent* event) {
    if (event->buttons().testFlag(Qt::LeftButton)) choose_at(event->position().x());
}

void PlumbChart::keyPressEvent(QKeyEvent* event) {
    const int by = event->key() == Qt::Key_Left ? -1 : event->key() == Qt::Key_Right ? 1 : 0;
    if (by == 0) return QWidget::keyPressEvent(event);
    const auto& frames = plumb_.frames;
    const auto known =
        std::find_if(frames.begin(), frames.end(), [this](const PlumbFrame& f) { return f.frame == chosen_; });
    if (known == frames.end()) return;
    const std::ptrdiff_t at = known - frames.begin() + by;
    if (at >= 0 && at < std::ptrdiff_t(frames.size())) emit frame_chosen(frames[std::size_t(at)].frame);
}

void PlumbChart::draw_channel(QPainter& painter, std::size_t channel) const {
    const QColor colour = channels_ == 1 ? theme().text : of_channel[channel];
    QPainterPath line;
    bool open = false;
    for (std::size_t i = 0; i < plumb_.frames.size(); ++i) {
        const PlumbFrame& f = plumb_.frames[i];
        if (!f.votes) {
            open = false;
            continue;
        }
        const QPointF at(x_of(i), y_of(share_of(f.samples[channel])));
        if (open)
            line.lineTo(at);
        else
            line.moveTo(at);
        open = true;
    }
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(colour, 1));
    painter.drawPath(line);
    for (std::size_t i = 0; i < plumb_.frames.size(); ++i) {
        const PlumbFrame& f = plumb_.frames[i];
        if (!f.there) continue;
        // Hollow: it is left out here.
        painter.setBrush(f.votes ? QBrush(colour) : QBrush(Qt::NoBrush));
        painter.drawEllipse(QPointF(x_of(i), y_of(share_of(f.samples[channel]))), dot, dot);
    }
}

void PlumbChart::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setLayoutDirection(layoutDirection());
    painter.setRenderHint(QPainter::Antialiasing);
    const QRectF area = field();
    painter.fillRect(rect(), theme().ground);
    painter.setFont(face(type::small));
    for (const double share : {0.0, most_ / 2, most_}) {
        const double y = y_of(share);
        painter.setPen(QPen(theme().line, 1));
        painter.drawLine(QPointF(area.left(), y), QPointF(area.right(), y));
        painter.setPen(theme().quiet);
        painter.drawText(QRectF(0, y - 8, area.left() - 6, 16), Qt::AlignRight | Qt::AlignVCenter,
                         tr("%1%").arg(std::lround(100 * share)));
    }
    const auto at_frame = [&](int frame) { return place_of(frame).x(); };
    if (const QPointF at = place_of(chosen_); !at.isNull()) {
        painter.setPen(QPen(theme().faint, 1, Qt::DashLine));
        painter.drawLine(QPointF(at.x(), area.top() - 6), QPointF(at.x(), area.bottom() + 6));
    }
    for (std::size_t c = 0; c < std::size_t(channels_); ++c) draw_channel(painter, c);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(theme().amber, 1.6));
    for (const PlumbFrame& f : plumb_.frames) {
        if (f.frame != plumb_.first && f.frame != plumb_.second) continue;
        for (std::size_t c = 0; c < std::size_t(channels_); ++c)
            painter.drawEllipse(QPointF(at_frame(f.frame), y_of(share_of(f.samples[c]))), ring, ring);
    }
    if (hasFocus()) {
        painter.setPen(QPen(theme().line, 1));
        painter.drawRect(rect().adjusted(0, 0, -1, -1));
    }
}

}  // namespace bp::app
