#include "kernels/warp.h"

#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <set>

#include "support/fixtures.h"

using namespace bp;
using kernels::RowPlaces;
using kernels::SourceMap;
using kernels::Span;

namespace {

std::vector<const std::uint16_t*> rows_of(const Raster16& r) {
    std::vector<const std::uint16_t*> out;
    for (int y = 0; y < r.height(); ++y) out.push_back(r.row(y));
    return out;
}

// The pixels of `span` in canvas row y, from the whole source. Leaves `places` in that row.
std::vector<std::uint16_t> warped(const Raster16& source, RowPlaces& places, int y, Span span) {
    std::vector<std::uint16_t> out(std::size_t((span.end - span.begin) * source.channels()));
    const auto rows = rows_of(source);
    kernels::warp_rows({rows.data(), whole(source.size())}, source.channels(), places, y, {&span, 1},
                       {out.data(), 0, span.begin});
    places.go_to(y);
    return out;
}

// The lens of a wide view, for pictures of this width.
Lens wide(double width, double height) {
    return {{width / 2, height / 2}, width, -0.08, 0.02};
}

// Placements of every kind: affine and not, gentle and steep.
std::vector<Placement> many_placements(Size size) {
    const Point middle{size.width / 2.0, size.height / 2.0};
    return {Matrix::shift(2.5, -1.25),
            Matrix::rigid(0.02, middle, 0.3, 0.6),
            Matrix::rigid(0.4, middle, 1, 2),
            Matrix::rigid(2.5, middle, 0, 0),
            Matrix{{1.01, 0.02, 1, -0.01, 0.99, 2, 1e-4, -2e-4, 1}},
            Placement{Matrix::rigid(0.03, middle, 0, 0), wide(size.width, size.height)},
            Placement{Matrix::rigid(0.7, middle, 0, 0), wide(size.width, size.height)},
            Placement{Matrix::rigid(0.01, middle, 0, 0), wide(size.width, size.height), {2.5, -1.5}}};
}

// The same, and a bend, which may cover a row in several pieces.
std::vector<Placement> with_a_bend(Size size) {
    std::vector<Placement> out = many_placements(size);
    auto bend = std::make_shared<const Flex>(Flex::Grid{{0, 0}, size.width / 3.0, 4, 3},
                                             std::vector<float>{0, 1, 2, 1, -1, 0, 1, 0, 1, 1, 0, -1},
                                             std::vector<float>{1, 0, -1, 0, 2, 1, 0, 0, 0, -1, 1, 1});
    out.emplace_back(Matrix::rigid(0.02, {size.width / 2.0, size.height / 2.0}, 1, 0), std::nullopt, Point{},
                     std::move(bend));
    return out;
}

}  // namespace

TEST_CASE("a lens and its placements lead there and back", "[placement]") {
    const Size size{80, 60};
    for (const Placement& placed : with_a_bend(size))
        for (int y = 0; y < 60; y += 7)
            for (int x = 0; x < 80; x += 7) {
                const Point back = placed.to_frame(placed.to_canvas({double(x), double(y)}));
                CHECK(back.x == Approx(x).margin(1e-6));
                CHECK(back.y == Approx(y).margin(1e-6));
            }
    const Lens lens = wide(80, 60);
    CHECK(lens.seen(lens.straight({3, 4})).x == Approx(3).margin(1e-9));
    const Placement whole{Matrix::rigid(0.03, {40, 30}, 1, 2), lens};
    const Point fine = whole.to_canvas({24.5, 40.5});
    const Point coarse = at_level(whole, 1).to_canvas({12, 20});
    CHECK(coarse.x == Approx((fine.x + 0.5) / 2 - 0.5).margin(1e-9));
    CHECK(coarse.y == Approx((fine.y + 0.5) / 2 - 0.5).margin(1e-9));
}

TEST_CASE("between its knots the way to the source is nearly exact") {
    const Size size{6000, 4000};
    const Placement placed{Matrix::rigid(0.2, {3000, 2000}, 40, -30), wide(6000, 4000)};
    const SourceMap map(placed, size);
    RowPlaces places(map, {0, 6000});
    double worst = 0;
    for (int y = 5; y < 4000; y += 311) {
        places.go_to(y);
        for (int x = 3; x < 6000; x += 97) {
            const Point exact = placed.to_frame({double(x), double(y)});
            worst = std::max(worst, std::hypot(places.at(x).x - exact.x, places.at(x).y - exact.y));
        }
    }
    CHECK(worst < 0.002);
}

TEST_CASE("resampling weights add up to one and pick one sample at whole places") {
    for (int i = 0; i <= 100; ++i) {
        const auto w = kernels::lanczos_weights(float(i) / 100);
        CHECK(w[0] + w[1] + w[2] + w[3] + w[4] + w[5] == Approx(1).margin(1e-6));
        const auto mirrored = kernels::lanczos_weights(float(100 - i) / 100);
        for (std::size_t j = 0; j < 6; ++j) CHECK(w[j] == Approx(mirrored[5 - j]).margin(1e-6));
    }
    CHECK(kernels::lanczos_weights(0)[2] == Approx(1).margin(1e-7));
    CHECK(kernels::lanczos_weights(1)[3] == Approx(1).margin(1e-6));
}

TEST_CASE("resampling weights are those of the windowed sinc, set right for constants and ramps") {
    const auto sinc = [](double x) { return x == 0 ? 1 : std::sin(M_PI * x) / (M_PI * x); };
    double worst = 0;
    for (int i = 1; i < 1000; ++i) {
        const double part = i / 1000.0;
        std::array<double, 6> exact{};
        double sum = 0, place = 0;
        for (std::size_t j = 0; j < 6; ++j) {
            const double x = part - (double(j) - 2);
            exact[j] = sinc(x) * sinc(x / 3);
            sum += exact[j];
        }
        for (std::size_t j = 0; j < 6; ++j) place += (exact[j] /= sum) * (double(j) - 2);
        exact[2] -= part - place;
        exact[3] += part - place;
        const auto found = kernels::lanczos_weights(float(part));
        for (std::size_t j = 0; j < 6; ++j) worst = std::max(worst, std::abs(double(found[j]) - exact[j]));
    }
    CHECK(worst < 2e-4);
}

TEST_CASE("a shift by whole pixels moves samples without changing them") {
    const Raster16 source = test::speckle({137, 23}, 3, 5);
    const SourceMap places_map(Matrix::shift(-4, 3), source.size());
    RowPlaces places(places_map, {0, 137});
    for (int y = 3; y < 23; ++y) {
        places.go_to(y);
        const Span span = places.covered({0, 137});
        REQUIRE(span == Span{0, 133});
        const auto out = warped(source, places, y, span);
        for (int x = 0; x < 133; ++x)
            for (int c = 0; c < 3; ++c) REQUIRE(out[std::size_t(x * 3 + c)] == source.at(x + 4, y - 3, c));
    }
    places.go_to(2);
    CHECK(places.covered({0, 137}).empty());
}

TEST_CASE("the covered span is just the pixels whose place lies in the source") {
    const Size source{61, 47};
    std::vector<Placement> placements = many_placements(source);
    for (const double turn : {-0.7, -0.1, -0.003, 0.0, 0.003, 0.2, 1.3, 3.0})
        placements.emplace_back(Matrix::rigid(turn, {30, 20}, 3.3, -2.6));
    for (const Placement& placed : placements) {
        const SourceMap places_map(placed, source);
        RowPlaces places(places_map, {-10, 80});
        for (int y = -4; y < 60; ++y) {
            places.go_to(y);
            const Span span = places.covered({-10, 80});
            for (int x = -10; x < 80; ++x) {
                const Point p = places.at(x);
                const bool inside = p.x >= -1e-6 && p.y >= -1e-6 && p.x <= 60 + 1e-6 && p.y <= 46 + 1e-6;
                INFO(x << "," << y);
                REQUIRE(inside == (x >= span.begin && x < span.end));
            }
        }
    }
}

TEST_CASE("a straight ramp stays straight under any place, and a constant stays constant") {
    Raster16 ramp({80, 60}, 1);
    for (int y = 0; y < 60; ++y)
        for (int x = 0; x < 80; ++x) ramp.at(x, y, 0) = std::uint16_t(1000 + 500 * x + 300 * y);
    for (const Placement& placed : many_placements(ramp.size())) {
        const SourceMap places_map(placed, ramp.size());
        RowPlaces places(places_map, {0, 80});
        for (int y = 20; y < 40; ++y) {
            const auto out = warped(ramp, places, y, {30, 50});
            for (int x = 30; x < 50; ++x) {
                const Point p = places.at(x);
                REQUIRE(std::abs(out[std::size_t(x - 30)] - (1000 + 500 * p.x + 300 * p.y)) <= 1.5);
            }
        }
    }
    const Raster16 flat = [] {
        Raster16 out({80, 60}, 3);
        std::fill(out.data().begin(), out.data().end(), std::uint16_t(40000));
        return out;
    }();
    for (const Placement& placed : many_placements(flat.size())) {
        const SourceMap places_map(placed, flat.size());
        RowPlaces places(places_map, {0, 80});
        for (const std::uint16_t v : warped(flat, places, 30, {20, 60})) REQUIRE(v == 40000);
    }
}

TEST_CASE("any division into spans, row windows and limits gives the same samples") {
    const Raster16 source = test::speckle({150, 60}, 3, 9);
    for (const Placement& placed : with_a_bend(source.size())) {
        const SourceMap map(placed, source.size());
        RowPlaces places(map, {0, 150});
        for (int y = 0; y < 60; y += 3) {
            places.go_to(y);
            const Span span = places.covered({0, 150});
            if (span.empty()) continue;
            const auto whole_row = warped(source, places, y, span);
            std::vector<std::uint16_t> pieces(whole_row.size());
            for (int x = span.begin; x < span.end; x += 7) {
                const Span piece{x, std::min(x + 7, span.end)};
                RowPlaces narrow(map, piece);
                narrow.go_to(y);
                const auto reach = narrow.rows(piece);
                const auto columns = narrow.columns(piece);
                const int first = std::clamp(reach.first, 0, 59);
                const int last = std::clamp(reach.last, 0, 59);
                const int left = std::clamp(columns.first, 0, 149);
                // Nothing but what was named is there.
                const Rect area{left, first, std::clamp(columns.last, 0, 149) + 1 - left, last + 1 - first};
                std::vector<std::vector<std::uint16_t>> held;
                std::vector<const std::uint16_t*> pointers;
                for (int v = first; v <= last; ++v)
                    held.emplace_back(source.row(v) + std::ptrdiff_t(left) * 3,
                                      source.row(v) + std::ptrdiff_t(left + area.width) * 3);
                for (const auto& row : held) pointers.push_back(row.data());
                kernels::warp_rows({pointers.data(), area}, 3, narrow, y, {&piece, 1},
                                   {pieces.data() + (x - span.begin) * 3, 0, x});
            }
            REQUIRE(pieces == whole_row);
        }
    }
}

TEST_CASE("rows made together are the rows made one by one, and nothing beside them is touched") {
    const Raster16 source = test::speckle({700, 40}, 3, 12);
    const auto rows = rows_of(source);
    std::vector<Placement> placements = many_placements(source.size());
    // So little that rows are weighed together.
    for (const double turn : {0.0, 1e-6, -4e-4, 2e-3, 4e-3, 6e-3, 9e-3})
        placements.emplace_back(Matrix::rigid(turn, {350, 20}, 0.3, -1.6));
    std::set<int> alike;
    std::set<bool> columns_alike;
    for (const Placement& placed : placements) {
        const SourceMap places_map(placed, source.size());
        RowPlaces places(places_map, {0, 700});
        if (places.map().gentle()) alike.insert(places.map().rows_alike());
        if (places.map().rows_alike() == 8) columns_alike.insert(places.map().columns_alike());
        for (const auto& [first, last] : {std::pair{0, 40}, std::pair{3, 8}, std::pair{5, 30}}) {
            std::vector<Span> spans;
            for (int y = first; y < last; ++y) {
                places.go_to(y);
                spans.push_back(places.covered({11, 689}));
            }
            constexpr std::uint16_t untouched = 4711;
            constexpr std::size_t stride = 700 * 3;
            std::vector<std::uint16_t> out(std::size_t(last - first) * stride, untouched);
            std::vector<std::uint16_t> expected = out;
            kernels::warp_rows({rows.data(), whole(source.size())}, 3, places, first, spans, {out.data(), stride, 0});
            for (int y = first; y < last; ++y) {
                const Span span = spans[std::size_t(y - first)];
                if (span.empty()) continue;
                const auto one = warped(source, places, y, span);
                std::copy(one.begin(), one.end(),
                          expected.begin() + std::ptrdiff_t(std::size_t(y - first) * stride) + span.begin * 3);
            }
            REQUIRE(out == expected);
        }
    }
    CHECK(alike == std::set{1, 2, 4, 8});
    CHECK(columns_alike == std::set{false, true});
}

TEST_CASE("what counts as one place is one to the eye") {
    const Raster16 source = test::speckle({600, 60}, 1, 3);
    // Down in every source column first, at the place where the canvas row crosses it; then across.
    const auto exact = [&](const Matrix& to_source, double x, double y) {
        const auto& m = to_source.m();
        const Point p = to_source({x, y});
        const int u = int(std::floor(p.x));
        const auto along = kernels::lanczos_weights(float(p.x - u));
        double sum = 0;
        for (int i = 0; i < 6; ++i) {
            const int column = u - 2 + i;
            const double crossing = (column - m[1] * y - m[2]) / m[0];
            const double place = m[3] * crossing + m[4] * y + m[5];
            const int v = int(std::floor(place));
            const auto down = kernels::lanczos_weights(float(place - v));
            for (int j = 0; j < 6; ++j)
                sum += double(along[std::size_t(i)]) * double(down[std::size_t(j)]) *
                       double(source.at(column, v - 2 + j, 0));
        }
        return std::clamp(sum, 0.0, 65535.0);
    };
    for (const double turn : {1e-6, 1.2e-5, 3e-5, 4e-4, 2e-3, 5e-3, 2e-2}) {
        const Matrix placed = Matrix::rigid(turn, {300, 30}, 0.37, -0.81);
        const Matrix to_source = inverse(placed);
        const SourceMap places_map(placed, source.size());
        RowPlaces places(places_map, {0, 600});
        double worst = 0;
        for (int y = 20; y < 40; ++y) {
            const auto row = warped(source, places, y, {20, 580});
            for (int x = 20; x < 580; ++x)
                worst = std::max(worst, std::abs(row[std::size_t(x - 20)] - exact(to_source, x, y)));
        }
        INFO("turned by " << turn);
        CHECK(worst < 24);
    }
}

TEST_CASE("8-bit samples are resampled as 257 times their value") {
    const Raster16 source = test::speckle_8({90, 40}, 3, 4);
    Raster8 narrow({90, 40}, 3);
    for (std::size_t i = 0; i < narrow.data().size(); ++i) narrow.data()[i] = std::uint8_t(source.data()[i] / 257);
    std::vector<const std::uint8_t*> rows;
    for (int y = 0; y < 40; ++y) rows.push_back(narrow.row(y));
    for (const Placement& placed : many_placements(source.size())) {
        const SourceMap places_map(placed, source.size());
        RowPlaces places(places_map, {0, 90});
        places.go_to(20);
        const Span span = places.covered({0, 90});
        if (span.empty()) continue;
        const auto wide_row = warped(source, places, 20, span);
        std::vector<std::uint16_t> out(wide_row.size());
        kernels::warp_rows({rows.data(), whole(narrow.size())}, 3, places, 20, {&span, 1}, {out.data(), 0, span.begin});
        for (std::size_t i = 0; i < out.size(); ++i) REQUIRE(std::abs(int(out[i]) - int(wide_row[i])) <= 1);
    }
}

TEST_CASE("two passes see what one sees, and an edge keeps its sharpness") {
    const Size size{200, 100};
    const Raster16 scene = test::landscape(size, {});
    // The same turn, once gentle enough for two passes and once seen as a steep one from elsewhere.
    const SourceMap gentle_map(Matrix::rigid(0.05, {100, 50}, 0.3, 0.7), size);
    RowPlaces gentle(gentle_map, {0, 200});
    REQUIRE(gentle.map().gentle());
    const Matrix quarter{{0, -1, 99, 1, 0, 0, 0, 0, 1}};
    Raster16 turned({100, 200}, 3);
    for (int y = 0; y < 100; ++y)
        for (int x = 0; x < 200; ++x)
            for (int c = 0; c < 3; ++c) turned.at(99 - y, x, c) = scene.at(x, y, c);
    const SourceMap steep_map(Matrix::rigid(0.05, {100, 50}, 0.3, 0.7) * inverse(quarter), turned.size());
    RowPlaces steep(steep_map, {0, 200});
    REQUIRE_FALSE(steep.map().gentle());
    double sum = 0;
    for (int y = 20; y < 80; ++y) {
        const auto a = warped(scene, gentle, y, {20, 180});
        const auto b = warped(turned, steep, y, {20, 180});
        for (std::size_t i = 0; i < a.size(); ++i) sum += std::abs(int(a[i]) - int(b[i]));
    }
    CHECK(sum / (60 * 160 * 3) < 25);
}
