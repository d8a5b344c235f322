// Pictures as local contrast.
#pragma once

namespace bp::kernels {

// What differs from its surroundings, in deviations of these: out = (s - m) / sqrt(v + faint^2), where s is the picture
// after binomial weights over 5 x 5 pixels. m and v, the mean and variance of s, are taken around every block of 2 x 2
// pixels, over 15 x 15 blocks as far as the picture reaches; m and one over the root lie straight between blocks.
// Brightness from 0 to 1 comes in; rows follow each other without padding. Pure; any thread.
void local_contrast(const float* in, int width, int height, float faint, float* out);

}  // namespace bp::kernels
