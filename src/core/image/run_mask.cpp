#include "image/run_mask.h"

#include <algorithm>

namespace bp {

RunMask::RunMask(Size size, std::span<const Stretch> stretches) : size_(size), first_(std::size_t(size.height) + 1) {
    const auto inside = [&](const Stretch& s) -> Run {
        if (s.y < 0 || s.y >= size.height) return {};
        return {std::max(0, s.run.begin), std::min(size.width, s.run.end)};
    };
    // By rows, each in a piece of one list.
    for (const Stretch& s : stretches)
        if (const Run run = inside(s); run.begin < run.end) ++first_[std::size_t(s.y) + 1];
    for (std::size_t y = 1; y < first_.size(); ++y) first_[y] += first_[y - 1];
    std::vector<Run> all(first_.back());
    std::vector<std::uint32_t> next(first_.begin(), first_.end() - 1);
    for (const Stretch& s : stretches)
        if (const Run run = inside(s); run.begin < run.end) all[next[std::size_t(s.y)]++] = run;
    for (int y = 0; y < size.height; ++y) {
        const auto begin = all.begin() + first_[std::size_t(y)];
        const auto end = all.begin() + next[std::size_t(y)];
        std::sort(begin, end, [](const Run& a, const Run& b) { return a.begin < b.begin; });
        first_[std::size_t(y)] = std::uint32_t(runs_.size());
        for (auto run = begin; run != end; ++run) {
            const bool goes_on = runs_.size() > first_[std::size_t(y)] && runs_.back().end >= run->begin;
            if (goes_on)
                runs_.back().end = std::max(runs_.back().end, run->end);
            else
                runs_.push_back(*run);
        }
    }
    first_.back() = std::uint32_t(runs_.size());
}

std::span<const RunMask::Run> RunMask::row(int y) const {
    if (y < 0 || y >= size_.height) return {};
    const std::uint32_t begin = first_[std::size_t(y)];
    return std::span(runs_).subspan(begin, first_[std::size_t(y) + 1] - begin);
}

bool RunMask::at(int x, int y) const {
    const auto runs = row(y);
    const auto after =
        std::upper_bound(runs.begin(), runs.end(), x, [](int value, const Run& run) { return value < run.begin; });
    return after != runs.begin() && x < std::prev(after)->end;
}

std::size_t RunMask::count() const {
    std::size_t out = 0;
    for (const Run& run : runs_) out += std::size_t(run.end - run.begin);
    return out;
}

RunMask RunMask::grown(int by) const {
    std::vector<Stretch> out;
    out.reserve(runs_.size() * std::size_t(2 * by + 1));
    for (int y = 0; y < size_.height; ++y)
        for (const Run& run : row(y))
            for (int v = y - by; v <= y + by; ++v) out.push_back({v, {run.begin - by, run.end + by}});
    return {size_, out};
}

}  // namespace bp
