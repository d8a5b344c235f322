#include "support/plain.h"

#include <algorithm>
#include <cmath>

#include "engine/darks.h"
#include "engine/frame_stages.h"
#include "engine/render.h"
#include "kernels/warp.h"
#include "pile/streak_edits.h"

namespace bp {
namespace {

struct Placed {
    const Frame* frame;
    Raster16 picture;
    Placement placed;
    double strength = 1;
};

bool reaches(const Placed& p, int x, int y) {
    constexpr double slack = 1e-6;
    const Point at = p.placed.to_frame({double(x), double(y)});
    return at.x >= -slack && at.y >= -slack && at.x <= p.picture.width() - 1 + slack &&
           at.y <= p.picture.height() - 1 + slack;
}

bool votes(const Placed& p, int x, int y) {
    const Point at = p.placed.to_frame({double(x), double(y)});
    const int u = int(std::lround(at.x)), v = int(std::lround(at.y));
    if (p.frame->left_out.at(u, v) >= 128) return false;
    const Point pixel{double(u), double(v)};
    return std::none_of(p.frame->streaks.begin(), p.frame->streaks.end(),
                        [&](const FrameStreak& s) { return s.left_out && band_of(s.line).has(pixel); });
}

// Of shifts, turns and scales of a few degrees and per cent: down each of six columns first, at the place where the
// canvas row crosses it, then across; of all others straight down, wherever the row goes. That is what the weights
// mean, wherever they are put to use.
std::uint16_t sample(const Placed& p, int x, int y, int c) {
    if (p.placed.is_identity()) return p.picture.at(x, y, c);
    const Point at = p.placed.to_frame({double(x), double(y)});
    const Point next = p.placed.to_frame({x + 1.0, double(y)});
    const bool gentle = kernels::SourceMap(p.placed, p.picture.size()).gentle();
    const double slope = gentle ? (next.y - at.y) / (next.x - at.x) : 0;
    const int u = int(std::floor(at.x));
    const auto across = kernels::lanczos_weights(float(at.x - u));
    double sum = 0;
    for (int i = 0; i < 6; ++i) {
        const int column = u - 2 + i;
        const double height = at.y + (column - at.x) * slope;
        const int v = int(std::floor(height));
        const auto down = kernels::lanczos_weights(float(height - v));
        for (int j = 0; j < 6; ++j)
            sum += double(across[std::size_t(i)]) * double(down[std::size_t(j)]) *
                   p.picture.at(std::clamp(column, 0, p.picture.width() - 1),
                                std::clamp(v - 2 + j, 0, p.picture.height() - 1), c);
    }
    return std::uint16_t(std::clamp(std::floor(sum + 0.5), 0.0, 65535.0));
}

std::uint16_t median_of(std::vector<std::uint16_t> values) {
    std::sort(values.begin(), values.end());
    const unsigned low = values[(values.size() - 1) / 2];
    const unsigned high = values[values.size() / 2];
    return std::uint16_t((low + high + 1) / 2);
}

// Which values clipped_mean takes the mean of.
std::vector<bool> without_outliers(const std::vector<std::uint16_t>& values, int step) {
    std::vector<std::uint16_t> sorted = values;
    std::sort(sorted.begin(), sorted.end());
    const int middle = sorted[(sorted.size() - 1) / 2];
    std::vector<std::uint16_t> distances;
    distances.reserve(values.size());
    for (const int v : values) distances.push_back(std::uint16_t(std::abs(v - middle)));
    const double reach = std::max(std::floor(median_of(distances) * 3 * 1.4826 + 0.5), std::ceil(1.5 * step));
    std::vector<bool> out;
    for (const std::uint16_t v : values) out.push_back(std::abs(int(v) - middle) <= reach);
    return out;
}

std::uint16_t merge_one_sample(Mode mode, const LightCurve& curve, int step, std::vector<std::uint16_t> values,
                               const std::vector<double>& strengths, bool soft_white) {
    std::vector<bool> counts(values.size(), true);
    switch (mode) {
        case Mode::one:
            return values.front();
        case Mode::maximum:
            return *std::max_element(values.begin(), values.end());
        case Mode::minimum:
            return *std::min_element(values.begin(), values.end());
        case Mode::lighten: {
            std::uint16_t best = 0;
            for (std::size_t k = 0; k < values.size(); ++k) {
                const std::uint16_t v =
                    strengths[k] < 1 ? curve.sample(strengths[k] * curve.light(values[k])) : values[k];
                best = std::max(best, v);
            }
            return best;
        }
        case Mode::median:
            return median_of(std::move(values));
        case Mode::clipped_mean:
            counts = without_outliers(values, step);
            break;
        case Mode::mean:
        case Mode::add:
            break;
    }
    double sum = 0, parts = 0;
    for (std::size_t k = 0; k < values.size(); ++k) {
        if (!counts[k]) continue;
        const double share = std::floor(strengths[k] * 65536 + 0.5);
        sum += std::floor((curve.light(values[k]) * share + 32768) / 65536);
        parts += share;
    }
    constexpr double white = 4294967295.0;
    if (mode == Mode::add && soft_white && sum > 0.6 * white) {
        const double beyond = sum - 0.6 * white, room = 0.4 * white;
        sum = std::floor(0.6 * white + beyond * room / (room + beyond));
    }
    if (mode == Mode::add) return curve.sample(sum);
    return parts == 0 ? std::uint16_t{0} : curve.sample(sum * 65536 / parts);
}

// The mean of the darks, in the samples of the pile.
Result<Raster16> plain_mean(const Pile& pile, const std::vector<int>& ids, Job& job) {
    const LightCurve curve = LightCurve::of(pile.profile, pile.channels);
    std::vector<Raster16> pictures;
    for (const int id : ids) {
        Result<Raster16> dark = read_frame(*find_frame(pile, id)->file, 0, working_space(pile), job);
        if (!dark.ok()) return dark.failure();
        pictures.push_back(std::move(dark).value());
    }
    Raster16 out(pictures.front().size(), pile.channels);
    for (std::size_t i = 0; i < out.data().size(); ++i) {
        double sum = 0;
        for (const Raster16& dark : pictures) sum += curve.light(dark.data()[i]);
        out.data()[i] = curve.sample(sum / double(pictures.size()));
    }
    return out;
}

// The whole frame after its stages.
Result<Placed> place(const Pile& pile, const Frame& frame, Zone zone, const Softening& softening = {},
                     const Look& look = {}) {
    Job job;
    const DarkChoice darks = darks_of(pile, frame);
    Developing how = developing_of(pile, frame);
    SharedRaster dark;
    FrameStore store(working_space(pile), {0, std::size_t(1) << 32});
    if (!darks.ids.empty() && dark_of_mosaic(frame)) {
        Result<Developing> use = raw_dark_for(pile, darks, store);
        if (!use.ok()) return use.failure();
        how = use.value();
    } else if (!darks.ids.empty()) {
        Result<Raster16> mean = plain_mean(pile, darks.ids, job);
        if (!mean.ok()) return mean.failure();
        dark = std::make_shared<const Raster16>(std::move(mean).value());
    }
    Result<FramePixels> read = read_pixels(*frame.file, 0, working_space(pile), job, how);
    if (!read.ok()) return read.failure();
    const FramePixels& pixels = read.value();
    const Size size = pixels.size();
    const Samples from = samples_of(pixels.bits());
    FrameStages of_pile(pile, 0);
    Stages stages = of_pile.of(frame, dark, darks.scale, how.stops, from);
    for (const auto& further : of_pile.softened(softening)) stages.push_back(further);
    for (const auto& further : of_pile.looked(look, made_by(stages, from))) stages.push_back(further);
    const std::size_t row = std::size_t(size.width) * std::size_t(pile.channels);
    StagedBox box;
    const void* made = box.make(stages, from, pile.channels, size, whole(size), [&](const Rect& all, void* out) {
        for (int y = 0; y < all.height; ++y) {
            const SourceRow samples = pixels.row(y);
            if (samples.narrow)
                std::copy_n(samples.narrow, row, static_cast<std::uint8_t*>(out) + std::size_t(y) * row);
            else
                std::copy_n(samples.wide, row, static_cast<std::uint16_t*>(out) + std::size_t(y) * row);
        }
    });
    Raster16 picture(size, pile.channels);
    const bool narrow = made_by(stages, from) == Samples::narrow;
    for (std::size_t i = 0; i < picture.data().size(); ++i)
        picture.data()[i] = narrow ? kernels::to_16(static_cast<const std::uint8_t*>(made)[i])
                                   : static_cast<const std::uint16_t*>(made)[i];
    return Placed{&frame, std::move(picture), placement(pile, frame, zone)};
}

double share_of_sky(const Pile& pile, int x, int y) {
    if (!pile.zones) return 1;
    // Beyond the reference as at its edges.
    const int u = std::clamp(x, 0, pile.size.width - 1);
    const int v = std::clamp(y, 0, pile.size.height - 1);
    return pile.zones->soft.at(u, v) / 255.0;
}

void mix(std::uint16_t under, std::uint16_t over, double share, std::uint16_t& out) {
    out = std::uint16_t(std::floor(under * (1 - share) + over * share + 0.5));
}

// The frame among `frames`, all of which reach the pixel, that shows there when whole pixels are chosen.
const Placed& chosen(const std::vector<const Placed*>& frames, Mode mode, const std::array<double, 3>& weights,
                     const LightCurve& curve, int x, int y) {
    const double red = std::floor(65536 * weights[0] + 0.5), blue = std::floor(65536 * weights[2] + 0.5);
    const std::array<double, 3> whole{red, 65536 - red - blue, blue};
    const Placed* best = nullptr;
    double best_brightness = 0;
    for (const Placed* p : frames) {
        double brightness = 0;
        const double share = mode == Mode::lighten ? std::floor(p->strength * 65536 + 0.5) : 65536;
        for (int c = 0; c < 3; ++c)
            brightness +=
                whole[std::size_t(c)] * std::floor((curve.light(sample(*p, x, y, c)) * share + 32768) / 65536);
        if (best && (mode == Mode::minimum ? brightness >= best_brightness : brightness <= best_brightness)) continue;
        best = p;
        best_brightness = brightness;
    }
    return *best;
}

Status merge_plain(const Pile& pile, Zone zone, const Rect& region, Raster16& out) {
    std::vector<Placed> frames;
    const double last = double(merged_ids(pile, zone).size()) - 1;
    const Taper taper = last > 0 ? method_of(pile, zone).taper : Taper();
    for (const Frame& frame : pile.frames) {
        if (!merged(pile, frame, zone)) continue;
        const bool strong = entry_of(method_of(pile, zone).mode).uses_strength;
        const Head head = strong ? method_of(pile, zone).head : Head();
        const double from_end = taper.end == TaperEnd::new_one ? double(frames.size()) : last - double(frames.size());
        const bool stands_out = head.on && from_end < head.frames;
        Result<Placed> placed = place(pile, frame, zone, stands_out ? head.softening : Softening());
        if (!placed.ok()) return placed.failure();
        const double x = last > 0 ? double(frames.size()) / last : 1;
        frames.push_back(std::move(placed).value());
        frames.back().strength = frame.strength;
        // Straight lines alone.
        double left = 1;
        if (taper.end == TaperEnd::old_one || taper.end == TaperEnd::both) left = std::min(left, x / taper.over);
        if (taper.end == TaperEnd::new_one || taper.end == TaperEnd::both) left = std::min(left, (1 - x) / taper.over);
        if (stands_out) left = 1;
        if (head.on && !stands_out && from_end < head.frames + head.apart) left = 0;
        frames.back().strength = frame.strength * left;
    }
    const LightCurve curve =
        pile.light == Light::linear ? LightCurve::of(pile.profile, pile.channels) : LightCurve::encoded();
    const bool any_8_bit =
        std::any_of(frames.begin(), frames.end(), [](const Placed& p) { return p.frame->file->facts.bits == 8; });
    const int step = any_8_bit ? 257 : 1;
    const Method& method = method_of(pile, zone);
    const bool by_pixel =
        method.by == By::pixel && pile.channels == 3 &&
        (method.mode == Mode::lighten || method.mode == Mode::maximum || method.mode == Mode::minimum);
    const std::array<double, 3> weights = by_pixel ? luminance_weights(pile.profile) : std::array<double, 3>{};
    for (int y = 0; y < region.height; ++y)
        for (int x = 0; x < region.width; ++x) {
            std::vector<const Placed*> here;
            for (const Placed& p : frames)
                if (reaches(p, region.left + x, region.top + y)) here.push_back(&p);
            // Where nobody votes the reference shows, or the first that is there.
            std::vector<const Placed*> voters;
            for (const Placed* p : here)
                if (votes(*p, region.left + x, region.top + y)) voters.push_back(p);
            const bool nobody = voters.empty() && !here.empty();
            if (nobody) {
                const auto reference = std::find_if(here.begin(), here.end(),
                                                    [&](const Placed* p) { return p->frame->id == pile.reference; });
                voters = {reference == here.end() ? here.front() : *reference};
            }
            here = voters;
            if (by_pixel && !here.empty())
                here = {&chosen(here, method.mode, weights, curve, region.left + x, region.top + y)};
            for (int c = 0; c < pile.channels; ++c) {
                std::vector<std::uint16_t> values;
                std::vector<double> strengths;
                for (const Placed* of : here) {
                    const Placed& p = *of;
                    values.push_back(sample(p, region.left + x, region.top + y, c));
                    strengths.push_back(p.strength);
                }
                out.at(x, y, c) =
                    values.empty() ? std::uint16_t(std::lround(65535 * pile.canvas.background[std::size_t(c)]))
                    : nobody       ? values.front()
                                   : merge_one_sample(method.mode, curve, step, values, strengths, method.soft_white);
            }
        }
    return Done{};
}

// A part that is made small is softened first.
Softening softening_of(const Part& part) {
    if (!part.place || part.place->scale >= 1) return {};
    return {std::sqrt(1 / (part.place->scale * part.place->scale) - 1), false};
}

// What is kept of a part at a pixel of the canvas: between four pixels of its mask where it was placed.
int mask_at(const Pile& pile, const Part& part, int x, int y) {
    if (!part.place) return part.mask.at(x, y);
    const Point p = inverse(matrix_of(*part.place, pile.size))({double(x), double(y)});
    const int u = int(std::floor(p.x)), v = int(std::floor(p.y));
    const double across = p.x - u, down = p.y - v;
    const auto at = [&](int i, int j) {
        return i < 0 || j < 0 || i >= pile.size.width || j >= pile.size.height ? 0.0 : part.mask.at(i, j);
    };
    const double above = at(u, v) * (1 - across) + at(u + 1, v) * across;
    const double below = at(u, v + 1) * (1 - across) + at(u + 1, v + 1) * across;
    return int(above * (1 - down) + below * down + 0.5);
}

}  // namespace

Result<Raster16> render_plain(const Pile& pile, const Rect& region) {
    Raster16 out(region.size(), pile.channels);
    Status base = merge_plain(pile, Zone::sky, region, out);
    if (!base.ok()) return base.failure();
    if (pile.zones) {
        Raster16 land(region.size(), pile.channels);
        Status merged = merge_plain(pile, Zone::land, region, land);
        if (!merged.ok()) return merged.failure();
        for (int y = 0; y < region.height; ++y)
            for (int x = 0; x < region.width; ++x)
                for (int c = 0; c < pile.channels; ++c)
                    mix(land.at(x, y, c), out.at(x, y, c), share_of_sky(pile, region.left + x, region.top + y),
                        out.at(x, y, c));
    }
    const LightCurve curve = LightCurve::of(pile.profile, pile.channels);
    for (const Part& part : pile.parts) {
        const Frame* frame = find_frame(pile, part.frame);
        if (!part.on || !frame || !usable(*frame)) continue;
        std::vector<Placed> zones;
        for (const Zone zone : both_zones) {
            if (zone == Zone::land && !pile.zones) break;
            Result<Placed> placed = place(pile, *frame, zone, softening_of(part), part.look);
            if (!placed.ok()) return placed.failure();
            zones.push_back(std::move(placed).value());
        }
        if (part.place) {
            const bool in_sky = zone_of(pile, part) == Zone::sky;
            Placed moved = std::move(in_sky ? zones.front() : zones.back());
            moved.placed = placement(pile, part);
            zones.clear();
            zones.push_back(std::move(moved));
        }
        const double opacity = std::round(255 * part.strength) / 255;
        for (int y = 0; y < region.height; ++y)
            for (int x = 0; x < region.width; ++x) {
                const int u = region.left + x;
                const int v = region.top + y;
                const double a = opacity * mask_at(pile, part, u, v) / 255;
                const double sky = part.place ? 1 : share_of_sky(pile, u, v);
                const bool reached =
                    (sky == 0 || reaches(zones.front(), u, v)) && (sky == 1 || reaches(zones.back(), u, v));
                if (a == 0 || !reached) continue;
                for (int c = 0; c < pile.channels; ++c) {
                    std::uint16_t over = 0;
                    if (sky == 1)
                        over = sample(zones.front(), u, v, c);
                    else if (sky == 0)
                        over = sample(zones.back(), u, v, c);
                    else
                        mix(sample(zones.back(), u, v, c), sample(zones.front(), u, v, c), sky, over);
                    const double less = part.lowered[std::size_t(c)] * LightCurve::full;
                    if (less != 0) over = curve.sample(curve.light(over) - less);
                    std::uint16_t& below = out.at(x, y, c);
                    if (part.join == Join::add)
                        below = curve.sample(curve.light(below) + a * curve.light(over));
                    else if (part.join == Join::replace || (part.join == Join::lighter) == (over > below))
                        mix(below, over, a, below);
                }
            }
    }
    return out;
}

}  // namespace bp
