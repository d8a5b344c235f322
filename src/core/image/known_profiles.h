// Profiles that pictures are written in, beside that of the pile.
#pragma once

#include <array>

#include "image/profile.h"

namespace bp {

// Chromaticities of red, green, blue and white (CIE x, y).
struct Primaries {
    std::array<std::array<double, 2>, 4> xy;
};

enum class KnownProfile { srgb, display_p3, rec2020 };
// IEC 61966-2-1; Display P3 (the primaries of SMPTE EG 432-1 with the curve of sRGB); Rec. ITU-R BT.2020 with its
// curve of 12 bits. The same bytes always.
Profile known_profile(KnownProfile which);
const Primaries& primaries_of(KnownProfile which);

}  // namespace bp
