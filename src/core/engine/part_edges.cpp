#include "engine/part_edges.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "base/median.h"
#include "engine/base_tiles.h"
#include "engine/derived.h"
#include "parts/membrane.h"
#include "parts/seam.h"
#include "pile/fingerprint.h"

namespace bp {
namespace {

constexpr int longest_side = 1600;
// A border costs so much of a difference even where there is none, so that it stays short.
constexpr float least_apart = 0.004F;
constexpr int beside = 3;  // pixels of the level around what may be open

// How many times the light below is that of the part, as a logarithm, by channel.
RasterF ratios_of(const PartAlone& own, const Raster16& below, const LightCurve& curve) {
    RasterF out(own.samples.size(), own.samples.channels());
    const auto logarithm = [&](std::uint16_t sample) {
        return float(std::log(curve.light(sample) / LightCurve::full + LightField::below_black));
    };
    std::vector<float> known(65536);
    for (std::size_t i = 0; i < known.size(); ++i) known[i] = logarithm(std::uint16_t(i));
    for (std::size_t i = 0; i < out.data().size(); ++i)
        out.data()[i] = known[below.data()[i]] - known[own.samples.data()[i]];
    return out;
}

// By how much the light of the two is apart in general where the border may run.
std::array<float, 3> usual_ratio(const RasterF& ratios, const Raster8& sides) {
    std::array<float, 3> out{};
    for (int c = 0; c < ratios.channels(); ++c) {
        std::vector<float> all;
        for (int y = 0; y < sides.height(); ++y)
            for (int x = 0; x < sides.width(); ++x)
                if (Side(sides.at(x, y, 0)) == Side::open) all.push_back(ratios.at(x, y, c));
        if (!all.empty()) out[std::size_t(c)] = float(middle_of(all));
    }
    return out;
}

// Squares of how far the two are apart as it is seen, in shares of white; with `level`, once the light of the part is
// that of what lies below it.
RasterF apart_of(const PartAlone& own, const Raster16& below, const RasterF& ratios, const Raster8& sides, bool level) {
    const int channels = below.channels();
    const std::array<float, 3> usual = level ? usual_ratio(ratios, sides) : std::array<float, 3>{};
    RasterF out(below.size(), 1);
    for (int y = 0; y < below.height(); ++y)
        for (int x = 0; x < below.width(); ++x) {
            float sum = 0;
            for (int c = 0; c < channels; ++c) {
                const float a = float(own.samples.at(x, y, c)) / 65535, b = float(below.at(x, y, c)) / 65535;
                // Samples are about the power 1 / 2.2 of light.
                const float d =
                    level ? (ratios.at(x, y, c) - usual[std::size_t(c)]) * std::max(a, b) / float(LightCurve::eye_power)
                          : b - a;
                sum += d * d;
            }
            out.at(x, y, 0) = sum / float(channels) + least_apart * least_apart;
        }
    return out;
}

// The mean of the covered ones of four pixels each.
RasterF halved(const RasterF& of, const Raster8& covered, Raster8& small_covered) {
    const Size half = at_level(of.size(), 1);
    RasterF out(half, of.channels());
    small_covered = Raster8(half, 1);
    for (int y = 0; y < half.height; ++y)
        for (int x = 0; x < half.width; ++x) {
            int count = 0;
            for (int v = 2 * y; v < std::min(2 * y + 2, of.height()); ++v)
                for (int u = 2 * x; u < std::min(2 * x + 2, of.width()); ++u) {
                    if (!covered.at(u, v, 0)) continue;
                    ++count;
                    for (int c = 0; c < of.channels(); ++c) out.at(x, y, c) += of.at(u, v, c);
                }
            for (int c = 0; count > 0 && c < of.channels(); ++c) out.at(x, y, c) /= float(count);
            small_covered.at(x, y, 0) = count > 0 ? 255 : 0;
        }
    return out;
}

// 255 where any of four pixels each is.
Raster8 any_of_four(const Raster8& of) {
    const Size half = at_level(of.size(), 1);
    Raster8 out(half, 1);
    for (int y = 0; y < of.height(); ++y)
        for (int x = 0; x < of.width(); ++x)
            if (of.at(x, y, 0)) out.at(x / 2, y / 2, 0) = 255;
    return out;
}

// Light goes over so smoothly that half the size does for it. In its own pixels, from (0, 0) on.
LightField light_of(const RasterF& ratios, const Raster8& covered, const Raster8& over) {
    constexpr int around = 1;  // pixels that the light along the border is the mean of, to either side
    const float most = std::log(16.0F);
    const Size size = over.size();
    const auto inside = [&](int x, int y) { return x >= 0 && y >= 0 && x < size.width && y < size.height; };
    const auto near_over = [&](int x, int y) {
        for (int v = y - 1; v <= y + 1; ++v)
            for (int u = x - 1; u <= x + 1; ++u)
                if (inside(u, v) && over.at(u, v, 0)) return true;
        return false;
    };
    RasterF values(size, ratios.channels());
    Raster8 kinds(size, 1);
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x) {
            if (over.at(x, y, 0)) {
                kinds.at(x, y, 0) = std::uint8_t(Stretch::sought);
                continue;
            }
            if (!covered.at(x, y, 0) || !near_over(x, y)) continue;
            kinds.at(x, y, 0) = std::uint8_t(Stretch::given);
            for (int c = 0; c < ratios.channels(); ++c) {
                float sum = 0;
                int count = 0;
                for (int v = y - around; v <= y + around; ++v)
                    for (int u = x - around; u <= x + around; ++u)
                        if (inside(u, v) && covered.at(u, v, 0)) {
                            sum += ratios.at(u, v, c);
                            ++count;
                        }
                values.at(x, y, c) = std::clamp(sum / float(count), -most, most);
            }
        }
    solve_membrane(values, kinds);
    for (float& v : values.data()) v = std::exp(v);
    LightField out;
    out.factors = std::move(values);
    return out;
}

// The seam at half the size first: at full size it is looked for near that one.
Raster8 seam_of(const RasterF& apart, const Raster8& sides) {
    const Size half = at_level(sides.size(), 1);
    Raster8 all(sides.size(), 1), small_sides(half, 1), ignored;
    std::fill(all.data().begin(), all.data().end(), std::uint8_t{255});
    for (int y = 0; y < half.height; ++y)
        for (int x = 0; x < half.width; ++x) {
            bool over = true, below = true;
            for (int v = 2 * y; v < std::min(2 * y + 2, sides.height()); ++v)
                for (int u = 2 * x; u < std::min(2 * x + 2, sides.width()); ++u) {
                    over = over && Side(sides.at(u, v, 0)) == Side::over;
                    below = below && Side(sides.at(u, v, 0)) == Side::below;
                }
            small_sides.at(x, y, 0) = std::uint8_t(over ? Side::over : below ? Side::below : Side::open);
        }
    const Raster8 first = least_seam(halved(apart, all, ignored), small_sides);
    constexpr int near = 2;  // pixels of half the size about the first seam
    const auto border_near = [&](int x, int y) {
        const int here = first.at(x, y, 0);
        for (int v = std::max(0, y - near); v <= std::min(half.height - 1, y + near); ++v)
            for (int u = std::max(0, x - near); u <= std::min(half.width - 1, x + near); ++u)
                if (first.at(u, v, 0) != here) return true;
        return false;
    };
    Raster8 settled(sides.size(), 1);
    for (int y = 0; y < half.height; ++y)
        for (int x = 0; x < half.width; ++x) {
            const bool open = border_near(x, y);
            for (int v = 2 * y; v < std::min(2 * y + 2, sides.height()); ++v)
                for (int u = 2 * x; u < std::min(2 * x + 2, sides.width()); ++u) {
                    Side side = Side(sides.at(u, v, 0));
                    if (side == Side::open && !open) side = first.at(x, y, 0) ? Side::over : Side::below;
                    settled.at(u, v, 0) = std::uint8_t(side);
                }
        }
    return least_seam(apart, settled);
}

int down_to_tile(int at) {
    return floor_div(at, Mask::tile) * Mask::tile;
}

// What shows at a level, enlarged: from the middle of a pixel to that of the next it goes over straight.
void enlarge(const Raster8& over, const Rect& box, int level, SolvedEdge& out) {
    const int unit = 1 << level;
    out.left = down_to_tile((box.left - 1) * unit);
    out.top = down_to_tile((box.top - 1) * unit);
    const Size size{(box.right() + 1) * unit - out.left, (box.bottom() + 1) * unit - out.top};
    Raster8 large(size, 1);
    if (unit == 1) {
        for (int y = 0; y < over.height(); ++y)
            std::copy_n(over.row(y), over.width(), large.row(box.top + y - out.top) + (box.left - out.left));
        out.mask = Mask::from_raster(size, {0, 0}, large);
        return;
    }
    const auto at = [&](int u, int v) {
        return u < 0 || v < 0 || u >= over.width() || v >= over.height() ? 0 : int(over.at(u, v, 0));
    };
    for (int v = -1; v < over.height(); ++v)
        for (int u = -1; u < over.width(); ++u) {
            const int a = at(u, v), b = at(u + 1, v), c = at(u, v + 1), d = at(u + 1, v + 1);
            if (a + b + c + d == 0) continue;
            // The square between the middles of four pixels of the level.
            const int left = (box.left + u) * unit + unit / 2 - out.left;
            const int top = (box.top + v) * unit + unit / 2 - out.top;
            for (int y = 0; y < unit; ++y)
                for (int x = 0; x < unit; ++x) {
                    const int i = 2 * x + 1, j = 2 * y + 1, all = 2 * unit;
                    const int sum = (a * (all - i) + b * i) * (all - j) + (c * (all - i) + d * i) * j;
                    large.at(left + x, top + y, 0) = std::uint8_t((sum + all * all / 2) / (all * all));
                }
        }
    out.mask = Mask::from_raster(size, {0, 0}, large);
}

}  // namespace

int level_of_edges(const Pile& pile) {
    return level_within(pile.size, longest_side);
}

Rect box_of_edge(const Pile& pile, const Part& part) {
    const int level = level_of_edges(pile);
    const Rect reach = at_level(reach_of(pile, part), level);
    if (reach.empty()) return {};
    return intersect({reach.left - beside, reach.top - beside, reach.width + 2 * beside, reach.height + 2 * beside},
                     at_level(canvas_of(pile), level));
}

Fingerprint recipe_of_edge(const Pile& pile, const Part& part) {
    const Rect box = box_of_edge(pile, part);
    const int level = level_of_edges(pile);
    std::vector<Fingerprint> out;
    for (const Part& one : pile.parts) {
        const Frame* frame = find_frame(pile, one.frame);
        const bool itself = one.id == part.id;
        const bool counts =
            frame &&
            (itself || (one.on && usable(*frame) && !intersect(at_level(reach_of(pile, one), level), box).empty()));
        if (counts) {
            Part causes = one;
            causes.id = 0;
            causes.name.clear();
            causes.on = causes.by_hand = false;
            causes.of = PartOf::painted;
            causes.subject = 0;
            if (itself) {
                causes.strength = 1;
                causes.join = Join::replace;
            }
            out.push_back(pile::fingerprint(causes, frame_recipe(pile, *frame, Zone::sky),
                                            frame_recipe(pile, *frame, Zone::land)));
        }
        if (itself) break;
    }
    return pile::fingerprint(base_recipe(pile), canvas_of(pile), out);
}

Fingerprint key_of_edge(const Pile& pile, const Part& part) {
    return derived_key("edge", recipe_of_edge(pile, part));
}

SolvedEdge solved_edge(const Pile& pile, const Part& part, const PartAlone& own, const Raster16& below) {
    const int level = level_of_edges(pile);
    const Rect box = box_of_edge(pile, part);
    const LaidMask laid(pile, part, level);
    Raster8 mask(box.size(), 1);
    for (int y = 0; y < box.height; ++y) laid.read_row(box.top + y, box.left, box.width, mask.row(y));
    const bool blended = part.edge == Edge::blended;
    const RasterF ratios = ratios_of(own, below, LightCurve::of(pile.profile, pile.channels));
    const Raster8 sides = open_about(mask, band_of(pile, part) / 2 / (1 << level), own.covered);
    const Raster8 over = seam_of(apart_of(own, below, ratios, sides, blended), sides);
    SolvedEdge out;
    enlarge(over, box, level, out);
    if (blended && !out.mask.empty()) {
        Raster8 covered;
        const RasterF half = halved(ratios, own.covered, covered);
        out.light = light_of(half, covered, any_of_four(over));
        out.light->left = box.left * (1 << level);
        out.light->top = box.top * (1 << level);
        out.light->unit = 2 << level;
    }
    return out;
}

void pack(Packer& to, const SolvedEdge& edge) {
    pack(to, edge.mask);
    to.number(edge.left).number(edge.top).number(edge.light.has_value());
    if (!edge.light) return;
    const LightField& light = *edge.light;
    for (const int n :
         {light.left, light.top, light.unit, light.factors.width(), light.factors.height(), light.factors.channels()})
        to.number(n);
    to.bytes(light.factors.data().data(), light.factors.bytes());
}

void unpack(Unpacker& from, SolvedEdge& edge) {
    unpack(from, edge.mask);
    edge.left = from.number<int>();
    edge.top = from.number<int>();
    if (edge.left % Mask::tile != 0 || edge.top % Mask::tile != 0) return from.refuse();
    if (!from.number<bool>()) return;
    LightField light;
    Size size;
    int channels = 0;
    for (int* n : {&light.left, &light.top, &light.unit, &size.width, &size.height, &channels}) *n = from.number<int>();
    constexpr int largest_side = 1 << 16;
    const bool sound = light.unit > 0 && size.width > 0 && size.height > 0 && size.width <= largest_side &&
                       size.height <= largest_side && (channels == 1 || channels == 3);
    const std::int64_t bytes = std::int64_t(size.width) * size.height * channels * std::int64_t(sizeof(float));
    if (!sound || !from.has(std::size_t(bytes))) return from.refuse();
    light.factors = RasterF(size, channels);
    from.bytes(light.factors.data().data(), light.factors.bytes());
    edge.light = std::move(light);
}

}  // namespace bp
