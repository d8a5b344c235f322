#include "lights/excess.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdlib>

#include "base/median.h"
#include "kernels/median.h"

namespace bp {
namespace {

constexpr int block = 64;
// Of a block's pixels every so-many-th is enough to tell its level.
constexpr int looked_at_first = 4, looked_at = 2;
// Of a normal distribution: its deviation over its median distance from the middle.
constexpr double deviation_of_median = 1.4826;
// Noise is not taken for less than half a step of 8 bits, in samples of 16.
constexpr double least_deviation = 128;
constexpr int quarters = 4;

// Row pointers into one piece of memory.
struct Rows16 {
    Rows16(std::size_t count, int width) : samples(count * std::size_t(width)) {
        for (std::size_t k = 0; k < count; ++k) pointers.push_back(samples.data() + k * std::size_t(width));
    }
    std::uint16_t* row(std::size_t k) { return samples.data() + (pointers[k] - samples.data()); }
    std::vector<std::uint16_t> samples;
    std::vector<const std::uint16_t*> pointers;
};

}  // namespace

void add_excess(kernels::Rows<std::uint16_t> rows, int width, double least, std::vector<Excess>& out) {
    const std::size_t count = rows.size();
    const auto samples = std::size_t(width);
    // Every frame brought to the level of the middle one, block by block.
    Rows16 level(count, width), distances(count, width);
    std::vector<std::uint16_t> sorted;
    std::vector<int> middles(count);
    for (int begin = 0; begin < width; begin += block) {
        const int end = std::min(width, begin + block);
        for (std::size_t k = 0; k < count; ++k) {
            sorted.clear();
            for (int x = begin; x < end; x += looked_at_first) sorted.push_back(rows[k][x]);
            middles[k] = middle_of(sorted);
        }
        std::vector<int> in_order = middles;
        const int usual_middle = middle_of(in_order);
        for (std::size_t k = 0; k < count; ++k) {
            const int offset = middles[k] - usual_middle;
            std::uint16_t* to = level.row(k);
            for (int x = begin; x < end; ++x) to[x] = std::uint16_t(std::clamp(int(rows[k][x]) - offset, 0, 65535));
        }
    }
    std::vector<std::uint16_t> usual(samples), distance(samples);
    kernels::median(level.pointers, samples, usual.data());
    // Where much of a block is structure its middle jumps: what is left of the offset is told from the differences.
    std::vector<int> differences;
    for (int begin = 0; begin < width; begin += block) {
        const int end = std::min(width, begin + block);
        for (std::size_t k = 0; k < count; ++k) {
            std::uint16_t* own = level.row(k);
            std::uint16_t* to = distances.row(k);
            differences.clear();
            for (int x = begin; x < end; x += looked_at)
                differences.push_back(int(own[x]) - int(usual[std::size_t(x)]));
            const int offset = middle_of(differences);
            for (int x = begin; x < end; ++x) {
                own[x] = std::uint16_t(std::clamp(int(own[x]) - offset, 0, 65535));
                to[x] = std::uint16_t(std::abs(int(own[x]) - int(usual[std::size_t(x)])));
            }
        }
    }
    kernels::median(distances.pointers, samples, distance.data());
    std::vector<std::uint16_t> thresholds(samples);
    std::vector<double> deviations(samples);
    for (int begin = 0; begin < width; begin += block) {
        const int end = std::min(width, begin + block);
        sorted.assign(distance.begin() + begin, distance.begin() + end);
        const double noise = std::max(least_deviation, deviation_of_median * middle_of(sorted));
        for (auto x = std::size_t(begin); x < std::size_t(end); ++x) {
            deviations[x] = std::max(noise, deviation_of_median * distance[x]);
            thresholds[x] = std::uint16_t(std::min(65535.0, usual[x] + std::ceil(least * deviations[x])));
        }
    }
    for (std::size_t k = 0; k < count; ++k) {
        const std::uint16_t* own = level.pointers[k];
        for (std::size_t x = 0; x < samples; ++x) {
            if (own[x] <= thresholds[x]) continue;
            const int above = int(own[x]) - int(usual[x]);
            out.push_back({std::uint16_t(k), std::uint16_t(x), std::uint16_t(above),
                           std::uint16_t(std::min(65535.0, quarters * above / deviations[x]))});
        }
    }
}

}  // namespace bp
