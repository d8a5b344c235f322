// What parts hide of parts that lie below them.
#pragma once

#include <vector>

#include "pile/pile.h"

namespace bp {

struct Hidden {
    int part = 0;
    double share = 0;  // of all that it keeps, 0 to 1
    int by = 0;        // the part that hides most of it
};

// Of every part that shows and of which something lies under parts that are laid over it, as their masks have it: edges
// that are solved run elsewhere in their bands. From the lowest up. Counted in the picture scaled down.
std::vector<Hidden> hidden_parts(const Pile& pile);

// Where a part is hidden: whole there, nothing elsewhere. Its pixels are those of a level of the canvas from `left` and
// `top` of that level on, of at most `side` in each direction.
struct HiddenPlace {
    Mask mask;
    int level = 0, left = 0, top = 0;
};
HiddenPlace hidden_place(const Pile& pile, int part, int side);

}  // namespace bp
