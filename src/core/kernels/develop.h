// Tone and colour of rows.
#pragma once

#include <algorithm>
#include <array>
#include <cmath>
#include <cstddef>
#include <cstdint>

namespace bp::kernels {

// A table of samples over the square root of light: `tone_steps` entries up to white, as many again up to four times
// white, and one more. Read with linear interpolation and rounded.
constexpr int tone_steps = 16384;
inline std::uint16_t tone_sample(const float* table, float light) {
    const float place = std::min(std::sqrt(std::max(light, 0.0F)) * float(tone_steps), float(2 * tone_steps));
    const int at = int(place);
    const float value = table[at] + (table[at + 1] - table[at]) * (place - float(at));
    const float rounded = value + 0.5F;
    return std::uint16_t(rounded);
}

// Every sample by the table of its channel: of 256 entries for 8-bit samples, of 65536 for others. `tables` points at
// the channels' tables, `channels` is 1 or 3.
void look_up(const std::uint8_t* in, std::size_t pixels, int channels, const std::uint16_t* const* tables,
             std::uint16_t* out);
void look_up(const std::uint16_t* in, std::size_t pixels, int channels, const std::uint16_t* const* tables,
             std::uint16_t* out);

// Colours of one range of hues turned about grey, in the plane of red - (green + blue) / 2 and sqrt(3)/2 (green -
// blue).
struct HueTurn {
    float across = 1;  // the middle of the range: cosine and sine of its hue
    float down = 0;
    float radians = 0;  // by which its middle is turned; 60 degrees away nothing is. At most a third of pi
};

// Pixels of three channels whose colours are drawn apart or together in linear light.
struct Colouring {
    std::array<const float*, 3> light;  // of every sample of a channel, gains and all
    std::array<float, 3> luminance;     // weights that add up to one
    float strength = 0;                 // -1 takes all colour away, 1 doubles it
    float pale = 0;                     // the same for grey, less for what has colour
    const float* tone = nullptr;        // as tone_sample() reads it
    HueTurn hue;
};
void colour(const std::uint8_t* in, std::size_t pixels, const Colouring& how, std::uint16_t* out);
void colour(const std::uint16_t* in, std::size_t pixels, const Colouring& how, std::uint16_t* out);

}  // namespace bp::kernels
