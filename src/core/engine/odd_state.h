// What keeps a pile from giving the picture that is meant, when something does.
#pragma once

#include "pile/pile.h"

namespace bp {

enum class OddState {
    none,
    unreadable,  // none of the frames can be used
    only_darks,  // those that can are all dark frames
    all_aside,   // all that could be merged are set aside
    unaligned,   // of several frames none came to lie on the reference
    no_cover     // the picture is to show what all frames reach, and nothing is
};

// The first of them that holds. Pure; any thread.
OddState odd_state(const Pile& pile);

}  // namespace bp
