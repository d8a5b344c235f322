#include "kernels/light_rows.h"

#include "kernels/hue.h"

namespace bp::kernels {
namespace {

std::array<float, 3> changed(const HueChange& change, const std::array<float, 3>& luminance,
                             const std::array<float, 3>& off, float share) {
    std::array<float, 3> out = off;
    if (change.turn.radians != 0) out = colour_at(turned(hue_place(off), share * change.turn.radians), luminance);
    const float apart = 1.0F + change.strength * share;
    for (float& c : out) c *= apart;
    return out;
}

}  // namespace

std::vector<float> roots_of(const std::function<double(double light)>& curve) {
    constexpr int last = 2 * tone_steps;
    std::vector<float> out(std::size_t(last) + 2);
    for (int i = 0; i < last + 2; ++i) {
        const double root = double(std::min(i, last)) / tone_steps;
        out[std::size_t(i)] = float(std::sqrt(std::max(curve(root * root), 0.0)));
    }
    return out;
}

float light_by(const float* roots, float light) {
    const float place = std::min(std::sqrt(std::max(light, 0.0F)) * float(tone_steps), float(2 * tone_steps));
    const int at = int(place);
    const float root = roots[at] + (roots[at + 1] - roots[at]) * (place - float(at));
    return root * root;
}

void light_by(const std::array<const float*, 3>& roots, float* light, std::size_t pixels, int channels) {
    if (channels == 1) {
        for (std::size_t i = 0; i < pixels; ++i) light[i] = light_by(roots[0], light[i]);
        return;
    }
    for (std::size_t i = 0; i < 3 * pixels; i += 3) {
        light[i] = light_by(roots[0], light[i]);
        light[i + 1] = light_by(roots[1], light[i + 1]);
        light[i + 2] = light_by(roots[2], light[i + 2]);
    }
}

void colour_light(const LightColours& how, float* light, std::size_t pixels) {
    const bool apart = how.strength != 0 || how.pale != 0 || !how.hues.empty();
    for (std::size_t i = 0; i < pixels; ++i) {
        float* p = light + 3 * i;
        const float r = p[0] * how.gains[0], g = p[1] * how.gains[1], b = p[2] * how.gains[2];
        if (!apart) {
            p[0] = r;
            p[1] = g;
            p[2] = b;
            continue;
        }
        float grey = how.luminance[0] * r + how.luminance[1] * g + how.luminance[2] * b;
        const float most = std::max(std::max(r, g), b);
        const float colourful = most > 0 ? (most - std::max(std::min(std::min(r, g), b), 0.0F)) / most : 0;
        const float drawn = std::max(0.0F, 1 + how.strength + how.pale * (1 - colourful));
        std::array<float, 3> off{drawn * (r - grey), drawn * (g - grey), drawn * (b - grey)};
        float stops = 0;
        for (const HueChange& change : how.hues) {
            const float share = share_of_range(change.turn, hue_place(off));
            if (share == 0) continue;
            off = changed(change, how.luminance, off, share);
            stops += change.stops * share * colourful;
        }
        if (stops != 0) {
            const float gain = std::exp2(stops);
            grey *= gain;
            for (float& c : off) c *= gain;
        }
        for (std::size_t c = 0; c < 3; ++c) p[c] = std::max(grey + off[c], 0.0F);
    }
}

void tint_light(const TwoColours& how, float* light, std::size_t pixels) {
    constexpr float reach = 0.4F;  // to either side of the middle, in which one colour goes over into the other
    for (std::size_t i = 0; i < pixels; ++i) {
        float* p = light + 3 * i;
        const float grey = how.luminance[0] * p[0] + how.luminance[1] * p[1] + how.luminance[2] * p[2];
        const float tone = std::sqrt(std::max(grey, 0.0F));
        const float at = std::min(std::max((tone - how.middle + reach) / (2 * reach), 0.0F), 1.0F);
        const float bright = at * at * (3.0F - (at + at));
        const float dark = 1.0F - bright;
        for (std::size_t c = 0; c < 3; ++c)
            p[c] = std::max(p[c] + grey * (dark * how.dark[c] + bright * how.bright[c]), 0.0F);
    }
}

void mix_light(const float* over, const unsigned char* share, float strength, std::size_t pixels, int channels,
               float* out) {
    const float unit = strength / 255;
    for (std::size_t i = 0; i < pixels; ++i) {
        if (share[i] == 0) continue;
        const float part = unit * float(share[i]);
        for (int c = 0; c < channels; ++c) {
            const std::size_t at = i * std::size_t(channels) + std::size_t(c);
            out[at] += part * (over[at] - out[at]);
        }
    }
}

void tones_of(const float* light, std::size_t pixels, int channels, const std::array<float, 3>& luminance, float* out) {
    if (channels == 1) {
        for (std::size_t i = 0; i < pixels; ++i) out[i] = std::sqrt(std::max(light[i], 0.0F));
        return;
    }
    for (std::size_t i = 0; i < pixels; ++i) {
        const float* p = light + 3 * i;
        out[i] = std::sqrt(std::max(luminance[0] * p[0] + luminance[1] * p[1] + luminance[2] * p[2], 0.0F));
    }
}

void bring_to_tones(const float* from, const float* to, std::size_t pixels, int channels, float* light) {
    // Colours of pixels that are nearly black are made of noise: they are not multiplied, the rest is added as grey.
    constexpr float black = 1.0F / 512;
    for (std::size_t i = 0; i < pixels; ++i) {
        const float goal = std::max(to[i], 0.0F);
        float* p = light + i * std::size_t(channels);
        if (from[i] > black) {
            const float gain = (goal / from[i]) * (goal / from[i]);
            for (int c = 0; c < channels; ++c) p[c] *= gain;
        } else {
            const float more = goal * goal - from[i] * from[i];
            for (int c = 0; c < channels; ++c) p[c] = std::max(p[c] + more, 0.0F);
        }
    }
}

}  // namespace bp::kernels
