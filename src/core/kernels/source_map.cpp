#include "kernels/source_map.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <limits>

namespace bp::kernels {
namespace {

constexpr int affine_step = 4096;
constexpr int curved_step = 16;
constexpr int taps_before = 2;  // source samples that one place reads besides the one at or before it
constexpr int taps_after = 3;
constexpr int taps_beside = 5;  // canvas pixels that these are, at most
// Placements are known to about this many pixels; without it an exact shift would lose an edge to rounding.
constexpr double slack = 1e-6;
// Beyond these a row crosses the source's rows too fast for two passes, or they would leave out samples.
constexpr double steepest = 0.1;
constexpr double scaled_most = 1.2;

// Narrows [low, high] to where 0 <= slope * x + offset <= limit.
void narrow(double slope, double offset, double limit, double& low, double& high) {
    if (std::abs(slope) < 1e-12) {
        if (offset < -slack || offset > limit + slack) high = low - 1;
        return;
    }
    const double a = (-slack - offset) / slope;
    const double b = (limit + slack - offset) / slope;
    low = std::max(low, std::min(a, b));
    high = std::min(high, std::max(a, b));
}

constexpr double furthest = 1e8;
constexpr Point nowhere{std::numeric_limits<double>::quiet_NaN(), std::numeric_limits<double>::quiet_NaN()};

Span longer(Span a, Span b) {
    return b.end - b.begin > a.end - a.begin ? b : a;
}

}  // namespace

SourceMap::SourceMap(const Placement& placed, Size source, Knots knots)
    : placed_(placed),
      to_source_(inverse(placed.matrix)),
      before_(placed.after ? inverse(*placed.after) : Matrix{}),
      mirrored_(to_source_.determinant() < 0),
      source_(source),
      affine_(placed.is_affine()),
      step_(affine_ ? affine_step : curved_step) {
    if (!affine_ && knots == Knots::far) put_knots_far();
    step_bits_ = std::countr_zero(unsigned(step_));
    // Judged on a few places of the whole source, never on what is asked for.
    gentle_ = true;
    constexpr int most_alike = 8;
    rows_alike_ = affine_ ? most_alike : 1;
    constexpr int tries = 5;
    double lean = 0;
    for (int j = 0; j < tries; ++j)
        for (int i = 0; i < tries; ++i) {
            const Point canvas =
                placed_.to_canvas({(source.width - 1.0) * i / (tries - 1), (source.height - 1.0) * j / (tries - 1)});
            const Point here = exact(canvas.x, canvas.y);
            const Point right = exact(canvas.x + 1, canvas.y);
            const Point below = exact(canvas.x, canvas.y + 1);
            const double across = right.x - here.x;
            const double down = below.y - here.y;
            gentle_ = gentle_ && std::abs(right.y - here.y) < steepest && std::abs(below.x - here.x) < steepest &&
                      across > 1 / scaled_most && across < scaled_most && down > 1 / scaled_most && down < scaled_most;
            if (!gentle_) return;
            // How much more than a row of the source one comes down from row to row, in the same column of it.
            const double drift = down - (right.y - here.y) * (below.x - here.x) / across - 1;
            while (rows_alike_ > 1 && std::abs(drift) * rows_alike_ / 2 > same_place) rows_alike_ /= 2;
            lean = std::max(lean, std::abs(below.x - here.x));
        }
    columns_alike_ = affine_ && lean * rows_alike_ / 2 <= same_place;
}

void SourceMap::put_knots_far() {
    constexpr int furthest_step = 512;
    constexpr double off = 5e-4;  // pixels
    constexpr int tries = 3;
    // In the middle between knots what is straight is off by most.
    const auto straight_enough = [&](int step) {
        for (int j = 0; j <= tries; ++j)
            for (int i = 0; i <= tries; ++i) {
                const double x = double(source_.width) * i / tries, y = double(source_.height) * j / tries;
                const Point a = exact(x - step / 2.0, y - step / 2.0), b = exact(x + step / 2.0, y - step / 2.0);
                const Point c = exact(x - step / 2.0, y + step / 2.0), d = exact(x + step / 2.0, y + step / 2.0);
                const Point here = exact(x, y);
                if (!(std::abs((a.x + b.x + c.x + d.x) / 4 - here.x) <= off &&
                      std::abs((a.y + b.y + c.y + d.y) / 4 - here.y) <= off))
                    return false;
            }
        return true;
    };
    int step = furthest_step;
    while (step > curved_step && !straight_enough(step)) step /= 2;
    if (step == curved_step) return;
    step_ = step;
    known_columns_ = source_.width / step_ + 4;
    known_rows_ = source_.height / step_ + 4;
    known_.reserve(std::size_t(known_columns_) * std::size_t(known_rows_));
    for (int down = -1; down < known_rows_ - 1; ++down)
        for (int across = -1; across < known_columns_ - 1; ++across)
            known_.push_back(exact(double(across) * step_, double(down) * step_));
}

Point SourceMap::at_knot(int across, int down) const {
    if (across >= -1 && down >= -1 && across < known_columns_ - 1 && down < known_rows_ - 1)
        return known_[std::size_t(down + 1) * std::size_t(known_columns_) + std::size_t(across + 1)];
    return exact(double(across) * step_, double(down) * step_);
}

Point SourceMap::at(int x, int y) const {
    if (affine_) return exact(x, y);
    const int across = x >> step_bits_, down = y >> step_bits_;
    const double right = double(x - across * step_) / step_, below = double(y - down * step_) / step_;
    const auto between = [=](const Point& a, const Point& b, const Point& c, const Point& d) {
        const Point left{a.x + (c.x - a.x) * below, a.y + (c.y - a.y) * below};
        const Point other{b.x + (d.x - b.x) * below, b.y + (d.y - b.y) * below};
        return Point{left.x + (other.x - left.x) * right, left.y + (other.y - left.y) * right};
    };
    if (across >= -1 && down >= -1 && across + 2 < known_columns_ && down + 2 < known_rows_) {
        const Point* knot = known_.data() + std::ptrdiff_t(down + 1) * known_columns_ + across + 1;
        return between(knot[0], knot[1], knot[known_columns_], knot[known_columns_ + 1]);
    }
    return between(at_knot(across, down), at_knot(across + 1, down), at_knot(across, down + 1),
                   at_knot(across + 1, down + 1));
}

Point SourceMap::exact(double x, double y) const {
    if (!affine_) {
        const auto& lens = placed_.lens;
        const Point from = placed_.after ? before_(Point{x, y}) : Point{x, y};
        const Point d = placed_.flex ? placed_.flex->at(from) : Point{};
        const Point bent{from.x + d.x, from.y + d.y};
        const Point straight = lens ? lens->straight(bent) : bent;
        const auto& m = to_source_.m();
        const double w = m[6] * straight.x + m[7] * straight.y + 1;
        if (!(mirrored_ ? w < 0 : w > 0)) return nowhere;
        const Point there = to_source_(straight);
        const Point p = lens ? lens->seen(there) : there;
        if (!(std::abs(p.x) < furthest && std::abs(p.y) < furthest)) return nowhere;
        return {p.x + placed_.sensor.x, p.y + placed_.sensor.y};
    }
    const auto& m = to_source_.m();
    return {m[0] * x + m[1] * y + m[2], m[3] * x + m[4] * y + m[5]};
}

Reach KnotRow::reach(Span span, double Point::*axis) const {
    double low = furthest;
    double high = -furthest;
    const auto take = [&](double v) {
        if (!std::isfinite(v)) return;
        low = std::min(low, std::max(v, -furthest));
        high = std::max(high, std::min(v, furthest));
    };
    take(at(span.begin).*axis);
    take(at(span.end - 1).*axis);
    for (int k = floor_div(span.begin, step) + 1; k * step < span.end - 1; ++k) take(knot(k).*axis);
    if (low > high) return {0, 0};  // nowhere
    // A place may count as one beside it, once for its row and once for its piece of row.
    return {int(std::floor(low - 2 * same_place)) - taps_before, int(std::floor(high + 2 * same_place)) + taps_after};
}

RowPlaces::RowPlaces(const SourceMap& map, Span limits) : map_(&map) {
    row_.step = map.step();
    row_.first = floor_div(limits.begin - taps_beside, row_.step);
    const int last = floor_div(std::max(limits.begin, limits.end - 1) + taps_beside, row_.step) + 1;
    row_.places.resize(std::size_t(last + 1 - row_.first));
}

void RowPlaces::fill(int knot_row, std::vector<Point>& out) const {
    out.resize(row_.places.size());
    for (std::size_t i = 0; i < out.size(); ++i) out[i] = map_->at_knot(row_.first + int(i), knot_row);
}

void RowPlaces::go_to(int y) {
    const int step = map_->step();
    if (map_->affine_) {
        for (int k = row_.first; k <= row_.last(); ++k)
            row_.places[std::size_t(k - row_.first)] = map_->exact(double(k) * step, y);
        return;
    }
    const int knot_row = floor_div(y, step);
    if (!filled_ || knot_row != above_at_) {
        if (filled_ && knot_row == above_at_ + 1)
            std::swap(above_, below_);
        else
            fill(knot_row, above_);
        fill(knot_row + 1, below_);
        above_at_ = knot_row;
        filled_ = true;
    }
    const double part = double(y - knot_row * step) / step;
    for (std::size_t i = 0; i < row_.places.size(); ++i)
        row_.places[i] = {above_[i].x + (below_[i].x - above_[i].x) * part,
                          above_[i].y + (below_[i].y - above_[i].y) * part};
}

Span RowPlaces::covered(Span limits) const {
    if (limits.empty()) return {};
    const int step = map_->step();
    const double right = map_->source_.width - 1;
    const double bottom = map_->source_.height - 1;
    const auto lies_inside = [&](const Point& p) {
        return p.x >= -slack && p.y >= -slack && p.x <= right + slack && p.y <= bottom + slack;
    };
    const auto inside = [&](int x) { return lies_inside(at(x)); };
    Span best, run;
    // An affine row is straight as a whole.
    const int stride = map_->affine_ ? row_.last() - row_.first : 1;
    for (int k = map_->affine_ ? row_.first : floor_div(limits.begin, step); k * step < limits.end; k += stride) {
        const Point& a = row_.knot(k);
        const Point& b = row_.knot(k + stride);
        const double length = double(stride) * step;
        const Span piece{std::max(limits.begin, k * step), std::min(limits.end, (k + stride) * step)};
        if (lies_inside(a) && lies_inside(b)) {
            run = !run.empty() && run.end == piece.begin ? Span{run.begin, piece.end} : piece;
            best = longer(best, run);
            continue;
        }
        double low = piece.begin;
        double high = piece.end - 1;
        const double across = (b.x - a.x) / length;
        const double down = (b.y - a.y) / length;
        narrow(across, a.x - across * k * step, right, low, high);
        narrow(down, a.y - down * k * step, bottom, low, high);
        if (high < low) continue;
        Span here{std::max(piece.begin, int(std::ceil(low)) - 1), std::min(piece.end, int(std::floor(high)) + 2)};
        while (!here.empty() && !inside(here.begin)) ++here.begin;
        while (!here.empty() && !inside(here.end - 1)) --here.end;
        if (here.empty()) continue;
        run = !run.empty() && run.end == here.begin ? Span{run.begin, here.end} : here;
        best = longer(best, run);
    }
    return best;
}

Reach RowPlaces::rows(Span span) const {
    // Going down first, it reads columns beside those that it writes, and these may lie lower or higher.
    return row_.reach(map_->gentle() ? Span{span.begin - taps_beside, span.end + taps_beside} : span, &Point::y);
}

}  // namespace bp::kernels
