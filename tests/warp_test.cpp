#include "kernels/warp.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "support/fixtures.h"

using namespace bp;
using kernels::Span;

namespace {

std::vector<const std::uint16_t*> rows_of(const Raster16& r) {
    std::vector<const std::uint16_t*> out;
    for (int y = 0; y < r.height(); ++y) out.push_back(r.row(y));
    return out;
}

}  // namespace

TEST_CASE("a shift by whole pixels moves samples without changing them") {
    const Raster16 source = test::speckle({37, 23}, 3, 5);
    const Matrix to_source = Matrix::shift(4, -3);
    const auto rows = rows_of(source);
    for (int y = 3; y < 23; ++y) {
        const Span span = kernels::covered_span(to_source, source.size(), y, {0, 37});
        REQUIRE(span == Span{0, 33});
        std::vector<std::uint16_t> out(std::size_t(33 * 3));
        kernels::warp_row(rows.data(), {}, source.size(), 3, to_source, y, span, out.data());
        for (int x = 0; x < 33; ++x)
            for (int c = 0; c < 3; ++c) REQUIRE(out[std::size_t(x * 3 + c)] == source.at(x + 4, y - 3, c));
    }
    CHECK(kernels::covered_span(to_source, source.size(), 2, {0, 37}).empty());
}

TEST_CASE("the covered span is just the pixels whose place lies in the source") {
    const Size source{61, 47};
    for (const double turn : {-0.7, -0.1, -0.003, 0.0, 0.003, 0.2, 1.3, 3.0}) {
        const Matrix to_source = Matrix::rigid(turn, {30, 20}, 3.3, -2.6);
        for (int y = -4; y < 60; ++y) {
            const Span span = kernels::covered_span(to_source, source, y, {-10, 80});
            for (int x = -10; x < 80; ++x) {
                const Point p = to_source({double(x), double(y)});
                const bool inside = p.x >= -1e-6 && p.y >= -1e-6 && p.x <= 60 + 1e-6 && p.y <= 46 + 1e-6;
                INFO("turn " << turn << " at " << x << "," << y);
                REQUIRE(inside == (x >= span.begin && x < span.end));
            }
        }
    }
}

TEST_CASE("a straight ramp stays straight under any place, and a constant stays constant") {
    Raster16 ramp({40, 30}, 1);
    for (int y = 0; y < 30; ++y)
        for (int x = 0; x < 40; ++x) ramp.at(x, y, 0) = std::uint16_t(1000 + 500 * x + 300 * y);
    const Matrix to_source = Matrix::rigid(0.1, {20, 15}, 0.37, 0.81);
    const auto rows = rows_of(ramp);
    for (int y = 8; y < 22; ++y) {
        const Span span{10, 30};
        std::vector<std::uint16_t> out(20);
        kernels::warp_row(rows.data(), {}, ramp.size(), 1, to_source, y, span, out.data());
        for (int x = 10; x < 30; ++x) {
            const Point p = to_source({double(x), double(y)});
            REQUIRE(std::abs(out[std::size_t(x - 10)] - (1000 + 500 * p.x + 300 * p.y)) <= 1.0);
        }
    }
}

TEST_CASE("any division into spans and row windows gives the same samples") {
    const Raster16 source = test::speckle({50, 40}, 3, 9);
    const Matrix to_source = Matrix::rigid(-0.04, {25, 20}, 1.7, 0.4);
    const auto rows = rows_of(source);
    for (int y = 0; y < 40; ++y) {
        const Span span = kernels::covered_span(to_source, source.size(), y, {0, 50});
        if (span.empty()) continue;
        std::vector<std::uint16_t> whole_row(std::size_t((span.end - span.begin) * 3));
        kernels::warp_row(rows.data(), {}, source.size(), 3, to_source, y, span, whole_row.data());
        const auto reach = kernels::rows_reached(to_source, y, span);
        const int first = std::clamp(reach.first, 0, 39);
        std::vector<std::uint16_t> pieces(whole_row.size());
        for (int x = span.begin; x < span.end; x += 7)
            kernels::warp_row(rows.data() + first, {0, first}, source.size(), 3, to_source, y,
                              {x, std::min(x + 7, span.end)}, pieces.data() + (x - span.begin) * 3);
        REQUIRE(pieces == whole_row);
    }
}
