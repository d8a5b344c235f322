// Rows of tones, square roots of light as 32-bit floats: what finishing does with them and their surroundings. All of
// these are pure, run on any thread, and give every pixel the same whatever lies beside it.
#pragma once

#include <cstddef>

namespace bp::kernels {

struct Sharpening {
    float amount = 0;  // 1 doubles what a tone is off its soft surroundings
    float flat = 0;    // a difference of which half counts; smaller ones count less
    float halo = 0;    // how far what is made may go beyond the smallest and the largest tone near it
};
void sharpen(const Sharpening& how, const float* tones, const float* soft, const float* smallest, const float* largest,
             std::size_t samples, float* out);

// What tones are off their surroundings, `amount` times more, where there is room up to white and down to black.
// Differences as large as `strong` and larger get less of it. In place of the surroundings.
void draw_apart(float amount, float strong, const float* tones, std::size_t samples, float* surroundings);
// The same for differences of any size, never below black.
void draw_apart(float amount, const float* tones, std::size_t samples, float* surroundings);

// What the square root of one channel of pixels of three is off their tones.
void roots_off(const float* tones, const float* light, std::size_t channel, std::size_t pixels, float* out);
// Pixels of three channels whose tones, and what red and blue are off them, become others; green goes along, so that
// their luminance stays that of the tone.
struct Calmed {
    const float *tones, *red, *blue;  // as they were
    const float *to_tones, *to_red, *to_blue;
    float of_red, of_blue;  // how much luminance they have, in that of green
};
void calm(const Calmed& how, std::size_t pixels, float* light);

}  // namespace bp::kernels
