#include "even/look_in_light.h"

#include <cmath>
#include <numbers>
#include <span>

#include "even/tone.h"
#include "kernels/light_rows.h"

namespace bp {
namespace {

// Whether the look bends tones, beside what are gains and colours.
bool bends_tones(const Look& look) {
    Look tones = look;
    tones.exposure_ev = tones.warmth = tones.green_to_magenta = 0;
    tones.colour_strength = tones.pale_colours = tones.hue_at = tones.hue_turn = 0;
    return tones != Look{};
}

}  // namespace

LookInLight::LookInLight(const Look& look, const Profile& profile, int channels) : look_(look), channels_(channels) {
    const std::array<double, 3> luminance = channels == 3 ? luminance_weights(profile) : std::array<double, 3>{0, 1, 0};
    if (channels == 1) look_.warmth = look_.green_to_magenta = 0;
    const std::array<double, 3> gains = gains_of(look_, luminance);
    for (std::size_t c = 0; c < 3; ++c) {
        gains_[c] = float(gains[c]);
        luminance_[c] = float(luminance[c]);
    }
    if (!bends_tones(look_)) return;
    roots_ = kernels::roots_of([&](double light) { return toned(look_, light); });
}

void LookInLight::run(float* light, std::size_t pixels) const {
    constexpr double degree = std::numbers::pi / 180;
    if (channels_ == 1) {
        for (std::size_t i = 0; i < pixels; ++i) light[i] *= gains_[1];
    } else {
        const kernels::HueChange hue{{float(std::cos(look_.hue_at * degree)), float(std::sin(look_.hue_at * degree)),
                                      float(look_.hue_turn * degree)},
                                     0,
                                     0};
        kernels::LightColours how{
            gains_, luminance_, float(look_.colour_strength / 100), float(look_.pale_colours / 100), {}};
        if (look_.hue_turn != 0) how.hues = {&hue, 1};
        kernels::colour_light(how, light, pixels);
    }
    if (!roots_.empty()) kernels::light_by({roots_.data(), roots_.data(), roots_.data()}, light, pixels, channels_);
}

}  // namespace bp
