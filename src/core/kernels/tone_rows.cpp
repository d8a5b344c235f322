#include "kernels/tone_rows.h"

#include <algorithm>
#include <cmath>

#include "kernels/wide.h"

namespace bp::kernels {
namespace {

// Black and white stay where they are.
BP_WITHIN float room_at(float tone) {
    return std::min(std::max(4 * tone * (1 - tone), 0.0F), 1.0F);
}

}  // namespace

BP_WIDE void sharpen(const Sharpening& how, const float* BP_APART tones, const float* BP_APART soft,
                     const float* BP_APART smallest, const float* BP_APART largest, std::size_t samples,
                     float* BP_APART out) {
    const float flat = how.flat * how.flat;
    for (std::size_t i = 0; i < samples; ++i) {
        const float off = tones[i] - soft[i];
        const float share = off * off / (off * off + flat + 1e-12F);
        const float made = tones[i] + how.amount * share * off;
        out[i] = std::min(std::max(made, smallest[i] - how.halo), largest[i] + how.halo);
    }
}

BP_WIDE void draw_apart(float amount, float strong, const float* BP_APART tones, std::size_t samples,
                        float* BP_APART surroundings) {
    const float square = strong * strong;
    for (std::size_t i = 0; i < samples; ++i) {
        const float off = tones[i] - surroundings[i];
        const float more = amount * off * square / (square + off * off);
        surroundings[i] = tones[i] + more * room_at(tones[i]);
    }
}

BP_WIDE void draw_apart(float amount, const float* BP_APART tones, std::size_t samples, float* BP_APART surroundings) {
    for (std::size_t i = 0; i < samples; ++i) {
        const float off = tones[i] - surroundings[i];
        surroundings[i] = std::max(tones[i] + amount * off * room_at(tones[i]), 0.0F);
    }
}

BP_WIDE void roots_off(const float* BP_APART tones, const float* BP_APART light, std::size_t channel,
                       std::size_t pixels, float* BP_APART out) {
    for (std::size_t i = 0; i < pixels; ++i) out[i] = std::sqrt(std::max(light[3 * i + channel], 0.0F)) - tones[i];
}

BP_WIDE void calm(const Calmed& how, std::size_t pixels, float* BP_APART light) {
    const float *BP_APART tones = how.tones, *BP_APART red = how.red, *BP_APART blue = how.blue;
    const float *BP_APART to_tones = how.to_tones, *BP_APART to_red = how.to_red, *BP_APART to_blue = how.to_blue;
    for (std::size_t i = 0; i < pixels; ++i) {
        float* p = light + 3 * i;
        const float green = std::sqrt(std::max(p[1], 0.0F)) - tones[i];
        const float to_green = green - how.of_red * (to_red[i] - red[i]) - how.of_blue * (to_blue[i] - blue[i]);
        const float r = std::max(to_tones[i] + to_red[i], 0.0F);
        const float g = std::max(to_tones[i] + to_green, 0.0F);
        const float b = std::max(to_tones[i] + to_blue[i], 0.0F);
        p[0] = r * r;
        p[1] = g * g;
        p[2] = b * b;
    }
}

}  // namespace bp::kernels
