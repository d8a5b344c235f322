// Sizes, rectangles and plane transforms. Pixel centres are at integer coordinates; the origin is the centre of the
// top-left pixel.
#pragma once

#include <array>
#include <vector>

namespace bp {

// The largest multiple of `unit` that is at most `value`, as a count of units.
constexpr int floor_div(int value, int unit) {
    return value >= 0 ? value / unit : -((-value + unit - 1) / unit);
}

struct Size {
    int width = 0;
    int height = 0;
    friend bool operator==(const Size&, const Size&) = default;
};

// Pixels with left <= x < left + width and top <= y < top + height.
struct Rect {
    int left = 0;
    int top = 0;
    int width = 0;
    int height = 0;

    int right() const { return left + width; }
    int bottom() const { return top + height; }
    bool empty() const { return width <= 0 || height <= 0; }
    Size size() const { return {width, height}; }
    friend bool operator==(const Rect&, const Rect&) = default;
};

Rect intersect(const Rect& a, const Rect& b);
// The smallest rectangle that holds both; an empty one adds nothing.
Rect unite(const Rect& a, const Rect& b);
Rect whole(Size size);

// The largest rectangle of a ratio of width to height inside another, about its middle, to whole pixels; at least one.
Rect of_ratio(const Rect& inside, double ratio);

struct Point {
    double x = 0;
    double y = 0;
    friend bool operator==(const Point&, const Point&) = default;
};

// A level halves a picture `level` times: level 0 is full size, a pixel of level n averages 2^n x 2^n of level 0.
// An odd edge counts as a whole pixel.
Size at_level(Size size, int level);
// The lowest level whose longer side is at most `side`, which is at least 1.
int level_within(Size size, int side);
// The pixels of `level` that touch `rect` of level 0.
Rect at_level(const Rect& rect, int level);

// Row-major 3 x 3 matrix on homogeneous coordinates. Its last element is 1: others stand for the same transform and are
// divided by it when a matrix is made. One that sends the origin nowhere, so that this cannot be done, is not finite.
class Matrix {
  public:
    Matrix() = default;
    Matrix(const std::array<double, 9>& m);

    const std::array<double, 9>& m() const { return m_; }
    static Matrix shift(double dx, double dy);
    // Turn by `radians` (x towards y) about `pivot`, then shift.
    static Matrix rigid(double radians, Point pivot, double dx, double dy);

    bool is_identity() const { return *this == Matrix{}; }
    bool finite() const;
    double determinant() const;
    Point operator()(Point p) const;
    friend Matrix operator*(const Matrix& a, const Matrix& b);
    friend bool operator==(const Matrix&, const Matrix&) = default;

  private:
    std::array<double, 9> m_{1, 0, 0, 0, 1, 0, 0, 0, 1};
};

// Only for matrices that can be inverted, which all shifts, turns and scales above zero are.
Matrix inverse(const Matrix& matrix);
// The same transform between pictures of `level`.
Matrix at_level(const Matrix& matrix, int level);
// The same transform, taken from pictures of `level`, between pictures of level 0.
Matrix from_level(const Matrix& matrix, int level);

// True when a point lies before the camera that a perspective looks through, and not behind it. Only for transforms
// that do not mirror: where dividing by the last element has turned its sign, the determinant tells.
bool in_front(const Matrix& matrix, Point p);

// Root of the mean squared distance between a(p) and b(p) on a grid of columns x rows points spread over `size`.
double rms_distance(const Matrix& a, const Matrix& b, Size size, int columns = 9, int rows = 7);

}  // namespace bp
