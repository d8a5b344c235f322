#include <algorithm>
#include <limits>
#include <vector>

#include "kernels/mean.h"
#include "kernels/median.h"
#include "kernels/strays.h"

namespace bp::kernels {
namespace {

// What one step between values of 8 bits is in 16.
template <class T>
constexpr int unit = to_16(T{1});

// Distances of every row from the middle, in the rows' own bits.
template <class T>
class Distances {
  public:
    explicit Distances(std::size_t count) : values_(count * sum_block), rows_(count) {
        for (std::size_t k = 0; k < count; ++k) rows_[k] = values_.data() + k * sum_block;
    }

    Rows<T> rows() const { return rows_; }
    T* row(std::size_t k) { return values_.data() + k * sum_block; }

  private:
    std::vector<T> values_;
    std::vector<const T*> rows_;
};

template <class T, class Light>
void clipped_mean_of(Rows<T> rows, std::size_t samples, const Light* light, const LightCurve& curve, int step,
                     std::uint16_t* out) {
    LightSums sums;
    std::array<T, sum_block> middle{};
    std::array<std::uint16_t, sum_block> spread{};
    std::array<T, sum_block> reach{};
    std::array<std::uint32_t, sum_block> voters{};
    Distances<T> apart(rows.size());
    std::vector<const T*> pieces(rows.size());
    for (std::size_t begin = 0, here = 0; begin < samples; begin += here) {
        here = next_step(samples - begin);
        for (std::size_t k = 0; k < rows.size(); ++k) pieces[k] = rows[k] + begin;
        lower_middle(Rows<T>(pieces), here, middle.data());
        for (std::size_t k = 0; k < rows.size(); ++k) kernels::distances(pieces[k], middle.data(), here, apart.row(k));
        median(apart.rows(), here, spread.data());
        constexpr int largest = std::numeric_limits<T>::max();
        for (std::size_t i = 0; i < here; ++i) reach[i] = T(std::min(largest, clip_reach(spread[i], step) / unit<T>));
        sum_light(rows, begin, here, curve, sums);
        voters.fill(std::uint32_t(rows.size()));
        for (std::size_t k = 0; k < rows.size(); ++k)
            take_back_strays(pieces[k], apart.row(k), reach.data(), here, light, sums, voters);
        samples_of(sums, here, voters, curve, out + begin);
    }
}

}  // namespace

void clipped_mean(Rows<std::uint8_t> rows, std::size_t samples, const LightCurve& curve, int step, std::uint16_t* out) {
    clipped_mean_of(rows, samples, curve.table_of_8_bit(), curve, step, out);
}

void clipped_mean(Rows<std::uint16_t> rows, std::size_t samples, const LightCurve& curve, int step,
                  std::uint16_t* out) {
    clipped_mean_of(rows, samples, curve.table(), curve, step, out);
}

}  // namespace bp::kernels
