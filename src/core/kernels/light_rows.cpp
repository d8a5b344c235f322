#include "kernels/light_rows.h"

#include <bit>
#include <limits>
#include <numbers>

#include "kernels/hue.h"
#include "kernels/wide.h"

namespace bp::kernels {
namespace {

constexpr std::size_t lanes = 64;

// As many pixels as there are lanes at a time; the last ones with nothing behind them.
template <std::size_t channels, class Change>
BP_WITHIN void by_blocks(float* light, std::size_t pixels, const Change& change) {
    std::size_t i = 0;
    for (; i + lanes <= pixels; i += lanes) change(light + channels * i);
    if (i == pixels) return;
    std::array<float, channels * lanes> rest{};
    std::copy(light + channels * i, light + channels * pixels, rest.begin());
    change(rest.data());
    std::copy_n(rest.begin(), channels * (pixels - i), light + channels * i);
}

// So many pixels, one channel after the other.
struct Block {
    std::array<float, lanes> red, green, blue, grey, colourful, stops;
};

template <bool turns>
BP_WITHIN void add_change(const HueChange& change, const std::array<float, 3>& luminance, Block& block) {
    for (std::size_t i = 0; i < lanes; ++i) {
        const std::array<float, 3> off{block.red[i], block.green[i], block.blue[i]};
        const HuePlace at = hue_place(off);
        const float share = share_of_range(change.turn, at);
        std::array<float, 3> made = off;
        if constexpr (turns) made = colour_at(turned(at, share * change.turn.radians), luminance);
        const float apart = 1.0F + change.strength * share;
        block.red[i] = made[0] * apart;
        block.green[i] = made[1] * apart;
        block.blue[i] = made[2] * apart;
        block.stops[i] += change.stops * share * block.colourful[i];
    }
}

// The tables are read one by one between two loops of vectors: gathers are slow where the machine guards them.
template <std::size_t channels>
BP_WITHIN void block_by(const std::array<const float*, 3>& roots, float* BP_APART light) {
    constexpr std::size_t samples = channels * lanes;
    std::array<float, samples> part, low, high;
    std::array<int, samples> at;
    for (std::size_t i = 0; i < samples; ++i) {
        const float place = std::min(std::sqrt(std::max(light[i], 0.0F)) * float(tone_steps), float(2 * tone_steps));
        at[i] = int(place);
        part[i] = place - float(at[i]);
    }
    for (std::size_t i = 0; i < samples; i += channels)
        for (std::size_t c = 0; c < channels; ++c) {
            const float* entry = roots[c] + at[i + c];
            low[i + c] = entry[0];
            high[i + c] = entry[1];
        }
    for (std::size_t i = 0; i < samples; ++i) {
        const float root = low[i] + (high[i] - low[i]) * part[i];
        light[i] = root * root;
    }
}

template <std::size_t channels>
BP_WITHIN void all_light_by(const std::array<const float*, 3>& roots, float* light, std::size_t pixels) {
    by_blocks<channels>(light, pixels, [&](float* block) { block_by<channels>(roots, block); });
}

BP_WIDE void grey_by(const std::array<const float*, 3>& roots, float* light, std::size_t pixels) {
    all_light_by<1>(roots, light, pixels);
}

BP_WIDE void colours_by(const std::array<const float*, 3>& roots, float* light, std::size_t pixels) {
    all_light_by<3>(roots, light, pixels);
}

// Two to some power by the terms of its series, right within a millionth.
BP_WITHIN float power_of_two(float stops) {
    const int whole = int(stops + (stops < 0 ? -0.5F : 0.5F));
    const float part = (stops - float(whole)) * std::numbers::ln2_v<float>;
    const float fine =
        1 + part * (1 + part * (1.0F / 2 + part * (1.0F / 6 + part * (1.0F / 24 + part * (1.0F / 120 + part / 720)))));
    constexpr int zero = 127, bits = 23;  // of a float's exponent
    return fine * std::bit_cast<float>((whole + zero) << bits);
}

// Of as many pixels as there are lanes.
BP_WIDE void colour_block(const LightColours& how, float* BP_APART light) {
    Block block;
    for (std::size_t i = 0; i < lanes; ++i) {
        const float* p = light + 3 * i;
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
    for (const HueChange& change : how.hues) {
        if (change.turn.radians != 0)
            add_change<true>(change, how.luminance, block);
        else
            add_change<false>(change, how.luminance, block);
    }
    for (std::size_t i = 0; i < lanes; ++i) {
        const float gain = power_of_two(block.stops[i]);
        float* p = light + 3 * i;
        p[0] = std::max(gain * (block.grey[i] + block.red[i]), 0.0F);
        p[1] = std::max(gain * (block.grey[i] + block.green[i]), 0.0F);
        p[2] = std::max(gain * (block.grey[i] + block.blue[i]), 0.0F);
    }
}

template <std::size_t channels>
BP_WITHIN void mix(const float* BP_APART over, const unsigned char* BP_APART share, float unit, std::size_t pixels,
                   float* BP_APART out) {
    for (std::size_t i = 0; i < pixels; ++i) {
        const float part = unit * float(share[i]);
        for (std::size_t at = channels * i; at < channels * (i + 1); ++at) out[at] += part * (over[at] - out[at]);
    }
}

// Colours of pixels that are nearly black are made of noise: they are not multiplied, the rest is added as grey.
template <std::size_t channels>
BP_WITHIN void bring(const float* BP_APART from, const float* BP_APART to, std::size_t pixels, float* BP_APART light) {
    constexpr float black = 1.0F / 512, none = -std::numeric_limits<float>::infinity();
    std::array<float, lanes> gain, more, least;
    for (std::size_t first = 0; first < pixels; first += lanes) {
        const std::size_t count = std::min(lanes, pixels - first);
        for (std::size_t i = 0; i < count; ++i) {
            const float was = from[first + i], goal = std::max(to[first + i], 0.0F);
            const float times = goal / std::max(was, black);
            gain[i] = was > black ? times * times : 1.0F;
            more[i] = was > black ? 0.0F : goal * goal - was * was;
            least[i] = was > black ? none : 0.0F;
        }
        float* BP_APART p = light + channels * first;
        for (std::size_t i = 0; i < count; ++i)
            for (std::size_t c = 0; c < channels; ++c)
                p[channels * i + c] = std::max(p[channels * i + c] * gain[i] + more[i], least[i]);
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
    if (channels == 1)
        grey_by(roots, light, pixels);
    else
        colours_by(roots, light, pixels);
}

void colour_light(const LightColours& how, float* light, std::size_t pixels) {
    if (how.strength != 0 || how.pale != 0 || !how.hues.empty()) {
        by_blocks<3>(light, pixels, [&](float* block) { colour_block(how, block); });
        return;
    }
    for (std::size_t i = 0; i < 3 * pixels; i += 3)
        for (std::size_t c = 0; c < 3; ++c) light[i + c] *= how.gains[c];
}

BP_WIDE void tint_light(const TwoColours& how, float* BP_APART light, std::size_t pixels) {
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

BP_WIDE void mix_light(const float* BP_APART over, const unsigned char* BP_APART share, float strength,
                       std::size_t pixels, int channels, float* BP_APART out) {
    if (channels == 1)
        mix<1>(over, share, strength / 255, pixels, out);
    else
        mix<3>(over, share, strength / 255, pixels, out);
}

BP_WIDE void tones_of(const float* BP_APART light, std::size_t pixels, int channels,
                      const std::array<float, 3>& luminance, float* BP_APART out) {
    if (channels == 1) {
        for (std::size_t i = 0; i < pixels; ++i) out[i] = std::sqrt(std::max(light[i], 0.0F));
        return;
    }
    for (std::size_t i = 0; i < pixels; ++i) {
        const float* p = light + 3 * i;
        out[i] = std::sqrt(std::max(luminance[0] * p[0] + luminance[1] * p[1] + luminance[2] * p[2], 0.0F));
    }
}

BP_WIDE void bring_to_tones(const float* BP_APART from, const float* BP_APART to, std::size_t pixels, int channels,
                            float* BP_APART light) {
    if (channels == 1)
        bring<1>(from, to, pixels, light);
    else
        bring<3>(from, to, pixels, light);
}

BP_WIDE void add_above_noise(const float* BP_APART fine, const float* BP_APART coarse, float noise, std::size_t samples,
                             float* BP_APART out) {
    const float square = noise * noise;
    for (std::size_t i = 0; i < samples; ++i) {
        const float off = fine[i] - coarse[i];
        const float share = square / (off * off + 1e-20F);
        out[i] += off * std::max(1 - share * share, 0.0F);
    }
}

}  // namespace bp::kernels
