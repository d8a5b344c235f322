// Masks that are nearly everywhere nothing: stretches of rows.
#pragma once

#include <cstdint>
#include <span>
#include <vector>

#include "image/geometry.h"

namespace bp {

// Yes or no for every pixel. A value that never changes.
class RunMask {
  public:
    // Pixels with begin <= x < end.
    struct Run {
        std::int32_t begin = 0;
        std::int32_t end = 0;
        friend bool operator==(const Run&, const Run&) = default;
    };
    struct Stretch {
        std::int32_t y = 0;
        Run run;
    };

    RunMask() : RunMask({}, {}) {}
    // All that lies in one of the stretches, which may come in any order, touch, overlap and reach beyond the size.
    RunMask(Size size, std::span<const Stretch> stretches);

    Size size() const { return size_; }
    bool empty() const { return runs_.empty(); }
    std::size_t bytes() const { return runs_.size() * sizeof(Run) + first_.size() * sizeof(first_[0]); }
    // From left to right, apart from each other; none outside the size.
    std::span<const Run> row(int y) const;
    bool at(int x, int y) const;
    std::size_t count() const;  // of pixels
    // With all pixels that lie at most `by` beside, above or below.
    RunMask grown(int by) const;
    friend bool operator==(const RunMask&, const RunMask&) = default;

  private:
    Size size_;
    std::vector<std::uint32_t> first_;  // of each row among the runs, and where the last one ends
    std::vector<Run> runs_;
};

}  // namespace bp
