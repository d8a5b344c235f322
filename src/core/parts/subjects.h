// Subjects: what moves through a run of frames, with the shadow and the reflection that go along.
#pragma once

#include <vector>

#include "parts/differing.h"

namespace bp {

// Where a subject is in one frame.
struct SubjectPlace {
    std::size_t frame = 0;  // by its place in the run
    Rect box;               // of `mask` in the picture
    Raster8 mask;           // 255 where it is
};
struct Subject {
    std::vector<SubjectPlace> places;  // in the order of frames
};

// The things of every frame followed from frame to frame. What lies above or below a thing, or close to it, and is
// smaller, goes along with it; what goes along with nothing and has less than `least` pixels is none. The subject that
// is largest comes first; what is seen in one frame alone is none. Pure; any thread.
std::vector<Subject> subjects_in(const std::vector<std::vector<Thing>>& frames, std::size_t least);

}  // namespace bp
