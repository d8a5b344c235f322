// The taper over the time rail: how strong every frame of the run is, as a wedge whose corners and shape can be pulled,
// with the head and what lies between it and the tail.
#pragma once

#include <QPainter>
#include <QPointF>
#include <QRectF>
#include <functional>
#include <optional>
#include <vector>

#include "pile/pile.h"

namespace bp::app {

class TaperWedge {
  public:
    static constexpr double height = 44;
    enum class Handle { old_corner, new_corner, old_knot, new_knot };

    // In `band`, over the middles of the frames that a zone merges, in the order of the run. Nothing is seen where no
    // taper and no head is set, or strengths do not count.
    static bool seen(const Pile& pile, Zone zone);
    TaperWedge(const Taper& taper, const Head& head, std::vector<double> middles, const QRectF& band);

    void paint(QPainter& painter, std::optional<Handle> marked) const;
    // Where the frames of a part of the trails lie; nothing when there are none.
    QRectF place_of(OfTrail part) const;
    std::vector<Handle> handles() const;
    QPointF place_of(Handle handle) const;
    std::optional<Handle> at(QPointF p) const;
    // What the taper becomes when a handle is pulled there.
    Taper pulled(Handle handle, QPointF to) const;
    // What it becomes by a double-click: a straight line, if that is on a knot.
    Taper straightened(Handle handle) const;

  private:
    double x_of(double run) const;
    double run_at(double x) const;
    double y_of(double strength) const;

    Taper taper_;
    Head head_;
    std::vector<double> middles_;
    QRectF band_;
};

}  // namespace bp::app
