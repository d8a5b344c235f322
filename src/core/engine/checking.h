// What a person may have overlooked in a picture before it goes out.
#pragma once

#include <vector>

#include "base/job.h"
#include "engine/store.h"
#include "pile/pile.h"

namespace bp {

// Nothing reaches there; a part covers one below it that was to be seen; the border of a part cuts through something.
enum class Flaw { hole, overlap, ghost };

struct Flawed {
    Flaw flaw = Flaw::hole;
    int part = 0;   // of a ghost, and the upper one of two
    int other = 0;  // the lower one
    Rect where;     // canvas pixels, level 0
};

// Holes within what is exported (none on a canvas that a person made larger), parts of a sequence that cover each
// other, and pieces of the borders of parts that lie over what is below along which the two differ strongly. Looked
// for in the picture scaled down. Of every kind the largest first.
Result<std::vector<Flawed>> flaws_of(const Pile& pile, FrameStore& store, Job& job);

}  // namespace bp
