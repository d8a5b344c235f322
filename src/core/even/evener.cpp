#include "even/evener.h"

#include <cmath>
#include <numbers>

#include "kernels/develop.h"

namespace bp {
namespace {

bool changes_colours(const Look& look) {
    return look.colour_strength != 0 || look.pale_colours != 0 || look.hue_turn != 0;
}

kernels::HueTurn hue_turn_of(const Look& look) {
    constexpr double degree = std::numbers::pi / 180;
    return {float(std::cos(look.hue_at * degree)), float(std::sin(look.hue_at * degree)),
            float(look.hue_turn * degree)};
}

}  // namespace

SharedTone::SharedTone(const Look& look, const Profile& profile, int channels)
    : look_(look),
      curve_(LightCurve::of(profile, channels)),
      luminance_(channels == 3 ? luminance_weights(profile) : std::array<double, 3>{0, 1, 0}),
      table_(std::make_shared<const ToneTable>(look, curve_)) {}

Evener::Evener(const SharedTone& tone, const std::array<double, 3>& level, int channels, int bits)
    : tone_(tone), channels_(channels) {
    const bool meet = channels == 3 && changes_colours(tone.look());
    Look of_light = tone.look();
    if (channels == 1) of_light.warmth = of_light.green_to_magenta = 0;
    const std::array<double, 3> gains = gains_of(of_light, tone.luminance());
    const std::size_t entries = bits == 8 ? 256 : 65536;
    const unsigned unit = bits == 8 ? 257 : 1;
    for (int c = 0; c < channels; ++c) {
        const auto at = std::size_t(c);
        const std::size_t of_gain = channels == 1 ? 1 : at;
        const auto gain = float(gains[of_gain] * level[of_gain] / LightCurve::full);
        if (meet)
            light_[at].resize(entries);
        else
            samples_[at].resize(entries);
        for (std::size_t v = 0; v < entries; ++v) {
            const float light = float(tone.curve().light(std::uint16_t(v * unit))) * gain;
            if (meet)
                light_[at][v] = light;
            else
                samples_[at][v] = tone.table().sample(light);
        }
    }
}

template <class T>
void Evener::run_any(const T* in, std::size_t pixels, std::uint16_t* out) const {
    if (light_[0].empty()) {
        const std::array<const std::uint16_t*, 3> tables{samples_[0].data(), samples_[1].data(), samples_[2].data()};
        kernels::look_up(in, pixels, channels_, tables.data(), out);
        return;
    }
    const auto& weights = tone_.luminance();
    kernels::colour(in, pixels,
                    {{light_[0].data(), light_[1].data(), light_[2].data()},
                     {float(weights[0]), float(weights[1]), float(weights[2])},
                     float(tone_.look().colour_strength / 100),
                     float(tone_.look().pale_colours / 100),
                     tone_.table().data(),
                     hue_turn_of(tone_.look())},
                    out);
}

void Evener::run(const std::uint8_t* in, std::size_t pixels, std::uint16_t* out) const {
    run_any(in, pixels, out);
}

void Evener::run(const std::uint16_t* in, std::size_t pixels, std::uint16_t* out) const {
    run_any(in, pixels, out);
}

}  // namespace bp
