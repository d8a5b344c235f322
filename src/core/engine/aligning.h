// Aligning all frames of a pile.
#pragma once

#include <map>

#include "align/sky.h"
#include "base/job.h"
#include "engine/store.h"
#include "pile/pile.h"

namespace bp {

// A longer side than this gains no accuracy that one could see.
constexpr int measured_side = 2400;

// Every usable frame against `reference`, which gets the identity. Frames are read one a thread, halved until their
// long side is at most `longest_side` pixels. A frame that cannot be read counts as not aligned.
Result<std::map<int, Alignment>> align_frames(const Pile& pile, Model model, int reference, Job& job,
                                              int longest_side = measured_side);
// The same, and what is read of the frames on the way is kept in a store of the pile's working space, so that who looks
// at them at level_within(size, measured_side) needs not read them again; as far as files give it at once.
Result<std::map<int, Alignment>> align_and_keep(const Pile& pile, Model model, int reference, FrameStore& keep,
                                                Job& job);

// One frame from where it lies now. A frame under a lens is left as it is.
Result<Alignment> refine_frame(const Pile& pile, int id, Job& job, int longest_side = measured_side);

// The longest trail that a star may leave in a frame, in pixels of a picture `width` wide.
double longest_star_trail(const Frame& frame, int width);
// What the sky is placed by: a frame's stars, in pixels of level 0, those where the pile is not trusted left out.
SkyFrame sky_frame(const Pile& pile, const Frame& frame, std::vector<Star> stars);

}  // namespace bp
