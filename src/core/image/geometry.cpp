#include "image/geometry.h"

#include <algorithm>
#include <cmath>

namespace bp {

Rect intersect(const Rect& a, const Rect& b) {
    const int left = std::max(a.left, b.left);
    const int top = std::max(a.top, b.top);
    const int right = std::min(a.right(), b.right());
    const int bottom = std::min(a.bottom(), b.bottom());
    if (right <= left || bottom <= top) return {};
    return {left, top, right - left, bottom - top};
}

Rect unite(const Rect& a, const Rect& b) {
    if (a.empty()) return b;
    if (b.empty()) return a;
    const int left = std::min(a.left, b.left);
    const int top = std::min(a.top, b.top);
    return {left, top, std::max(a.right(), b.right()) - left, std::max(a.bottom(), b.bottom()) - top};
}

Rect of_ratio(const Rect& inside, double ratio) {
    int width = inside.width, height = inside.height;
    if (width > height * ratio)
        width = std::clamp(int(std::lround(height * ratio)), 1, inside.width);
    else
        height = std::clamp(int(std::lround(width / ratio)), 1, inside.height);
    return {inside.left + (inside.width - width) / 2, inside.top + (inside.height - height) / 2, width, height};
}

Rect whole(Size size) {
    return {0, 0, size.width, size.height};
}

Size at_level(Size size, int level) {
    const int unit = 1 << level;
    return {(size.width + unit - 1) / unit, (size.height + unit - 1) / unit};
}

int level_within(Size size, int side) {
    int level = 0;
    while (std::max(at_level(size, level).width, at_level(size, level).height) > side) ++level;
    return level;
}

Rect at_level(const Rect& rect, int level) {
    const int unit = 1 << level;
    const int left = floor_div(rect.left, unit);
    const int top = floor_div(rect.top, unit);
    return {left, top, floor_div(rect.right() + unit - 1, unit) - left,
            floor_div(rect.bottom() + unit - 1, unit) - top};
}

Matrix::Matrix(const std::array<double, 9>& m) : m_(m) {
    if (m_[8] == 1) return;
    for (std::size_t i = 0; i < 8; ++i) m_[i] = m[i] / m[8];
    m_[8] = 1;
}

bool Matrix::finite() const {
    return std::all_of(m_.begin(), m_.end(), [](double v) { return std::isfinite(v); });
}

double Matrix::determinant() const {
    return m_[0] * (m_[4] - m_[5] * m_[7]) - m_[1] * (m_[3] - m_[5] * m_[6]) + m_[2] * (m_[3] * m_[7] - m_[4] * m_[6]);
}

Matrix Matrix::shift(double dx, double dy) {
    return {{1, 0, dx, 0, 1, dy, 0, 0, 1}};
}

Matrix Matrix::rigid(double radians, Point pivot, double dx, double dy) {
    const double c = std::cos(radians);
    const double s = std::sin(radians);
    return {{c, -s, pivot.x - c * pivot.x + s * pivot.y + dx, s, c, pivot.y - s * pivot.x - c * pivot.y + dy, 0, 0, 1}};
}

Point Matrix::operator()(Point p) const {
    const double w = m_[6] * p.x + m_[7] * p.y + m_[8];
    return {(m_[0] * p.x + m_[1] * p.y + m_[2]) / w, (m_[3] * p.x + m_[4] * p.y + m_[5]) / w};
}

Matrix operator*(const Matrix& a, const Matrix& b) {
    std::array<double, 9> out{};
    for (std::size_t row = 0; row < 3; ++row)
        for (std::size_t column = 0; column < 3; ++column)
            for (std::size_t k = 0; k < 3; ++k) out[row * 3 + column] += a.m_[row * 3 + k] * b.m_[k * 3 + column];
    return out;
}

Matrix inverse(const Matrix& matrix) {
    const auto& m = matrix.m();
    const double a = m[4] * m[8] - m[5] * m[7];
    const double b = m[5] * m[6] - m[3] * m[8];
    const double c = m[3] * m[7] - m[4] * m[6];
    // Over the determinant, which drops out when the last element becomes 1.
    return {{a, m[2] * m[7] - m[1] * m[8], m[1] * m[5] - m[2] * m[4],  //
             b, m[0] * m[8] - m[2] * m[6], m[2] * m[3] - m[0] * m[5],  //
             c, m[1] * m[6] - m[0] * m[7], m[0] * m[4] - m[1] * m[3]}};
}

namespace {

// Maps a pixel of level 0 to a pixel of `level`: the centres of 2^level pixels average to one.
Matrix to_level(int level) {
    const double s = 1.0 / (1 << level);
    return {{s, 0, 0.5 * s - 0.5, 0, s, 0.5 * s - 0.5, 0, 0, 1}};
}

}  // namespace

Matrix at_level(const Matrix& matrix, int level) {
    if (level == 0 || matrix.is_identity()) return matrix;
    return to_level(level) * matrix * inverse(to_level(level));
}

Matrix from_level(const Matrix& matrix, int level) {
    if (level == 0) return matrix;
    return inverse(to_level(level)) * matrix * to_level(level);
}

bool in_front(const Matrix& matrix, Point p) {
    const double w = matrix.m()[6] * p.x + matrix.m()[7] * p.y + 1;
    return matrix.determinant() < 0 ? w < 0 : w > 0;
}

double rms_distance(const Matrix& a, const Matrix& b, Size size, int columns, int rows) {
    double sum = 0;
    for (int j = 0; j < rows; ++j)
        for (int i = 0; i < columns; ++i) {
            const Point p{(size.width - 1.0) * i / (columns - 1), (size.height - 1.0) * j / (rows - 1)};
            const Point u = a(p);
            const Point v = b(p);
            sum += (u.x - v.x) * (u.x - v.x) + (u.y - v.y) * (u.y - v.y);
        }
    return std::sqrt(sum / (columns * rows));
}

}  // namespace bp
