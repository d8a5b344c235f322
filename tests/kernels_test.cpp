#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "kernels/blend.h"
#include "kernels/extremes.h"
#include "kernels/mean.h"
#include "kernels/median.h"
#include "support/fixtures.h"

using namespace bp;

namespace {

// Lengths around the blocks that the kernels work in.
const std::vector<std::size_t> lengths{1, 2, 3, 7, 63, 64, 65, 127, 130, 511, 513};

struct Rows {
    std::vector<Raster16> rasters;
    std::vector<const std::uint16_t*> pointers;
    Rows(int count, std::size_t samples) {
        for (int i = 0; i < count; ++i) rasters.push_back(test::speckle({int(samples), 1}, 1, unsigned(i) * 17 + 3));
        for (const Raster16& r : rasters) pointers.push_back(r.row(0));
    }
    std::vector<std::uint16_t> column(std::size_t i) const {
        std::vector<std::uint16_t> out;
        for (const auto* p : pointers) out.push_back(p[i]);
        return out;
    }
};

std::uint16_t slow_median(std::vector<std::uint16_t> v) {
    std::sort(v.begin(), v.end());
    return std::uint16_t((unsigned(v[(v.size() - 1) / 2]) + v[v.size() / 2] + 1) / 2);
}

}  // namespace

TEST_CASE("maximum and minimum rows equal their scalar twins") {
    for (const std::size_t n : lengths) {
        const Rows rows(2, n);
        std::vector<std::uint16_t> high(rows.pointers[0], rows.pointers[0] + n);
        std::vector<std::uint16_t> low = high;
        kernels::raise_to(rows.pointers[1], n, high.data());
        kernels::lower_to(rows.pointers[1], n, low.data());
        for (std::size_t i = 0; i < n; ++i) {
            REQUIRE(high[i] == std::max(rows.pointers[0][i], rows.pointers[1][i]));
            REQUIRE(low[i] == std::min(rows.pointers[0][i], rows.pointers[1][i]));
        }
    }
}

TEST_CASE("the median equals sorting, for every number of rows around the network's limit") {
    for (int count = 1; count <= 70; ++count) {
        const std::size_t n = lengths[std::size_t(count) % lengths.size()];
        const Rows rows(count, n);
        std::vector<std::uint16_t> out(n);
        kernels::median(rows.pointers, n, out.data());
        int wrong = 0;
        for (std::size_t i = 0; i < n; ++i) wrong += out[i] != slow_median(rows.column(i));
        INFO(count << " rows of " << n);
        REQUIRE(wrong == 0);
    }
}

TEST_CASE("the median holds at the ends of the range and with equal values") {
    const std::uint16_t zero = 0, full = 65535, one = 1;
    std::uint16_t out = 7;
    const std::uint16_t* ends[] = {&zero, &full};
    kernels::median(ends, 1, &out);
    CHECK(out == 32768);
    const std::uint16_t* same[] = {&full, &full, &zero, &full};
    kernels::median(same, 1, &out);
    CHECK(out == 65535);
    const std::uint16_t* half[] = {&zero, &one};
    kernels::median(half, 1, &out);
    CHECK(out == 1);
}

TEST_CASE("the mean is the nearest sample of the mean light, whatever the order") {
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    for (const int count : {1, 2, 3, 16, 91}) {
        Rows rows(count, 130);
        std::vector<std::uint16_t> out(130);
        kernels::mean(rows.pointers, 130, curve, out.data());
        for (std::size_t i = 0; i < 130; ++i) {
            double sum = 0;
            for (const std::uint16_t v : rows.column(i)) sum += double(curve.light(v));
            const double mean = sum / count;
            const auto distance = [&](int v) {
                return std::abs(double(curve.light(std::uint16_t(std::clamp(v, 0, 65535)))) - mean);
            };
            // No neighbour's light is much nearer: rounding is at the middle of the encoding, not of the light.
            REQUIRE(distance(out[i]) <= std::min(distance(out[i] - 1), distance(out[i] + 1)) * 1.02);
        }
        std::reverse(rows.pointers.begin(), rows.pointers.end());
        std::vector<std::uint16_t> turned(130);
        kernels::mean(rows.pointers, 130, curve, turned.data());
        REQUIRE(turned == out);
    }
}

TEST_CASE("laying over is exact at both ends and rounded between") {
    const std::uint16_t over[] = {65535, 1000, 0, 65535, 300, 7};
    std::uint16_t base[] = {0, 40000, 65535, 0, 100, 9};
    const std::uint8_t mask[] = {255, 0, 255, 128, 1, 254};
    std::vector<std::uint16_t> expected;
    for (int i = 0; i < 6; ++i)
        expected.push_back(std::uint16_t(std::floor(base[i] + (double(over[i]) - base[i]) * mask[i] / 255.0 + 0.5)));
    kernels::lay_over(over, mask, 255, 6, 1, base);
    CHECK(std::vector<std::uint16_t>(base, base + 6) == expected);
    std::uint16_t untouched[] = {5, 6};
    kernels::lay_over(over, mask, 0, 2, 1, untouched);
    CHECK(untouched[0] == 5);
    CHECK(untouched[1] == 6);
}

TEST_CASE("differences are absolute, amplified and clamped") {
    const std::uint16_t a[] = {10, 500, 0};
    const std::uint16_t b[] = {15, 100, 65535};
    std::uint16_t out[3];
    kernels::difference(a, b, 4, 3, out);
    CHECK(out[0] == 20);
    CHECK(out[1] == 1600);
    CHECK(out[2] == 65535);
}
