#include "lights/movers.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>

namespace bp {
namespace {

constexpr double shortest_px = 5;
constexpr double least_slender = 2.2;  // lengths in widths

double dot(Point a, Point b) {
    return a.x * b.x + a.y * b.y;
}
double length_of(Point a) {
    return std::hypot(a.x, a.y);
}
Point minus(Point a, Point b) {
    return {a.x - b.x, a.y - b.y};
}

// One end of a trace.
struct End {
    Point quarter;  // the middle of the quarter of its light that lies there
    Point way;      // outward, of length 1
};

// A trace as the way of a light.
struct Stroke {
    const Trace* trace = nullptr;
    End ends[2];
    double length = 0;  // px
    double across = 1;  // deviation
    double way_px = 0;  // that the light moved, without its own width
    double light = 0;   // of its pixels, middle
};

Point middle_of(std::span<const Bright* const> pixels) {
    double sum = 0, x = 0, y = 0;
    for (const Bright* p : pixels) {
        sum += p->by;
        x += double(p->by) * p->x;
        y += double(p->by) * p->y;
    }
    return {x / std::max(1.0, sum), y / std::max(1.0, sum)};
}

std::optional<Stroke> stroke_of(const Trace& trace) {
    constexpr std::size_t fewest = 8;
    if (!trace.thin() || trace.pixels.size() < fewest) return std::nullopt;
    std::vector<const Bright*> pixels;
    for (const Bright& p : trace.pixels) pixels.push_back(&p);
    const Point middle = middle_of(pixels);
    double xx = 0, xy = 0, yy = 0, sum = 0;
    for (const Bright* p : pixels) {
        const double dx = p->x - middle.x, dy = p->y - middle.y;
        sum += p->by;
        xx += p->by * dx * dx;
        xy += p->by * dx * dy;
        yy += p->by * dy * dy;
    }
    const double angle = std::atan2(2 * xy, xx - yy) / 2;
    const Point way{std::cos(angle), std::sin(angle)};
    const auto along = [&](const Bright* p) { return dot(minus({double(p->x), double(p->y)}, middle), way); };
    std::sort(pixels.begin(), pixels.end(), [&](const Bright* a, const Bright* b) { return along(a) < along(b); });
    Stroke out;
    out.trace = &trace;
    out.length = along(pixels.back()) - along(pixels.front());
    const double spread = std::max(0.0, (xx + yy) / 2 - std::hypot((xx - yy) / 2, xy)) / std::max(1.0, sum);
    out.across = std::max(0.5, std::sqrt(spread));
    if (out.length < shortest_px || out.length < least_slender * 2.355 * out.across) return std::nullopt;
    // Quarters of its light, not of its length: a light that moves evenly leaves one in every quarter of the exposure,
    // however wide it is.
    std::array<std::vector<const Bright*>, 4> quarters;
    double passed = 0;
    for (const Bright* p : pixels) {
        quarters[std::min<std::size_t>(3, std::size_t(4 * passed / sum))].push_back(p);
        passed += p->by;
    }
    if (std::any_of(quarters.begin(), quarters.end(), [](const auto& q) { return q.empty(); })) return std::nullopt;
    const Point first = middle_of(quarters[0]), second = middle_of(quarters[1]);
    const Point third = middle_of(quarters[2]), last = middle_of(quarters[3]);
    out.way_px = length_of(minus(last, first)) * 4 / 3;
    const auto outward = [](Point from, Point to) -> Point {
        const Point by = minus(to, from);
        const double n = std::max(1e-9, length_of(by));
        return {by.x / n, by.y / n};
    };
    out.ends[0] = {first, outward(second, first)};
    out.ends[1] = {last, outward(third, last)};
    std::vector<std::uint16_t> by;
    by.reserve(pixels.size());
    for (const Bright* p : pixels) by.push_back(p->by);
    std::nth_element(by.begin(), by.begin() + std::ptrdiff_t(by.size() / 2), by.end());
    out.light = by[by.size() / 2];
    return out;
}

// A trace of a frame that goes on in one of the next.
struct Link {
    std::size_t to = 0;
    int end = 0, begin = 0;  // which of the ends of each
    Point by;                // from the middle of the last quarter to that of the first
    double amiss = 0;        // 0 fits, 1 does no more
};

std::optional<Link> link(const Stroke& a, const Stroke& b, std::size_t to, double pause_s, double exposure_s) {
    constexpr double least_straight = 0.86;  // cosines of what a way turns
    constexpr double most_brighter = 2.5;
    constexpr double slack_px = 3;
    if (a.light > most_brighter * b.light || b.light > most_brighter * a.light) return std::nullopt;
    // From the middle of a last quarter to that of a first a light moves for the pause and an eighth of both exposures.
    const double expected = (a.way_px + b.way_px) / 2 / exposure_s * (pause_s + exposure_s / 4);
    std::optional<Link> out;
    for (int i = 0; i < 2; ++i)
        for (int j = 0; j < 2; ++j) {
            const Point by = minus(b.ends[j].quarter, a.ends[i].quarter);
            const double far = length_of(by);
            if (far < 1e-6) continue;
            const Point way{by.x / far, by.y / far};
            const double straight = std::min(dot(way, a.ends[i].way), -dot(way, b.ends[j].way));
            if (straight < least_straight) continue;
            const double amiss =
                std::max(std::abs(far - expected) / (slack_px + expected / 2), (1 - straight) / (1 - least_straight));
            if (amiss < 1 && (!out || amiss < out->amiss)) out = Link{to, i, j, by, amiss};
        }
    return out;
}

// Whether a light that moved so over one pause may move so over the next.
bool goes_on(Point by, Point then) {
    constexpr double least_straight = 0.8;
    constexpr double most_faster = 1.6;
    const double a = length_of(by), b = length_of(then);
    return dot(by, then) >= least_straight * a * b && a <= most_faster * b && b <= most_faster * a;
}

}  // namespace

std::vector<Mover> movers_in(std::span<const FrameTraces> run) {
    std::vector<std::vector<Stroke>> strokes(run.size());
    for (std::size_t k = 0; k < run.size(); ++k)
        for (const Trace& trace : run[k].traces)
            if (const auto stroke = stroke_of(trace)) strokes[k].push_back(*stroke);
    std::vector<std::vector<std::optional<Link>>> links(run.size());
    std::vector<std::vector<const Link*>> reached(run.size());
    for (std::size_t k = 0; k < run.size(); ++k) {
        links[k].resize(strokes[k].size());
        reached[k].assign(strokes[k].size(), nullptr);
    }
    for (std::size_t k = 0; k + 1 < run.size(); ++k) {
        const double exposure = std::min(run[k].exposure_s, run[k + 1].exposure_s);
        const double pause = run[k + 1].begin_s - run[k].begin_s - run[k].exposure_s;
        if (exposure <= 0 || pause < 0 || pause >= exposure) continue;
        for (std::size_t i = 0; i < strokes[k].size(); ++i)
            for (std::size_t j = 0; j < strokes[k + 1].size(); ++j) {
                const auto found = link(strokes[k][i], strokes[k + 1][j], j, pause, exposure);
                if (found && (!links[k][i] || found->amiss < links[k][i]->amiss)) links[k][i] = found;
            }
        // Of several that lead to one the best does.
        std::vector<std::optional<std::size_t>> best(strokes[k + 1].size());
        for (std::size_t i = 0; i < links[k].size(); ++i) {
            if (!links[k][i]) continue;
            auto& held = best[links[k][i]->to];
            if (held && links[k][*held]->amiss <= links[k][i]->amiss) {
                links[k][i].reset();
            } else {
                if (held) links[k][*held].reset();
                held = i;
            }
        }
        for (std::size_t j = 0; j < best.size(); ++j)
            if (best[j]) reached[k + 1][j] = &*links[k][*best[j]];
    }
    std::vector<Mover> out;
    for (std::size_t k = 0; k + 1 < run.size(); ++k)
        for (std::size_t i = 0; i < links[k].size(); ++i) {
            if (!links[k][i]) continue;
            const Link& here = *links[k][i];
            // It comes in at one end and goes out at the other.
            const Link* before = reached[k][i];
            const auto& after = links[k + 1][here.to];
            const bool came = before && before->begin != here.end && goes_on(before->by, here.by);
            const bool goes = after && after->end != here.begin && goes_on(here.by, after->by);
            if (!came && !goes) continue;
            const double pause = run[k + 1].begin_s - run[k].begin_s - run[k].exposure_s;
            const double taken = pause + (run[k].exposure_s + run[k + 1].exposure_s) / 8;
            Mover mover;
            mover.before = k;
            mover.across_px = std::max(strokes[k][i].across, strokes[k + 1][here.to].across);
            // Samples make more of the faint ends of a trace than light does: its quarters lie further out.
            constexpr double further_out = 0.5;  // deviations
            const double far = length_of(here.by);
            const double speed = (far + further_out * mover.across_px) / taken;
            mover.px_per_s = {here.by.x / far * speed, here.by.y / far * speed};
            // What moves over the pause, with as much again for the fall-off at both ends.
            const End& end = strokes[k][i].ends[here.end];
            const double reach = length_of(mover.px_per_s) * pause + 6 * mover.across_px + strokes[k][i].length / 8;
            for (const Bright& p : strokes[k][i].trace->pixels) {
                const Point at{double(p.x), double(p.y)};
                if (dot(minus(end.quarter, at), end.way) <= reach) mover.end.push_back(at);
            }
            out.push_back(std::move(mover));
        }
    return out;
}

}  // namespace bp
