// The turning sky: all frames of a run placed at once.
#pragma once

#include <optional>
#include <vector>

#include "align/align.h"
#include "align/find_stars.h"

namespace bp {

// What is known of one frame.
struct SkyFrame {
    std::vector<Star> stars;       // from the brightest on
    std::optional<double> time_s;  // the middle of its exposure
};

// Places every frame against frame `reference` as a camera on a tripod under the sky sees it: a turn about the pole by
// what the clock says (15.041 degrees an hour), a small turn and shift of the camera's own, and a lens with radial
// distortion, fitted together over all frames and stars (bundle adjustment; Triggs and others, "Bundle adjustment - a
// modern synthesis", 2000; by Ceres). No catalogue is needed: the pole and the focal length are found by trying all,
// for the pair of frames that lie nearest in time. Frames in which too few stars agree are placed by the clock alone.
// In the order given; the reference has the identity. None when there are no times, or no pair of frames agrees.
std::optional<std::vector<Alignment>> place_sky(const std::vector<SkyFrame>& frames, std::size_t reference, Size size);

}  // namespace bp
