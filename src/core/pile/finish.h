// What is done to the picture as a whole, kept as values: what a finish file holds.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "even/look.h"
#include "finish/colours.h"
#include "finish/curve.h"
#include "finish/detail.h"
#include "finish/mend.h"
#include "finish/shade.h"
#include "image/mask.h"
#include "parts/shapes.h"

namespace bp {

// Where a place of the picture lies: where its mask keeps it, and of that all, or what is sky or land.
enum class PlaceIn { everywhere, sky, land };

// An area with tone, colour and detail of its own, on top of what the whole picture has.
struct FinishPlace {
    int id = 0;  // unique in the finish
    std::string name;
    // What it is drawn by, in pixels of the reference, and how softly an ellipse ends (share_at()); once something else
    // is painted into it there is a mask in its stead.
    std::optional<DrawnShape> shape;
    double soft = 0.5;
    Mask mask;  // kept: in pixels of the reference, level 0; beyond it goes on as at its edges
    PlaceIn in = PlaceIn::everywhere;
    Look look;
    Detail detail;
    bool on = true;
    double strength = 1;  // 0 to 1
    friend bool operator==(const FinishPlace&, const FinishPlace&) = default;
};

// As it stands here it changes nothing.
struct Finish {
    Look look;
    Curves curves;
    std::vector<ColourRange> colours;
    TwoTints tints;
    std::vector<FinishPlace> places;  // from the first that is done to the last
    Detail detail;
    EdgeShade edges;
    bool give_back = false;      // the contrast that placing the frames took
    std::vector<Mended> mended;  // of the picture as it is composed, before all else
    double glow = 0;             // how much of the sky's uneven brightness and colour is evened, hundredths
    friend bool operator==(const Finish&, const Finish&) = default;
};

}  // namespace bp
