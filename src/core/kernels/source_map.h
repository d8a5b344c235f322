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

// Places that differ by less than this count as the same when rows are resampled, in pixels. On the hardest edge that
// is three in 65535.
constexpr double same_place = 5e-5;

// The way from canvas to source. It is exact at the knots, every step() pixels across and down from canvas pixel (0, 0)
// on, and straight between them: for an affine placement that is exact everywhere, for lenses and perspectives of 24
// megapixels right within a thousandth of a pixel. Nothing depends on which spans and bands are asked for. Any thread.
class SourceMap {
  public:
    // How far apart knots lie where a placement bends: close everywhere, or as far as it bends little, so that asking
    // for few places here and there costs nothing to begin with; right within a thousandth of a pixel as well.
    enum class Knots { close, far };
    SourceMap(const Placement& placed, Size source, Knots knots = Knots::close);

    Size source() const { return source_; }
    // The place of one canvas pixel, as RowPlaces has it.
    Point at(int x, int y) const;
    int step() const { return step_; }
    // True when rows of the source stay rows, nearly: resampling may then go down first and across after.
    bool gentle() const { return gentle_; }
    // False when rows of the canvas are straight in the source.
    bool bends() const { return !affine_; }
    // So many canvas rows, from a multiple of it on, lie alike between the source's rows: 8, 4, 2 or 1. They are then
    // weighed alike, as the row in their middle.
    int rows_alike() const { return rows_alike_; }
    // True when these rows lie alike between the source's columns, too, where it is gentle.
    bool columns_alike() const { return columns_alike_; }

  private:
    friend class RowPlaces;
    // Not a number where nothing of the source can lie: behind its camera, or too far off to be counted.
    Point exact(double x, double y) const;
    // The place of a knot.
    Point at_knot(int across, int down) const;
    void put_knots_far();

    Placement placed_;
    Matrix to_source_;
    Matrix before_;  // what `after` leads back to; used where there is one
    bool mirrored_;  // the sign of its last element was turned, see in_front()
    Size source_;
    bool affine_;
    int step_;
    int step_bits_;  // it is a power of two
    bool gentle_ = false;
    int rows_alike_ = 1;
    bool columns_alike_ = false;
    // Of far knots those about the source, row by row, are known beforehand: from one before it on.
    std::vector<Point> known_;
    int known_columns_ = 0, known_rows_ = 0;
};

// Places along one canvas row.
struct KnotRow {
    int step = 1;
    int first = 0;  // number of the first knot; number k lies at canvas pixel k * step
    std::vector<Point> places;

    const Point& knot(int k) const { return places[std::size_t(k - first)]; }
    int last() const { return first + int(places.size()) - 1; }
    Point at(int x) const {
        const int k = floor_div(x, step);
        const Point& a = knot(k);
        const Point& b = knot(k + 1);
        const double part = double(x - k * step) / step;
        return {a.x + (b.x - a.x) * part, a.y + (b.y - a.y) * part};
    }
    // The source columns that resampling these pixels reads.
    Reach columns(Span span) const { return reach(span, &Point::x); }
    Reach reach(Span span, double Point::*axis) const;
};

// The places of canvas rows within `limits`. Rows are best asked for from top to bottom. One thread at a time.
class RowPlaces {
  public:
    // `limits`: canvas columns that may be asked for. The map must live on.
    RowPlaces(const SourceMap& map, Span limits);
    RowPlaces(const SourceMap&& map, Span limits) = delete;

    const SourceMap& map() const { return *map_; }
    // Goes to canvas row y.
    void go_to(int y);
    // Of this row: known from five pixels before `limits` to five after.
    const KnotRow& here() const { return row_; }
    // Of this row: the place of canvas pixel x in the source.
    Point at(int x) const { return row_.at(x); }
    // The pixels of the row, within `limits`, whose place lies between the centres of the source's outermost pixels:
    // the longest piece, when a lens makes it more than one.
    Span covered(Span limits) const;
    // What resampling these pixels reads of the source.
    Reach rows(Span span) const;
    Reach columns(Span span) const { return row_.columns(span); }

  private:
    void fill(int knot_row, std::vector<Point>& out) const;

    const SourceMap* map_;
    KnotRow row_;
    std::vector<Point> above_, below_;  // at the knot rows around
    int above_at_ = 0;
    bool filled_ = false;
};

}  // namespace bp::kernels
