// What mouse and keys do on the picture.
#include <QAccessible>
#include <QApplication>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPointingDevice>
#include <QTabletEvent>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>
#include <utility>

#include "app/canvas/canvas.h"

namespace bp::app {
namespace {

constexpr double wheel_step = 1.2;

bool enter_in(const QKeyEvent* event) {
    return event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter;
}

}  // namespace

void Canvas::wheelEvent(QWheelEvent* event) {
    const double steps = event->angleDelta().y() / 120.0;
    if (event->modifiers().testFlag(Qt::ShiftModifier)) {
        // Flips through the frames; the view stays where it is.
        if (steps != 0) studio_.step_current(steps > 0 ? -1 : 1);
        if (viewer_.hides_choice()) viewer_.set_view(View::frame);
        event->accept();
        return;
    }
    zoom_to(zoom_ * std::pow(wheel_step, steps), event->position());
    event->accept();
}

bool Canvas::put_down(QPointF at) {
    if (!studio_.document().open()) return false;
    tool_works_ = at_hand() && at_hand()->press(at);
    return tool_works_;
}

void Canvas::move_to(QPointF at) {
    const QPointF before = std::exchange(pointer_, at);
    if (!tool_works_) emit pointed(to_canvas(at));
    const QPointF p = screen_to_shown(at);
    const auto from = viewer_.origin_at(int(std::floor(p.x())), int(std::floor(p.y())));
    const int frame = from ? from->first : 0;
    if (std::exchange(pointed_origin_, frame) != frame) emit origin_pointed(frame);
    if (tool_works_) {
        const std::optional<QRect> changed = at_hand()->drag(pointer_);
        if (!changed) return update();
        update(*changed);
    }
    moved_from(before);
}

void Canvas::lift() {
    down_by_key_ = false;
    if (!std::exchange(tool_works_, false)) return;
    at_hand()->release();
    emit pointed(to_canvas(pointer_));
}

void Canvas::click(QPointF at) {
    emit clicked(to_canvas(at));
    const QPointF p = screen_to_shown(at);
    const auto from = viewer_.origin_at(int(std::floor(p.x())), int(std::floor(p.y())));
    if (from && from->first != 0) studio_.select(from->first);
}

// What a pen does comes again as of a mouse; here only what a mouse cannot tell.
void Canvas::tabletEvent(QTabletEvent* event) {
    const bool down = event->type() == QEvent::TabletPress || event->buttons() != Qt::NoButton;
    pen_pressure_ = down && event->pointingDevice()->hasCapability(QInputDevice::Capability::Pressure)
                        ? std::clamp(event->pressure(), 0.0, 1.0)
                        : 1;
    pen_erases_ = down && event->pointerType() == QPointingDevice::PointerType::Eraser;
    event->ignore();
}

void Canvas::mousePressEvent(QMouseEvent* event) {
    pointer_ = event->position();
    if (event->button() == Qt::LeftButton && on_divider(pointer_)) {
        dividing_ = true;
        return;
    }
    marked_ = false;
    lift();
    pressed_ = event->position();
    if (event->button() == Qt::LeftButton && put_down(pointer_)) {
        update();
    } else if (event->button() == Qt::LeftButton || event->button() == Qt::MiddleButton ||
               event->button() == Qt::RightButton) {
        panning_ = true;
        grabbed_ = event->position();
        setCursor(Qt::ClosedHandCursor);
    }
}

void Canvas::mouseMoveEvent(QMouseEvent* event) {
    marked_ = false;
    if (dividing_) {
        pointer_ = event->position();
        set_divider(pointer_.x() / width());
        return;
    }
    if (panning_) {
        pointer_ = event->position();
        centre_ -= (pointer_ - grabbed_) / zoom_;
        grabbed_ = pointer_;
        keep_inside();
        ask();
        update();
        return;
    }
    if (!tool_works_ && (comparison_.on() || tool_)) settle_cursor(event->position());
    move_to(event->position());
}

void Canvas::mouseReleaseEvent(QMouseEvent* event) {
    lift();
    // A drag moves the picture.
    const bool clicked = (event->position() - pressed_).manhattanLength() < QApplication::startDragDistance();
    if (std::exchange(panning_, false) && clicked) {
        if (event->button() == Qt::LeftButton) click(event->position());
        if (event->button() == Qt::RightButton) emit menu_wanted(event->globalPosition().toPoint());
    }
    dividing_ = false;
    settle_cursor(pointer_);
    update();
}

// By the key alone: the right button also moves the picture, and asks when it is let go.
void Canvas::contextMenuEvent(QContextMenuEvent* event) {
    if (event->reason() == QContextMenuEvent::Keyboard) emit menu_wanted(event->globalPos());
}

void Canvas::mouseDoubleClickEvent(QMouseEvent* event) {
    if (at_hand() && at_hand()->cursor_at(event->position())) {
        mousePressEvent(event);
        return;
    }
    if (fitted_)
        zoom_to(pixel_by_pixel(), event->position());
    else
        fit();
}

void Canvas::leaveEvent(QEvent*) {
    if (marked_) return;
    pointer_ = {-1, -1};
    update();
}

void Canvas::keyPressEvent(QKeyEvent* event) {
    const QPointF way = event->key() == Qt::Key_Left    ? QPointF(-1, 0)
                        : event->key() == Qt::Key_Right ? QPointF(1, 0)
                        : event->key() == Qt::Key_Up    ? QPointF(0, -1)
                        : event->key() == Qt::Key_Down  ? QPointF(0, 1)
                                                        : QPointF();
    if (!way.isNull() && event->modifiers() == (Qt::ControlModifier | Qt::ShiftModifier)) {
        move_mark(way);
    } else if (enter_in(event) && !at_hand()) {
        move_mark({});
        click(pointer_);
    } else if (enter_in(event) && at_hand()) {
        if (event->isAutoRepeat()) return;
        move_mark({});
        down_by_key_ = put_down(pointer_);
        if (!down_by_key_) click(pointer_);
        update();
    } else {
        QWidget::keyPressEvent(event);
    }
}

void Canvas::keyReleaseEvent(QKeyEvent* event) {
    if (!down_by_key_ || !enter_in(event) || event->isAutoRepeat()) {
        QWidget::keyReleaseEvent(event);
        return;
    }
    lift();
    update();
}

void Canvas::move_mark(QPointF by) {
    const QPointF at = rect().contains(pointer_.toPoint()) ? pointer_ + by : QPointF(width() / 2.0, height() / 2.0);
    const QPointF inside(std::clamp(at.x(), 0.0, width() - 1.0), std::clamp(at.y(), 0.0, height() - 1.0));
    // At the edge the picture comes along.
    if (at != inside) {
        centre_ += (at - inside) / zoom_;
        keep_inside();
        ask();
    }
    marked_ = true;
    move_to(inside);
    update();
    // Aids say where the mark is and what is there.
    QAccessibleEvent moved(this, QAccessible::NameChanged);
    QAccessible::updateAccessibility(&moved);
}

void Canvas::focusOutEvent(QFocusEvent* event) {
    // The key is let go elsewhere.
    if (down_by_key_) lift();
    marked_ = false;
    update();
    QWidget::focusOutEvent(event);
}

}  // namespace bp::app
