#include "lights/streaks.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include "base/median.h"

namespace bp {
namespace {

constexpr std::array<StreakKindEntry, 3> table{{
    {StreakKind::aircraft, "aircraft", "aircraft"},
    {StreakKind::satellite, "satellite", "satellites"},
    {StreakKind::meteor, "meteor", "meteors"},
}};

constexpr int angles = 360;         // over half a turn
constexpr double on_line_px = 1.6;  // a pixel this far off still lies on it
constexpr double shortest_px = 12;
constexpr double widest_break = 26;  // between two flashes
constexpr int most_lines = 12;

// How much a pixel says: what stands out far says no more than what surely does.
double weight_of(const Bright& p) {
    constexpr double surely = 32;  // quarters of a deviation
    return std::min(1.0, p.deviations / surely) + 0.25;
}

// By angle and distance from the middle.
class Votes {
  public:
    explicit Votes(Size size)
        : middle_{size.width / 2.0, size.height / 2.0},
          reach_(int(std::hypot(size.width, size.height) / 2 / bin) + 2),
          votes_(std::size_t(angles) * std::size_t(2 * reach_ + 1), 0.0F) {
        for (int a = 0; a < angles; ++a) {
            const double angle = std::numbers::pi * a / angles;
            normals_.push_back({std::cos(angle), std::sin(angle)});
        }
    }
    void add(const Bright& p, float weight) {
        for (int a = 0; a < angles; ++a) votes_[at(a, distance(a, p.x, p.y))] += weight;
    }
    struct Peak {
        Point normal, on;
        float votes = 0;
    };
    Peak peak() const {
        const auto best = std::max_element(votes_.begin(), votes_.end()) - votes_.begin();
        const int a = int(best / (2 * reach_ + 1));
        const double d = (double(best % (2 * reach_ + 1)) - reach_) * bin;
        const Point& n = normals_[std::size_t(a)];
        return {n, {middle_.x + n.x * d, middle_.y + n.y * d}, votes_[std::size_t(best)]};
    }
    void forget(const Votes::Peak& peak) {
        // The bins around a peak that turned out to be no line.
        for (int a = 0; a < angles; ++a) {
            const Point& n = normals_[std::size_t(a)];
            if (std::abs(n.x * peak.normal.y - n.y * peak.normal.x) > 0.03) continue;
            const int d = distance(a, peak.on.x, peak.on.y);
            for (int k = -2; k <= 2; ++k) votes_[at(a, d + k)] = 0;
        }
    }

  private:
    static constexpr double bin = 2;
    int distance(int a, double x, double y) const {
        const Point& n = normals_[std::size_t(a)];
        return int(std::lround(((x - middle_.x) * n.x + (y - middle_.y) * n.y) / bin));
    }
    std::size_t at(int a, int d) const {
        return std::size_t(a) * std::size_t(2 * reach_ + 1) + std::size_t(std::clamp(d + reach_, 0, 2 * reach_));
    }

    Point middle_;
    int reach_;
    std::vector<Point> normals_;
    std::vector<float> votes_;
};

struct Along {
    double t, off;
    std::size_t pixel;
};

// The pixels by a line, in its order.
std::vector<Along> along(std::span<const Bright> pixels, Point on, Point way, double reach) {
    std::vector<Along> out;
    for (std::size_t i = 0; i < pixels.size(); ++i) {
        const double dx = pixels[i].x - on.x, dy = pixels[i].y - on.y;
        const double off = dx * -way.y + dy * way.x;
        if (std::abs(off) <= reach) out.push_back({dx * way.x + dy * way.y, off, i});
    }
    std::sort(out.begin(), out.end(), [](const Along& a, const Along& b) { return a.t < b.t; });
    return out;
}

// The stretch without wide breaks that holds the most.
std::span<const Along> longest(const std::vector<Along>& points, std::span<const Bright> pixels) {
    std::span<const Along> best;
    double most = 0;
    for (std::size_t begin = 0; begin < points.size();) {
        std::size_t end = begin + 1;
        double weight = weight_of(pixels[points[begin].pixel]);
        while (end < points.size() && points[end].t - points[end - 1].t <= widest_break)
            weight += weight_of(pixels[points[end++].pixel]);
        if (weight > most) {
            most = weight;
            best = std::span(points).subspan(begin, end - begin);
        }
        begin = end;
    }
    return best;
}

// Cuts away the ends that hold no more than chance: from either side as long as a stretch of it is nearly empty.
std::span<const Along> trimmed(std::span<const Along> points, double by_chance_per_px) {
    constexpr double stretch = 14;
    const auto holds = [&](double from, double to) {
        return std::count_if(points.begin(), points.end(), [&](const Along& p) { return p.t >= from && p.t <= to; });
    };
    const double enough = 3 + 2 * by_chance_per_px * stretch;
    while (points.size() > 2 && double(holds(points.front().t, points.front().t + stretch)) < enough)
        points = points.subspan(1);
    while (points.size() > 2 && double(holds(points.back().t - stretch, points.back().t)) < enough)
        points = points.first(points.size() - 1);
    return points;
}

// Without what is bright all around, as clouds and glow are: that is taken off every pixel twice over, and those that
// no more stand out by themselves go.
std::vector<Bright> without_crowds(std::span<const Bright> pixels, Size size) {
    constexpr int cell = 8;
    constexpr double most = 0.13;  // of the pixels of three cells by three: a line of three pixels has less
    constexpr double taken_off = 2;
    constexpr double least = 12;  // quarters of a deviation
    const int across = size.width / cell + 3, down = size.height / cell + 3;
    std::vector<int> counts(std::size_t(across) * std::size_t(down), 0);
    std::vector<double> sums(counts.size(), 0);
    const auto place = [&](const Bright& p) {
        return std::size_t(p.y / cell + 1) * std::size_t(across) + std::size_t(p.x / cell + 1);
    };
    for (const Bright& p : pixels) {
        ++counts[place(p)];
        sums[place(p)] += p.by;
    }
    constexpr double all = 9.0 * cell * cell;
    std::vector<Bright> out;
    for (const Bright& p : pixels) {
        int around = 0;
        double light = 0;
        for (int v = -1; v <= 1; ++v)
            for (int u = -1; u <= 1; ++u) {
                const auto at = std::size_t(std::ptrdiff_t(place(p)) + std::ptrdiff_t(v) * across + u);
                around += counts[at];
                light += sums[at];
            }
        const double left = std::max(0.0, 1 - taken_off * light / all / std::max<double>(1, p.by));
        if (around > most * all && p.deviations * left < 4 * least) continue;
        if (p.deviations * left < least) continue;
        out.push_back({p.x, p.y, std::uint16_t(p.by * left), std::uint16_t(p.deviations * left)});
    }
    return out;
}

struct Fit {
    Point on, way;
};
// Through the pixels, by their weights.
Fit fit_of(std::span<const Along> points, std::span<const Bright> pixels) {
    double sum = 0, x = 0, y = 0, xx = 0, xy = 0, yy = 0;
    for (const Along& p : points) {
        const Bright& at = pixels[p.pixel];
        const double w = weight_of(at);
        sum += w;
        x += w * at.x;
        y += w * at.y;
    }
    x /= sum;
    y /= sum;
    for (const Along& p : points) {
        const Bright& at = pixels[p.pixel];
        const double w = weight_of(at), dx = at.x - x, dy = at.y - y;
        xx += w * dx * dx;
        xy += w * dx * dy;
        yy += w * dy * dy;
    }
    const double angle = std::atan2(2 * xy, xx - yy) / 2;
    return {{x, y}, {std::cos(angle), std::sin(angle)}};
}

// Bright pixels a pixel to both sides of a stretch of line, near it but not of it.
double density_beside(std::span<const Bright> pixels, Point on, Point way, double begin, double end) {
    constexpr double nearest = 5, furthest = 15;
    const auto count = std::count_if(pixels.begin(), pixels.end(), [&](const Bright& p) {
        const double dx = p.x - on.x, dy = p.y - on.y;
        const double t = dx * way.x + dy * way.y, off = std::abs(dx * -way.y + dy * way.x);
        return t >= begin && t <= end && off > nearest && off <= furthest;
    });
    return double(count) / (2 * (furthest - nearest) * std::max(1.0, end - begin));
}

// Light along a line, pixel by pixel.
void measure(std::span<const Along> points, std::span<const Bright> pixels, Line& line) {
    const double begin = points.front().t;
    const auto length = std::size_t(points.back().t - begin) + 1;
    std::vector<double> profile(length, 0);
    double weight = 0, across = 0;
    for (const Along& p : points) {
        const double by = pixels[p.pixel].by;
        profile[std::min(length - 1, std::size_t(p.t - begin))] += by;
        weight += by;
        across += by * p.off * p.off;
    }
    constexpr double half_width = 2.355;  // of a normal distribution, in deviations
    line.width_px = std::max(1.0, half_width * std::sqrt(across / std::max(1.0, weight)));
    // Its smooth course: means over a fifth of it.
    const auto reach = std::max<std::ptrdiff_t>(3, std::ptrdiff_t(length) / 10);
    const auto mean = [&](std::ptrdiff_t from, std::ptrdiff_t to) {
        from = std::max<std::ptrdiff_t>(0, from);
        to = std::min(std::ptrdiff_t(length), to);
        double out = 0;
        for (std::ptrdiff_t i = from; i < to; ++i) out += profile[std::size_t(i)];
        return out / std::max<double>(1, double(to - from));
    };
    double off = 0, all = 0, most = 0;
    for (std::ptrdiff_t i = 0; i < std::ptrdiff_t(length); ++i) {
        const double smooth = mean(i - reach, i + reach + 1);
        const double here = mean(i - 1, i + 2);
        off += (here - smooth) * (here - smooth);
        all += smooth;
        most = std::max(most, smooth);
    }
    line.blinks = std::sqrt(off / double(length)) / std::max(1.0, all / double(length));
    const auto tenth = std::max<std::ptrdiff_t>(2, std::ptrdiff_t(length) / 10);
    const double ends = std::min(mean(0, tenth), mean(std::ptrdiff_t(length) - tenth, std::ptrdiff_t(length)));
    line.even = ends / std::max(1.0, most);
    line.brightness = weight / double(length);
}

}  // namespace

std::span<const StreakKindEntry> streak_kinds() {
    return table;
}

double Line::length() const {
    return std::hypot(to.x - from.x, to.y - from.y);
}

std::vector<Line> find_lines(std::span<const Bright> all, Size size, double doubt) {
    std::vector<Line> out;
    // What is wide goes first, and what is one of many all around.
    std::vector<Bright> pixels;
    for (const Trace& trace : traces_of(all, 1))
        if (trace.thin()) pixels.insert(pixels.end(), trace.pixels.begin(), trace.pixels.end());
    pixels = without_crowds(pixels, size);
    // Where clouds are lit their edges, and those of the land before them, are lines, too.
    const double area = std::max(1.0, double(size.width) * size.height);
    const double crowded = double(all.size() - pixels.size()) / area;
    constexpr double least_over = 18, over_in_crowds = 8000;
    const double needed = doubt * (least_over + over_in_crowds * std::max(0.0, crowded - 0.002));
    constexpr double surely = 1.15;  // what is only just a line is none
    const double by_chance = double(pixels.size()) / area;
    Votes votes(size);
    for (const Bright& p : pixels) votes.add(p, float(weight_of(p)));
    constexpr int tries = 60;
    constexpr float least_votes = 7;
    for (int i = 0; i < tries && int(out.size()) < most_lines; ++i) {
        const Votes::Peak peak = votes.peak();
        if (peak.votes < least_votes) break;
        Fit fit{peak.on, {-peak.normal.y, peak.normal.x}};
        std::vector<Along> near = along(pixels, fit.on, fit.way, 2 * on_line_px);
        std::span<const Along> points = longest(near, pixels);
        for (int round = 0; round < 4 && points.size() >= 4; ++round) {
            fit = fit_of(points, pixels);
            near = along(pixels, fit.on, fit.way, on_line_px);
            points = trimmed(longest(near, pixels), by_chance * 2 * on_line_px);
        }
        votes.forget(peak);
        if (points.size() < 4) continue;
        Line line;
        const double begin = points.front().t, end = points.back().t;
        line.from = {fit.on.x + fit.way.x * begin, fit.on.y + fit.way.y * begin};
        line.to = {fit.on.x + fit.way.x * end, fit.on.y + fit.way.y * end};
        if (line.length() < shortest_px) continue;
        double weight = 0;
        std::vector<bool> filled(std::size_t(end - begin) + 1);
        for (const Along& p : points) {
            weight += weight_of(pixels[p.pixel]);
            filled[std::size_t(p.t - begin)] = true;
        }
        const double expected =
            std::max(by_chance, density_beside(pixels, fit.on, fit.way, begin, end)) * 2 * on_line_px * line.length();
        const double over = (weight - expected) / std::sqrt(expected + 1);
        const double share = double(std::count(filled.begin(), filled.end(), true)) / double(filled.size());
        constexpr double least_share = 0.3;
        if (over < surely * needed || share < least_share) continue;
        measure(points, pixels, line);
        line.confidence = 1 - std::exp(-over / needed);
        out.push_back(line);
        // Its pixels vote no more: nor does what lies right beside it.
        std::vector<Bright> left;
        const double beside = 2 * line.width_px + 2;
        for (const Bright& p : pixels) {
            const double dx = p.x - fit.on.x, dy = p.y - fit.on.y;
            const double t = dx * fit.way.x + dy * fit.way.y;
            if (std::abs(dx * -fit.way.y + dy * fit.way.x) <= beside && t >= begin - beside && t <= end + beside)
                votes.add(p, -float(weight_of(p)));
            else
                left.push_back(p);
        }
        pixels = std::move(left);
    }
    std::stable_sort(out.begin(), out.end(), [](const Line& a, const Line& b) { return a.confidence > b.confidence; });
    return out;
}

namespace {

// How far the line that goes on lies from where it would: angle and distance, in shares of what is allowed; above 1 it
// is another.
double mismatch(const Line& a, const Line& b, double pause_share, Size size) {
    constexpr double most_turn = 0.12;  // radians: lenses bend
    const double off_allowed = 0.012 * std::hypot(size.width, size.height);
    const auto way = [](const Line& l) -> Point {
        const double n = std::max(1e-9, l.length());
        return {(l.to.x - l.from.x) / n, (l.to.y - l.from.y) / n};
    };
    const Point u = way(a), v = way(b);
    const double turn = std::asin(std::min(1.0, std::abs(u.x * v.y - u.y * v.x)));
    if (turn > most_turn) return 2;
    // Which end goes on: the way from middle to middle.
    const Point m{(b.from.x + b.to.x - a.from.x - a.to.x) / 2, (b.from.y + b.to.y - a.from.y - a.to.y) / 2};
    const double on = m.x * u.x + m.y * u.y;
    const double off = std::abs(m.x * -u.y + m.y * u.x);
    if (off > off_allowed + std::abs(on) * most_turn / 2) return 2;
    // One ends where the other begins, but for the pause.
    const double between = std::abs(on) - (a.length() + b.length()) / 2;
    const double expected = pause_share * (a.length() + b.length()) / 2;
    const double slack = 0.35 * (a.length() + b.length()) / 2 + 4 + 3 * off_allowed;
    const double amiss = std::abs(between - expected) / slack;
    return std::max({amiss, turn / most_turn, off / (off_allowed + std::abs(on) * most_turn / 2)});
}

// What is known of how a line could have gone on.
struct Around {
    bool could_go_on = false;  // frames right before and after show that it does not
    bool leaves = false;       // it reaches the edge of the picture
};

StreakKind kind_of(const std::vector<const Line*>& lines, const Around& around) {
    constexpr double blinking = 0.45;
    constexpr double fading = 0.55;
    std::vector<double> blinks;
    blinks.reserve(lines.size());
    for (const Line* line : lines) blinks.push_back(line->blinks);
    if (middle_of(blinks) > blinking) return StreakKind::aircraft;
    if (lines.size() > 1) return StreakKind::satellite;
    // What crosses the sky for longer than an exposure does not begin and end within one.
    const bool within_one = around.could_go_on && !around.leaves;
    return within_one || lines.front()->even < fading ? StreakKind::meteor : StreakKind::satellite;
}

}  // namespace

std::vector<Streak> tell_streaks(const std::vector<FrameLines>& run, Size size) {
    std::vector<Streak> out;
    std::vector<std::size_t> of_before;  // streaks of the frame before, among all
    int things = 0;
    for (std::size_t k = 0; k < run.size(); ++k) {
        std::vector<std::size_t> here;
        std::vector<bool> taken(of_before.size());
        for (const Line& line : run[k].lines) {
            int thing = -1;
            if (k > 0 && run[k - 1].exposure_s > 0 && run[k].exposure_s > 0) {
                const double pause = run[k].begin_s - run[k - 1].begin_s - run[k - 1].exposure_s;
                const double share = pause / ((run[k].exposure_s + run[k - 1].exposure_s) / 2);
                constexpr double longest_pause = 1.5;  // exposures
                double best = 1;
                std::size_t chosen = of_before.size();
                for (std::size_t i = 0; share <= longest_pause && i < of_before.size(); ++i) {
                    const double amiss = mismatch(out[of_before[i]].line, line, share, size);
                    if (taken[i] || amiss >= best) continue;
                    best = amiss;
                    chosen = i;
                }
                if (chosen < of_before.size()) {
                    taken[chosen] = true;
                    thing = out[of_before[chosen]].thing;
                }
            }
            here.push_back(out.size());
            out.push_back({int(k), StreakKind::meteor, thing >= 0 ? thing : things++, line});
        }
        of_before = std::move(here);
    }
    const auto follows = [&](std::size_t k) {  // right after the frame before it
        constexpr double longest_pause = 1.5;  // exposures
        return k > 0 && k < run.size() && run[k].exposure_s > 0 && run[k - 1].exposure_s > 0 &&
               run[k].begin_s - run[k - 1].begin_s - run[k - 1].exposure_s <= longest_pause * run[k].exposure_s;
    };
    const auto leaves = [&](const Line& line) {
        constexpr double edge = 6;
        const auto at_edge = [&](Point p) {
            return p.x < edge || p.y < edge || p.x > size.width - 1 - edge || p.y > size.height - 1 - edge;
        };
        return at_edge(line.from) || at_edge(line.to);
    };
    for (int thing = 0; thing < things; ++thing) {
        std::vector<const Line*> lines;
        Around around;
        for (const Streak& s : out) {
            if (s.thing != thing) continue;
            lines.push_back(&s.line);
            around = {follows(std::size_t(s.frame)) || follows(std::size_t(s.frame) + 1), leaves(s.line)};
        }
        const StreakKind kind = kind_of(lines, around);
        for (Streak& s : out)
            if (s.thing == thing) s.kind = kind;
    }
    return out;
}

}  // namespace bp
