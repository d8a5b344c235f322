// Rows that do not vote everywhere are copied, a block at a time, with a value in the gaps that decides nothing; the
// kernels for whole rows do the rest. For a median the gaps are filled by turns with the largest and the smallest
// value, which leaves the middle where it is.
#include "kernels/voted.h"

#include <algorithm>
#include <array>

#include "kernels/extremes.h"
#include "kernels/gaps.h"

namespace bp::kernels {
namespace {

template <class T, class Extreme>
void extreme(Rows<T> rows, Votes votes, std::size_t samples, T neutral, std::uint16_t* out, const Extreme& of) {
    Filled<T> filled(rows.size());
    by_blocks(samples, [&](std::size_t begin, std::size_t here) {
        filled.fill(rows, votes, begin, here, neutral);
        of(filled.rows(), here, out + begin);
    });
}

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

template <class T, class Light>
void clipped_mean_of(Rows<T> rows, Votes votes, std::size_t samples, const Light* light, const LightCurve& curve,
                     int step, std::uint16_t* out) {
    Clip<T> clip(rows.size());
    Missing missing(rows.size());
    std::array<std::uint32_t, sum_block> voters{};
    LightSums sums;
    by_blocks(samples, [&](std::size_t begin, std::size_t here) {
        clip.find(rows, votes, begin, here, step);
        sum_light(clip.rows(), 0, here, curve, sums);
        missing.count(votes, begin, here);
        for (std::size_t i = 0; i < here; ++i) {
            sums[i] -= missing.at(i) * std::uint64_t(light[clip.middle()[i]]);
            voters[i] = missing.voters(i);
        }
        for (std::size_t k = 0; k < rows.size(); ++k)
            take_back_strays(clip.rows()[k], clip.apart(k), clip.reach(), here, light, sums, voters);
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
