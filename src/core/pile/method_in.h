// Internal to the room: the method that an edit of a zone changes.
#pragma once

#include "pile/pile.h"

namespace bp {

// method_of() of a pile that is being edited.
inline Method& method_in(Pile& pile, Zone zone) {
    return pile.methods[pile.zones ? zone : Zone::sky];
}

}  // namespace bp
