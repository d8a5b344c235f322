#include "even/tone.h"

#include <cmath>

#include "kernels/develop.h"

namespace bp {
namespace {

constexpr double eye = 2.2;

double floored(double light, double floor) {
    if (floor <= 0) return light;
    const double at = std::min(std::pow(floor / 100, eye), 0.999);
    const double knee = at / 2;
    const double above = light - at;
    const double soft = above <= -knee ? 0 : above >= knee ? above : (above + knee) * (above + knee) / (4 * knee);
    return soft / (1 - at);
}

// Above the middle, bent so that it still rises; the slope at the middle is one.
double bent(double tone, double highlights) {
    constexpr double middle = 0.5;
    const double above = tone - middle;
    if (above <= 0) return tone;
    const double h = highlights / 100;
    return middle + (h < 0 ? above / (1 - 0.8 * h * above) : above * (1 + 0.6 * h * above));
}

double lifted(double tone, double shadows) {
    const double dark = tone < 1 ? 1 - tone : 0;
    return tone + shadows / 100 * 0.5 * tone * dark * dark * dark;
}

double spread_out(double tone, double contrast) {
    if (tone >= 1) return tone;
    return tone + contrast / 100 * 1.6 * tone * (1 - tone) * (tone - 0.5);
}

// The sample of a light, not rounded.
double place_of(double light, const LightCurve& curve) {
    const double full = std::clamp(light, 0.0, 1.0) * LightCurve::full;
    int below = curve.sample(full);
    if (double(curve.light(std::uint16_t(below))) > full) --below;
    if (below >= 65535) return 65535;
    const double here = curve.light(std::uint16_t(below));
    const double next = curve.light(std::uint16_t(below + 1));
    return below + (next > here ? std::clamp((full - here) / (next - here), 0.0, 1.0) : 0);
}

}  // namespace

double toned(const Look& look, double light) {
    const double out = floored(std::max(light, 0.0), look.floor) * std::exp2(look.white / 100);
    if (look.shadows == 0 && look.highlights == 0 && look.contrast == 0) return out;
    const double tone = bent(lifted(std::pow(out, 1 / eye), look.shadows), look.highlights);
    return std::pow(spread_out(tone, look.contrast), eye);
}

std::array<double, 3> gains_of(const Look& look, const std::array<double, 3>& luminance) {
    const double warm = look.temperature / 200;
    const double magenta = look.tint / 300;
    std::array<double, 3> out{std::exp2(warm + magenta / 2), std::exp2(-magenta), std::exp2(-warm + magenta / 2)};
    double grey = 0;
    for (std::size_t c = 0; c < 3; ++c) grey += luminance[c] * out[c];
    for (double& gain : out) gain *= std::exp2(look.exposure_ev) / grey;
    return out;
}

ToneTable::ToneTable(const Look& look, const LightCurve& curve) {
    constexpr int last = 2 * kernels::tone_steps;
    samples_.resize(std::size_t(last) + 2);
    for (int i = 0; i < last + 2; ++i) {
        const double root = double(std::min(i, last)) / kernels::tone_steps;
        samples_[std::size_t(i)] = float(place_of(toned(look, root * root), curve));
    }
}

std::uint16_t ToneTable::sample(float light) const {
    return kernels::tone_sample(samples_.data(), light);
}

}  // namespace bp
