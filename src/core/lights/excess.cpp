#include "lights/excess.h"

#include <algorithm>
#include <cmath>

#include "base/median.h"
#include "kernels/level.h"
#include "kernels/median.h"

namespace bp {
namespace {

constexpr int block = 64;
// So many of a block's pixels are enough to tell its level.
constexpr int looked_at = 16;
// What is usual is told by so many frames at most, all over the run.
constexpr std::size_t most_judges = 25;
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

int blocks_in(int width) {
    return (width + block - 1) / block;
}
int width_of_block(int b, int width) {
    return std::min(block, width - b * block);
}

// Where the i-th of `count` pixels that tell of a block lies in it.
int told_at(int i, int count, int width_of_block) {
    return i * width_of_block / count;
}

// Block by block.
void lower_blocks(const std::uint16_t* row, const std::vector<int>& by, int width, std::uint16_t* out) {
    for (int b = 0; b < blocks_in(width); ++b)
        kernels::lower_by(row + b * block, by[std::size_t(b)], std::size_t(width_of_block(b, width)), out + b * block);
}

// Frames of all parts of the run.
std::vector<std::size_t> judges_of(std::size_t frames) {
    const std::size_t count = std::min(frames, most_judges);
    std::vector<std::size_t> out;
    for (std::size_t i = 0; i < count; ++i) out.push_back(i * frames / count);
    return out;
}

// The middle of each block.
std::vector<int> middles_of_row(const std::uint16_t* row, int width) {
    const int blocks = blocks_in(width);
    // One row for each of the pixels, so that all blocks are done together.
    Rows16 told(looked_at, blocks);
    for (int i = 0; i < looked_at; ++i) {
        std::uint16_t* to = told.row(std::size_t(i));
        const int last = blocks - 1, of_block = told_at(i, looked_at, block);
        for (int b = 0; b < last; ++b) to[b] = row[b * block + of_block];
        to[last] = row[last * block + told_at(i, looked_at, width_of_block(last, width))];
    }
    std::vector<std::uint16_t> middles(std::size_t(blocks), 0);
    kernels::lower_middle(told.pointers, std::size_t(blocks), middles.data());
    return {middles.begin(), middles.end()};
}

// Brings a row that is at about the level of `usual` to it. Where much of a block is structure its middle jumps: what
// is left of the offset is told from the differences, of all pixels.
void settle(std::uint16_t* row, const std::vector<std::uint16_t>& usual) {
    constexpr int none = 32768;
    const int width = int(usual.size()), blocks = blocks_in(width), last = blocks - 1;
    std::vector<std::uint16_t> left(std::size_t(blocks) * block), middles(std::size_t(blocks), 0);
    kernels::differences(row, usual.data(), usual.size(), left.data());
    // A narrow last block is spread to a whole one, from its end.
    std::uint16_t* const of_last = left.data() + std::ptrdiff_t(last) * block;
    for (int i = block - 1; i >= 0; --i) of_last[i] = of_last[told_at(i, block, width_of_block(last, width))];
    kernels::middles_of_64(left.data(), std::size_t(blocks), middles.data());
    std::vector<int> offsets(middles.begin(), middles.end());
    for (int& offset : offsets) offset -= none;
    lower_blocks(row, offsets, width, row);
}

}  // namespace

UsualRow usual_row(kernels::Rows<std::uint16_t> rows, int width) {
    const std::vector<std::size_t> judges = judges_of(rows.size());
    // Every frame brought to the level of the middle one, block by block.
    std::vector<std::vector<int>> offsets;
    offsets.reserve(judges.size());
    for (const std::size_t k : judges) offsets.push_back(middles_of_row(rows[k], width));
    std::vector<int> of_judges(judges.size());
    for (std::size_t b = 0; b < std::size_t(blocks_in(width)); ++b) {
        for (std::size_t j = 0; j < judges.size(); ++j) of_judges[j] = offsets[j][b];
        const int usual_middle = middle_of(of_judges);
        for (std::vector<int>& of : offsets) of[b] -= usual_middle;
    }
    Rows16 levelled(judges.size(), width);
    for (std::size_t j = 0; j < judges.size(); ++j) lower_blocks(rows[judges[j]], offsets[j], width, levelled.row(j));
    const auto samples = std::size_t(width);
    UsualRow out{std::vector<std::uint16_t>(samples), std::vector<std::uint16_t>(samples)};
    kernels::median(levelled.pointers, samples, out.level.data());
    for (std::size_t j = 0; j < judges.size(); ++j) {
        settle(levelled.row(j), out.level);
        kernels::distances(levelled.row(j), out.level.data(), samples, levelled.row(j));
    }
    kernels::median(levelled.pointers, samples, out.distance.data());
    return out;
}

Comparing::Comparing(const UsualRow& usual, double least)
    : usual_(usual),
      usual_middles_(middles_of_row(usual.level.data(), int(usual.level.size()))),
      limits_(usual.level.size()),
      own_(usual.level.size()),
      deviations_(usual.level.size()) {
    const int width = int(usual.level.size());
    std::vector<std::uint16_t> sorted;
    for (int begin = 0; begin < width; begin += block) {
        const int end = std::min(width, begin + block);
        sorted.assign(usual.distance.begin() + begin, usual.distance.begin() + end);
        const double noise = std::max(least_deviation, deviation_of_median * middle_of(sorted));
        for (auto x = std::size_t(begin); x < std::size_t(end); ++x) {
            const double deviation = std::max(noise, deviation_of_median * usual.distance[x]);
            deviations_[x] = float(deviation);
            const double above = least * deviation;
            const int whole = int(above);
            limits_[x] = std::uint16_t(std::min(65535, usual.level[x] + whole + int(whole < above)));
        }
    }
}

void Comparing::add_excess(const std::uint16_t* row, std::uint16_t frame, std::vector<Excess>& out) {
    const int width = int(own_.size());
    std::vector<int> offsets = middles_of_row(row, width);
    for (std::size_t b = 0; b < offsets.size(); ++b) offsets[b] -= usual_middles_[b];
    lower_blocks(row, offsets, width, own_.data());
    settle(own_.data(), usual_.level);
    places_.clear();
    kernels::add_places_above(own_.data(), limits_.data(), own_.size(), places_);
    for (const std::uint16_t x : places_) {
        const int above = int(own_[x]) - int(usual_.level[x]);
        out.push_back({frame, x, std::uint16_t(above),
                       std::uint16_t(std::min(65535.0F, float(quarters * above) / deviations_[x]))});
    }
}

}  // namespace bp
