// Edits of the finish: functions from one pile to the next. A place that is not in the finish changes nothing; values
// are kept within their limits.
#pragma once

#include <utility>

#include "pile/pile.h"

namespace bp {

Pile with_finish(Pile pile, Finish finish);
Pile with_finish_look(Pile pile, const Look& look);
Pile with_curves(Pile pile, const Curves& curves);
Pile with_colour_ranges(Pile pile, const std::vector<ColourRange>& ranges);
Pile with_tints(Pile pile, const TwoTints& tints);
Pile with_detail(Pile pile, const Detail& detail);
Pile with_given_back(Pile pile, bool on);
Pile with_glow(Pile pile, double strength);
Pile with_edge_shade(Pile pile, const EdgeShade& shade);

// A new place, done after the others: all of the picture, or of its sky or land. Returns the pile and its id.
std::pair<Pile, int> with_new_place(Pile pile, PlaceIn in, const Mask& mask);
// The same drawn by a shape, which can be pulled for as long as nothing is painted into it.
std::pair<Pile, int> with_new_place(Pile pile, const DrawnShape& shape);
Pile with_place_shape(Pile pile, int place, const DrawnShape& shape, double soft);
// What a place keeps, painted: it has no shape any more.
Pile with_place_mask(Pile pile, int place, const Mask& mask);
// A copy of a place after it.
std::pair<Pile, int> with_copied_place(Pile pile, int place);
Pile with_place(Pile pile, const FinishPlace& place);  // in place of the one of its id
Pile without_place(Pile pile, int place);
// Moves a place by so many in the order in which they are done.
Pile with_place_moved(Pile pile, int place, int steps);
const FinishPlace* find_place(const Pile& pile, int place);
// What a place keeps, as a mask: painted, or drawn by its shape.
Mask mask_of(const FinishPlace& place, Size size);

// A spot or a line that is mended, after the others; returns the pile and its id. One of nothing changes nothing.
std::pair<Pile, int> with_mended(Pile pile, Mended mended);
Pile with_mended_changed(Pile pile, const Mended& mended);  // in place of the one of its id
Pile without_mended(Pile pile, int id);
const Mended* find_mended(const Pile& pile, int id);

// A finish of a picture of one size, for one of another: masks are scaled, all else stays.
Finish fitted(const Finish& finish, Size from, Size to);

}  // namespace bp
