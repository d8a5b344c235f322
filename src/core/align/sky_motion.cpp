#include "align/sky_motion.h"

#include <algorithm>
#include <cmath>

#include "align/sky_model.h"
#include "base/median.h"

namespace bp {
namespace {

constexpr double fits_within_px = 1;

// The farthest that a point of the frame lies from where the motion has it, of those that come to lie in the
// reference's picture: beyond it lenses are not known.
double miss(const Placement& found, const SkyMotion& motion, double since_reference_s, Size size) {
    constexpr int points = 6;
    const Placement expected = motion.over(-since_reference_s);
    double out = 0;
    for (int j = 0; j <= points; ++j)
        for (int i = 0; i <= points; ++i) {
            const Point p{double(size.width - 1) * i / points, double(size.height - 1) * j / points};
            const Point a = expected.to_canvas(p);
            const Point b = found.to_canvas(p);
            if (a.x < 0 || a.y < 0 || a.x > size.width - 1 || a.y > size.height - 1) continue;
            out = std::max(out, std::hypot(a.x - b.x, a.y - b.y));
        }
    return out;
}

}  // namespace

Vec3 turn_of(const Alignment& frame) {
    const Lens& lens = *frame.lens;
    const Matrix turn = inverse(to_pixels(lens)) * frame.to_reference * to_pixels(lens);
    const double scale = std::cbrt(turn.determinant());
    const auto& m = turn.m();
    const Vec3 twice{(m[7] - m[5]) / scale, (m[2] - m[6]) / scale, (m[3] - m[1]) / scale};
    const double sine = std::hypot(twice[0], twice[1], twice[2]) / 2;
    const double cosine = ((m[0] + m[4] + m[8]) / scale - 1) / 2;
    if (sine == 0) return {0, 0, 0};
    const double factor = std::atan2(sine, cosine) / (2 * sine);
    return {twice[0] * factor, twice[1] * factor, twice[2] * factor};
}

Placement SkyMotion::over(double seconds) const {
    const Vec3 by{spin[0] * seconds, spin[1] * seconds, spin[2] * seconds};
    std::array<double, 9> turn{};
    for (std::size_t k = 0; k < 3; ++k) {
        Vec3 axis{0, 0, 0};
        axis[k] = 1;
        const Vec3 v = turned_by<double>(axis, by);
        for (std::size_t row = 0; row < 3; ++row) turn[row * 3 + k] = v[row];
    }
    return {to_pixels(lens) * Matrix(turn) * inverse(to_pixels(lens)), lens};
}

std::optional<FoundMotion> sky_motion(std::span<const PlacedInTime> frames, std::size_t reference, Size size) {
    constexpr int rounds = 5;
    constexpr std::size_t fewest = 3;
    constexpr double least_turn = 0.0004;  // radians over the run
    FoundMotion out;
    out.fits.assign(frames.size(), true);
    const auto lens = std::find_if(frames.begin(), frames.end(), [](const auto& f) { return bool(f.place.lens); });
    if (lens == frames.end()) return std::nullopt;
    out.motion.lens = *lens->place.lens;
    const auto since = [&](std::size_t k) { return frames[k].time_s - frames[reference].time_s; };
    const auto counts = [&](std::size_t k) {
        const Alignment& place = frames[k].place;
        return place.aligned && !place.by_clock && place.lens;
    };
    // A frame leads back to the reference: its turn is that of the sky, backwards.
    std::vector<double> rates[3];
    for (std::size_t k = 0; k < frames.size(); ++k) {
        if (k == reference || !counts(k) || since(k) == 0) continue;
        const Vec3 turn = turn_of(frames[k].place);
        for (std::size_t axis = 0; axis < 3; ++axis) rates[axis].push_back(-turn[axis] / since(k));
    }
    if (rates[0].size() + 1 < fewest) return std::nullopt;
    for (std::size_t axis = 0; axis < 3; ++axis) out.motion.spin[axis] = middle_of(rates[axis]);
    for (int round = 0; round < rounds; ++round) {
        Vec3 sum{0, 0, 0};
        double weight = 0, longest = 0;
        std::size_t agreeing = 0;
        for (std::size_t k = 0; k < frames.size(); ++k) {
            // Where the camera stood beside its turn does not matter for the turn.
            Placement turned = frames[k].place.placement();
            turned.sensor = {};
            if (!counts(k) || miss(turned, out.motion, since(k), size) > fits_within_px) continue;
            ++agreeing;
            longest = std::max(longest, std::abs(since(k)));
            const Vec3 turn = turn_of(frames[k].place);
            for (std::size_t axis = 0; axis < 3; ++axis) sum[axis] -= turn[axis] * since(k);
            weight += since(k) * since(k);
        }
        if (agreeing < fewest || weight == 0) return std::nullopt;
        for (std::size_t axis = 0; axis < 3; ++axis) out.motion.spin[axis] = sum[axis] / weight;
        const auto& s = out.motion.spin;
        if (std::hypot(s[0], s[1], s[2]) * longest < least_turn) return std::nullopt;
    }
    for (std::size_t k = 0; k < frames.size(); ++k)
        out.fits[k] = counts(k) && miss(frames[k].place.placement(), out.motion, since(k), size) <= fits_within_px;
    return out;
}

}  // namespace bp
