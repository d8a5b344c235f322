#include "app/steps/step_line.h"

#include <QAbstractButton>
#include <QEvent>
#include <QPainter>
#include <QScrollBar>
#include <functional>

#include "app/looks/theme.h"

namespace bp::app {

// A step's head: its knot, name and summary.
class StepKnot : public QAbstractButton {
  public:
    StepKnot(StepBody* body, QWidget* parent) : QAbstractButton(parent), body_(body) {
        setText(body->title());
        setFocusPolicy(Qt::TabFocus);
        setCheckable(true);
        setCursor(Qt::PointingHandCursor);
    }
    static constexpr int height_of_two_lines = 44, height_of_one = 27;
    QSize sizeHint() const override {
        return {space::step_line_width - 14, in_one_line() ? height_of_one : height_of_two_lines};
    }
    // Name and summary beside each other, unless the step is open.
    void set_close(bool on) {
        if (close_ == on) return;
        close_ = on;
        settle();
    }
    void settle() {
        setFixedHeight(sizeHint().height());
        updateGeometry();
        update();
    }

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter painter(this);
        painter.setRenderHint(QPainter::Antialiasing);
        const QPointF knot = as_read(*this, QRectF(space::large, 16, space::knot, 0)).center();
        painter.setBrush(theme().ground);
        painter.setPen(QPen(isChecked() || hasFocus() ? theme().amber : theme().quiet, 1.5));
        painter.drawEllipse(knot, space::knot / 2.0, space::knot / 2.0);
        if (isChecked()) {
            painter.setBrush(theme().amber);
            painter.setPen(Qt::NoPen);
            painter.drawEllipse(knot, 3, 3);
        } else if (body_->needs_look()) {
            painter.setPen(QPen(theme().coral, 1.8));
            painter.drawLine(knot + QPointF(0, -3.5), knot + QPointF(0, 0.5));
            painter.drawPoint(knot + QPointF(0, 3.5));
        }
        painter.setFont(face(type::step, QFont::DemiBold));
        painter.setPen(theme().text);
        const auto write = [&](const QRectF& place, const QString& words) {
            painter.drawText(as_read(*this, place), int(Qt::AlignVCenter | Qt::AlignAbsolute | beginning(*this)),
                             words);
        };
        write(QRectF(space::knot_indent, 4, width() - space::knot_indent, 20), text());
        const int beside = in_one_line() ? painter.fontMetrics().horizontalAdvance(text()) + space::medium : 0;
        painter.setFont(face(type::small));
        painter.setPen(isChecked() ? theme().amber : theme().quiet);
        const int left = space::knot_indent + beside;
        const QString line = painter.fontMetrics().elidedText(body_->summary(), Qt::ElideRight, width() - left - 6);
        write(QRectF(left, in_one_line() ? 5 : 23, width() - left, in_one_line() ? 20 : 17), line);
    }
    bool event(QEvent* event) override {
        if (event->type() == QEvent::ToolTip) setToolTip(body_->summary());
        return QAbstractButton::event(event);
    }

  private:
    bool in_one_line() const { return close_ && !isChecked(); }

    StepBody* body_;
    bool close_ = false;
};

// Carries the line that the knots are tied into.
class Rope : public QWidget {
  public:
    void tie(QWidget* knot) { knots_.push_back(knot); }
    std::function<void()> when_laid_out;

  protected:
    bool event(QEvent* event) override {
        // The knots are about to move: the line between them must follow once they have.
        if (event->type() == QEvent::LayoutRequest)
            QMetaObject::invokeMethod(
                this,
                [this] {
                    when_laid_out();
                    update();
                },
                Qt::QueuedConnection);
        return QWidget::event(event);
    }
    void paintEvent(QPaintEvent*) override {
        QPainter painter(this);
        painter.fillRect(rect(), theme().ground);
        if (knots_.empty()) return;
        const double x = as_read(*this, QRectF(space::large, 0, space::knot, 0)).center().x();
        painter.setPen(QPen(theme().line, 2));
        painter.drawLine(QPointF(x, knots_.front()->y() + 16), QPointF(x, knots_.back()->y() + 16));
    }

  private:
    std::vector<QWidget*> knots_;
};

StepBody::StepBody(QWidget* parent) : Page(parent) {
    const bool from_left = layoutDirection() == Qt::LeftToRight;
    column()->setContentsMargins(from_left ? space::knot_indent : space::medium, 2,
                                 from_left ? space::medium : space::knot_indent, space::medium);
}

StepLine::StepLine(QWidget* parent) : QScrollArea(parent) {
    setObjectName(QStringLiteral("step_line"));
    setAccessibleName(tr("Steps"));
    setFixedWidth(space::step_line_width);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setWidgetResizable(true);
    rope_ = new Rope;
    column_ = new QVBoxLayout(rope_);
    column_->setContentsMargins(0, space::medium, 0, space::medium);
    column_->setSpacing(0);
    column_->addStretch();
    setWidget(rope_);
    rope_->when_laid_out = [this] { make_room(); };
}

// All steps are in view: where not everything fits, those that are closed take one line each, for as long as the same
// step is open, and the open one scrolls in the room that is left. So a page that needs more or less moves nothing
// above it. As wide as the longest words need, which differ by language; never narrower again, so that nothing jumps.
void StepLine::make_room() {
    if (open_ < 0) return;
    constexpr int widest = 430, least_room = 160;
    QWidget* body = bodies_[std::size_t(open_)];
    const int bar = rooms_[std::size_t(open_)]->verticalScrollBar()->sizeHint().width();
    setFixedWidth(std::max(width(), std::min(body->minimumSizeHint().width() + bar, widest)));
    const auto height_in = [&](int wide) {
        return body->layout()->hasHeightForWidth() ? body->layout()->totalHeightForWidth(wide)
                                                   : body->sizeHint().height();
    };
    const int wide = viewport()->width();
    const int of_body = height_in(wide), margins = 2 * space::medium;
    close_ = close_ || int(knots_.size()) * StepKnot::height_of_two_lines + of_body + margins > viewport()->height();
    int of_knots = 0;
    for (StepKnot* knot : knots_) {
        knot->set_close(close_);
        of_knots += knot->height();
    }
    const int left = std::max(least_room, viewport()->height() - of_knots - margins);
    rooms_[std::size_t(open_)]->setFixedHeight(of_body <= left ? of_body : std::min(height_in(wide - bar), left));
}

bool StepLine::eventFilter(QObject* watched, QEvent* event) {
    // What is in the open step wants another height.
    if (event->type() == QEvent::LayoutRequest && open_ >= 0 && watched == bodies_[std::size_t(open_)])
        QMetaObject::invokeMethod(this, &StepLine::make_room, Qt::QueuedConnection);
    return QScrollArea::eventFilter(watched, event);
}

void StepLine::resizeEvent(QResizeEvent* event) {
    QScrollArea::resizeEvent(event);
    if (event->size().height() != event->oldSize().height()) close_ = false;
    make_room();
}

void StepLine::add(StepBody* body) {
    const int index = int(bodies_.size());
    auto* knot = new StepKnot(body, widget());
    knot->setAccessibleName(tr("Step %1").arg(body->title()));
    knot->setObjectName(QStringLiteral("knot_%1").arg(index));
    column_->insertWidget(column_->count() - 1, knot);
    auto* room = new QScrollArea(widget());
    room->setObjectName(QStringLiteral("step_room_%1").arg(index));
    room->setFocusPolicy(Qt::NoFocus);
    room->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    room->setWidgetResizable(true);
    room->setWidget(body);
    // The rope goes on behind.
    room->viewport()->setAutoFillBackground(false);
    body->setAutoFillBackground(false);
    room->hide();
    column_->insertWidget(column_->count() - 1, room);
    body->installEventFilter(this);
    rope_->tie(knot);
    rooms_.push_back(room);
    bodies_.push_back(body);
    knots_.push_back(knot);
    connect(knot, &QAbstractButton::clicked, this, [this, index] { open(index); });
    connect(body, &StepBody::summary_changed, knot, [knot, body] {
        knot->setAccessibleDescription(body->needs_look() ? tr("%1; needs a look").arg(body->summary())
                                                          : body->summary());
        knot->update();
    });
}

void StepLine::open(const StepBody* body) {
    for (std::size_t i = 0; i < bodies_.size(); ++i)
        if (bodies_[i] == body) open(int(i));
}

void StepLine::open(int index) {
    if (index < 0 || index >= int(bodies_.size())) return;
    if (open_ >= 0 && open_ != index) bodies_[std::size_t(open_)]->closed();
    if (open_ != index) close_ = false;
    open_ = index;
    for (std::size_t i = 0; i < bodies_.size(); ++i) {
        rooms_[i]->setVisible(int(i) == index);
        knots_[i]->setChecked(int(i) == index);
        knots_[i]->settle();
    }
    make_room();
    bodies_[std::size_t(index)]->opened();
    ensureWidgetVisible(knots_[std::size_t(index)]);
    widget()->update();
    emit step_opened(index);
}

}  // namespace bp::app
