// Where the pixels of a row come from in a frame that is resampled.
#pragma once

#include <vector>

#include "image/placement.h"

namespace bp::kernels {

// Pixels with begin <= x < end.
struct Span {
    int begin = 0;
    int end = 0;
    bool empty() const { return end <= begin; }
    friend bool operator==(const Span&, const Span&) = default;
};

// First and last row or column, both inclusive, not cut to the picture.
struct Reach {
    int first = 0;
    int last = 0;
};

// The way from canvas to source. It is exact at the knots, every step() pixels across and down from canvas pixel (0, 0)
// on, and straight between them: for an affine placement that is exact everywhere, for lenses and perspectives of 24
// megapixels right within a thousandth of a pixel. Nothing depends on which spans and bands are asked for. Any thread.
class SourceMap {
  public:
    SourceMap(const Placement& placed, Size source);

    Size source() const { return source_; }
    int step() const { return step_; }
    // True when rows of the source stay rows, nearly: resampling may then go down first and across after.
    bool gentle() const { return gentle_; }

  private:
    friend class RowPlaces;
    Point exact(double x, double y) const;

    Placement placed_;
    Matrix to_source_;  // for an affine placement
    Size source_;
    bool affine_;
    int step_;
    bool gentle_ = false;
};

// The places of canvas rows within `limits`. Rows are best asked for from top to bottom. One thread at a time.
class RowPlaces {
  public:
    // `limits`: canvas columns that may be asked for.
    RowPlaces(const SourceMap& map, Span limits);

    const SourceMap& map() const { return map_; }
    // Goes to canvas row y.
    void go_to(int y);
    // Of this row: the place of canvas pixel x in the source.
    Point at(int x) const;
    // Knots: number k lies at canvas pixel k * step(); known from four pixels before `limits` to four after.
    const Point& knot(int k) const { return row_[std::size_t(k - first_)]; }
    int first_knot() const { return first_; }
    int last_knot() const { return first_ + int(row_.size()) - 1; }
    // The pixels of the row, within `limits`, whose place lies between the centres of the source's outermost pixels:
    // the longest piece, when a lens makes it more than one.
    Span covered(Span limits) const;
    // What resampling these pixels reads of the source.
    Reach rows(Span span) const;
    Reach columns(Span span) const;

  private:
    void fill(int knot_row, std::vector<Point>& out) const;
    Reach reach(Span span, double Point::*axis) const;

    SourceMap map_;
    int first_;
    std::vector<Point> row_;
    std::vector<Point> above_, below_;  // at the knot rows around
    int above_at_ = 0;
    bool filled_ = false;
};

}  // namespace bp::kernels
