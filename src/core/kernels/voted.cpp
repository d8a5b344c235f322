// Rows that do not vote everywhere are copied, a block at a time, with a value in the gaps that decides nothing; the
// kernels for whole rows do the rest. For a median the gaps are filled by turns with the largest and the smallest
// value, which leaves the middle where it is.
#include "kernels/voted.h"

#include <algorithm>
#include <array>
#include <limits>
#include <vector>

#include "kernels/extremes.h"
#include "kernels/light_sums.h"
#include "kernels/mean.h"
#include "kernels/median.h"
#include "kernels/strays.h"

namespace bp::kernels {
namespace {

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

template <class T, class Extreme>
void extreme(Rows<T> rows, Votes votes, std::size_t samples, T neutral, std::uint16_t* out, const Extreme& of) {
    Filled<T> filled(rows.size());
    by_blocks(samples, [&](std::size_t begin, std::size_t here) {
        filled.fill(rows, votes, begin, here, neutral);
        of(filled.rows(), here, out + begin);
    });
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

template <class T>
void median_of(Rows<T> rows, Votes votes, std::size_t samples, std::uint16_t* out) {
    Balanced<T> balanced(rows.size());
    std::array<T, sum_block> low{}, high{};
    by_blocks(samples, [&](std::size_t begin, std::size_t here) {
        balanced.fill([&](std::size_t k) { return rows[k] + begin; }, votes, begin, here);
        middles(balanced.rows(), here, low.data(), high.data());
        for (std::size_t i = 0; i < here; ++i) out[begin + i] = balanced.median(i, low[i], high[i]);
    });
}

// How many of the rows do not vote.
class Missing {
  public:
    explicit Missing(std::size_t rows) : rows_(std::uint32_t(rows)) {}
    void count(Votes votes, std::size_t begin, std::size_t samples) {
        counts_.fill(0);
        for (const std::uint8_t* row : votes)
            if (row)
                for (std::size_t i = 0; i < samples; ++i) counts_[i] += row[begin + i] ? 0U : 1U;
    }
    std::uint32_t at(std::size_t i) const { return counts_[i]; }
    // One where there is none: any value does there.
    std::uint32_t voters(std::size_t i) const { return std::max(1U, rows_ - counts_[i]); }

  private:
    std::uint32_t rows_;
    std::array<std::uint32_t, sum_block> counts_{};
};

template <class T, class Light>
void mean_of(Rows<T> rows, Votes votes, std::size_t samples, const Light* light, const LightCurve& curve,
             std::uint16_t* out) {
    Filled<T> filled(rows.size());
    Missing missing(rows.size());
    std::array<std::uint32_t, sum_block> voters{};
    LightSums sums;
    by_blocks(samples, [&](std::size_t begin, std::size_t here) {
        filled.fill(rows, votes, begin, here, T(0));
        sum_light(filled.rows(), 0, here, curve, sums);
        missing.count(votes, begin, here);
        for (std::size_t i = 0; i < here; ++i) {
            sums[i] -= missing.at(i) * std::uint64_t(light[0]);
            voters[i] = missing.voters(i);
        }
        samples_of(sums, here, voters, curve, out + begin);
    });
}

// Gaps take the middle value, which strays from nothing.
template <class T, class Light>
void clipped_mean_of(Rows<T> rows, Votes votes, std::size_t samples, const Light* light, const LightCurve& curve,
                     int step, std::uint16_t* out) {
    constexpr int unit = to_16(T{1});
    Balanced<T> balanced(rows.size());
    Filled<T> filled(rows.size()), apart(rows.size());
    Missing missing(rows.size());
    std::array<T, sum_block> middle{}, low{}, high{}, reach{};
    std::array<std::uint32_t, sum_block> voters{};
    LightSums sums;
    by_blocks(samples, [&](std::size_t begin, std::size_t here) {
        balanced.fill([&](std::size_t k) { return rows[k] + begin; }, votes, begin, here);
        lower_middle(balanced.rows(), here, middle.data());
        for (std::size_t k = 0; k < rows.size(); ++k) {
            const T* row = rows[k] + begin;
            if (votes[k])
                for (std::size_t i = 0; i < here; ++i) filled.room(k)[i] = votes[k][begin + i] ? row[i] : middle[i];
            filled.set(k, votes[k] ? filled.room(k) : row);
            distances(filled.rows()[k], middle.data(), here, apart.room(k));
        }
        balanced.fill([&](std::size_t k) { return apart.room(k); }, votes, begin, here);
        middles(balanced.rows(), here, low.data(), high.data());
        for (std::size_t i = 0; i < here; ++i)
            reach[i] = T(std::min(int(largest<T>), clip_reach(balanced.median(i, low[i], high[i]), step) / unit));
        sum_light(filled.rows(), 0, here, curve, sums);
        missing.count(votes, begin, here);
        for (std::size_t i = 0; i < here; ++i) {
            sums[i] -= missing.at(i) * std::uint64_t(light[middle[i]]);
            voters[i] = missing.voters(i);
        }
        for (std::size_t k = 0; k < rows.size(); ++k)
            take_back_strays(filled.rows()[k], apart.room(k), reach.data(), here, light, sums, voters);
        samples_of(sums, here, voters, curve, out + begin);
    });
}

}  // namespace

void where_voted(const std::uint8_t* row, const std::uint8_t* votes, std::uint8_t otherwise, std::size_t samples,
                 std::uint8_t* out) {
    fill_gaps(row, votes, otherwise, samples, out);
}
void where_voted(const std::uint16_t* row, const std::uint8_t* votes, std::uint16_t otherwise, std::size_t samples,
                 std::uint16_t* out) {
    fill_gaps(row, votes, otherwise, samples, out);
}

void maximum(Rows<std::uint8_t> rows, Votes votes, std::size_t samples, std::uint16_t* out) {
    extreme(rows, votes, samples, std::uint8_t{0}, out, [](auto... all) { maximum(all...); });
}
void maximum(Rows<std::uint16_t> rows, Votes votes, std::size_t samples, std::uint16_t* out) {
    extreme(rows, votes, samples, std::uint16_t{0}, out, [](auto... all) { maximum(all...); });
}
void minimum(Rows<std::uint8_t> rows, Votes votes, std::size_t samples, std::uint16_t* out) {
    extreme(rows, votes, samples, largest<std::uint8_t>, out, [](auto... all) { minimum(all...); });
}
void minimum(Rows<std::uint16_t> rows, Votes votes, std::size_t samples, std::uint16_t* out) {
    extreme(rows, votes, samples, largest<std::uint16_t>, out, [](auto... all) { minimum(all...); });
}

void median(Rows<std::uint8_t> rows, Votes votes, std::size_t samples, std::uint16_t* out) {
    median_of(rows, votes, samples, out);
}
void median(Rows<std::uint16_t> rows, Votes votes, std::size_t samples, std::uint16_t* out) {
    median_of(rows, votes, samples, out);
}

void mean(Rows<std::uint8_t> rows, Votes votes, std::size_t samples, const LightCurve& curve, std::uint16_t* out) {
    mean_of(rows, votes, samples, curve.table_of_8_bit(), curve, out);
}
void mean(Rows<std::uint16_t> rows, Votes votes, std::size_t samples, const LightCurve& curve, std::uint16_t* out) {
    mean_of(rows, votes, samples, curve.table(), curve, out);
}

void clipped_mean(Rows<std::uint8_t> rows, Votes votes, std::size_t samples, const LightCurve& curve, int step,
                  std::uint16_t* out) {
    clipped_mean_of(rows, votes, samples, curve.table_of_8_bit(), curve, step, out);
}
void clipped_mean(Rows<std::uint16_t> rows, Votes votes, std::size_t samples, const LightCurve& curve, int step,
                  std::uint16_t* out) {
    clipped_mean_of(rows, votes, samples, curve.table(), curve, step, out);
}

}  // namespace bp::kernels
