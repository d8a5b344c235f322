#include "image/mask.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "parts/brush.h"

using namespace bp;

TEST_CASE("a mask is a value: a copy does not feel what is written to the other") {
    Mask a({300, 200});
    CHECK(a.empty());
    a.edit({10, 10, 5, 5}, [](int, int, std::uint8_t) { return std::uint8_t{200}; });
    const Mask before = a;
    a.edit({12, 12, 200, 150}, [](int, int, std::uint8_t v) { return std::uint8_t(v / 2); });
    CHECK(before.at(12, 12) == 200);
    CHECK(a.at(12, 12) == 100);
    CHECK(a.at(10, 10) == 200);
    CHECK_FALSE(a == before);
    CHECK(before == Mask(before));
    CHECK(Mask({300, 200}) == Mask({300, 200}));
}

TEST_CASE("bounds hold just what is kept, across tiles and edges") {
    Mask m({300, 200});
    m.edit({299, 199, 50, 50}, [](int, int, std::uint8_t) { return std::uint8_t{1}; });
    m.edit({127, 126, 2, 1}, [](int, int, std::uint8_t) { return std::uint8_t{9}; });
    CHECK(m.bounds() == Rect{127, 126, 173, 74});
    CHECK(m.at(-1, 0) == 0);
    CHECK(m.at(300, 0) == 0);
    const Mask again = Mask::from_raster({300, 200}, {127, 126}, m.to_raster(m.bounds()));
    CHECK(again == m);
}

TEST_CASE("a full mask is one in which every pixel was kept, within its edges") {
    for (const Size size : {Size{1, 1}, Size{128, 128}, Size{300, 129}, Size{127, 500}}) {
        Mask edited(size);
        edited.edit(whole(size), [](int, int, std::uint8_t) { return std::uint8_t(255); });
        CHECK(Mask::full(size) == edited);
        CHECK(Mask::full(size).bounds() == whole(size));
        CHECK(Mask::full(size).fingerprint() == edited.fingerprint());
    }
}

TEST_CASE("a row at any level is the mean of its pixels, in part, beyond the edges, over empty tiles") {
    const Size size{700, 410};
    Mask mask(size);
    mask.edit({100, 90, 220, 150}, [](int x, int y, std::uint8_t) { return std::uint8_t((x * 31 + y * 17) % 256); });
    mask.edit({600, 380, 100, 30}, [](int x, int y, std::uint8_t) { return std::uint8_t((x + y) % 200); });
    for (const int level : {0, 1, 2, 5, 7, 8}) {
        const int unit = 1 << level;
        const Size seen = at_level(size, level);
        for (int y = -1; y <= seen.height; ++y) {
            const int left = -2, width = seen.width + 5;
            std::vector<std::uint8_t> row(std::size_t(width), 9);
            mask.read_row(level, y, left, width, row.data());
            for (int x = left; x < left + width; ++x) {
                int sum = 0, count = 0;
                for (int v = y * unit; v < std::min((y + 1) * unit, size.height); ++v)
                    for (int u = x * unit; u < std::min((x + 1) * unit, size.width); ++u, ++count) sum += mask.at(u, v);
                const bool inside = x >= 0 && y >= 0 && x < seen.width && y < seen.height;
                REQUIRE(int(row[std::size_t(x - left)]) == (inside ? (sum + count / 2) / count : 0));
            }
        }
    }
}

TEST_CASE("a row at a level is the mean of the pixels below it") {
    Mask m({10, 7});
    m.edit({0, 0, 10, 7}, [](int x, int y, std::uint8_t) { return std::uint8_t(x * 10 + y); });
    std::uint8_t row[3];
    m.read_row(2, 1, 0, 3, row);
    for (int i = 0; i < 3; ++i) {
        int sum = 0, count = 0;
        for (int y = 4; y < 7; ++y)
            for (int x = i * 4; x < std::min(10, i * 4 + 4); ++x, ++count) sum += x * 10 + y;
        CHECK(int(row[i]) == (sum + count / 2) / count);
    }
    m.read_row(0, 3, -1, 3, row);
    CHECK(int(row[0]) == 0);
    CHECK(int(row[1]) == 3);
}

TEST_CASE("a softened mask is a ramp over every border, and goes on beyond the edges as it is there") {
    Mask mask({300, 140});
    mask.edit({0, 0, 90, 70}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
    mask.edit({200, 120, 100, 20}, [](int x, int, std::uint8_t) { return std::uint8_t(x % 256); });
    for (const double width : {1.0, 7.0, 40.0}) {
        const Mask soft = mask.softened(width);
        const int reach = int(std::ceil(width / 2)) - 1;
        std::vector<double> weights;
        double sum = 0;
        for (int d = -reach; d <= reach; ++d) sum += weights.emplace_back(width / 2 - std::abs(d));
        const auto beyond = [&](int x, int y) {
            return mask.at(std::clamp(x, 0, mask.size().width - 1), std::clamp(y, 0, mask.size().height - 1));
        };
        int worst = 0;
        for (int y = 0; y < mask.size().height; y += 3)
            for (int x = 0; x < mask.size().width; x += 3) {
                double value = 0;
                for (int v = -reach; v <= reach; ++v)
                    for (int u = -reach; u <= reach; ++u)
                        value += weights[std::size_t(v + reach)] * weights[std::size_t(u + reach)] *
                                 beyond(x + u, y + v) / (sum * sum);
                const int wanted = reach < 1 ? mask.at(x, y) : int(std::lround(value));
                worst = std::max(worst, std::abs(wanted - soft.at(x, y)));
            }
        INFO("width " << width);
        // Sums in another order, rounded at a half.
        CHECK(worst <= 1);
    }
    CHECK(mask.softened(40).at(89, 20) == Approx(127).margin(8));
}

TEST_CASE("stretches of rows are edited as their pixels are, across tiles") {
    Mask by_pixel({300, 140}), by_row({300, 140});
    const Rect area{100, 90, 250, 60};
    by_pixel.edit(area, [](int x, int y, std::uint8_t) { return std::uint8_t(x * y % 251); });
    by_row.edit_rows(area, [](int x, int y, std::span<std::uint8_t> values) {
        for (std::uint8_t& value : values) value = std::uint8_t(x++ * y % 251);
    });
    CHECK(by_row == by_pixel);
    CHECK(by_row.bounds() == by_pixel.bounds());
}

TEST_CASE("a hard stroke keeps a disc of its size") {
    Stroke stroke(Mask({200, 200}), {40, 0, 1, true});
    stroke.extend({100, 100});
    const Mask& m = stroke.mask();
    CHECK(m.at(100, 100) == 255);
    CHECK(m.at(119, 100) == 255);
    CHECK(m.at(122, 100) == 0);
    const Rect b = m.bounds();
    CHECK(b.width >= 40);
    CHECK(b.width <= 42);
}

TEST_CASE("softness fades, and crossing one's own stroke does not paint twice") {
    const Brush brush{60, 1, 0.5, true};
    Stroke once(Mask({200, 200}), brush);
    once.extend({40, 100});
    once.extend({160, 100});
    Stroke twice(Mask({200, 200}), brush);
    for (const double x : {40.0, 160.0, 40.0, 160.0}) twice.extend({x, 100});
    CHECK(once.mask() == twice.mask());
    CHECK(int(once.mask().at(100, 100)) == 128);
    CHECK(once.mask().at(100, 115) < once.mask().at(100, 105));
    CHECK(once.mask().at(100, 115) > 0);
}

TEST_CASE("a stroke is as strong as it is pressed, evenly from place to place, and at full pressure as ever") {
    const Brush brush{40, 0, 1, true};
    Stroke plain(Mask({300, 100}), brush), pressed(Mask({300, 100}), brush);
    plain.extend({50, 50});
    plain.extend({250, 50});
    pressed.extend({50, 50}, 0.2);
    pressed.extend({250, 50}, 1);
    CHECK(plain.mask().at(50, 50) == 255);
    CHECK(int(pressed.mask().at(50, 50)) == 51);
    CHECK(int(pressed.mask().at(150, 50)) == 153);
    CHECK(pressed.mask().at(250, 50) == 255);
    // A light touch over a firm one takes nothing away.
    pressed.extend({250, 50}, 0.1);
    CHECK(pressed.mask().at(250, 50) == 255);
}

TEST_CASE("give back undoes what keep painted, by its strength") {
    Stroke keep(Mask({100, 100}), {80, 0, 1, true});
    keep.extend({50, 50});
    Stroke half(keep.mask(), {20, 0, 0.5, false});
    half.extend({50, 50});
    CHECK(int(half.mask().at(50, 50)) == 127);
    CHECK(half.mask().at(75, 50) == 255);
    Stroke all(keep.mask(), {200, 0, 1, false});
    all.extend({50, 50});
    CHECK(all.mask().empty());
    CHECK(keep.mask().at(50, 50) == 255);
}

TEST_CASE("the area a stroke reports holds every change") {
    Stroke stroke(Mask({256, 256}), {30, 0.7, 1, true});
    stroke.extend({20, 30});
    const Mask before = stroke.mask();
    const Rect area = stroke.extend({200, 170});
    int outside = 0;
    for (int y = 0; y < 256; ++y)
        for (int x = 0; x < 256; ++x)
            if (before.at(x, y) != stroke.mask().at(x, y) && intersect(area, {x, y, 1, 1}).empty()) ++outside;
    CHECK(outside == 0);
    CHECK(stroke.mask().at(110, 100) > 0);
}
