#include "kernels/warp.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "kernels/rows.h"

namespace bp::kernels {
namespace {

// Transforms are known to about this many pixels; without it an exact shift would lose an edge to rounding.
constexpr double slack = 1e-6;

bool covered(const Matrix& to_source, Size source, int x, int y) {
    const Point p = to_source({double(x), double(y)});
    return p.x >= -slack && p.y >= -slack && p.x <= source.width - 1 + slack && p.y <= source.height - 1 + slack;
}

// Narrows [low, high] to where 0 <= slope * x + offset <= limit.
void narrow(double slope, double offset, double limit, double& low, double& high) {
    if (std::abs(slope) < 1e-12) {
        if (offset < -slack || offset > limit + slack) high = low - 1;
        return;
    }
    const double a = (-slack - offset) / slope;
    const double b = (limit + slack - offset) / slope;
    low = std::max(low, std::min(a, b));
    high = std::min(high, std::max(a, b));
}

std::array<float, 4> weights(float t) {
    const float t2 = t * t;
    const float t3 = t2 * t;
    return {-0.5F * t3 + t2 - 0.5F * t, 1.5F * t3 - 2.5F * t2 + 1.0F, -1.5F * t3 + 2.0F * t2 + 0.5F * t,
            0.5F * t3 - 0.5F * t2};
}

template <int channels, class T>
void warp(const T* const* rows, Corner held, Size source, const Matrix& to_source, int y, Span span,
          std::uint16_t* out) {
    for (int x = span.begin; x < span.end; ++x, out += channels) {
        const Point p = to_source({double(x), double(y)});
        const double fx = std::floor(p.x);
        const double fy = std::floor(p.y);
        const std::array<float, 4> wx = weights(float(p.x - fx));
        const std::array<float, 4> wy = weights(float(p.y - fy));
        std::array<int, 4> column{};
        for (int i = 0; i < 4; ++i)
            column[std::size_t(i)] = (std::clamp(int(fx) - 1 + i, 0, source.width - 1) - held.column) * channels;
        std::array<float, channels> sum{};
        for (int j = 0; j < 4; ++j) {
            const T* row = rows[std::clamp(int(fy) - 1 + j, 0, source.height - 1) - held.row];
            for (int c = 0; c < channels; ++c) {
                float across = 0;
                for (std::size_t i = 0; i < 4; ++i) across += wx[i] * float(to_16(row[column[i] + c]));
                sum[std::size_t(c)] += wy[std::size_t(j)] * across;
            }
        }
        for (int c = 0; c < channels; ++c)
            out[c] = std::uint16_t(std::clamp(std::floor(sum[std::size_t(c)] + 0.5F), 0.0F, 65535.0F));
    }
}

}  // namespace

Span covered_span(const Matrix& to_source, Size source, int y, Span limits) {
    if (limits.empty()) return {};
    const auto& m = to_source.m;
    double low = limits.begin;
    double high = limits.end - 1;
    narrow(m[0], m[1] * y + m[2], source.width - 1, low, high);
    narrow(m[3], m[4] * y + m[5], source.height - 1, low, high);
    if (high < low) return {};
    Span span{std::max(limits.begin, int(std::ceil(low)) - 1), std::min(limits.end, int(std::floor(high)) + 2)};
    while (!span.empty() && !covered(to_source, source, span.begin, y)) ++span.begin;
    while (!span.empty() && !covered(to_source, source, span.end - 1, y)) --span.end;
    return span.empty() ? Span{} : span;
}

Reach rows_reached(const Matrix& to_source, int y, Span span) {
    const double a = to_source({double(span.begin), double(y)}).y;
    const double b = to_source({double(span.end - 1), double(y)}).y;
    return {int(std::floor(std::min(a, b))) - 1, int(std::floor(std::max(a, b))) + 2};
}

Reach columns_reached(const Matrix& to_source, int y, Span span) {
    const double a = to_source({double(span.begin), double(y)}).x;
    const double b = to_source({double(span.end - 1), double(y)}).x;
    return {int(std::floor(std::min(a, b))) - 1, int(std::floor(std::max(a, b))) + 2};
}

void warp_row(const std::uint16_t* const* rows, Corner held, Size source, int channels, const Matrix& to_source, int y,
              Span span, std::uint16_t* out) {
    if (channels == 3)
        warp<3>(rows, held, source, to_source, y, span, out);
    else
        warp<1>(rows, held, source, to_source, y, span, out);
}

void warp_row(const std::uint8_t* const* rows, Corner held, Size source, int channels, const Matrix& to_source, int y,
              Span span, std::uint16_t* out) {
    if (channels == 3)
        warp<3>(rows, held, source, to_source, y, span, out);
    else
        warp<1>(rows, held, source, to_source, y, span, out);
}

}  // namespace bp::kernels
