#include "kernels/develop.h"

namespace bp::kernels {
namespace {

template <class T>
void look_up_samples(const T* in, std::size_t pixels, int channels, const std::uint16_t* const* tables,
                     std::uint16_t* out) {
    if (channels == 1) {
        for (std::size_t i = 0; i < pixels; ++i) out[i] = tables[0][in[i]];
        return;
    }
    for (std::size_t i = 0; i < 3 * pixels; i += 3) {
        out[i] = tables[0][in[i]];
        out[i + 1] = tables[1][in[i + 1]];
        out[i + 2] = tables[2][in[i + 2]];
    }
}

template <class T>
void colour_samples(const T* in, std::size_t pixels, const Colouring& how, std::uint16_t* out) {
    for (std::size_t i = 0; i < 3 * pixels; i += 3) {
        const float r = how.light[0][in[i]];
        const float g = how.light[1][in[i + 1]];
        const float b = how.light[2][in[i + 2]];
        const float grey = how.luminance[0] * r + how.luminance[1] * g + how.luminance[2] * b;
        const float most = std::max({r, g, b});
        const float colourful = most > 0 ? (most - std::min({r, g, b})) / most : 0;
        const float apart = std::max(0.0F, 1 + how.saturation + how.vibrance * (1 - colourful));
        out[i] = tone_sample(how.tone, grey + apart * (r - grey));
        out[i + 1] = tone_sample(how.tone, grey + apart * (g - grey));
        out[i + 2] = tone_sample(how.tone, grey + apart * (b - grey));
    }
}

}  // namespace

void look_up(const std::uint8_t* in, std::size_t pixels, int channels, const std::uint16_t* const* tables,
             std::uint16_t* out) {
    look_up_samples(in, pixels, channels, tables, out);
}

void look_up(const std::uint16_t* in, std::size_t pixels, int channels, const std::uint16_t* const* tables,
             std::uint16_t* out) {
    look_up_samples(in, pixels, channels, tables, out);
}

void colour(const std::uint8_t* in, std::size_t pixels, const Colouring& how, std::uint16_t* out) {
    colour_samples(in, pixels, how, out);
}

void colour(const std::uint16_t* in, std::size_t pixels, const Colouring& how, std::uint16_t* out) {
    colour_samples(in, pixels, how, out);
}

}  // namespace bp::kernels
