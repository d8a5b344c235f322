#include "parts/subjects.h"

#include <algorithm>
#include <cmath>

namespace bp {
namespace {

int gap(int a_begin, int a_end, int b_begin, int b_end) {
    return std::max({0, a_begin - b_end, b_begin - a_end});
}

// The thing that others of its frame go along with, and those.
struct Group {
    const Thing* first = nullptr;
    std::vector<const Thing*> all;
};

// Whether a smaller thing goes along with a larger one: close by, or straight above or below as shadows and reflections
// are.
bool goes_along(const Thing& small, const Thing& large) {
    const Rect &a = small.box, &b = large.box;
    const int across = gap(a.left, a.right(), b.left, b.right());
    const int down = gap(a.top, a.bottom(), b.top, b.bottom());
    const int length = std::max(b.width, b.height);
    if (std::hypot(across, down) <= 0.3 * length) return true;
    const int shared = std::min(a.right(), b.right()) - std::max(a.left, b.left);
    constexpr int furthest = 4;  // lengths of the larger one
    return shared >= 0.6 * std::min(a.width, b.width) && down <= furthest * length;
}

std::vector<Group> groups_of(const std::vector<Thing>& things) {
    std::vector<Group> out;
    for (const Thing& thing : things) {
        const auto with = std::find_if(out.begin(), out.end(), [&](const Group& g) {
            return std::any_of(g.all.begin(), g.all.end(), [&](const Thing* t) {
                return goes_along(thing, t->area >= thing.area ? *t : *g.first);
            });
        });
        if (with == out.end())
            out.push_back({&thing, {&thing}});
        else
            with->all.push_back(&thing);
    }
    return out;
}

struct Track {
    std::vector<std::pair<std::size_t, const Group*>> places;
    Point step;  // from one frame to the next, as it went last

    const Group& last() const { return *places.back().second; }
};

// A thing of one frame taken for one of a later frame.
struct Match {
    double far = 1e9;  // from where it was thought to be, in lengths of it
    Point by;          // how far it went
};

// The nearest things of about one size in a track's last frame and a group. Which thing of a group is the largest may
// change from frame to frame.
Match match(const Track& track, const Group& group, std::size_t frame) {
    constexpr double furthest = 2.5, most_growth = 3;
    const double steps = double(frame - track.places.back().first);
    Match out;
    for (const Thing* was : track.last().all)
        for (const Thing* is : group.all) {
            const double a = double(was->area), b = double(is->area);
            if (a > most_growth * b || b > most_growth * a) continue;
            const Point by{is->middle.x - was->middle.x, is->middle.y - was->middle.y};
            const double length = std::max(was->box.width, was->box.height);
            const double far = std::hypot(by.x - track.step.x * steps, by.y - track.step.y * steps) / length;
            if (far < std::min(out.far, furthest)) out = {far, by};
        }
    return out;
}

SubjectPlace place_of(std::size_t frame, const Group& group) {
    Rect box;
    for (const Thing* t : group.all) box = unite(box, t->box);
    SubjectPlace out{frame, box, Raster8(box.size(), 1)};
    for (const Thing* t : group.all)
        for (int y = 0; y < t->box.height; ++y)
            for (int x = 0; x < t->box.width; ++x)
                if (t->mask.at(x, y, 0) != 0)
                    out.mask.at(t->box.left - box.left + x, t->box.top - box.top + y, 0) = 255;
    return out;
}

}  // namespace

std::vector<Subject> subjects_in(const std::vector<std::vector<Thing>>& frames, std::size_t least) {
    std::vector<std::vector<Group>> groups;
    groups.reserve(frames.size());
    for (const std::vector<Thing>& things : frames) {
        groups.push_back(groups_of(things));
        std::erase_if(groups.back(), [least](const Group& g) { return g.first->area < least; });
    }
    constexpr std::size_t longest_absence = 3;
    std::vector<Track> tracks;
    for (std::size_t k = 0; k < groups.size(); ++k) {
        // The nearest pairs first, each track and each group once.
        struct Pair {
            Match match;
            std::size_t track;
            const Group* group;
        };
        std::vector<Pair> pairs;
        for (std::size_t t = 0; t < tracks.size(); ++t)
            if (k - tracks[t].places.back().first <= longest_absence)
                for (const Group& g : groups[k])
                    if (const Match m = match(tracks[t], g, k); m.far < 1e9) pairs.push_back({m, t, &g});
        std::stable_sort(pairs.begin(), pairs.end(),
                         [](const Pair& a, const Pair& b) { return a.match.far < b.match.far; });
        std::vector<bool> used(tracks.size());
        std::vector<const Group*> placed;
        for (const Pair& p : pairs) {
            if (used[p.track] || std::find(placed.begin(), placed.end(), p.group) != placed.end()) continue;
            used[p.track] = true;
            placed.push_back(p.group);
            Track& track = tracks[p.track];
            const double steps = double(k - track.places.back().first);
            track.step = {p.match.by.x / steps, p.match.by.y / steps};
            track.places.emplace_back(k, p.group);
        }
        for (const Group& g : groups[k])
            if (std::find(placed.begin(), placed.end(), &g) == placed.end()) tracks.push_back({{{k, &g}}, {}});
    }
    std::erase_if(tracks, [](const Track& t) { return t.places.size() < 2; });
    const auto area = [](const Track& t) {
        std::size_t out = 0;
        for (const auto& [frame, group] : t.places) out += group->first->area;
        return out;
    };
    std::stable_sort(tracks.begin(), tracks.end(), [&](const Track& a, const Track& b) { return area(a) > area(b); });
    std::vector<Subject> out;
    for (const Track& track : tracks) {
        Subject subject;
        for (const auto& [frame, group] : track.places) subject.places.push_back(place_of(frame, *group));
        out.push_back(std::move(subject));
    }
    return out;
}

}  // namespace bp
