#include "image/geometry.h"

#include <catch2/catch.hpp>

using namespace bp;

TEST_CASE("rectangles meet and join") {
    const Rect a{2, 3, 10, 8};
    CHECK(intersect(a, {5, 0, 20, 5}) == Rect{5, 3, 7, 2});
    CHECK(intersect(a, {12, 3, 4, 4}).empty());
    CHECK(unite(a, {0, 20, 1, 1}) == Rect{0, 3, 12, 18});
    CHECK(unite(a, Rect{}) == a);
    CHECK(unite(Rect{}, a) == a);
}

TEST_CASE("levels halve, and an odd edge counts as a whole pixel") {
    CHECK(at_level(Size{1600, 1067}, 0) == Size{1600, 1067});
    CHECK(at_level(Size{1600, 1067}, 1) == Size{800, 534});
    CHECK(at_level(Size{1600, 1067}, 3) == Size{200, 134});
    CHECK(at_level(Rect{3, 4, 6, 8}, 2) == Rect{0, 1, 3, 2});
}

TEST_CASE("matrices map points, and inverses map them back") {
    const Matrix m = Matrix::rigid(0.3, {100, 50}, 7, -2);
    const Point pivot = m({100, 50});
    CHECK(pivot.x == Approx(107));
    CHECK(pivot.y == Approx(48));
    const Point p = inverse(m)(m({31, 77}));
    CHECK(p.x == Approx(31));
    CHECK(p.y == Approx(77));
    const Matrix both = Matrix::shift(1, 2) * Matrix::rigid(0.1, {0, 0}, 0, 0);
    const Point q = both({10, 0});
    CHECK(q.x == Approx(1 + 10 * std::cos(0.1)));
    CHECK(q.y == Approx(2 + 10 * std::sin(0.1)));
}

TEST_CASE("a transform is the same at every level") {
    const Matrix m = Matrix::rigid(0.02, {400, 300}, 5.5, -3.25);
    const Matrix coarse = at_level(m, 2);
    // Pixel (10, 20) of level 2 has its centre at (41.5, 81.5) of level 0.
    const Point full = m({41.5, 81.5});
    const Point small = coarse({10, 20});
    CHECK((small.x + 0.5) * 4 - 0.5 == Approx(full.x));
    CHECK((small.y + 0.5) * 4 - 0.5 == Approx(full.y));
    CHECK(rms_distance(from_level(coarse, 2), m, {800, 600}) < 1e-9);
    CHECK(at_level(Matrix{}, 3).is_identity());
}
