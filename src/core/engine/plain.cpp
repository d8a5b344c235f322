#include "engine/plain.h"

#include <algorithm>
#include <cmath>

#include "engine/evened.h"
#include "engine/mended.h"
#include "engine/render.h"
#include "kernels/warp.h"

namespace bp {
namespace {

struct Placed {
    const Frame* frame;
    Raster16 picture;
    Placement placed;
};

bool reaches(const Placed& p, int x, int y) {
    constexpr double slack = 1e-6;
    const Point at = p.placed.to_frame({double(x), double(y)});
    return at.x >= -slack && at.y >= -slack && at.x <= p.picture.width() - 1 + slack &&
           at.y <= p.picture.height() - 1 + slack;
}

// Shifts, turns and scales of a few degrees and per cent: down each of six columns first, at the place where the canvas
// row crosses it, then across. That is what the weights mean, wherever they are put to use.
std::uint16_t sample(const Placed& p, int x, int y, int c) {
    if (p.placed.is_identity()) return p.picture.at(x, y, c);
    const Point at = p.placed.to_frame({double(x), double(y)});
    const Point next = p.placed.to_frame({x + 1.0, double(y)});
    const double slope = (next.y - at.y) / (next.x - at.x);
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

// What clipped_mean takes the mean of.
std::vector<std::uint16_t> without_outliers(const std::vector<std::uint16_t>& values, int step) {
    std::vector<std::uint16_t> sorted = values;
    std::sort(sorted.begin(), sorted.end());
    const int middle = sorted[(sorted.size() - 1) / 2];
    std::vector<std::uint16_t> distances;
    distances.reserve(values.size());
    for (const int v : values) distances.push_back(std::uint16_t(std::abs(v - middle)));
    const double reach = std::max(std::floor(median_of(distances) * 3 * 1.4826 + 0.5), std::ceil(1.5 * step));
    std::vector<std::uint16_t> out;
    for (const std::uint16_t v : values)
        if (std::abs(int(v) - middle) <= reach) out.push_back(v);
    return out;
}

std::uint16_t merge_one_sample(const Pile& pile, const LightCurve& curve, int step, std::vector<std::uint16_t> values,
                               const std::vector<double>& strengths) {
    switch (pile.merge.mode) {
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
            values = without_outliers(values, step);
            break;
        case Mode::mean:
            break;
    }
    double sum = 0;
    for (const std::uint16_t v : values) sum += curve.light(v);
    return curve.sample(sum / double(values.size()));
}

Result<Placed> place(const Pile& pile, const Frame& frame) {
    Job job;
    Result<Raster16> picture = read_frame(*frame.file, 0, working_space(pile), job);
    if (!picture.ok()) return picture.failure();
    if (pile.hot)
        mend_box(*pile.hot, whole(picture.value().size()), picture.value().height(), pile.channels,
                 picture.value().data().data(), std::size_t(picture.value().row_samples()));
    if (const SharedEvener evener = Eveners(pile).of(frame, 16)) {
        Raster16& samples = picture.value();
        evener->run(samples.clone().data().data(), std::size_t(samples.width()) * std::size_t(samples.height()),
                    samples.data().data());
    }
    return Placed{&frame, std::move(picture).value(), placement(pile, frame)};
}

Status merge_plain(const Pile& pile, const Rect& region, Raster16& out) {
    std::vector<Placed> frames;
    for (const Frame& frame : pile.frames) {
        if (!merged(pile, frame)) continue;
        Result<Placed> placed = place(pile, frame);
        if (!placed.ok()) return placed.failure();
        frames.push_back(std::move(placed).value());
    }
    const LightCurve curve =
        pile.merge.light == Light::linear ? LightCurve::of(pile.profile, pile.channels) : LightCurve::encoded();
    const bool any_8_bit =
        std::any_of(frames.begin(), frames.end(), [](const Placed& p) { return p.frame->file->facts.bits == 8; });
    const int step = any_8_bit ? 257 : 1;
    for (int y = 0; y < region.height; ++y)
        for (int x = 0; x < region.width; ++x)
            for (int c = 0; c < pile.channels; ++c) {
                std::vector<std::uint16_t> values;
                std::vector<double> strengths;
                for (const Placed& p : frames) {
                    if (!reaches(p, region.left + x, region.top + y)) continue;
                    values.push_back(sample(p, region.left + x, region.top + y, c));
                    strengths.push_back(p.frame->strength);
                }
                out.at(x, y, c) =
                    values.empty() ? std::uint16_t{0} : merge_one_sample(pile, curve, step, values, strengths);
            }
    return Done{};
}

}  // namespace

Result<Raster16> render_plain(const Pile& pile, const Rect& region) {
    Raster16 out(region.size(), pile.channels);
    Status base = merge_plain(pile, region, out);
    if (!base.ok()) return base.failure();
    for (const Part& part : pile.parts) {
        const Frame* frame = find_frame(pile, part.frame);
        if (!part.on || !frame || !usable(*frame)) continue;
        Result<Placed> placed = place(pile, *frame);
        if (!placed.ok()) return placed.failure();
        const double opacity = std::round(255 * part.strength) / 255;
        for (int y = 0; y < region.height; ++y)
            for (int x = 0; x < region.width; ++x) {
                const double a = opacity * part.mask.at(region.left + x, region.top + y) / 255;
                if (a == 0 || !reaches(placed.value(), region.left + x, region.top + y)) continue;
                for (int c = 0; c < pile.channels; ++c) {
                    const double over = sample(placed.value(), region.left + x, region.top + y, c);
                    std::uint16_t& under = out.at(x, y, c);
                    under = std::uint16_t(std::floor(under * (1 - a) + over * a + 0.5));
                }
            }
    }
    return out;
}

}  // namespace bp
