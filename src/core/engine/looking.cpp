#include "engine/looking.h"

#include <algorithm>
#include <numeric>

#include "base/parallel.h"
#include "kernels/extremes.h"
#include "kernels/level.h"

namespace bp {
namespace {

// Lines are looked for in pictures of one size, whatever the camera's: what is thin, or a crowd, is told in pixels.
int level_of_lines(Size of_lights) {
    constexpr int longest_side = 1000;
    return level_within(of_lights, longest_side);
}

// Where a frame is brighter over much of a row it is a cloud, and what does not stand out far from it says nothing.
// Nor is it kept, so that a run under clouds takes no more memory than a clear one.
void drop_wide_light(std::vector<Excess>& found, std::size_t frames, int width) {
    constexpr int share = 10;  // one in so many pixels of a row
    constexpr int far = 10 * quarters;
    std::vector<int> counts(frames);
    for (const Excess& e : found) ++counts[e.frame];
    std::erase_if(found, [&](const Excess& e) { return counts[e.frame] > width / share && e.deviations < far; });
}

}  // namespace

Standing::Standing(std::size_t frames, Size size, double least)
    : frames_(frames), least_(least), rows_(std::size_t(size.height)) {
    for (Row& row : rows_) {
        row.usual.level.resize(std::size_t(size.width));
        row.usual.distance.resize(std::size_t(size.width));
    }
}

void Standing::look(int y, int left, kernels::Rows<std::uint16_t> rows, int width) {
    UsualRow usual = usual_row(rows, width);
    std::vector<Excess> found;
    {
        Comparing comparing(usual, least_);
        for (std::size_t k = 0; k < rows.size(); ++k) comparing.add_excess(rows[k], std::uint16_t(k), found);
    }
    add(y, left, width, found);
    const std::lock_guard lock(mutex_);
    UsualRow& kept = rows_[std::size_t(y)].usual;
    std::copy(usual.level.begin(), usual.level.end(), kept.level.begin() + left);
    std::copy(usual.distance.begin(), usual.distance.end(), kept.distance.begin() + left);
}

void Standing::forget(const std::vector<std::size_t>& frames) {
    std::vector<bool> gone(frames_);
    for (const std::size_t k : frames) gone[k] = true;
    for (Row& row : rows_) std::erase_if(row.found, [&](const Excess& e) { return gone[e.frame]; });
}

void Standing::look_again(int y, int left, const std::vector<std::size_t>& frames, kernels::Rows<std::uint16_t> rows,
                          int width) {
    const UsualRow& kept = rows_[std::size_t(y)].usual;
    const auto part = [&](const std::vector<std::uint16_t>& of) {
        return std::vector<std::uint16_t>(of.begin() + left, of.begin() + left + width);
    };
    const UsualRow usual{part(kept.level), part(kept.distance)};
    std::vector<Excess> found;
    Comparing comparing(usual, least_);
    for (std::size_t k = 0; k < frames.size(); ++k) comparing.add_excess(rows[k], std::uint16_t(frames[k]), found);
    add(y, left, width, found);
}

void Standing::add(int y, int left, int width, std::vector<Excess>& found) {
    drop_wide_light(found, frames_, width);
    for (Excess& e : found) e.x = std::uint16_t(e.x + left);
    const std::lock_guard lock(mutex_);
    auto& row = rows_[std::size_t(y)].found;
    row.insert(row.end(), found.begin(), found.end());
}

std::vector<std::vector<Bright>> Standing::by_frame() {
    std::vector<std::vector<Bright>> out(frames_);
    parallel_for(0, int(rows_.size()), [&](int y) {
        auto& found = rows_[std::size_t(y)].found;
        std::sort(found.begin(), found.end(), [](const Excess& a, const Excess& b) { return a.x < b.x; });
    });
    for (std::size_t y = 0; y < rows_.size(); ++y) {
        for (const Excess& e : rows_[y].found) out[e.frame].push_back({e.x, int(y), e.by, e.deviations});
    }
    return out;
}

Looking::Looking(std::size_t frames, Size size)
    : frames_(frames),
      coming_(frames),
      size_(size),
      coarser_(level_of_lines(size)),
      small_(at_level(size, coarser_)),
      lights_(frames, size, least_deviations),
      sums_(frames, std::vector<std::uint32_t>(std::size_t(small_.width) * std::size_t(small_.height))) {
    std::iota(coming_.begin(), coming_.end(), std::size_t(0));
}

void Looking::again(const std::vector<std::size_t>& frames) {
    coming_ = frames;
    lights_.forget(frames);
    for (const std::size_t k : frames) std::fill(sums_[k].begin(), sums_[k].end(), 0U);
}

void Looking::row(int y, kernels::Span columns, const std::vector<FrameRow>& rows) {
    const int width = columns.end - columns.begin;
    std::vector<std::uint16_t> samples(coming_.size() * std::size_t(width));
    std::vector<const std::uint16_t*> brightness;
    for (std::size_t k = 0; k < coming_.size(); ++k) {
        std::uint16_t* out = samples.data() + k * std::size_t(width);
        brightness.push_back(out);
        const kernels::Span& cover = rows[k].cover;
        if (cover.empty()) continue;
        const auto covered = std::size_t(cover.end - cover.begin);
        if (rows[k].narrow)
            kernels::widen(rows[k].narrow + cover.begin, covered, out + cover.begin);
        else
            std::copy_n(rows[k].wide + cover.begin, covered, out + cover.begin);
        // What is not covered is as the last that is.
        std::fill(out, out + cover.begin, out[cover.begin]);
        std::fill(out + cover.end, out + width, out[cover.end - 1]);
    }
    add_to_small(y, columns, brightness);
    if (coming_.size() == frames_)
        lights_.look(y, columns.begin, brightness, width);
    else
        lights_.look_again(y, columns.begin, coming_, brightness, width);
}

std::vector<std::vector<Bright>> Looking::small_lights() const {
    Standing out(frames_, small_, least_of_streaks);
    parallel_for(0, small_.height, [&](int y) {
        const int height = std::min(size_.height, (y + 1) << coarser_) - (y << coarser_);
        std::vector<std::uint16_t> samples(frames_ * std::size_t(small_.width));
        std::vector<const std::uint16_t*> rows;
        for (std::size_t k = 0; k < frames_; ++k) {
            std::uint16_t* to = samples.data() + k * std::size_t(small_.width);
            rows.push_back(to);
            const std::uint32_t* from = sums_[k].data() + std::size_t(y) * std::size_t(small_.width);
            for (int x = 0; x < small_.width; ++x) {
                const int width = std::min(size_.width, (x + 1) << coarser_) - (x << coarser_);
                const auto pixels = std::uint32_t(width * height);
                to[x] = std::uint16_t((from[x] + pixels / 2) / pixels);
            }
        }
        out.look(y, 0, rows, small_.width);
    });
    return out.by_frame();
}

std::size_t Looking::bytes(std::size_t frames, Size size) {
    // In a row of many frames one pixel in so many stands out.
    constexpr std::size_t of_pixels = 50;
    const Size small = at_level(size, level_of_lines(size));
    const std::size_t pixels = std::size_t(size.width) * std::size_t(size.height);
    const std::size_t usual = 2 * pixels * sizeof(std::uint16_t);
    return usual + frames * (pixels / of_pixels * sizeof(Excess) +
                             std::size_t(small.width) * std::size_t(small.height) * sizeof(std::uint32_t));
}

void Looking::add_to_small(int y, kernels::Span columns, const std::vector<const std::uint16_t*>& rows) {
    const int first = columns.begin >> coarser_, end = ((columns.end - 1) >> coarser_) + 1;
    const int unit = 1 << coarser_;
    // Those of which all pixels are here.
    const int whole_from = (columns.begin + unit - 1) >> coarser_, whole_to = columns.end >> coarser_;
    std::vector<std::uint32_t> own(coming_.size() * std::size_t(end - first));
    for (std::size_t k = 0; k < coming_.size(); ++k) {
        std::uint32_t* to = own.data() + k * std::size_t(end - first) - first;
        const std::uint16_t* row = rows[k] - columns.begin;
        if (unit == 4)
            kernels::sums_of_4(row + std::ptrdiff_t(whole_from) * 4, std::size_t(std::max(0, whole_to - whole_from)),
                               to + whole_from);
        for (int x = first; x < end; ++x)
            if (unit != 4 || x < whole_from || x >= whole_to)
                to[x] = std::accumulate(row + std::max(columns.begin, x * unit),
                                        row + std::min(columns.end, (x + 1) * unit), std::uint32_t(0));
    }
    const std::lock_guard lock(mutex_);
    for (std::size_t k = 0; k < coming_.size(); ++k) {
        std::uint32_t* to = sums_[coming_[k]].data() + std::size_t(y >> coarser_) * std::size_t(small_.width) + first;
        const std::uint32_t* from = own.data() + k * std::size_t(end - first);
        for (int x = 0; x < end - first; ++x) to[x] += from[x];
    }
}

}  // namespace bp
