// The end of a trail that stands out from the rest of it.
#pragma once

#include <cstddef>

#include "merge/taper.h"

namespace bp {

// What softening a frame means: a Gaussian in linear light whose standard deviation is half of the radius, in pixels of
// level 0. With `as_bright`, lights keep the brightness of their middles though they grow, see FrameStages::softened().
struct Softening {
    static constexpr double widest_px = 24;

    double radius_px = 0;  // 0 to widest_px; 0: as it is
    bool as_bright = true;
    friend bool operator==(const Softening&, const Softening&) = default;
};

// Head and gap at the end of the run that does not fade: the new one, or the old one when trails fade at the new.
struct Head {
    static constexpr int most_frames = 10;
    static constexpr int most_apart = 40;

    bool on = false;
    int frames = 1;  // that stand out, 1 to most_frames
    int apart = 0;   // that are left out between them and the tail, 0 to most_apart
    Softening softening;
    friend bool operator==(const Head&, const Head&) = default;
};

enum class OfTrail { tail, apart, head };

// What frame `number` of `count` in the order of the run belongs to. The head comes first: it is whole as long as there
// are frames.
OfTrail part_of_trail(const Head& head, TaperEnd fades, std::size_t number, std::size_t count);

}  // namespace bp
