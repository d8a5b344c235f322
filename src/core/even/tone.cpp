#include "even/tone.h"

#include <cmath>

#include "image/brightness.h"
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
double bent(double tone, double bright) {
    constexpr double middle = 0.5;
    const double above = tone - middle;
    if (above <= 0) return tone;
    const double h = bright / 100;
    return middle + (h < 0 ? above / (1 - 0.8 * h * above) : above * (1 + 0.6 * h * above));
}

double lifted(double tone, double deep) {
    const double dark = tone < 1 ? 1 - tone : 0;
    return tone + deep / 100 * 0.5 * tone * dark * dark * dark;
}

// A hill over the tones between black and white, flat at both ends; its slope is below 3.1, so a quarter of it leaves
// the curve rising.
double pulled(double tone, double middle) {
    if (tone >= 1) return tone;
    const double hill = 16 * tone * tone * (1 - tone) * (1 - tone);
    return tone + middle / 100 * 0.25 * hill;
}

// What would come out beyond white comes to it softly, the more of it there is.
double rounded_off(double tone, double peak) {
    if (peak <= 0) return tone;
    const double knee = 0.2 * peak / 100;
    if (tone <= 1 - knee) return tone;
    if (tone >= 1 + knee) return 1;
    return 1 - (1 + knee - tone) * (1 + knee - tone) / (4 * knee);
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
    const double out = floored(std::max(light, 0.0), look.floor) * std::exp2(look.peak / 100);
    if (look.deep == 0 && look.middle == 0 && look.bright == 0 && look.contrast == 0 && look.peak <= 0) return out;
    const double tone = bent(pulled(lifted(std::pow(out, 1 / eye), look.deep), look.middle), look.bright);
    return std::pow(rounded_off(spread_out(tone, look.contrast), look.peak), eye);
}

double tone_curve(const Look& look, double tone) {
    return std::pow(toned(look, std::pow(std::max(tone, 0.0), eye)), 1 / eye);
}

std::array<double, 3> gains_of(const Look& look, const std::array<double, 3>& luminance) {
    const double warm = look.warmth / 200;
    const double magenta = look.green_to_magenta / 300;
    std::array<double, 3> out{std::exp2(warm + magenta / 2), std::exp2(-magenta), std::exp2(-warm + magenta / 2)};
    double grey = 0;
    for (std::size_t c = 0; c < 3; ++c) grey += luminance[c] * out[c];
    for (double& gain : out) gain *= std::exp2(look.exposure_ev) / grey;
    return out;
}

int stops_beyond_white(const Look& look, const std::array<double, 3>& gains, const std::array<double, 3>& luminance,
                       int channels) {
    constexpr int most = 6;
    constexpr double white = 1 - 1e-6;  // a fraction of a sample below
    Look of_light = look;
    if (channels == 1) of_light.warmth = of_light.green_to_magenta = 0;
    const std::array<double, 3> of_look = gains_of(of_light, luminance);
    double least = of_look[1] * gains[1];
    if (channels == 3) least = std::min({least, of_look[0] * gains[0], of_look[2] * gains[2]});
    int stops = 0;
    while (stops < most && toned(look, std::ldexp(least, stops)) < white) ++stops;
    return stops;
}

Look neutral_for(const Look& look, const std::array<double, 3>& light) {
    if (light[0] <= 0 || light[1] <= 0 || light[2] <= 0) return look;
    const double red = std::log2(light[0]), green = std::log2(light[1]), blue = std::log2(light[2]);
    // What gains_of() makes of the two, turned around.
    const double warm = (blue - red) / 2, magenta = (green - red - warm) * 2 / 3;
    Look out = look;
    out.warmth = std::round(200 * warm);
    out.green_to_magenta = std::round(300 * magenta);
    return limited(out);
}

namespace {

constexpr std::size_t bins = 128;

std::size_t bin_of(float tone) {
    return std::size_t(std::clamp(tone, 0.0F, 1.0F) * float(bins - 1) + 0.5F);
}

std::vector<float> evened(std::vector<float> out) {
    // Samples of 8 bits leave gaps between them.
    for (int pass = 0; pass < 2; ++pass) {
        const std::vector<float> rough = out;
        for (std::size_t i = 1; i + 1 < bins; ++i) out[i] = (rough[i - 1] + rough[i] + rough[i + 1]) / 3;
    }
    // A black sky or a white wall would leave nothing to be seen of the rest.
    const float most = *std::max_element(out.begin() + 1, out.end() - 1);
    for (float& share : out) share = most > 0 ? std::min(1.0F, share / most) : 0.0F;
    return out;
}

}  // namespace

std::vector<float> tone_shares(const Raster16& picture, const LightCurve& curve) {
    std::vector<float> out(bins, 0.0F);
    const RasterF tones = brightness_of(picture, curve);
    for (const float tone : tones.data()) ++out[bin_of(tone)];
    return evened(std::move(out));
}

ToneCounts tone_counts(const Raster16& picture, const Rect& area, const LightCurve& curve,
                       const std::array<double, 3>& luminance) {
    constexpr double enough = 300000;
    const Rect region = intersect(area, whole(picture.size()));
    const auto channels = std::size_t(picture.channels());
    ToneCounts out;
    out.shares.assign(channels == 3 ? 4 : 1, std::vector<float>(bins, 0.0F));
    out.black.assign(channels, 0);
    out.white.assign(channels, 0);
    if (region.empty()) return out;
    const int step = std::max(1, int(std::ceil(std::sqrt(double(region.width) * double(region.height) / enough))));
    const float* eye = curve.eye();
    double count = 0;
    for (int y = region.top; y < region.bottom(); y += step)
        for (int x = region.left; x < region.right(); x += step) {
            double light = 0;
            ++count;
            for (std::size_t c = 0; c < channels; ++c) {
                const std::uint16_t sample = picture.at(x, y, int(c));
                out.black[c] += sample == 0 ? 1 : 0;
                out.white[c] += sample == 65535 ? 1 : 0;
                if (channels == 1) {
                    ++out.shares[0][bin_of(eye[sample])];
                    continue;
                }
                ++out.shares[c + 1][bin_of(eye[sample])];
                light += luminance[c] * curve.light(sample) / LightCurve::full;
            }
            if (channels == 3) ++out.shares[0][bin_of(float(std::pow(light, 1 / LightCurve::eye_power)))];
        }
    for (auto& shares : out.shares) shares = evened(std::move(shares));
    for (std::size_t c = 0; c < channels; ++c) {
        out.black[c] /= count;
        out.white[c] /= count;
    }
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
