// What the left button does on the picture while a step needs it for something of its own.
#pragma once

#include <QPainter>
#include <QPointF>
#include <optional>

namespace bp::app {

// Places are in pixels of the canvas widget.
class CanvasTool {
  public:
    virtual ~CanvasTool() = default;
    // The button went down: true when the tool takes it, false when the canvas is to be dragged along.
    virtual bool press(QPointF at) = 0;
    virtual void drag(QPointF at) = 0;
    virtual void release() = 0;
    // The drag is given up: nothing comes of it.
    virtual void cancel() = 0;
    // What the pointer looks like there; none: as over any picture.
    virtual std::optional<Qt::CursorShape> cursor_at(QPointF at) const = 0;
    virtual void paint(QPainter& painter) const = 0;
};

}  // namespace bp::app
