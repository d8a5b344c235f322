// How the border of a part runs.
#pragma once

namespace bp {

// As it was painted; where it is seen least, within a band about where it was painted; or so that it is not seen: there
// as well, and the part's light goes over into that of what lies below.
enum class Edge { painted, seam, blended };

}  // namespace bp
