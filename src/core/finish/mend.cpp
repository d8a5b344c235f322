#include "finish/mend.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <numbers>

namespace bp {
namespace {

constexpr int ring_points = 24;
constexpr double beside = 1.5;  // pixels of a level between a border and what is read beyond it

using Light = std::array<float, 3>;  // or tones

// Between pixels by the four around; where the sheet ends its border goes on.
Light light_at(const Sheet& sheet, double x, double y) {
    const double u = std::clamp(x - sheet.area.left, 0.0, double(sheet.area.width - 1));
    const double v = std::clamp(y - sheet.area.top, 0.0, double(sheet.area.height - 1));
    const int left = std::min(int(u), std::max(0, sheet.area.width - 2)),
              right = std::min(left + 1, sheet.area.width - 1);
    const int top = std::min(int(v), std::max(0, sheet.area.height - 2));
    const int bottom = std::min(top + 1, sheet.area.height - 1);
    const auto a = float(u - left), b = float(v - top);
    Light out{};
    for (int c = 0; c < sheet.channels; ++c) {
        const auto at = [&](int px, int py) { return sheet.row(sheet.area.top + py)[px * sheet.channels + c]; };
        const float above = at(left, top) + a * (at(right, top) - at(left, top));
        const float below = at(left, bottom) + a * (at(right, bottom) - at(left, bottom));
        out[std::size_t(c)] = above + b * (below - above);
    }
    return out;
}

// One of them as it lies at a level.
struct Placed {
    std::vector<Point> way;
    double half;
    Point from;
    Rect box;  // that it changes
    std::shared_ptr<const Sheet> source = nullptr;
};

Placed placed(const Mended& mended, int level) {
    const double unit = double(1 << level);
    const auto there = [&](Point p) { return Point{(p.x + 0.5) / unit - 0.5, (p.y + 0.5) / unit - 0.5}; };
    Placed out{{}, std::max(mended.width_px / 2 / unit, 0.5), {mended.from.x / unit, mended.from.y / unit}, {}};
    double left = 1e9, top = 1e9, right = -1e9, bottom = -1e9;
    for (const Point& p : mended.way) {
        out.way.push_back(there(p));
        left = std::min(left, out.way.back().x);
        right = std::max(right, out.way.back().x);
        top = std::min(top, out.way.back().y);
        bottom = std::max(bottom, out.way.back().y);
    }
    const int around = int(std::ceil(out.half)) + 2;
    const Point first{std::floor(left) - around, std::floor(top) - around};
    out.box = {int(first.x), int(first.y), int(std::ceil(right) - first.x) + around + 1,
               int(std::ceil(bottom) - first.y) + around + 1};
    return out;
}

// Along a line, anchors stand so far apart.
double spacing_of(const Placed& one) {
    return std::max(6.0, 2 * one.half);
}
// How far off the line what takes its place is looked for, across and along.
int farthest_across(const Placed& one) {
    return int(std::ceil(3 * one.half)) + 9;
}
int most_along(const Placed& one) {
    return int(std::ceil(one.half)) + 6;
}

// The nearest place of a line.
struct Foot {
    Point at, across;             // the place, and the way to its right, of length 1
    double along = 0;             // from the line's begin
    double off = 1e18, side = 0;  // how far it is, and how far to its right
};
// The pieces of a line that are no points, and how far along it each begins.
struct Piece {
    Point from, way;  // the way of length 1
    double length = 0, before = 0;
};
std::vector<Piece> pieces_of(const Placed& one) {
    std::vector<Piece> out;
    double before = 0;
    for (std::size_t i = 0; i + 1 < one.way.size(); ++i) {
        const Point &a = one.way[i], &b = one.way[i + 1];
        const double length = std::hypot(b.x - a.x, b.y - a.y);
        if (length < 1e-9) continue;
        out.push_back({a, {(b.x - a.x) / length, (b.y - a.y) / length}, length, before});
        before += length;
    }
    return out;
}

Foot foot_on(const Piece& piece, Point p) {
    const double t =
        std::clamp((p.x - piece.from.x) * piece.way.x + (p.y - piece.from.y) * piece.way.y, 0.0, piece.length);
    const Point at{piece.from.x + t * piece.way.x, piece.from.y + t * piece.way.y};
    const Point across{-piece.way.y, piece.way.x};
    return {at, across, piece.before + t, std::hypot(p.x - at.x, p.y - at.y),
            (p.x - at.x) * across.x + (p.y - at.y) * across.y};
}

// The nearest places of a line for the pixels of a row from `left` on; far ones where nothing of it is near.
void find_feet(const std::vector<Piece>& pieces, double near, int y, int left, std::vector<Foot>& feet) {
    std::fill(feet.begin(), feet.end(), Foot{});
    for (const Piece& piece : pieces) {
        const Point end{piece.from.x + piece.length * piece.way.x, piece.from.y + piece.length * piece.way.y};
        if (y < std::min(piece.from.y, end.y) - near || y > std::max(piece.from.y, end.y) + near) continue;
        // No further than the part of it that passes this row goes.
        double low = std::min(piece.from.x, end.x), high = std::max(piece.from.x, end.x);
        if (std::abs(piece.way.y) > 1e-6) {
            const auto x_at = [&](double row) {
                const double t = std::clamp((row - piece.from.y) / piece.way.y, 0.0, piece.length);
                return piece.from.x + t * piece.way.x;
            };
            const double a = x_at(y - near), b = x_at(y + near);
            low = std::min(a, b);
            high = std::max(a, b);
        }
        const int first = std::max(left, int(std::floor(low - near)));
        const int last = std::min(left + int(feet.size()) - 1, int(std::ceil(high + near)));
        for (int x = first; x <= last; ++x) {
            Foot& nearest = feet[std::size_t(x - left)];
            const Foot foot = foot_on(piece, {double(x), double(y)});
            if (foot.off < nearest.off) nearest = foot;
        }
    }
}

// The anchor of a number, at its place along the line; the first and the last stand for those beyond.
Foot anchor_at(const Placed& one, const std::vector<Piece>& pieces, int number) {
    const double along = std::max(0.0, number * spacing_of(one));
    const Piece* piece = &pieces.front();
    for (const Piece& next : pieces)
        if (next.before <= along) piece = &next;
    const double t = std::min(along - piece->before, piece->length);
    return {{piece->from.x + t * piece->way.x, piece->from.y + t * piece->way.y},
            {-piece->way.y, piece->way.x},
            piece->before + t,
            0,
            0};
}

// A pixel of a sheet as tones: square roots of light.
Light tone_at(const Sheet& sheet, long x, long y) {
    const long u = std::clamp(x, long(sheet.area.left), long(sheet.area.right()) - 1);
    const long v = std::clamp(y, long(sheet.area.top), long(sheet.area.bottom()) - 1);
    const float* p = sheet.row(int(v)) + std::ptrdiff_t(u - sheet.area.left) * sheet.channels;
    Light out{};
    for (int c = 0; c < sheet.channels; ++c) out[std::size_t(c)] = std::sqrt(std::max(p[c], 0.0F));
    return out;
}

int reach_of(const Placed& one) {
    // From one border of it to the other.
    if (one.source) return int(std::ceil(2 * one.half + beside)) + 4;
    const double shift =
        one.way.size() == 1 ? std::hypot(one.from.x, one.from.y) : std::hypot(farthest_across(one), most_along(one));
    // A pixel of a line asks for what surrounds the anchors before and after it.
    const double around = one.way.size() == 1 ? 0 : 3 * spacing_of(one);
    return int(std::ceil(shift + around + 2 * one.half + beside)) + 4;
}

// How much of a pixel is mended: all of it inside, nothing a pixel beyond.
double share_at(double off, double half) {
    return std::clamp(half + 1 - off, 0.0, 1.0);
}

class MendTool final : public FinishTool {
  public:
    MendTool(const std::vector<Mended>& mended, int level, const MendSources& sources) {
        for (const Mended& one : mended) {
            if (!one.on || one.way.empty()) continue;
            all_.push_back(placed(one, level));
            const auto source = sources.find(one.id);
            if (source == sources.end()) continue;
            all_.back().source = source->second;
            all_.back().from = {};
        }
        for (const Placed& one : all_) reach_ = std::max(reach_, reach_of(one));
    }
    bool empty() const { return all_.empty(); }
    int reach() const override { return reach_; }
    int reach_in(const Rect& area) const override {
        int out = 0;
        for (const Placed& one : all_)
            if (!intersect(one.box, area).empty()) out = std::max(out, reach_of(one));
        return out;
    }

    // All of them read the picture as it was: what one made is no other's surroundings.
    void run(Sheet& sheet, const Rect& wanted) const override {
        std::vector<Sheet> surroundings;
        for (const Placed& one : all_) {
            const int reach = reach_of(one);
            const Rect box = intersect(one.box, wanted);
            const Rect area =
                box.empty()
                    ? Rect()
                    : intersect({box.left - reach, box.top - reach, box.width + 2 * reach, box.height + 2 * reach},
                                sheet.area);
            surroundings.push_back(cut_out(sheet, area));
        }
        for (std::size_t i = 0; i < all_.size(); ++i) {
            const Placed& one = all_[i];
            const Sheet& before = surroundings[i];
            const Rect box = intersect(one.box, wanted);
            if (box.empty()) continue;
            if (one.way.size() == 1)
                mend_spot(one, before, box, sheet);
            else
                mend_line(one, before, box, sheet);
        }
        sheet.narrow_to(wanted);
    }

  private:
    static const Sheet& taken_from(const Placed& one, const Sheet& before) { return one.source ? *one.source : before; }
    // Beside the place its light differs by a sum. The same place in a frame of another exposure has a multiple of it,
    // within limits, so that its texture is as strong; but for what is nearly black.
    static constexpr float nearly_black = 0.002F, most_times = 4;
    static float joined_by(const Placed& one, float own, float there) {
        if (!one.source) return own - there;
        return std::clamp((std::max(own, 0.0F) + nearly_black) / (std::max(there, 0.0F) + nearly_black), 1 / most_times,
                          most_times);
    }
    static float joined(const Placed& one, float there, float by) {
        return one.source ? (there + nearly_black) * by - nearly_black : there + by;
    }
    static void lay(Sheet& sheet, int x, int y, const Light& light, double share) {
        float* p = sheet.row(y) + std::ptrdiff_t(x - sheet.area.left) * sheet.channels;
        for (int c = 0; c < sheet.channels; ++c) p[c] += float(share) * (std::max(light[std::size_t(c)], 0.0F) - p[c]);
    }

    static void mend_spot(const Placed& one, const Sheet& before, const Rect& box, Sheet& sheet) {
        const Point middle = one.way.front();
        const double radius = one.half + beside;
        std::array<Point, ring_points> ring{};
        std::array<Light, ring_points> off{};
        for (int i = 0; i < ring_points; ++i) {
            const double angle = 2 * std::numbers::pi * i / ring_points;
            ring[std::size_t(i)] = {middle.x + radius * std::cos(angle), middle.y + radius * std::sin(angle)};
            const Point& p = ring[std::size_t(i)];
            const Light own = light_at(before, p.x, p.y);
            const Light there = light_at(taken_from(one, before), p.x + one.from.x, p.y + one.from.y);
            for (std::size_t c = 0; c < own.size(); ++c) off[std::size_t(i)][c] = joined_by(one, own[c], there[c]);
        }
        for (int y = box.top; y < box.bottom(); ++y)
            for (int x = box.left; x < box.right(); ++x) {
                const double share = share_at(std::hypot(x - middle.x, y - middle.y), one.half);
                if (share == 0) continue;
                Light made = light_at(taken_from(one, before), x + one.from.x, y + one.from.y);
                const Light more = membrane(ring, off, {double(x), double(y)});
                for (std::size_t c = 0; c < made.size(); ++c) made[c] = joined(one, made[c], more[c]);
                lay(sheet, x, y, made, share);
            }
    }

    // Mean-value coordinates: by the tangents of half the angles to the neighbours on the ring, over the distance.
    static Light membrane(const std::array<Point, ring_points>& ring, const std::array<Light, ring_points>& off,
                          Point p) {
        std::array<double, ring_points> angle{}, far{};
        for (std::size_t i = 0; i < ring.size(); ++i) {
            angle[i] = std::atan2(ring[i].y - p.y, ring[i].x - p.x);
            far[i] = std::max(std::hypot(ring[i].x - p.x, ring[i].y - p.y), 1e-6);
        }
        std::array<double, ring_points> half_tangent{};
        for (std::size_t i = 0; i < ring.size(); ++i) {
            double between = angle[(i + 1) % ring.size()] - angle[i];
            if (between < -std::numbers::pi) between += 2 * std::numbers::pi;
            if (between > std::numbers::pi) between -= 2 * std::numbers::pi;
            half_tangent[i] = std::tan(between / 2);
        }
        std::array<double, 3> sum{};
        double all = 0;
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const double weight = (half_tangent[(i + ring.size() - 1) % ring.size()] + half_tangent[i]) / far[i];
            all += weight;
            for (std::size_t c = 0; c < sum.size(); ++c) sum[c] += weight * double(off[i][c]);
        }
        return {float(sum[0] / all), float(sum[1] / all), float(sum[2] / all)};
    }

    static void mend_line(const Placed& one, const Sheet& before, const Rect& box, Sheet& sheet) {
        const std::vector<Piece> pieces = pieces_of(one);
        if (pieces.empty()) return;
        std::map<int, Shift> shifts;  // of anchors, found when they are needed
        const auto shift_at = [&](int number) {
            const auto known = shifts.find(number);
            if (known != shifts.end()) return known->second;
            return shifts[number] = one.source ? Shift{} : best_shift(one, anchor_at(one, pieces, number), before);
        };
        std::vector<Foot> feet(std::size_t(box.width), Foot{});
        for (int y = box.top; y < box.bottom(); ++y) {
            find_feet(pieces, one.half + 1, y, box.left, feet);
            for (int x = box.left; x < box.right(); ++x) {
                const Foot& foot = feet[std::size_t(x - box.left)];
                const double share = share_at(foot.off, one.half);
                if (share == 0) continue;
                const double place = foot.along / spacing_of(one);
                const int first = int(std::floor(place));
                const auto of_next = float(place - first);
                const Light a = shifted(one, before, foot, x, y, shift_at(first));
                const Light b = shifted(one, before, foot, x, y, shift_at(first + 1));
                Light made{};
                for (std::size_t c = 0; c < made.size(); ++c) made[c] = a[c] + of_next * (b[c] - a[c]);
                lay(sheet, x, y, made, share);
            }
        }
    }

    // Whole pixels, so that fine texture is not softened.
    struct Shift {
        int x = 0, y = 0;
    };

    // What lies at a shift, with its light drawn to that of both borders of the line.
    static Light shifted(const Placed& one, const Sheet& before, const Foot& foot, int x, int y, const Shift& shift) {
        const Sheet& source = taken_from(one, before);
        Light made = light_at(source, x + shift.x, y + shift.y), by{};
        const double border = one.half + beside;
        const auto of_right = float((std::clamp(foot.side, -one.half, one.half) + one.half) / (2 * one.half));
        for (const double sign : {-1.0, 1.0}) {
            const float weight = sign > 0 ? of_right : 1 - of_right;
            constexpr int averaged = 1;  // points to either side along the line
            for (int k = -averaged; k <= averaged; ++k) {
                const double px = foot.at.x + sign * border * foot.across.x + 1.5 * k * foot.across.y;
                const double py = foot.at.y + sign * border * foot.across.y - 1.5 * k * foot.across.x;
                const Light own = light_at(before, px, py), there = light_at(source, px + shift.x, py + shift.y);
                for (std::size_t c = 0; c < made.size(); ++c)
                    by[c] += weight * joined_by(one, own[c], there[c]) / (2 * averaged + 1);
            }
        }
        for (std::size_t c = 0; c < made.size(); ++c) made[c] = joined(one, made[c], by[c]);
        return made;
    }

    // The shift off the line whose surroundings are most like those of the line at an anchor: both of its borders
    // count.
    static Shift best_shift(const Placed& one, const Foot& anchor, const Sheet& before) {
        const int nearest = int(std::ceil(2 * one.half + 3)), furthest = farthest_across(one);
        const int along_most = most_along(one);
        std::vector<Point> border;
        const int steps = int(spacing_of(one));
        for (int k = -steps; k <= steps; k += 2)
            for (const double far : {beside, beside + 2})
                for (const double sign : {-1.0, 1.0})
                    border.push_back({anchor.at.x + sign * (one.half + far) * anchor.across.x + k * anchor.across.y,
                                      anchor.at.y + sign * (one.half + far) * anchor.across.y - k * anchor.across.x});
        std::vector<Light> own;
        own.reserve(border.size());
        for (const Point& p : border) own.push_back(tone_at(before, std::lround(p.x), std::lround(p.y)));
        Shift best{int(std::lround(nearest * anchor.across.x)), int(std::lround(nearest * anchor.across.y))};
        double least = 1e18;
        for (int across = nearest; across <= furthest; ++across)
            for (int along = -along_most; along <= along_most; ++along)
                for (const int sign : {-1, 1}) {
                    const Shift shift{int(std::lround(sign * across * anchor.across.x + along * anchor.across.y)),
                                      int(std::lround(sign * across * anchor.across.y - along * anchor.across.x))};
                    double sum = 0, squares = 0;
                    for (std::size_t i = 0; i < border.size(); ++i) {
                        const Light there =
                            tone_at(before, std::lround(border[i].x) + shift.x, std::lround(border[i].y) + shift.y);
                        for (int c = 0; c < before.channels; ++c) {
                            const double off = double(own[i][std::size_t(c)]) - double(there[std::size_t(c)]);
                            sum += off;
                            squares += off * off;
                        }
                    }
                    const double n = double(border.size()) * before.channels;
                    const double badness =
                        squares / n - 0.8 * (sum / n) * (sum / n) + 1e-7 * (across + std::abs(along));
                    if (badness >= least) continue;
                    least = badness;
                    best = shift;
                }
        return best;
    }

    std::vector<Placed> all_;
    int reach_ = 0;
};

}  // namespace

std::shared_ptr<const FinishTool> mend_tool(const std::vector<Mended>& mended, int level, const MendSources& sources) {
    auto out = std::make_shared<const MendTool>(mended, level, sources);
    return out->empty() ? nullptr : out;
}

Rect mending_area(const Mended& mended, int level) {
    if (mended.way.empty()) return {};
    const Rect box = placed(mended, level).box;
    constexpr int around = 5;
    return {box.left - around, box.top - around, box.width + 2 * around, box.height + 2 * around};
}

double distance_to(const Mended& mended, Point p) {
    double least = 1e18;
    for (std::size_t i = 0; i < mended.way.size(); ++i) {
        const Point& a = mended.way[i];
        const Point& b = mended.way[std::min(i + 1, mended.way.size() - 1)];
        const Point along{b.x - a.x, b.y - a.y};
        const double square = along.x * along.x + along.y * along.y;
        const double t =
            square > 0 ? std::clamp(((p.x - a.x) * along.x + (p.y - a.y) * along.y) / square, 0.0, 1.0) : 0;
        least = std::min(least, std::hypot(p.x - a.x - t * along.x, p.y - a.y - t * along.y));
    }
    return least - mended.width_px / 2;
}

Point best_source(const Sheet& piece, Point at, double width_px) {
    constexpr int directions = 16;
    const double half = width_px / 2, radius = half + beside;
    Point best{2.2 * half, 0};
    double least = 1e18;
    for (const double far : {1.15, 1.6, 2.2, 2.9})
        for (int d = 0; d < directions; ++d) {
            const double angle = 2 * std::numbers::pi * d / directions;
            const Point from{far * width_px * std::cos(angle), far * width_px * std::sin(angle)};
            const Point there{at.x + from.x, at.y + from.y};
            // All of it must be in the picture, and clear of the spot.
            if (there.x - radius < piece.area.left || there.y - radius < piece.area.top ||
                there.x + radius > piece.area.right() - 1 || there.y + radius > piece.area.bottom() - 1)
                continue;
            double sum = 0, squares = 0, own = 0;
            for (int i = 0; i < ring_points; ++i) {
                const double turn = 2 * std::numbers::pi * i / ring_points;
                const Point on_ring{radius * std::cos(turn), radius * std::sin(turn)};
                const Light a = light_at(piece, at.x + on_ring.x, at.y + on_ring.y);
                const Light b = light_at(piece, there.x + on_ring.x, there.y + on_ring.y);
                for (int c = 0; c < piece.channels; ++c) {
                    const double off =
                        std::sqrt(std::max(0.0F, a[std::size_t(c)])) - std::sqrt(std::max(0.0F, b[std::size_t(c)]));
                    sum += off;
                    squares += off * off;
                    own += std::abs(off);
                }
            }
            // An even difference of light is no harm; nearer places are more alike.
            const double n = ring_points * double(piece.channels);
            const double badness = squares / n - 0.8 * (sum / n) * (sum / n) + 0.002 * own / n + 1e-5 * far;
            if (badness >= least) continue;
            least = badness;
            best = from;
        }
    return best;
}

}  // namespace bp
