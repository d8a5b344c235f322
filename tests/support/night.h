// A night with meteors that is exposed in a moment.
#pragma once

#include "practice/practice.h"
#include "support/fixtures.h"

namespace bp::test {

// Six small frames of the night watch into a folder; false when that failed.
inline bool write_night(const Folder& folder) {
    Job job;
    practice::PracticeOptions options;
    options.frames = 6;
    options.size = {960, 640};
    options.truth = false;
    return practice::practise(*practice::scene_named("night-watch"), folder.path(), options, job).ok();
}

}  // namespace bp::test
