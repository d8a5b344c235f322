// Pictures as local contrast.
#pragma once

namespace bp::kernels {

// What differs from its surroundings, in deviations of these: out = (s - m) / sqrt(v + faint^2), where s is the picture
// after binomial weights over 5 x 5 pixels, m and v the mean and variance of s over the 31 x 31 pixels around, as far
// as the picture reaches. Brightness from 0 to 1 comes in; rows follow each other without padding. Pure; any thread.
void local_contrast(const float* in, int width, int height, float faint, float* out);

}  // namespace bp::kernels
