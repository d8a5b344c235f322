// Means that are told by distances from a middle value, against adding up the light of every value.
#include "kernels/close_means.h"

#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <cstdlib>
#include <random>

#include "image/profile.h"
#include "kernels/light_sums.h"
#include "kernels/mean.h"
#include "kernels/median.h"
#include "kernels/spread.h"
#include "support/targets.h"
using namespace bp;
using test::on_every_target;

namespace {

constexpr std::size_t samples = 5 * kernels::sum_block + 77;

// Rows that differ from a value of each sample's own by noise; some rows have something else in some samples.
struct Night {
    std::vector<std::vector<std::uint8_t>> rows;
    std::vector<const std::uint8_t*> pointers;

    Night(std::size_t count, double noise, bool visitors, int darkest, int brightest) {
        std::mt19937 dice(unsigned(count) * 7 + unsigned(noise * 10));
        std::normal_distribution<double> spread(0, noise);
        rows.assign(count, std::vector<std::uint8_t>(samples));
        for (std::size_t i = 0; i < samples; ++i) {
            const int here = darkest + int(i % std::size_t(brightest - darkest + 1));
            for (auto& row : rows) {
                const bool visited = visitors && dice() % 20 == 0;
                row[i] = visited ? std::uint8_t(dice() % 256)
                                 : std::uint8_t(std::clamp(int(std::lround(here + spread(dice))), 0, 255));
            }
        }
        for (const auto& row : rows) pointers.push_back(row.data());
    }
    kernels::Rows<std::uint8_t> all() const { return pointers; }
};

std::uint16_t slow_mean(const Night& night, std::size_t i, const LightCurve& curve, int middle, int reach) {
    double sum = 0, voters = 0;
    for (const auto& row : night.rows) {
        if (std::abs(int(row[i]) - middle) > reach) continue;
        sum += double(curve.table_of_8_bit()[row[i]]);
        ++voters;
    }
    return curve.sample(sum / voters);
}

// The middle of a sample and how far from it values count.
std::pair<int, int> slow_reach(const Night& night, std::size_t i, int step) {
    std::vector<int> values, apart;
    for (const auto& row : night.rows) values.push_back(row[i]);
    std::sort(values.begin(), values.end());
    const int middle = values[(values.size() - 1) / 2];
    for (const int value : values) apart.push_back(257 * std::abs(value - middle));
    std::sort(apart.begin(), apart.end());
    const int median = (apart[(apart.size() - 1) / 2] + apart[apart.size() / 2] + 1) / 2;
    return {middle, kernels::clip_reach(median, step) / 257};
}

void means_hold(const Night& night, const LightCurve& curve) {
    std::vector<std::uint16_t> mean(samples), clipped(samples);
    kernels::mean(night.all(), samples, curve, mean.data());
    kernels::clipped_mean(night.all(), samples, curve, 257, clipped.data());
    int wrong = 0;
    for (std::size_t i = 0; i < samples; ++i) {
        const auto [middle, reach] = slow_reach(night, i, 257);
        wrong += mean[i] != slow_mean(night, i, curve, 0, 255);
        wrong += clipped[i] != slow_mean(night, i, curve, middle, reach);
    }
    REQUIRE(wrong == 0);
}

}  // namespace

TEST_CASE(
    "means of values that lie close together are exact for every brightness and noise, on every instruction set") {
    const std::vector<LightCurve> curves{LightCurve::of(Profile::srgb(), 3), LightCurve::encoded(),
                                         LightCurve::of(Profile::linear_srgb(), 3)};
    on_every_target([&] {
        for (const LightCurve& curve : curves)
            for (const double noise : {0.0, 0.4, 2.0, 6.0})
                for (const bool visitors : {false, true}) {
                    INFO("noise " << noise << (visitors ? ", visited" : ""));
                    means_hold(Night(24, noise, visitors, 0, 255), curve);
                }
    });
}

TEST_CASE("means of values that lie close together are exact for every number of rows") {
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    for (const std::size_t count : {1U, 2U, 5U, 6U, 7U, 23U, 25U, 64U, 65U, 90U, 127U, 128U, 129U, 260U}) {
        INFO(count);
        means_hold(Night(count, 1.5, count % 2 == 1, 0, 255), curve);
    }
}

TEST_CASE("where the curve turns from straight to bent, means are exact") {
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    for (const double noise : {0.5, 1.0, 3.0, 5.0}) means_hold(Night(40, noise, false, 2, 18), curve);
}

TEST_CASE("values at the ends of what a sum of distances may hold give exact means") {
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    for (const std::size_t count : {24U, 128U})
        for (const int reach : {14, 15, 16, 17, 120}) {
            Night night(count, 0, false, 100, 100);
            for (std::size_t k = 0; k < count; ++k)
                for (std::size_t i = 0; i < samples; ++i) {
                    // All on one side, half on each, and one alone.
                    const int up = i % 3 == 0 ? int(k % 8 == 0) : i % 3 == 1 ? int(k % 2 == 0) : int(k == 3);
                    night.rows[k][i] = std::uint8_t(100 + up * reach - (i % 3 == 1 ? (1 - up) * reach : 0) / 2);
                }
            INFO(count << " rows, " << reach);
            means_hold(night, curve);
        }
}

TEST_CASE("close means are told where values lie close together, and left to others where they do not") {
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    std::array<std::uint16_t, kernels::sum_block> out{};
    const Night calm(24, 0.4, false, 40, 220), wild(24, 90, false, 40, 220);
    kernels::CloseMeans of_calm(calm.all(), curve), of_wild(wild.all(), curve);
    REQUIRE(of_calm.all(0, kernels::sum_block, out.data()));
    for (std::size_t i = 0; i < out.size(); ++i) REQUIRE(out[i] == slow_mean(calm, i, curve, 0, 255));
    CHECK_FALSE(of_wild.all(0, kernels::sum_block, out.data()));
}

TEST_CASE("the middle and the middle distances equal sorting twice, on every instruction set") {
    on_every_target([&] {
        for (std::size_t count = 1; count <= 70; count += count < 30 ? 1 : 9)
            for (const std::size_t length : {std::size_t(40), std::size_t(128), std::size_t(300)}) {
                const Night night(count, 8, true, 0, 255);
                std::vector<std::uint8_t> middle(length), low(length), high(length), reach(length);
                kernels::middle_and_spread(night.all(), 3, length, middle.data(), low.data(), high.data());
                kernels::reaches(low.data(), high.data(), 257, length, reach.data());
                int wrong = 0;
                for (std::size_t i = 0; i < length; ++i) {
                    const auto [slow_middle, slow] = slow_reach(night, i + 3, 257);
                    wrong += middle[i] != slow_middle || reach[i] != std::min(slow, 255);
                }
                INFO(count << " rows of " << length);
                REQUIRE(wrong == 0);
            }
    });
}
