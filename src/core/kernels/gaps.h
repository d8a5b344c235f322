// Rows that do not vote everywhere, a block at a time. Internal to the room.
#pragma once

#include <algorithm>
#include <array>
#include <limits>
#include <vector>

#include "kernels/light_sums.h"
#include "kernels/mean.h"
#include "kernels/median.h"
#include "kernels/strays.h"
#include "kernels/voted.h"

namespace bp::kernels {

template <class T>
constexpr T largest = std::numeric_limits<T>::max();

template <class T>
void fill_gaps(const T* row, const std::uint8_t* votes, T otherwise, std::size_t samples, T* out) {
    for (std::size_t i = 0; i < samples; ++i) out[i] = votes[i] ? row[i] : otherwise;
}

// Some rows of a block, of which the filled ones are kept here.
template <class T>
class Filled {
  public:
    explicit Filled(std::size_t count) : memory_(count * sum_block), rows_(count) {}
    Rows<T> rows() const { return rows_; }
    T* room(std::size_t k) { return memory_.data() + k * sum_block; }
    // Rows with `otherwise` where they do not vote.
    void fill(Rows<T> rows, Votes votes, std::size_t begin, std::size_t samples, T otherwise) {
        for (std::size_t k = 0; k < rows.size(); ++k) {
            if (votes[k]) fill_gaps(rows[k] + begin, votes[k] + begin, otherwise, samples, room(k));
            set(k, votes[k] ? room(k) : rows[k] + begin);
        }
    }
    void set(std::size_t k, const T* row) { rows_[k] = row; }

  private:
    std::vector<T> memory_;
    std::vector<const T*> rows_;
};

// Calls block(begin, samples) for the blocks of a row.
template <class Block>
void by_blocks(std::size_t samples, const Block& block) {
    for (std::size_t begin = 0, here = 0; begin < samples; begin += here) {
        here = next_step(samples - begin);
        block(begin, here);
    }
}

// An even number of rows whose middle is that of the samples that vote: the lower of two middle values where their
// number is odd, both where it is even.
template <class T>
class Balanced {
  public:
    explicit Balanced(std::size_t count) : count_(count), filled_(count + count % 2) {}

    // row(k) gives the samples of row k of the block.
    template <class Row>
    void fill(const Row& row, Votes votes, std::size_t begin, std::size_t samples) {
        odd_gaps_.fill(0);
        for (std::size_t k = 0; k < count_; ++k) {
            const T* from = row(k);
            if (votes[k]) fill_by_turns(from, votes[k] + begin, samples, filled_.room(k));
            filled_.set(k, votes[k] ? filled_.room(k) : from);
        }
        if (count_ % 2 == 0) return;
        static constexpr std::array<std::uint8_t, sum_block> none{};
        fill_by_turns(filled_.room(count_), none.data(), samples, filled_.room(count_));
        filled_.set(count_, filled_.room(count_));
    }
    Rows<T> rows() const { return filled_.rows(); }
    // The median of what votes, brought to 16 bits; `low` and `high` are the middles of rows().
    std::uint16_t median(std::size_t i, T low, T high) const {
        const unsigned upper = odd_gaps_[i] ? low : high;
        return std::uint16_t((unsigned(to_16(low)) + unsigned(to_16(T(upper))) + 1) / 2);
    }

  private:
    // The first gap of a sample takes the largest value, the next the smallest, and so on.
    void fill_by_turns(const T* row, const std::uint8_t* votes, std::size_t samples, T* out) {
        for (std::size_t i = 0; i < samples; ++i) {
            const T gap = odd_gaps_[i] ? T(0) : largest<T>;
            out[i] = votes[i] ? row[i] : gap;
            odd_gaps_[i] = std::uint8_t(odd_gaps_[i] ^ ~votes[i]);
        }
    }

    std::size_t count_;
    Filled<T> filled_;
    std::array<std::uint8_t, sum_block> odd_gaps_{};  // 255 where the gaps so far are odd
};

// How far from the middle of the samples that vote they count, of a block. Gaps take the middle value, which strays
// from nothing.
template <class T>
class Clip {
  public:
    explicit Clip(std::size_t count) : balanced_(count), filled_(count), apart_(count) {}

    void find(Rows<T> rows, Votes votes, std::size_t begin, std::size_t samples, int step) {
        constexpr int unit = to_16(T{1});
        balanced_.fill([&](std::size_t k) { return rows[k] + begin; }, votes, begin, samples);
        lower_middle(balanced_.rows(), samples, middle_.data());
        for (std::size_t k = 0; k < rows.size(); ++k) {
            const T* row = rows[k] + begin;
            if (votes[k])
                for (std::size_t i = 0; i < samples; ++i)
                    filled_.room(k)[i] = votes[k][begin + i] ? row[i] : middle_[i];
            filled_.set(k, votes[k] ? filled_.room(k) : row);
            distances(filled_.rows()[k], middle_.data(), samples, apart_.room(k));
        }
        balanced_.fill([&](std::size_t k) { return apart_.room(k); }, votes, begin, samples);
        middles(balanced_.rows(), samples, low_.data(), high_.data());
        for (std::size_t i = 0; i < samples; ++i)
            reach_[i] = T(std::min(int(largest<T>), clip_reach(balanced_.median(i, low_[i], high_[i]), step) / unit));
    }
    Rows<T> rows() const { return filled_.rows(); }
    const T* apart(std::size_t k) { return apart_.room(k); }
    const T* middle() const { return middle_.data(); }
    const T* reach() const { return reach_.data(); }

  private:
    Balanced<T> balanced_;
    Filled<T> filled_, apart_;
    std::array<T, sum_block> middle_{}, low_{}, high_{}, reach_{};
};

}  // namespace bp::kernels
