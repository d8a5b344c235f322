// How much a picture changes from pixel to pixel.
#pragma once

namespace bp::kernels {

// Sum over all pixels of the squared change to the right and down, a pixel, of the picture after binomial weights over
// 5 x 5 pixels; changes are Sobel's, over 3 x 3. What lies outside is mirrored at the outermost pixels. Rows follow
// each other without padding. Sums do not depend on the width of vectors. Pure; any thread.
double squared_change(const float* in, int width, int height);

}  // namespace bp::kernels
