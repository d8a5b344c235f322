#include "app/rail/rail_layout.h"

#include <algorithm>

#include "frames/robust.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

constexpr double least_slat = 2;
constexpr double widest_slat = 74;  // at zoom 1
constexpr double between_slats = 4, before_a_cut = 16, fuller = 1.1;

struct Moment {
    double begin = 0;
    double length = 0;
};

std::vector<Moment> evenly(std::size_t count) {
    std::vector<Moment> out(count);
    for (std::size_t i = 0; i < count; ++i) out[i] = {double(i), 0.86};
    return out;
}

// Begin and length of each frame on the rail's own axis.
std::vector<Moment> moments_of(const Pile& pile, std::vector<std::size_t>& shortened) {
    const auto& frames = pile.frames;
    const bool timed =
        std::all_of(frames.begin(), frames.end(), [](const Frame& f) { return f.file->capture.captured.has_value(); });
    if (!timed || !in_order_of_time(pile)) return evenly(frames.size());
    std::vector<double> steps;
    for (std::size_t i = 1; i < frames.size(); ++i)
        steps.push_back(*frames[i].file->capture.captured - *frames[i - 1].file->capture.captured);
    if (steps.empty()) return evenly(frames.size());
    const double usual = median(steps);
    if (usual <= 0) return evenly(frames.size());
    std::vector<Moment> out(frames.size());
    double at = 0;
    for (std::size_t i = 0; i < out.size(); ++i) {
        if (i > 0) {
            const double longest = std::max(out[i - 1].length, 0.0) + 2.2 * usual;
            if (steps[i - 1] > longest) shortened.push_back(i);
            at += std::max(std::min(steps[i - 1], longest), out[i - 1].length * 1.02);
        }
        // Short exposures would vanish; very long ones would push the rest aside.
        out[i] = {at, std::clamp(frames[i].file->capture.exposure_s.value_or(0), usual * 0.34, usual * 2.0)};
    }
    return out;
}

}  // namespace

RailLayout lay_out_rail(const Pile& pile, double room, double zoom) {
    RailLayout out;
    if (pile.frames.empty()) return out;
    const std::vector<Moment> moments = moments_of(pile, out.breaks);
    const double span = std::max(moments.back().begin + moments.back().length, 1e-9);
    double longest = 0;
    for (const Moment& m : moments) longest = std::max(longest, m.length);
    const double whole = rail::slat_height * pile.size.width / std::max(1, pile.size.height);
    double scale = std::min(room * zoom / span, widest_slat * zoom / longest);
    // Where frames are shown whole the last one is, too.
    const double last = moments.back().length * scale, each = span * scale / double(moments.size());
    if (each > whole + between_slats && last < whole) scale = std::min(scale, (room * zoom - (whole - last)) / span);
    out.slats.reserve(moments.size());
    for (std::size_t i = 0; i < moments.size(); ++i)
        out.slats.push_back({pile.frames[i].id, moments[i].begin * scale,
                             std::max(least_slat, moments[i].length * scale),
                             std::max(least_slat, moments[i].length * scale)});
    for (std::size_t i = 0; i < out.slats.size(); ++i) {
        Slat& slat = out.slats[i];
        const double next =
            i + 1 < out.slats.size() ? out.slats[i + 1].left : std::max(room * zoom, slat.right()) + between_slats;
        // Less than that would not show more of it.
        // A pause that was cut short stays to be seen.
        const bool cut = std::binary_search(out.breaks.begin(), out.breaks.end(), i + 1);
        const double room_for_it = std::min(whole, next - slat.left - (cut ? before_a_cut : between_slats));
        if (room_for_it >= fuller * slat.width) slat.width = room_for_it;
    }
    out.length = out.slats.back().right();
    return out;
}

}  // namespace bp::app
