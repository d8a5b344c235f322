#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <cstdlib>
#include <numeric>
#include <random>

#include "even/tone.h"
#include "image/profile.h"
#include "kernels/beyond_noise.h"
#include "kernels/blend.h"
#include "kernels/clip_rows.h"
#include "kernels/colours_apart.h"
#include "kernels/correct.h"
#include "kernels/develop.h"
#include "kernels/extremes.h"
#include "kernels/level.h"
#include "kernels/light_sums.h"
#include "kernels/mean.h"
#include "kernels/median.h"
#include "kernels/reduce.h"
#include "kernels/strays.h"
#include "merge/modes.h"
#include "support/fixtures.h"
#include "support/targets.h"
using namespace bp;
using test::on_every_target;

namespace {

// Lengths around the blocks that the kernels work in.
const std::vector<std::size_t> lengths{1, 2, 3, 7, 63, 64, 65, 127, 130, 255, 256, 257, 511, 513};

template <class T>
struct Speckle {
    std::vector<std::vector<T>> data;
    std::vector<const T*> pointers;
    Speckle(int count, std::size_t samples) {
        for (int i = 0; i < count; ++i) {
            const Raster16 picture = test::speckle({int(samples), 1}, 1, unsigned(i) * 17 + 3);
            data.emplace_back();
            for (const std::uint16_t v : picture.data()) data.back().push_back(T(v >> (16 - 8 * sizeof(T))));
        }
        for (const auto& row : data) pointers.push_back(row.data());
    }
    kernels::Rows<T> rows() const { return pointers; }
    std::vector<std::uint16_t> column(std::size_t i) const {
        std::vector<std::uint16_t> out;
        for (const auto* p : pointers) out.push_back(kernels::to_16(p[i]));
        return out;
    }
};

std::uint16_t slow_median(std::vector<std::uint16_t> v) {
    std::sort(v.begin(), v.end());
    return std::uint16_t((unsigned(v[(v.size() - 1) / 2]) + v[v.size() / 2] + 1) / 2);
}

std::vector<std::uint16_t> without_far(const std::vector<std::uint16_t>& v, int step) {
    std::vector<std::uint16_t> sorted = v;
    std::sort(sorted.begin(), sorted.end());
    const int middle = sorted[(sorted.size() - 1) / 2];
    std::vector<std::uint16_t> distances;
    for (const int x : v) distances.push_back(std::uint16_t(std::abs(x - middle)));
    const int reach = kernels::clip_reach(slow_median(distances), step);
    std::vector<std::uint16_t> out;
    for (const std::uint16_t x : v)
        if (std::abs(int(x) - middle) <= reach) out.push_back(x);
    return out;
}

template <class T, class Kernel, class Twin>
void holds_against_twin(int count, std::size_t samples, const Kernel& kernel, const Twin& twin) {
    const Speckle<T> speckle(count, samples);
    std::vector<std::uint16_t> out(samples);
    kernel(speckle.rows(), samples, out.data());
    std::size_t wrong = 0;
    for (std::size_t i = 0; i < samples; ++i) wrong += out[i] != twin(speckle.column(i));
    INFO(count << " rows of " << samples << " samples of " << 8 * sizeof(T) << " bits");
    REQUIRE(wrong == 0);
}

const auto maximum = [](const auto& rows, std::size_t n, std::uint16_t* out) { kernels::maximum(rows, n, out); };
const auto minimum = [](const auto& rows, std::size_t n, std::uint16_t* out) { kernels::minimum(rows, n, out); };
const auto median = [](const auto& rows, std::size_t n, std::uint16_t* out) { kernels::median(rows, n, out); };

}  // namespace

TEST_CASE("maximum and minimum rows equal their scalar twins, on every instruction set") {
    const auto largest = [](const auto& v) { return *std::max_element(v.begin(), v.end()); };
    const auto smallest = [](const auto& v) { return *std::min_element(v.begin(), v.end()); };
    on_every_target([&] {
        for (const std::size_t n : lengths)
            for (const int count : {1, 2, 9}) {
                holds_against_twin<std::uint8_t>(count, n, maximum, largest);
                holds_against_twin<std::uint16_t>(count, n, maximum, largest);
                holds_against_twin<std::uint8_t>(count, n, minimum, smallest);
                holds_against_twin<std::uint16_t>(count, n, minimum, smallest);
            }
    });
}

TEST_CASE("raising to a table equals looking up every sample, few above or all, on every instruction set") {
    const auto holds = [](auto narrow_or_wide, double share, int lift, std::size_t n) {
        using T = decltype(narrow_or_wide);
        const Strength strength(share, LightCurve::of(Profile::srgb(), 3));
        const std::uint16_t* table = strength.samples<T>();
        const Speckle<T> row(1, n);
        std::vector<std::uint16_t> out(n), wanted(n);
        std::mt19937 random{7};
        for (std::size_t i = 0; i < n; ++i) {
            // Around what the table has, so that samples stand at, one below and one above what is there.
            const int there = int(table[row.data[0][i]]) + int(random() % 3) - 1 + lift * int(random() % 2);
            out[i] = std::uint16_t(std::clamp(there, 0, 65535));
            wanted[i] = std::max(out[i], table[row.data[0][i]]);
        }
        kernels::raise_to_mapped(row.data[0].data(), strength.mapping<T>(), n, out.data());
        INFO(share << ", " << lift << ", " << n << " samples of " << 8 * sizeof(T) << " bits");
        REQUIRE(out == wanted);
    };
    on_every_target([&] {
        for (const std::size_t n : lengths)
            for (const double share : {0.0, 0.003, 0.3, 0.99999})
                for (const int lift : {-3000, 0, 300, 30000}) {
                    holds(std::uint8_t(), share, lift, n);
                    holds(std::uint16_t(), share, lift, n);
                }
    });
}

TEST_CASE("the median equals sorting for every number of rows, on every instruction set") {
    on_every_target([] {
        for (int count = 1; count <= 70; ++count) {
            const std::size_t n = lengths[std::size_t(count) % lengths.size()];
            holds_against_twin<std::uint8_t>(count, n, median, slow_median);
            holds_against_twin<std::uint16_t>(count, n, median, slow_median);
        }
        for (const int count : {255, 256, 257, 400, 508, 509, 510, 999, 1000}) {
            holds_against_twin<std::uint8_t>(count, 65, median, slow_median);
            holds_against_twin<std::uint16_t>(count, 65, median, slow_median);
        }
    });
}

TEST_CASE("the median of many 16-bit rows holds whatever lies between them, on every instruction set") {
    // Rows that differ by so many bits above a floor: what is counted in one go, in two, and at the borders.
    on_every_target([] {
        for (const int count : {65, 90, 128, 255})
            for (int bits = 0; bits <= 16; ++bits) {
                constexpr std::size_t samples = 300;
                Speckle<std::uint16_t> speckle(count, samples);
                const unsigned most = (1U << unsigned(bits)) - 1;
                for (auto& row : speckle.data)
                    for (std::uint16_t& v : row) v = std::uint16_t((v & most) + (65535 - most));
                std::vector<std::uint16_t> out(samples), lower(samples);
                kernels::median(speckle.rows(), samples, out.data());
                kernels::lower_middle(speckle.rows(), samples, lower.data());
                std::size_t wrong = 0, wrong_lower = 0;
                for (std::size_t i = 0; i < samples; ++i) {
                    std::vector<std::uint16_t> column = speckle.column(i);
                    wrong += out[i] != slow_median(column);
                    std::sort(column.begin(), column.end());
                    wrong_lower += lower[i] != column[(column.size() - 1) / 2];
                }
                INFO(count << " rows that differ by " << bits << " bits");
                REQUIRE(wrong == 0);
                REQUIRE(wrong_lower == 0);
            }
    });
}

TEST_CASE("the two middle values of many rows may be one, neighbours or far apart, on every instruction set") {
    constexpr int half = 45;
    constexpr std::size_t samples = 200;
    on_every_target([] {
        // So many rows more or less show the lower value; the others lie so far above it, and one at the very top or
        // bottom makes more or fewer bits differ.
        for (const int more : {-1, 0, 1, 20})
            for (const unsigned apart : {0U, 1U, 2U, 254U, 255U, 256U, 257U, 511U, 512U, 5000U, 40000U})
                for (const int outlier : {-1, 0, 65535}) {
                    Speckle<std::uint16_t> speckle(2 * half, samples);
                    for (int k = 0; k < 2 * half; ++k)
                        for (std::size_t i = 0; i < samples; ++i) {
                            const bool lower = (k * 7 + int(i)) % (2 * half) < half + more;
                            const unsigned low = 3 + 97 * unsigned(i);
                            speckle.data[std::size_t(k)][i] = std::uint16_t(lower ? low : low + apart);
                        }
                    if (outlier >= 0)
                        for (std::uint16_t& v : speckle.data[11]) v = std::uint16_t(outlier);
                    std::vector<std::uint16_t> out(samples);
                    kernels::median(speckle.rows(), samples, out.data());
                    std::size_t wrong = 0;
                    for (std::size_t i = 0; i < samples; ++i) wrong += out[i] != slow_median(speckle.column(i));
                    INFO(more << " more, " << apart << " apart, outlier " << outlier);
                    REQUIRE(wrong == 0);
                }
    });
}

TEST_CASE("one row far from the rest does not move the median of many") {
    constexpr std::size_t samples = 130;
    for (const std::uint16_t far : {std::uint16_t(0), std::uint16_t(65535)}) {
        Speckle<std::uint16_t> speckle(91, samples);
        for (auto& row : speckle.data)
            for (std::uint16_t& v : row) v = std::uint16_t(30000 + v % 7);
        std::fill(speckle.data[40].begin(), speckle.data[40].end(), far);
        std::vector<std::uint16_t> out(samples);
        kernels::median(speckle.rows(), samples, out.data());
        for (std::size_t i = 0; i < samples; ++i) REQUIRE(out[i] == slow_median(speckle.column(i)));
    }
}

TEST_CASE("the median holds at the ends of the range and with equal values, for few rows and many") {
    for (const std::size_t pairs : {std::size_t(1), std::size_t(8), std::size_t(20), std::size_t(50)}) {
        const std::uint16_t zero = 0, full = 65535, one = 1;
        std::uint16_t out = 7;
        const auto of = [&](const std::uint16_t& a, const std::uint16_t& b, std::size_t more_b) {
            std::vector<const std::uint16_t*> rows(pairs, &a);
            rows.insert(rows.end(), pairs + more_b, &b);
            kernels::median(kernels::Rows<std::uint16_t>(rows), 1, &out);
            return out;
        };
        CHECK(of(zero, full, 0) == 32768);
        CHECK(of(zero, full, 2) == 65535);
        CHECK(of(full, zero, 1) == 0);
        CHECK(of(full, full, 0) == 65535);
        CHECK(of(zero, one, 0) == 1);
    }
}

TEST_CASE("the mean is the nearest sample of the mean light, whatever the order") {
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    for (const int count : {1, 2, 3, 16, 91}) {
        Speckle<std::uint16_t> speckle(count, 130);
        std::vector<std::uint16_t> out(130);
        kernels::mean(speckle.rows(), 130, curve, out.data());
        for (std::size_t i = 0; i < 130; ++i) {
            double sum = 0;
            for (const std::uint16_t v : speckle.column(i)) sum += double(curve.light(v));
            const double mean = sum / count;
            const auto distance = [&](int v) {
                return std::abs(double(curve.light(std::uint16_t(std::clamp(v, 0, 65535)))) - mean);
            };
            // No neighbour's light is much nearer: rounding is at the middle of the encoding, not of the light.
            REQUIRE(distance(out[i]) <= std::min(distance(out[i] - 1), distance(out[i] + 1)) * 1.02);
        }
        std::reverse(speckle.pointers.begin(), speckle.pointers.end());
        std::vector<std::uint16_t> turned(130);
        kernels::mean(speckle.rows(), 130, curve, turned.data());
        REQUIRE(turned == out);
    }
}

TEST_CASE("means of 8 bits and clipped means equal their slow twins") {
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    const auto slow_mean = [&](const std::vector<std::uint16_t>& v) {
        double sum = 0;
        for (const std::uint16_t x : v) sum += curve.light(x);
        return curve.sample(sum / double(v.size()));
    };
    for (const int step : {1, 257}) {
        const auto clipped = [&](const auto& rows, std::size_t n, std::uint16_t* out) {
            kernels::clipped_mean(rows, n, curve, step, out);
        };
        const auto mean = [&](const auto& rows, std::size_t n, std::uint16_t* out) {
            kernels::mean(rows, n, curve, out);
        };
        const auto slow_clipped = [&](const auto& v) { return slow_mean(without_far(v, step)); };
        for (const int count : {1, 2, 3, 4, 7, 16, 33, 66, 101}) {
            holds_against_twin<std::uint8_t>(count, 600, mean, slow_mean);
            holds_against_twin<std::uint16_t>(count, 600, mean, slow_mean);
            holds_against_twin<std::uint8_t>(count, 600, clipped, slow_clipped);
            holds_against_twin<std::uint16_t>(count, 600, clipped, slow_clipped);
        }
    }
}

TEST_CASE("a clipped mean leaves out what passes through, and keeps what only rounds otherwise") {
    const LightCurve curve = LightCurve::encoded();
    std::vector<std::uint8_t> values{100, 101, 99, 100, 102, 98, 100, 101, 255};
    std::vector<const std::uint8_t*> rows;
    for (const std::uint8_t& v : values) rows.push_back(&v);
    std::uint16_t out = 0;
    kernels::clipped_mean(kernels::Rows<std::uint8_t>(rows), 1, curve, 257, &out);
    CHECK(out == Approx(100.125 * 257).margin(1));
    values = {100, 100, 100, 100, 100, 101, 101, 101, 101};
    kernels::clipped_mean(kernels::Rows<std::uint8_t>(rows), 1, curve, 257, &out);
    CHECK(out == Approx((100 + 4.0 / 9) * 257).margin(1));
}

TEST_CASE("what the means are made of equals its scalar twin, on every instruction set") {
    const auto holds = [](auto sample) {
        using T = decltype(sample);
        for (const std::size_t n : {std::size_t(1), std::size_t(63), std::size_t(64), std::size_t(130),
                                    std::size_t(257), kernels::sum_block}) {
            const Speckle<T> speckle(3, kernels::sum_block);
            const T* a = speckle.pointers[0];
            const T* b = speckle.pointers[1];
            std::vector<T> apart(kernels::sum_block);
            kernels::distances(a, b, n, apart.data());
            kernels::StrayBits bits{};
            kernels::strays(a, b, n, bits);
            int wrong = 0;
            for (std::size_t i = 0; i < kernels::sum_block; ++i) {
                if (i < n) wrong += apart[i] != std::abs(int(a[i]) - int(b[i]));
                wrong += (bits[i / 64] >> i % 64 & 1) != std::uint64_t(i < n && a[i] > b[i]);
            }
            INFO(n << " samples of " << 8 * sizeof(T) << " bits");
            REQUIRE(wrong == 0);
        }
    };
    on_every_target([&] {
        holds(std::uint8_t());
        holds(std::uint16_t());
        const Speckle<std::uint8_t> speckle(2, 200);
        for (const std::size_t n : {std::size_t(1), std::size_t(31), std::size_t(64), std::size_t(200)}) {
            std::vector<std::uint16_t> pairs(201, 7);
            kernels::pair_up(speckle.pointers[0], speckle.pointers[1], n, pairs.data());
            int wrong = pairs[n] != 7;
            for (std::size_t i = 0; i < n; ++i)
                wrong += pairs[i] != speckle.pointers[0][i] + 256 * speckle.pointers[1][i];
            REQUIRE(wrong == 0);
        }
    });
}

TEST_CASE("what goes beyond noise equals its scalar twin, on every instruction set") {
    constexpr std::size_t most = 130;
    const Speckle<std::uint16_t> speckle(2, 3 * most);
    std::vector<std::uint16_t> row(speckle.data[0]), usual(speckle.data[1]);
    // A little, much, none at all.
    for (std::size_t i = 0; i < row.size(); ++i)
        row[i] = i % 5 == 0 ? row[i] : std::uint16_t(std::min(65535, usual[i] + int(i % 7) * 60));
    std::vector<float> noise;
    for (std::size_t i = 0; i < row.size(); ++i) noise.push_back(40 + float(i % 11) * 37.5F);
    const auto twin = [&](std::size_t p, std::size_t channels) {
        float sum = 0;
        for (std::size_t i = p * channels; i < (p + 1) * channels; ++i) {
            const float d = (float(row[i]) - float(usual[i])) / noise[i];
            sum += d * d;
        }
        return std::uint8_t(std::min(255.0F, 16 * std::sqrt(std::sqrt(sum / float(channels))) + 0.5F));
    };
    on_every_target([&] {
        for (const int channels : {1, 3})
            for (const std::size_t n : {std::size_t(1), std::size_t(15), std::size_t(64), most}) {
                std::vector<std::uint8_t> out(most + 1, 7);
                kernels::beyond_noise(row.data(), usual.data(), noise.data(), n, channels, out.data());
                int wrong = out[n] != 7;
                for (std::size_t p = 0; p < n; ++p) wrong += out[p] != twin(p, std::size_t(channels));
                INFO(n << " pixels of " << channels);
                REQUIRE(wrong == 0);
            }
    });
    CHECK(twin(1, 3) != twin(2, 3));
}

TEST_CASE("colours come of brightness and colour as the standard says, on every instruction set") {
    constexpr std::size_t most = 150;
    const Speckle<std::uint8_t> speckle(1, 3 * most);
    const std::uint8_t* apart = speckle.pointers[0];
    on_every_target([&] {
        for (const std::size_t n : {std::size_t(1), std::size_t(17), std::size_t(64), most}) {
            std::vector<std::uint8_t> rgb(3 * most + 1, 7);
            kernels::colours_apart(apart, n, rgb.data());
            double worst = 0;
            for (std::size_t i = 0; i < n; ++i) {
                const double y = apart[3 * i], cb = apart[3 * i + 1] - 128.0, cr = apart[3 * i + 2] - 128.0;
                const double wanted[]{y + 1.402 * cr, y - 0.344136 * cb - 0.714136 * cr, y + 1.772 * cb};
                for (std::size_t c = 0; c < 3; ++c)
                    worst = std::max(worst, std::abs(std::clamp(wanted[c], 0.0, 255.0) - rgb[3 * i + c]));
            }
            INFO(n << " pixels");
            CHECK(worst <= 0.51);
            CHECK(rgb[3 * n] == 7);
        }
    });
}

TEST_CASE("the samples of sums are those of the curve at every border, dark and bright, on every instruction set") {
    const std::vector<LightCurve> curves{LightCurve::of(Profile::srgb(), 3), LightCurve::encoded()};
    std::mt19937_64 dice(9);
    for (const LightCurve& curve : curves)
        for (const std::uint32_t rows : {1U, 3U, 24U, 65535U}) {
            // Around the light of every sample, half-way between two, and anywhere.
            std::vector<std::uint64_t> wanted;
            for (int v = 0; v < 65536; v += 7) {
                const std::uint64_t here = curve.light(std::uint16_t(v));
                const std::uint64_t next = curve.light(std::uint16_t(std::min(65535, v + 1)));
                for (const std::uint64_t light : {here, (here + next) / 2, (here + next) / 2 + 1})
                    for (const std::uint64_t by : {0U, 1U, rows - 1}) wanted.push_back(light * rows + by);
                wanted.push_back(dice() % (std::uint64_t(rows) << (1 + dice() % 32)));
            }
            wanted.resize(wanted.size() / kernels::sum_block * kernels::sum_block + 77);
            const auto expected = [&](std::uint64_t sum, double by) {
                return curve.sample(double(std::int64_t(sum)) / by);
            };
            on_every_target([&] {
                int wrong = 0;
                for (std::size_t begin = 0; begin < wanted.size(); begin += kernels::sum_block) {
                    const std::size_t here = std::min(kernels::sum_block, wanted.size() - begin);
                    kernels::LightSums sums{};
                    std::array<std::uint32_t, kernels::sum_block> voters{};
                    for (std::size_t i = 0; i < here; ++i) {
                        sums[i] = wanted[begin + i];
                        voters[i] = rows + std::uint32_t(i % 5);
                        if (voters[i] > 65535) voters[i] = 65535;
                    }
                    std::array<std::uint16_t, kernels::sum_block> by_rows{}, by_voters{};
                    kernels::samples_of(sums, here, rows, curve, by_rows.data());
                    kernels::samples_of(sums, here, voters, curve, by_voters.data());
                    for (std::size_t i = 0; i < here; ++i) {
                        wrong += by_rows[i] != expected(sums[i], rows);
                        wrong += by_voters[i] != expected(sums[i], voters[i]);
                    }
                    for (std::size_t i = here; i < kernels::sum_block; ++i)
                        wrong += by_rows[i] != 0 || by_voters[i] != 0;
                }
                REQUIRE(wrong == 0);
            });
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

TEST_CASE("darks are subtracted and light let through as in plain reckoning, and nothing stays nothing") {
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    std::vector<float> light;
    for (int v = 0; v < 65536; ++v) light.push_back(float(double(curve.light(std::uint16_t(v))) / LightCurve::full));
    const ToneTable tone({}, curve);
    const kernels::LightTables tables{light.data(), tone.data()};
    const auto in = test::speckle({97, 1}, 3, 5).data();
    const auto narrow = test::speckle({97, 1}, 3, 6).data();
    std::vector<std::uint8_t> bytes;
    for (const std::uint16_t v : narrow) bytes.push_back(std::uint8_t(v >> 8U));
    std::vector<std::uint16_t> dark(in.size());
    auto out = in;
    for (std::size_t i = 0; i < dark.size(); ++i) dark[i] = std::uint16_t(i * 97 % 20000);
    kernels::subtract_dark(in.data(), dark.data(), 0.5F, in.size(), tables, out.data());
    for (std::size_t i = 0; i < in.size(); ++i) {
        const double less = std::max(0.0, double(curve.light(in[i])) - 0.5 * curve.light(dark[i]));
        CHECK(std::abs(out[i] - curve.sample(less)) <= 1);
    }
    const std::vector<std::uint16_t> none(in.size(), 0);
    kernels::subtract_dark(in.data(), none.data(), 1, in.size(), tables, out.data());
    CHECK(out == in);
    kernels::subtract_dark(bytes.data(), none.data(), 1, bytes.size(), tables, out.data());
    for (std::size_t i = 0; i < bytes.size(); ++i) CHECK(out[i] == bytes[i] * 257);

    std::vector<std::uint16_t> passed(97, 65535);
    passed[10] = 32768;
    passed[11] = 1;
    auto lifted = in;
    kernels::let_through(passed.data(), 97, 3, tables, lifted.data());
    for (std::size_t i = 0; i < in.size(); ++i)
        if (i / 3 != 10 && i / 3 != 11) CHECK(lifted[i] == in[i]);
    for (std::size_t i = 30; i < 33; ++i)
        CHECK(std::abs(lifted[i] - curve.sample(std::min(LightCurve::full, curve.light(in[i]) * 65535.0 / 32768))) <=
              1);
    CHECK(lifted[33] == 65535);
}

TEST_CASE("vectors go through light to the same bits as sample by sample, on every instruction set") {
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    std::vector<float> light, light_of_8_bit;
    for (int v = 0; v < 65536; ++v) light.push_back(float(double(curve.light(std::uint16_t(v))) / LightCurve::full));
    for (std::size_t v = 0; v < 256; ++v) light_of_8_bit.push_back(light[257 * v]);
    const ToneTable tone({}, curve);
    const kernels::LightTables tables{light.data(), tone.data()};
    // Every 16-bit sample, and what does not fill a vector.
    std::vector<std::uint16_t> in(65536 + 7), dark(in.size());
    for (std::size_t i = 0; i < in.size(); ++i) {
        in[i] = std::uint16_t(i);
        dark[i] = std::uint16_t(i * 31 % 9000);
    }
    std::vector<std::uint8_t> narrow(in.size());
    for (std::size_t i = 0; i < narrow.size(); ++i) narrow[i] = std::uint8_t(i);
    constexpr float scale = 0.7F;
    std::vector<std::uint16_t> right, right_of_8_bit;
    for (std::size_t i = 0; i < in.size(); ++i) {
        right.push_back(kernels::tone_sample(tone.data(), light[in[i]] - scale * light[dark[i]]));
        right_of_8_bit.push_back(kernels::tone_sample(tone.data(), light_of_8_bit[narrow[i]] - scale * light[dark[i]]));
    }
    kernels::Colouring colouring;
    colouring.light = {light.data(), light.data(), light.data()};
    colouring.luminance = {0.2126F, 0.7152F, 0.0722F};
    colouring.strength = 0.3F;
    colouring.pale = -0.45F;
    colouring.tone = tone.data();
    const Raster16 picture = test::speckle({1003, 1}, 3, 8);
    // A pixel's light, the grey it has, and how far its colours are drawn from that.
    struct Spread {
        std::array<float, 3> rgb;
        float grey, apart;
    };
    const auto spread_at = [&](int x) -> Spread {
        const float r = light[picture.at(x, 0, 0)], g = light[picture.at(x, 0, 1)], b = light[picture.at(x, 0, 2)];
        const float most = std::max({r, g, b});
        const float colourful = most > 0 ? (most - std::min({r, g, b})) / most : 0;
        return {{r, g, b},
                0.2126F * r + 0.7152F * g + 0.0722F * b,
                std::max(0.0F, 1 + colouring.strength + colouring.pale * (1 - colourful))};
    };
    std::vector<std::uint16_t> coloured;
    for (int x = 0; x < picture.width(); ++x) {
        const Spread spread = spread_at(x);
        for (const float v : spread.rgb)
            coloured.push_back(kernels::tone_sample(tone.data(), spread.grey + spread.apart * (v - spread.grey)));
    }
    on_every_target([&] {
        std::vector<std::uint16_t> out(in.size());
        kernels::subtract_dark(in.data(), dark.data(), scale, in.size(), tables, out.data());
        CHECK(out == right);
        kernels::subtract_dark(narrow.data(), dark.data(), scale, narrow.size(), tables, out.data());
        CHECK(out == right_of_8_bit);
        // There and back; light beyond white is white.
        std::vector<float> lights(in.size());
        kernels::light_of(in.data(), in.size(), tables, lights.data());
        CHECK(lights.front() == light[in.front()]);
        lights.back() = 3;
        kernels::samples_of_light(lights.data(), in.size(), tables, out.data());
        std::size_t wrong = out.back() != kernels::tone_sample(tone.data(), 1.0F);
        for (std::size_t i = 0; i + 1 < in.size(); ++i) wrong += out[i] != kernels::tone_sample(tone.data(), lights[i]);
        CHECK(wrong == 0);
        kernels::light_of(narrow.data(), narrow.size(), tables, lights.data());
        CHECK(lights[1] == light[kernels::to_16(narrow[1])]);
        std::vector<std::uint16_t> made(coloured.size());
        kernels::colour(picture.row(0), std::size_t(picture.width()), colouring, made.data());
        CHECK(made == coloured);
    });
    // The hues of one range turned, the others left; samples that are light itself, so that errors stay as they are.
    std::vector<float> straight;
    for (int i = 0; i < 2 * kernels::tone_steps + 2; ++i) {
        const float root = float(i) / float(kernels::tone_steps);
        straight.push_back(std::min(1.0F, root * root) * 65535);
    }
    colouring.tone = straight.data();
    for (const auto& [at, turn] : {std::pair{0.3F, 0.9F}, {3.7F, -1.04F}}) {
        colouring.hue = {std::cos(at), std::sin(at), turn};
        std::vector<std::uint16_t> turned;
        int stayed = 0;
        for (int x = 0; x < picture.width(); ++x) {
            const auto [rgb, grey, apart] = spread_at(x);
            const double off[3] = {double(apart * (rgb[0] - grey)), double(apart * (rgb[1] - grey)),
                                   double(apart * (rgb[2] - grey))};
            const double u = off[0] - (off[1] + off[2]) / 2, v = std::sqrt(0.75) * (off[1] - off[2]);
            const double away = std::cos(std::atan2(v, u) - double(at));
            const double share = std::clamp(2 * away - 1, 0.0, 1.0);
            const double angle = share * share * (3 - 2 * share) * double(turn);
            stayed += angle == 0 ? 1 : 0;
            const double a = u * std::cos(angle) - v * std::sin(angle), c = u * std::sin(angle) + v * std::cos(angle);
            const double made[3] = {2 * a / 3, -a / 3 + c / std::sqrt(3.0), -a / 3 - c / std::sqrt(3.0)};
            const double bright = 0.2126 * made[0] + 0.7152 * made[1] + 0.0722 * made[2];
            for (const double m : made)
                turned.push_back(kernels::tone_sample(straight.data(), float(double(grey) + m - bright)));
        }
        CHECK(stayed > 100);
        CHECK(stayed < 950);
        on_every_target([&, hue = colouring] {
            std::vector<std::uint16_t> made(turned.size());
            kernels::colour(picture.row(0), std::size_t(picture.width()), hue, made.data());
            int worst = 0;
            for (std::size_t i = 0; i < made.size(); ++i)
                worst = std::max(worst, std::abs(int(made[i]) - int(turned[i])));
            CHECK(worst <= 16);
            // What does not fill a vector is as it is in one.
            for (const std::size_t few : {1U, 2U, 5U, 7U}) {
                std::vector<std::uint16_t> piece(3 * few);
                kernels::colour(picture.row(0), few, hue, piece.data());
                CHECK(std::equal(piece.begin(), piece.end(), made.begin()));
            }
        });
    }
    colouring.hue = {};
    colouring.tone = tone.data();
    // All colour taken away leaves grey; of 8-bit samples by tables of their own.
    colouring.light = {light_of_8_bit.data(), light_of_8_bit.data(), light_of_8_bit.data()};
    colouring.strength = -1;
    colouring.pale = 0;
    std::vector<std::uint8_t> bytes;
    for (const std::uint16_t v : picture.data()) bytes.push_back(std::uint8_t(v >> 8U));
    std::vector<std::uint16_t> grey(bytes.size());
    kernels::colour(bytes.data(), bytes.size() / 3, colouring, grey.data());
    for (std::size_t i = 0; i < grey.size(); i += 3) {
        REQUIRE(grey[i] == grey[i + 1]);
        REQUIRE(grey[i] == grey[i + 2]);
    }
}

TEST_CASE("lowering and places above equal their scalar twins, on every instruction set") {
    constexpr std::size_t most = 151;
    const Raster16 a = test::speckle({int(most), 1}, 1, 5), b = test::speckle({int(most), 1}, 1, 6);
    const std::uint16_t *row = a.row(0), *other = b.row(0);
    on_every_target([&] {
        for (const std::size_t n : {std::size_t(1), std::size_t(15), std::size_t(64), most}) {
            for (const int by : {0, 9000, -9000, 65535, -65535}) {
                std::vector<std::uint16_t> out(n + 1, 77);
                kernels::lower_by(row, by, n, out.data());
                std::size_t wrong = out[n] != 77;
                for (std::size_t i = 0; i < n; ++i) wrong += out[i] != std::clamp(int(row[i]) - by, 0, 65535);
                CHECK(wrong == 0);
            }
            std::vector<std::uint16_t> places, expected;
            kernels::add_places_above(row, other, n, places);
            for (std::size_t i = 0; i < n; ++i)
                if (row[i] > other[i]) expected.push_back(std::uint16_t(i));
            CHECK(places == expected);
        }
    });
}

TEST_CASE("differences, middles of 64 and sums of 4 equal their scalar twins, on every instruction set") {
    constexpr std::size_t blocks = 5, most = blocks * 64;
    const Raster16 a = test::speckle({int(most), 1}, 1, 5), b = test::speckle({int(most), 1}, 1, 6);
    const std::uint16_t *row = a.row(0), *other = b.row(0);
    // Many of one value, and the ends of the range.
    std::vector<std::uint16_t> steps(row, row + most);
    for (std::size_t i = 0; i < most; ++i) steps[i] = std::uint16_t(i < 128 ? steps[i] % 3 : i % 2 * 65535);
    on_every_target([&] {
        for (const std::size_t n : {std::size_t(1), std::size_t(15), std::size_t(64), most}) {
            std::vector<std::uint16_t> out(n + 1, 77);
            kernels::differences(row, other, n, out.data());
            std::size_t wrong = out[n] != 77;
            for (std::size_t i = 0; i < n; ++i)
                wrong += out[i] != std::clamp(int(row[i]) - int(other[i]) + 32768, 0, 65535);
            CHECK(wrong == 0);
        }
        for (const std::uint16_t* from : {row, static_cast<const std::uint16_t*>(steps.data())}) {
            std::vector<std::uint16_t> middles(blocks);
            kernels::middles_of_64(from, blocks, middles.data());
            for (std::size_t k = 0; k < blocks; ++k) {
                std::vector<std::uint16_t> sorted(from + k * 64, from + k * 64 + 64);
                std::sort(sorted.begin(), sorted.end());
                CHECK(middles[k] == sorted[31]);
            }
        }
        for (const std::size_t n : {std::size_t(1), std::size_t(3), std::size_t(8), most / 4}) {
            std::vector<std::uint32_t> sums(n + 1, 7);
            kernels::sums_of_4(row, n, sums.data());
            std::size_t wrong = sums[n] != 7;
            for (std::size_t i = 0; i < n; ++i)
                wrong += sums[i] != std::accumulate(row + 4 * i, row + 4 * i + 4, std::uint32_t(0));
            CHECK(wrong == 0);
        }
    });
}

TEST_CASE("rows are made smaller in pieces as one after the other: every place the same sum, in the same order") {
    std::mt19937 random(19);
    const auto number = [&] { return float(random() % 20001) / 10000 - 0.5F; };
    const auto taps = [&](int from, int to, std::size_t count) {
        kernels::Taps out;
        out.count = count;
        for (int i = 0; i < to; ++i) {
            out.first.push_back(std::min(i * from / to, from - int(count)));
            for (std::size_t k = 0; k < count; ++k) out.weights.push_back(number());
        }
        return out;
    };
    for (const int channels : {1, 3})
        for (const Size to : {Size{61, 23}, Size{3, 16}, Size{130, 1}}) {
            const Size from{to.width * 2 + 9, to.height * 3 + 5};
            const kernels::Taps down = taps(from.height, to.height, 8), across = taps(from.width, to.width, 7);
            RasterF light({from.width, from.height + int(kernels::reduced_padding)}, channels);
            for (float& v : light.data()) v = number();
            const auto expected = [&](int x, int y, int c) {
                float sum = 0;
                for (int k = 0; k < 7; ++k) {
                    float column = 0;
                    for (int j = 0; j < 8; ++j)
                        column += down.at(std::size_t(y))[j] *
                                  light.at(across.first[std::size_t(x)] + k, down.first[std::size_t(y)] + j, c);
                    sum += across.at(std::size_t(x))[k] * column;
                }
                return sum;
            };
            std::vector<float> room;
            int wrong = 0, made = 0;
            constexpr int columns = 50;
            constexpr auto together = int(kernels::reduced_together);
            for (int top = 0; top < to.height; top += together)
                for (int left = 0; left < to.width; left += columns) {
                    const int rows = std::min(together, to.height - top), wide = std::min(columns, to.width - left);
                    std::vector<const float*> in;
                    for (int y = down.first[std::size_t(top)]; y < from.height; ++y)
                        in.push_back(light.row(y) + across.first[std::size_t(left)] * channels);
                    RasterF out({wide, together}, channels);
                    kernels::reduce(in, down, across, {top, std::size_t(rows), left, std::size_t(wide), channels}, room,
                                    out.data().data(), std::size_t(out.row_samples()));
                    for (int y = 0; y < rows; ++y)
                        for (int x = 0; x < wide; ++x)
                            for (int c = 0; c < channels; ++c, ++made)
                                if (out.at(x, y, c) != expected(left + x, top + y, c)) ++wrong;
                }
            CHECK(wrong == 0);
            CHECK(made == to.width * to.height * channels);
        }
}

TEST_CASE("a clip's rows are those of the standard: brightness and colour, with black, white and greys exact") {
    constexpr std::size_t pixels = 86;
    const Raster16 picture = test::speckle({int(pixels), 2}, 3, 11);
    const auto light = [&](std::size_t x, int y) {
        return (0.2126 * picture.at(int(x), y, 0) + 0.7152 * picture.at(int(x), y, 1) +
                0.0722 * picture.at(int(x), y, 2)) /
               65535;
    };
    // By channel: 2 for blue, 0 for red.
    const auto colour = [&](std::size_t x, int c) {
        double out = 0;
        for (int y = 0; y < 2; ++y)
            out += (picture.at(int(x), y, c) / 65535.0 - light(x, y)) / (c == 2 ? 1.8556 : 1.5748) / 2;
        return out;
    };
    std::vector<std::uint8_t> out(pixels), blue(pixels / 2), red(pixels / 2);
    std::vector<float> room;
    double worst = 0, mean = 0;
    for (int y = 0; y < 2; ++y) {
        kernels::clip_brightness(picture.row(y), pixels, y, out.data());
        for (std::size_t x = 0; x < pixels; ++x) {
            const double off = out[x] - (16 + 219 * light(x, y));
            worst = std::max(worst, std::abs(off));
            mean += off / (2 * pixels);
        }
    }
    CHECK(worst < 1);
    CHECK(std::abs(mean) < 0.1);
    kernels::clip_colour(picture.row(0), picture.row(1), pixels, 0, room, blue.data(), red.data());
    worst = 0;
    for (std::size_t x = 0; x < pixels / 2; ++x)
        for (const int c : {2, 0}) {
            const double expected = 128 + 224 * (0.25 * colour(x == 0 ? 0 : 2 * x - 1, c) + 0.5 * colour(2 * x, c) +
                                                 0.25 * colour(2 * x + 1, c));
            worst = std::max(worst, std::abs((c == 2 ? blue : red)[x] - expected));
        }
    CHECK(worst < 1);
    for (const int level : {0, 1, 77, 128, 255}) {
        const std::vector<std::uint16_t> grey(3 * pixels, std::uint16_t(level * 257));
        kernels::clip_colour(grey.data(), grey.data(), pixels, 1, room, blue.data(), red.data());
        CHECK(std::all_of(blue.begin(), blue.end(), [](int v) { return v == 128; }));
        CHECK(std::all_of(red.begin(), red.end(), [](int v) { return v == 128; }));
        kernels::clip_brightness(grey.data(), pixels, 3, out.data());
        if (level == 0) CHECK(std::all_of(out.begin(), out.end(), [](int v) { return v == 16; }));
        if (level == 255) CHECK(std::all_of(out.begin(), out.end(), [](int v) { return v == 235; }));
    }
}
