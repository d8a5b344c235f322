#include "engine/plan.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "support/fixtures.h"

using namespace bp;

namespace {

constexpr std::size_t megabyte = std::size_t(1) << 20;

RowNeeds needs_of(const RowReaches& reaches) {
    RowNeeds out;
    out.add(reaches);
    return out;
}

// Frames of 24 megapixels that lie still, 8 bits a sample.
struct Still {
    Size size{6000, 4000};
    Rect all{0, 0, 6000, 4000};
    RowReaches reaches{Matrix(), 0, size, all};
    std::vector<RowCost> costs;
    explicit Still(int frames) : costs(std::size_t(frames), RowCost{needs_of(reaches), 6000 * 3, megabyte / 2}) {}
};

Matrix turned(double degrees) {
    const double a = degrees * 3.14159265358979 / 180;
    return Matrix{{std::cos(a), -std::sin(a), 40, std::sin(a), std::cos(a), 25, 0, 0, 1}};
}

}  // namespace

TEST_CASE("bands follow each other through the whole region") {
    const Still still(3);
    const StripPlan plan = plan_strips(still.costs, 3, 0, {100, 7, 500, 777}, 3, 1000 * megabyte).value();
    int y = 7;
    for (const Band& band : plan.bands) {
        CHECK(band.first == y);
        CHECK(band.second - band.first <= plan.band_rows);
        // Rows that are weighed together are not divided.
        CHECK((band.second % plan.band_rows == 0 || band.second == 784));
        y = band.second;
    }
    CHECK(y == 784);
}

TEST_CASE("memory does not grow with the number of frames") {
    const std::size_t budget = 6000 * megabyte;
    const std::size_t hundred = plan_strips(Still(100).costs, 100, 0, Still(1).all, 3, budget).value().peak_bytes;
    const std::size_t four_hundred = plan_strips(Still(400).costs, 400, 0, Still(1).all, 3, budget).value().peak_bytes;
    CHECK(double(four_hundred) <= 1.1 * double(hundred));
    CHECK(plan_strips(Still(90).costs, 90, 0, Still(1).all, 3, budget).value().peak_bytes < 700 * megabyte);
}

TEST_CASE("a plan keeps within its budget, and says what it needs when it cannot") {
    const Still still(90);
    int last = 1000;
    for (const std::size_t budget : {900 * megabyte, 400 * megabyte, 200 * megabyte, 140 * megabyte}) {
        const StripPlan plan = plan_strips(still.costs, 90, 0, still.all, 3, budget).value();
        CHECK(plan.peak_bytes <= budget);
        CHECK(plan.band_rows <= last);
        last = plan.band_rows;
    }
    const auto refused = plan_strips(still.costs, 90, 0, still.all, 3, 64 * megabyte);
    REQUIRE_FALSE(refused.ok());
    CHECK(refused.failure().english().find("90 frames") != std::string::npos);
    CHECK(refused.failure().english().find("64 MB are allowed") != std::string::npos);
}

TEST_CASE("a window holds the band that is made and the one that is merged") {
    const Still still(1);
    const std::vector<Band> bands{{2000, 2016}, {2016, 2032}, {2032, 2040}};
    CHECK(needs_of(still.reaches).window(bands) == 32);
    // A turned frame is read across more rows.
    const RowReaches reaches(turned(0.2), 0, still.size, still.all);
    const int window = needs_of(reaches).window(bands);
    CHECK(window >= 32 + 20);
    CHECK(window < 32 + 20 + 12);
}

TEST_CASE("the more frames are resampled, the smaller the pieces, and still frames come in whole rows") {
    const Still still(3);
    const StripPlan rows = plan_strips(still.costs, 3, 0, still.all, 3, 1000 * megabyte).value();
    CHECK(rows.piece.height == 1);
    CHECK(pieces_of(rows.bands[1], still.all, rows.piece).size() == std::size_t(rows.band_rows));
    const RowReaches reaches(turned(0.2), 0, still.size, still.all);
    int last = 6000;
    for (const std::size_t frames : {std::size_t(1), std::size_t(16), std::size_t(90), std::size_t(400)}) {
        const std::vector<RowCost> costs(frames, RowCost{needs_of(reaches), 6000 * 3, megabyte / 2});
        const StripPlan plan = plan_strips(costs, frames, frames, still.all, 3, 4000 * megabyte).value();
        CHECK(plan.piece.height == 8);
        CHECK(plan.piece.width <= last);
        last = plan.piece.width;
    }
    CHECK(last >= 128);
}

TEST_CASE("bands that a frame does not reach hold nothing of it") {
    const Still still(1);
    const RowReaches low(Matrix{{1, 0, 0, 0, 1, 900.5, 0, 0, 1}}, 0, still.size, still.all);
    std::vector<Band> bands;
    for (int y = 0; y < 4000; y += 100) bands.emplace_back(y, y + 100);
    const auto by_band = needs_of(low).of(bands);
    CHECK(by_band[0] == std::pair{0, 0});
    CHECK(by_band[8] == std::pair{0, 0});
    CHECK(by_band[9].second == 102);
    CHECK(needs_of(low).window(bands) < 210);
}

TEST_CASE("a turned frame is reached where its rows lie, and no later band reads above") {
    const Size size{300, 200};
    const Rect all{0, 0, 300, 200};
    const RowReaches reaches(turned(-8), 0, size, all);
    const std::vector<Band> bands{{0, 50}, {50, 100}, {100, 150}, {150, 200}};
    const auto by_band = needs_of(reaches).of(bands);
    for (std::size_t b = 0; b + 1 < bands.size(); ++b) CHECK(by_band[b].first <= by_band[b + 1].first);
    for (const Band& band : bands) {
        const auto [first, last] = reaches.of(band);
        CHECK(first >= 0);
        CHECK(last <= size.height);
        CHECK(first < last);
    }
}
