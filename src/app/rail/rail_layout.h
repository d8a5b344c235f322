// Where the frames stand on the time rail.
#pragma once

#include <QRectF>
#include <vector>

#include "pile/pile.h"

namespace bp::app {

// The rail's own measures, from the top: a line of words, the traces, marks, slats, what lies below them.
namespace rail {
constexpr double side = 76;  // left and right of the slats
constexpr double header = 30;
constexpr double lane = 17;  // of one trace
constexpr double marks = 14;
constexpr double slat_height = 42;
constexpr double footer = 24;
}  // namespace rail

struct Slat {
    int id = 0;
    double left = 0;
    double width = 0;    // of what is shown of the frame: all of it where there is room
    double exposed = 0;  // how long it was exposed
    double right() const { return left + width; }
    double middle() const { return left + width / 2; }
};

struct RailLayout {
    std::vector<Slat> slats;          // one a frame, in the pile's order, from 0 on
    std::vector<std::size_t> breaks;  // frames before which a long pause was shortened
    double length = 0;                // of all
};

// Slats at their capture times, as wide as their exposures, and wider where there is room for all of a frame; pauses
// much longer than the run's usual step are shortened. Without capture times, or in another order, the frames stand
// evenly. All of them take up `room` at zoom 1, unless that makes few frames needlessly wide.
RailLayout lay_out_rail(const Pile& pile, double room, double zoom);

}  // namespace bp::app
