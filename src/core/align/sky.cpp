#include "align/sky.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <unordered_map>

#include "align/sky_model.h"
#include "base/median.h"
#include "base/parallel.h"

namespace bp {
namespace {

constexpr double sidereal_day_s = 86164.0905;
constexpr double turn_per_second = 2 * std::numbers::pi / sidereal_day_s;
constexpr std::size_t fewest_matches = 15;
constexpr double loss_px = 0.5;

Vec3 unit(const Vec3& v) {
    const double length = std::sqrt(v[0] * v[0] + v[1] * v[1] + v[2] * v[2]);
    return {v[0] / length, v[1] / length, v[2] / length};
}

// Finds the nearest of some points. They lie in cells of a grid with about one in each, from row to row.
class Near {
  public:
    // Nothing is looked for further away than `furthest`.
    Near(const std::vector<Point>& points, double furthest) {
        if (points.empty()) return;
        first_ = points.front();
        Point last = first_;
        for (const Point& p : points) {
            first_ = {std::min(first_.x, p.x), std::min(first_.y, p.y)};
            last = {std::max(last.x, p.x), std::max(last.y, p.y)};
        }
        const double area = (last.x - first_.x + 1) * (last.y - first_.y + 1);
        cell_ = std::max(furthest, std::sqrt(area / double(points.size())));
        columns_ = int((last.x - first_.x) / cell_) + 1;
        rows_ = int((last.y - first_.y) / cell_) + 1;
        starts_.assign(std::size_t(columns_) * std::size_t(rows_) + 1, 0);
        for (const Point& p : points) ++starts_[cell_of(p) + 1];
        for (std::size_t i = 1; i < starts_.size(); ++i) starts_[i] += starts_[i - 1];
        held_.resize(points.size());
        std::vector<std::size_t> next(starts_.begin(), starts_.end() - 1);
        for (std::size_t i = 0; i < points.size(); ++i) held_[next[cell_of(points[i])]++] = {points[i], int(i)};
    }
    // -1 when none lies within `reach`.
    int nearest(Point p, double reach) const {
        const double across = (p.x - first_.x) / cell_;
        const double down = (p.y - first_.y) / cell_;
        if (!(across > -1 && down > -1 && across < columns_ + 1 && down < rows_ + 1)) return -1;
        const int column = int(std::floor(across));
        const int row = int(std::floor(down));
        int best = -1;
        double least = reach * reach;
        for (int y = std::max(0, row - 1); y <= std::min(rows_ - 1, row + 1); ++y) {
            const std::size_t line = std::size_t(y) * std::size_t(columns_);
            const std::size_t from = line + std::size_t(std::max(0, column - 1));
            const std::size_t to = line + std::size_t(std::max(0, std::min(columns_, column + 2)));
            if (from >= to) continue;
            for (std::size_t k = starts_[from]; k < starts_[to]; ++k) {
                const Point& q = held_[k].first;
                const double d2 = (q.x - p.x) * (q.x - p.x) + (q.y - p.y) * (q.y - p.y);
                if (d2 >= least) continue;
                least = d2;
                best = held_[k].second;
            }
        }
        return best;
    }

  private:
    std::size_t cell_of(Point p) const {
        return std::size_t((p.y - first_.y) / cell_) * std::size_t(columns_) + std::size_t((p.x - first_.x) / cell_);
    }
    Point first_;
    double cell_ = 1;
    int columns_ = 0;
    int rows_ = 0;
    std::vector<std::size_t> starts_;          // of each cell among those held, and the end
    std::vector<std::pair<Point, int>> held_;  // with their place among the points
};

Vec3 direction_of(Point seen, const SkyCamera& camera, const SkyPose& pose, const Vec3& axis) {
    const Lens lens{{0, 0}, camera.focal, camera.k1, camera.k2};
    const Point p = lens.straight({seen.x - pose.shift[0], seen.y - pose.shift[1]});
    const Vec3 v = unit({p.x / camera.focal, p.y / camera.focal, 1});
    const Vec3 steady = turned_by<double>(v, {-pose.turn[0], -pose.turn[1], -pose.turn[2]});
    return turned<double>(steady, axis, -pose.angle);
}

std::optional<Point> project(const Vec3& star, const SkyModel& model, const SkyPose& pose) {
    const double camera[] = {model.camera.focal, model.camera.k1, model.camera.k2};
    const auto seen = seen_at<double>(star, camera, model.axis, pose.angle, pose.turn, pose.shift.data());
    constexpr double ahead = 0.1;
    if (seen[2] < ahead) return std::nullopt;
    return Point{seen[0], seen[1]};
}

// Places of the stars about the picture's middle, without what stands still in most frames: the land, hot pixels.
std::vector<std::vector<Point>> moving_stars(const std::vector<SkyFrame>& frames, Size size) {
    constexpr double still = 0.7;  // pixels
    constexpr std::size_t enough_frames = 4;
    constexpr double most = 0.5;  // of the frames
    const Point middle{(size.width - 1) / 2.0, (size.height - 1) / 2.0};
    std::vector<std::vector<Point>> all;
    std::vector<Near> near;
    for (const SkyFrame& frame : frames) {
        std::vector<Point> points;
        for (const Star& star : frame.stars) points.push_back({star.at.x - middle.x, star.at.y - middle.y});
        near.emplace_back(points, 4);
        all.push_back(std::move(points));
    }
    if (frames.size() < enough_frames) return all;
    // Held against frames all over the run: near ones would show slow stars at one place, too.
    const std::size_t step = std::max<std::size_t>(1, frames.size() / 24);
    std::vector<std::vector<Point>> out;
    for (const std::vector<Point>& points : all) {
        std::vector<Point> moving;
        for (const Point& p : points) {
            std::size_t at_rest = 0, looked = 0;
            for (std::size_t k = 0; k < near.size(); k += step, ++looked) at_rest += near[k].nearest(p, still) >= 0;
            if (double(at_rest) < most * double(looked)) moving.push_back(p);
        }
        out.push_back(std::move(moving));
    }
    return out;
}

// Axis and focal length by trying all: those under which most stars of one frame meet one in the other, `angle` later.
std::optional<SkyModel> search(const std::vector<Point>& first, const std::vector<Point>& second, double angle,
                               Size size) {
    constexpr std::size_t tried = 60;
    constexpr std::size_t met = 200;
    constexpr std::size_t soon = 15;   // after so many stars, hopeless tries end
    constexpr double shortest = 0.35;  // in widths of the picture
    constexpr double focal_ratio = 1.07;
    constexpr std::size_t focals = 47;  // up to eight widths
    const std::vector<Point> from(first.begin(), first.begin() + std::ptrdiff_t(std::min(tried, first.size())));
    const std::vector<Point> to(second.begin(), second.begin() + std::ptrdiff_t(std::min(met, second.size())));
    if (from.size() < fewest_matches || to.size() < fewest_matches) return std::nullopt;
    const double longest = std::hypot(size.width, size.height);
    const double reach = std::clamp(0.1 * std::abs(angle) * longest, 1.5, std::max(1.5, longest / 160));
    const Near near(to, reach);
    struct Try {
        double focal = 0;
        Vec3 axis{0, 0, 1};
        std::size_t agree = 0;
    };
    std::array<Try, focals> tries;
    parallel_each(0, int(focals), [&](int n) {
        // From the longest, which has the most axes to try.
        const std::size_t step = focals - 1 - std::size_t(n);
        const double focal = shortest * size.width * std::pow(focal_ratio, double(step));
        Try& best = tries[step];
        best.focal = focal;
        std::vector<Vec3> directions;
        directions.reserve(from.size());
        for (const Point& p : from) directions.push_back(unit({p.x / focal, p.y / focal, 1}));
        const double spacing = std::min(0.5, 1.2 * reach / (focal * std::abs(angle)));
        const auto count = std::size_t(4 * std::numbers::pi / (spacing * spacing)) + 1;
        for (std::size_t i = 0; i < count; ++i) {
            // Evenly over the sphere, along a spiral (Vogel, 1979).
            const double z = 1 - 2 * (double(i) + 0.5) / double(count);
            const double around = std::numbers::pi * (1 + std::sqrt(5.0)) * double(i);
            const double r = std::sqrt(1 - z * z);
            const Vec3 axis{r * std::cos(around), r * std::sin(around), z};
            std::size_t agree = 0;
            for (std::size_t k = 0; k < directions.size(); ++k) {
                if (k == soon && agree * 4 < soon) break;
                const Vec3 v = turned<double>(directions[k], axis, angle);
                if (v[2] > 0.05 && near.nearest({focal * v[0] / v[2], focal * v[1] / v[2]}, reach) >= 0) ++agree;
            }
            if (agree <= best.agree) continue;
            best.agree = agree;
            best.axis = axis;
        }
    });
    const auto best =
        std::max_element(tries.begin(), tries.end(), [](const Try& a, const Try& b) { return a.agree < b.agree; });
    if (best->agree < fewest_matches || best->agree * 3 < from.size()) return std::nullopt;
    SkyModel out;
    out.camera = {best->focal, 0, 0};
    out.axis = best->axis;
    return out;
}

class Placer {
  public:
    Placer(std::vector<std::vector<Point>> seen, const std::vector<SkyFrame>& frames, std::size_t reference, Size size)
        : seen_(std::move(seen)), reference_(reference), size_(size) {
        model_.poses.resize(frames.size());
        for (std::size_t i = 0; i < frames.size(); ++i) {
            if (frames[i].time_s && frames[reference].time_s)
                model_.poses[i].angle = (*frames[i].time_s - *frames[reference].time_s) * turn_per_second;
            else
                seen_[i].clear();
            if (i != reference && !seen_[i].empty()) order_.push_back(i);
        }
        for (const std::vector<Point>& points : seen_) near_.emplace_back(points, wide_reach());
        std::sort(order_.begin(), order_.end(), [&](std::size_t a, std::size_t b) {
            return std::abs(model_.poses[a].angle) < std::abs(model_.poses[b].angle);
        });
    }

    bool begin() {
        // A few minutes tell the axis better than a few seconds, and stars are still easily told apart.
        constexpr double best_angle = 480 * turn_per_second;
        std::vector<std::size_t> tries = order_;
        std::sort(tries.begin(), tries.end(), [&](std::size_t a, std::size_t b) {
            return std::abs(std::log(std::abs(model_.poses[a].angle) / best_angle)) <
                   std::abs(std::log(std::abs(model_.poses[b].angle) / best_angle));
        });
        constexpr std::size_t most_tries = 4;
        for (std::size_t k = 0; k < std::min(most_tries, tries.size()); ++k) {
            const std::size_t other = tries[k];
            const auto found = search(seen_[reference_], seen_[other], model_.poses[other].angle, size_);
            if (!found) continue;
            model_.camera = found->camera;
            model_.axis = found->axis;
            stars_.clear();
            for (const Point& p : seen_[reference_])
                stars_.push_back(direction_of(p, model_.camera, model_.poses[reference_], model_.axis));
            for (const double reach : {wide_reach(), wide_reach() / 2, 2.0}) fit({reference_, other}, reach, Free::sky);
            return true;
        }
        return false;
    }

    void go_through() {
        std::vector<std::size_t> placed{reference_};
        std::size_t next_fit = 2;
        for (const std::size_t i : order_) {
            lay(i);
            placed.push_back(i);
            take_in_new_stars(i);
            if (placed.size() < next_fit) continue;
            fit(thinned(placed, 12), 4, Free::sky);
            next_fit = std::size_t(double(next_fit) * 1.7) + 1;
        }
        fit(thinned(placed, 24), 3, Free::sky);
        for (const double reach : {2.0, 1.5}) fit(thinned(placed, 24), reach, Free::all);
        // Those that the fit left out have their own pose found under the same sky.
        parallel_each(0, int(placed.size()), [&](int k) {
            const std::size_t i = placed[std::size_t(k)];
            if (i != reference_) fit_pose(model_, stars_, matches(i, 2), i, loss_px);
        });
    }

    std::vector<Alignment> result() const {
        std::vector<Alignment> out;
        for (std::size_t i = 0; i < model_.poses.size(); ++i) out.push_back(alignment_of(i));
        return out;
    }

  private:
    double wide_reach() const { return std::max(5.0, double(size_.width) / 250); }

    // What of the catalogue is seen in a frame, within `reach` of where it is expected; both ways nearest.
    std::vector<Sighted> matches(std::size_t frame, double reach) const {
        const Near& near = near_[frame];
        std::vector<std::pair<double, int>> taken(seen_[frame].size(), {1e9, -1});
        for (std::size_t k = 0; k < stars_.size(); ++k) {
            const auto at = project(stars_[k], model_, model_.poses[frame]);
            if (!at) continue;
            const int i = near.nearest(*at, reach);
            if (i < 0) continue;
            const Point& p = seen_[frame][std::size_t(i)];
            const double distance = std::hypot(p.x - at->x, p.y - at->y);
            if (distance < taken[std::size_t(i)].first) taken[std::size_t(i)] = {distance, int(k)};
        }
        std::vector<Sighted> out;
        for (std::size_t i = 0; i < taken.size(); ++i)
            if (taken[i].second >= 0) out.push_back({frame, std::size_t(taken[i].second), seen_[frame][i]});
        return out;
    }
    // Lays a frame under the sky, also one of a camera that was knocked.
    void lay(std::size_t frame) {
        const auto agreeing = [&] { return matches(frame, 2).size(); };
        SkyPose& pose = model_.poses[frame];
        settle(frame);
        const SkyPose as_expected = pose;
        const std::size_t agree = agreeing();
        if (agree >= fewest_matches && agree * 2 >= std::min<std::size_t>(seen_[frame].size(), 100)) return;
        // Among many stars some lie near others whatever the pose: the one under which more meet is right.
        pose.turn = {0, 0, 0};
        pose.shift = {0, 0};
        const Point knock = knock_of(frame);
        pose.shift = {knock.x, knock.y};
        settle(frame);
        if (agreeing() <= agree) pose = as_expected;
    }

    // A frame that was knocked by little still matches, but what is new in it must not be taken in where it seems to
    // be.
    void settle(std::size_t frame) {
        constexpr double knocked_px = 1.5;
        const SkyPose before = model_.poses[frame];
        for (const double reach : {5.0, 3.0}) fit_pose(model_, stars_, matches(frame, reach), frame, loss_px);
        SkyPose& pose = model_.poses[frame];
        const double turned_px = std::hypot(pose.turn[0], pose.turn[1], pose.turn[2]) * model_.camera.focal;
        const double shifted_px = std::hypot(pose.shift[0], pose.shift[1]);
        if (std::max(turned_px, shifted_px) <= knocked_px) pose = before;
    }

    // A camera that was knocked shows its sky elsewhere by as much everywhere, nearly.
    Point knock_of(std::size_t frame) const {
        constexpr int cell = 3;
        const int furthest = std::max(20, size_.width / 30);
        std::unordered_map<int, int> votes;
        int most = 0;
        Point best;
        std::size_t tried = 0;
        for (const Vec3& star : stars_) {
            const auto at = project(star, model_, model_.poses[frame]);
            if (!at || ++tried > 120) continue;
            for (std::size_t i = 0; i < std::min<std::size_t>(seen_[frame].size(), 150); ++i) {
                const double dx = seen_[frame][i].x - at->x;
                const double dy = seen_[frame][i].y - at->y;
                if (std::abs(dx) > furthest || std::abs(dy) > furthest) continue;
                const int vote = ++votes[int(std::lround(dx / cell)) * 10007 + int(std::lround(dy / cell))];
                if (vote <= most) continue;
                most = vote;
                best = {dx, dy};
            }
        }
        return best;
    }

    void take_in_new_stars(std::size_t frame) {
        constexpr std::size_t most_stars = 3000;
        const std::vector<Sighted> known = matches(frame, 5);
        if (known.size() < fewest_matches) return;
        std::vector<char> is_known(seen_[frame].size(), 0);
        for (const Sighted& s : known)
            for (std::size_t i = 0; i < seen_[frame].size(); ++i)
                if (seen_[frame][i] == s.at) is_known[i] = 1;
        for (std::size_t i = 0; i < seen_[frame].size() && stars_.size() < most_stars; ++i)
            if (!is_known[i])
                stars_.push_back(direction_of(seen_[frame][i], model_.camera, model_.poses[frame], model_.axis));
    }

    // As many frames as a fit needs, over all of the run.
    std::vector<std::size_t> thinned(const std::vector<std::size_t>& placed, std::size_t enough) const {
        if (placed.size() <= enough) return placed;
        std::vector<std::size_t> out{reference_};
        for (std::size_t k = 1; k < enough; ++k) out.push_back(placed[k * (placed.size() - 1) / (enough - 1)]);
        return out;
    }

    void fit(const std::vector<std::size_t>& frames, double reach, Free free) {
        // Of a frame: the last fits are to be the best.
        const std::size_t enough_sightings = free == Free::all ? 300 : 150;
        std::vector<Sighted> all;
        std::vector<int> times(stars_.size(), 0);
        for (const std::size_t i : frames) {
            std::vector<Sighted> seen = matches(i, reach);
            // The brightest come first.
            if (seen.size() > enough_sightings) seen.resize(enough_sightings);
            for (const Sighted& s : seen) {
                all.push_back(s);
                ++times[s.star];
            }
        }
        // What was seen once tells nothing.
        std::erase_if(all, [&](const Sighted& s) { return times[s.star] < 2; });
        fit_sky(model_, stars_, all, reference_, loss_px, free);
    }

    Alignment alignment_of(std::size_t frame) const {
        Alignment out;
        const Point middle{(size_.width - 1) / 2.0, (size_.height - 1) / 2.0};
        const SkyCamera& c = model_.camera;
        out.lens = Lens{middle, c.focal, c.k1, c.k2};
        if (frame == reference_) {
            out.confidence = 1;
            return out;
        }
        const std::vector<Sighted> found = matches(frame, 2);
        SkyPose pose = model_.poses[frame];
        std::size_t expected = 0;
        for (const Vec3& star : stars_) {
            const auto at = project(star, model_, pose);
            expected += at && std::abs(at->x) < size_.width / 2.0 && std::abs(at->y) < size_.height / 2.0;
        }
        expected = std::min(expected, std::max<std::size_t>(seen_[frame].size(), 1));
        out.confidence = std::min(1.0, double(found.size()) / double(std::max(expected, fewest_matches)));
        if (found.size() < fewest_matches) {
            out.by_clock = true;
            pose.turn = {0, 0, 0};
            pose.shift = {0, 0};
        } else {
            std::vector<double> left;
            for (const Sighted& s : found) {
                const auto at = project(stars_[s.star], model_, pose);
                left.push_back(std::hypot(at->x - s.at.x, at->y - s.at.y));
            }
            out.residual_px = middle_of(left);
        }
        out.sensor = {pose.shift[0], pose.shift[1]};
        // Back from the frame's camera to the reference's: the columns are where its axes point.
        std::array<double, 9> back{};
        for (std::size_t k = 0; k < 3; ++k) {
            Vec3 axis{0, 0, 0};
            axis[k] = 1;
            const Vec3 v = turned<double>(turned_by<double>(axis, {-pose.turn[0], -pose.turn[1], -pose.turn[2]}),
                                          model_.axis, -pose.angle);
            for (std::size_t row = 0; row < 3; ++row) back[row * 3 + k] = v[row];
        }
        const Matrix to_pixels{{c.focal, 0, middle.x, 0, c.focal, middle.y, 0, 0, 1}};
        out.to_reference = to_pixels * Matrix(back) * inverse(to_pixels);
        return out;
    }

    std::vector<std::vector<Point>> seen_;
    std::vector<Near> near_;  // of each frame
    std::size_t reference_;
    Size size_;
    SkyModel model_;
    std::vector<Vec3> stars_;         // the catalogue
    std::vector<std::size_t> order_;  // frames by their distance in time from the reference
};

}  // namespace

std::optional<std::vector<Alignment>> place_sky(const std::vector<SkyFrame>& frames, std::size_t reference, Size size) {
    Placer placer(moving_stars(frames, size), frames, reference, size);
    if (!placer.begin()) return std::nullopt;
    placer.go_through();
    return placer.result();
}

}  // namespace bp
