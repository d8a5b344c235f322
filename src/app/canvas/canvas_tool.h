// What the left button does on the picture while a step needs it for something of its own.
#pragma once

#include <QPainter>
#include <QPointF>
#include <QRect>
#include <optional>

namespace bp::app {

// Places are in pixels of the canvas widget.
class CanvasTool {
  public:
    virtual ~CanvasTool() = default;
    // The button went down: true when the tool takes it, false when the canvas is to be dragged along.
    virtual bool press(QPointF at) = 0;
    // Whether a person took it up and may leave it: not when it only waits for something of its own to be held.
    virtual bool taken_up() const { return true; }
    // The part of the widget that is to be drawn anew; none: all of it.
    virtual std::optional<QRect> drag(QPointF at) = 0;
    virtual void release() = 0;
    // The drag is given up: nothing comes of it.
    virtual void cancel() = 0;
    // What the pointer looks like there; none: as over any picture.
    virtual std::optional<Qt::CursorShape> cursor_at(QPointF at) const = 0;
    // Over the picture and below all else, in the part of the widget that is drawn.
    virtual void paint_below(QPainter& /*painter*/, const QRect& /*shown*/) const {}
    virtual void paint(QPainter& painter) const = 0;
    // What is drawn where the pointer is, so that it follows the pointer; nothing for most tools.
    virtual QRect mark_at(QPointF /*at*/) const { return {}; }
};

}  // namespace bp::app
