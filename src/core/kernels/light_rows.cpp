#include "kernels/light_rows.h"

#include "kernels/hue.h"
#include "kernels/wide.h"

namespace bp::kernels {
namespace {

constexpr std::size_t lanes = 64;

// So many pixels, one channel after the other.
struct Block {
    std::array<float, lanes> red, green, blue, grey, colourful, stops;
};

BP_WITHIN void add_change(const HueChange& change, const std::array<float, 3>& luminance, Block& block) {
    for (std::size_t i = 0; i < lanes; ++i) {
        const std::array<float, 3> off{block.red[i], block.green[i], block.blue[i]};
        const HuePlace at = hue_place(off);
        const float share = share_of_range(change.turn, at);
        const std::array<float, 3> made = colour_at(turned(at, share * change.turn.radians), luminance);
        const float apart = 1.0F + change.strength * share;
        block.red[i] = made[0] * apart;
        block.green[i] = made[1] * apart;
        block.blue[i] = made[2] * apart;
        block.stops[i] += change.stops * share * block.colourful[i];
    }
}

BP_WITHIN float one_light_by(const float* roots, float light) {
    const float place = std::min(std::sqrt(std::max(light, 0.0F)) * float(tone_steps), float(2 * tone_steps));
    const int at = int(place);
    const float root = roots[at] + (roots[at + 1] - roots[at]) * (place - float(at));
    return root * root;
}

BP_WIDE void all_light_by(const float* roots, float* light, std::size_t samples) {
    for (std::size_t i = 0; i < samples; ++i) light[i] = one_light_by(roots, light[i]);
}

// Of `count` pixels, at most as many as there are lanes.
BP_WIDE void colour_block(const LightColours& how, float* light, std::size_t count) {
    Block block;
    for (std::size_t i = 0; i < lanes; ++i) {
        const float* p = light + 3 * std::min(i, count - 1);
        const float r = p[0] * how.gains[0], g = p[1] * how.gains[1], b = p[2] * how.gains[2];
        const float grey = how.luminance[0] * r + how.luminance[1] * g + how.luminance[2] * b;
        const float most = std::max(std::max(r, g), b);
        const float least = std::max(std::min(std::min(r, g), b), 0.0F);
        const float colourful = most > 0 ? (most - least) / most : 0;
        const float drawn = std::max(0.0F, 1 + how.strength + how.pale * (1 - colourful));
        block.red[i] = drawn * (r - grey);
        block.green[i] = drawn * (g - grey);
        block.blue[i] = drawn * (b - grey);
        block.grey[i] = grey;
        block.colourful[i] = colourful;
        block.stops[i] = 0;
    }
    bool brightens = false;
    for (const HueChange& change : how.hues) {
        add_change(change, how.luminance, block);
        brightens = brightens || change.stops != 0;
    }
    for (std::size_t i = 0; i < count; ++i) {
        const float gain = brightens && block.stops[i] != 0 ? std::exp2(block.stops[i]) : 1;
        float* p = light + 3 * i;
        p[0] = std::max(gain * (block.grey[i] + block.red[i]), 0.0F);
        p[1] = std::max(gain * (block.grey[i] + block.green[i]), 0.0F);
        p[2] = std::max(gain * (block.grey[i] + block.blue[i]), 0.0F);
    }
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

void light_by(const std::array<const float*, 3>& roots, float* light, std::size_t pixels, int channels) {
    if (channels == 1 || (roots[0] == roots[1] && roots[1] == roots[2])) {
        all_light_by(roots[0], light, pixels * std::size_t(channels));
        return;
    }
    for (std::size_t i = 0; i < 3 * pixels; i += 3)
        for (std::size_t c = 0; c < 3; ++c) light[i + c] = one_light_by(roots[c], light[i + c]);
}

void colour_light(const LightColours& how, float* light, std::size_t pixels) {
    if (how.strength != 0 || how.pale != 0 || !how.hues.empty()) {
        for (std::size_t i = 0; i < pixels; i += lanes) colour_block(how, light + 3 * i, std::min(lanes, pixels - i));
        return;
    }
    for (std::size_t i = 0; i < 3 * pixels; i += 3)
        for (std::size_t c = 0; c < 3; ++c) light[i + c] *= how.gains[c];
}

BP_WIDE void tint_light(const TwoColours& how, float* light, std::size_t pixels) {
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

BP_WIDE void mix_light(const float* over, const unsigned char* share, float strength, std::size_t pixels, int channels,
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

BP_WIDE void tones_of(const float* light, std::size_t pixels, int channels, const std::array<float, 3>& luminance,
                      float* out) {
    if (channels == 1) {
        for (std::size_t i = 0; i < pixels; ++i) out[i] = std::sqrt(std::max(light[i], 0.0F));
        return;
    }
    for (std::size_t i = 0; i < pixels; ++i) {
        const float* p = light + 3 * i;
        out[i] = std::sqrt(std::max(luminance[0] * p[0] + luminance[1] * p[1] + luminance[2] * p[2], 0.0F));
    }
}

BP_WIDE void bring_to_tones(const float* from, const float* to, std::size_t pixels, int channels, float* light) {
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

BP_WIDE void add_above_noise(const float* fine, const float* coarse, float noise, std::size_t samples, float* out) {
    const float square = noise * noise;
    for (std::size_t i = 0; i < samples; ++i) {
        const float off = fine[i] - coarse[i];
        const float share = square / (off * off + 1e-20F);
        out[i] += off * std::max(1 - share * share, 0.0F);
    }
}

}  // namespace bp::kernels
