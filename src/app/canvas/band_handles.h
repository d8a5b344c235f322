// A straight band on the picture that is pulled by its ends and by its side, in pixels of the canvas widget.
#pragma once

#include <QPainter>
#include <optional>

namespace bp::app {

struct BandHandles {
    enum class Hold { from, to, width };

    QPointF from, to;
    double radius = 0;

    std::optional<Hold> hold_at(QPointF at) const;
    // From the line to the handle of the width, of length 1.
    QPointF across() const;
    // With its outline while it is held.
    void paint(QPainter& painter, bool held) const;

  private:
    QPointF side() const;
};

}  // namespace bp::app
