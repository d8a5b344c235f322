#include "engine/looking.h"

#include <algorithm>

#include "base/parallel.h"

namespace bp {
namespace {

// Lines are looked for in pictures of one size, whatever the camera's: what is thin, or a crowd, is told in pixels.
int level_of_lines(Size of_lights) {
    constexpr int longest_side = 1000;
    return level_within(of_lights, longest_side);
}

template <class T>
T bright(const T* row, int channels, int x) {
    if (channels == 1) return row[x];
    const T* p = row + std::ptrdiff_t(x) * 3;
    return T((unsigned(p[0]) + 2U * p[1] + p[2] + 2U) / 4U);
}

}  // namespace

void Standing::look(int y, int left, kernels::Rows<std::uint16_t> rows, int width) {
    std::vector<Excess> found;
    add_excess(rows, width, least_, found);
    drop_wide_light(found, width);
    for (Excess& e : found) e.x = std::uint16_t(e.x + left);
    const std::lock_guard lock(mutex_);
    auto& row = rows_[std::size_t(y)];
    row.insert(row.end(), found.begin(), found.end());
}

std::vector<std::vector<Bright>> Standing::by_frame() {
    std::vector<std::vector<Bright>> out(frames_);
    for (std::size_t y = 0; y < rows_.size(); ++y) {
        std::sort(rows_[y].begin(), rows_[y].end(), [](const Excess& a, const Excess& b) { return a.x < b.x; });
        for (const Excess& e : rows_[y]) out[e.frame].push_back({e.x, int(y), e.by, e.deviations});
    }
    return out;
}

// Where a frame is brighter over much of a row it is a cloud, and what does not stand out far from it says nothing.
// Nor is it kept, so that a run under clouds takes no more memory than a clear one.
void Standing::drop_wide_light(std::vector<Excess>& found, int width) const {
    constexpr int share = 10;  // one in so many pixels of a row
    constexpr int far = 10 * quarters;
    std::vector<int> counts(frames_);
    for (const Excess& e : found) ++counts[e.frame];
    std::erase_if(found, [&](const Excess& e) { return counts[e.frame] > width / share && e.deviations < far; });
}

Looking::Looking(int channels, std::size_t frames, Size size)
    : channels_(channels),
      frames_(frames),
      size_(size),
      coarser_(level_of_lines(size)),
      small_(at_level(size, coarser_)),
      lights_(frames, size.height, least_deviations),
      sums_(frames, std::vector<std::uint32_t>(std::size_t(small_.width) * std::size_t(small_.height))) {}

void Looking::row(int y, kernels::Span columns, const std::vector<FrameRow>& rows) {
    const int width = columns.end - columns.begin;
    std::vector<std::uint16_t> samples(frames_ * std::size_t(width));
    std::vector<const std::uint16_t*> brightness;
    for (std::size_t k = 0; k < frames_; ++k) {
        std::uint16_t* out = samples.data() + k * std::size_t(width);
        brightness.push_back(out);
        const kernels::Span& cover = rows[k].cover;
        if (cover.empty()) continue;
        for (int x = cover.begin; x < cover.end; ++x)
            out[x] = rows[k].narrow ? kernels::to_16(bright(rows[k].narrow, channels_, x))
                                    : bright(rows[k].wide, channels_, x);
        // What is not covered is as the last that is.
        std::fill(out, out + cover.begin, out[cover.begin]);
        std::fill(out + cover.end, out + width, out[cover.end - 1]);
    }
    add_to_small(y, columns, brightness);
    lights_.look(y, columns.begin, brightness, width);
}

std::vector<std::vector<Bright>> Looking::small_lights() const {
    Standing out(frames_, small_.height, least_of_streaks);
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
    return frames * (std::size_t(size.width) * std::size_t(size.height) / of_pixels * sizeof(Excess) +
                     std::size_t(small.width) * std::size_t(small.height) * sizeof(std::uint32_t));
}

void Looking::add_to_small(int y, kernels::Span columns, const std::vector<const std::uint16_t*>& rows) {
    const int first = columns.begin >> coarser_, end = ((columns.end - 1) >> coarser_) + 1;
    std::vector<std::uint32_t> own(frames_ * std::size_t(end - first));
    for (std::size_t k = 0; k < frames_; ++k) {
        std::uint32_t* to = own.data() + k * std::size_t(end - first);
        for (int x = columns.begin; x < columns.end; ++x) to[(x >> coarser_) - first] += rows[k][x - columns.begin];
    }
    const std::lock_guard lock(mutex_);
    for (std::size_t k = 0; k < frames_; ++k) {
        std::uint32_t* to = sums_[k].data() + std::size_t(y >> coarser_) * std::size_t(small_.width) + first;
        const std::uint32_t* from = own.data() + k * std::size_t(end - first);
        for (int x = 0; x < end - first; ++x) to[x] += from[x];
    }
}

}  // namespace bp
