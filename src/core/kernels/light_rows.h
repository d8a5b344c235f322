// Rows of light as 32-bit floats, 1 being white, changed in place: what finishing does pixel by pixel. All of these are
// pure, run on any thread, and give every pixel the same whatever lies beside it.
#pragma once

#include <array>
#include <cstddef>
#include <functional>
#include <span>
#include <vector>

#include "kernels/develop.h"

namespace bp::kernels {

// A curve of light as a table of the square roots that it makes, over the square root of light, with tone_steps
// entries up to white, as many again up to four times white, and one more. Light beyond that counts as four times
// white.
std::vector<float> roots_of(const std::function<double(double light)>& curve);
// Every sample by the table of its channel; `channels` is 1 or 3.
void light_by(const std::array<const float*, 3>& roots, float* light, std::size_t pixels, int channels);

// Colours of one range of hues, the more of it the nearer its middle.
struct HueChange {
    HueTurn turn;
    float strength = 0;  // -1 takes the colour away, 1 doubles it
    float stops = 0;     // brighter by a power of two, the more colourful the pixel
};
// Pixels of three channels.
struct LightColours {
    std::array<float, 3> gains{1, 1, 1};
    std::array<float, 3> luminance{};  // weights that add up to one
    float strength = 0;                // -1 takes all colour away, 1 doubles it
    float pale = 0;                    // the same for grey, less for what has colour
    std::span<const HueChange> hues;   // one after the other
};
void colour_light(const LightColours& how, float* light, std::size_t pixels);

// Dark tones drawn towards one colour and bright ones towards another, by their luminance, which stays.
struct TwoColours {
    std::array<float, 3> luminance{};
    std::array<float, 3> dark{}, bright{};  // off grey, of no luminance, as shares of a pixel's own
    float middle = 0.5F;                    // the square root of light at which both are half
};
void tint_light(const TwoColours& how, float* light, std::size_t pixels);

// out += share / 255 * (over - out), for every sample of a pixel; `strength` times that.
void mix_light(const float* over, const unsigned char* share, float strength, std::size_t pixels, int channels,
               float* out);

// The square root of each pixel's luminance; light below black counts as black.
void tones_of(const float* light, std::size_t pixels, int channels, const std::array<float, 3>& luminance, float* out);
// Pixels whose tones become others: light times (to / from)^2. A pixel that was black becomes grey.
void bring_to_tones(const float* from, const float* to, std::size_t pixels, int channels, float* light);

// out += what `fine` has more than `coarse`, but for what is no more than `noise`; what is well above it is kept nearly
// whole.
void add_above_noise(const float* fine, const float* coarse, float noise, std::size_t samples, float* out);

}  // namespace bp::kernels
