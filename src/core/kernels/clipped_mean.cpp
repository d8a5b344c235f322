#include <algorithm>
#include <limits>
#include <vector>

#include "kernels/light_sums.h"
#include "kernels/mean.h"
#include "kernels/median.h"

namespace bp::kernels {
namespace {

constexpr std::size_t piece = 64;  // samples that are asked together whether any of them stands apart

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
    void measure(std::size_t k, const T* row, const T* middle, std::size_t count) {
        T* out = values_.data() + k * sum_block;
        for (std::size_t i = 0; i < count; ++i) out[i] = T(std::max(row[i], middle[i]) - std::min(row[i], middle[i]));
    }

  private:
    std::vector<T> values_;
    std::vector<const T*> rows_;
};

template <class T>
bool any_beyond(const T* distance, const T* reach, std::size_t count) {
    T beyond = 0;
    for (std::size_t i = 0; i < count; ++i) beyond |= T(distance[i] > reach[i]);
    return beyond != 0;
}

// Values that stand apart are few: all are summed, and those taken back.
template <class T, class Light>
void take_back(const T* row, const T* distance, const T* reach, std::size_t count, const Light* light, LightSums& sums,
               std::array<std::uint32_t, sum_block>& voters) {
    for (std::size_t from = 0; from < count; from += piece) {
        const std::size_t here = std::min(piece, count - from);
        if (!any_beyond(distance + from, reach + from, here)) continue;
        for (std::size_t i = from; i < from + here; ++i) {
            if (distance[i] <= reach[i]) continue;
            sums[i] -= light[row[i]];
            --voters[i];
        }
    }
}

template <class T, class Light>
void clipped_mean_of(Rows<T> rows, std::size_t samples, const Light* light, const LightCurve& curve, int step,
                     std::uint16_t* out) {
    LightSums sums;
    std::array<T, sum_block> middle{};
    std::array<std::uint16_t, sum_block> spread{};
    std::array<T, sum_block> reach{};
    std::array<std::uint32_t, sum_block> voters{};
    Distances<T> distances(rows.size());
    std::vector<const T*> pieces(rows.size());
    for (std::size_t begin = 0; begin < samples; begin += sum_block) {
        const std::size_t here = std::min(sum_block, samples - begin);
        for (std::size_t k = 0; k < rows.size(); ++k) pieces[k] = rows[k] + begin;
        lower_middle(Rows<T>(pieces), here, middle.data());
        for (std::size_t k = 0; k < rows.size(); ++k) distances.measure(k, pieces[k], middle.data(), here);
        median(distances.rows(), here, spread.data());
        constexpr int largest = std::numeric_limits<T>::max();
        for (std::size_t i = 0; i < here; ++i) reach[i] = T(std::min(largest, clip_reach(spread[i], step) / unit<T>));
        sum_light(rows, begin, here, light, sums);
        voters.fill(std::uint32_t(rows.size()));
        for (std::size_t k = 0; k < rows.size(); ++k)
            take_back(pieces[k], distances.rows()[k], reach.data(), here, light, sums, voters);
        for (std::size_t i = 0; i < here; ++i) out[begin + i] = curve.sample(double(sums[i]) / double(voters[i]));
    }
}

}  // namespace

void clipped_mean(Rows<std::uint8_t> rows, std::size_t samples, const LightCurve& curve, int step, std::uint16_t* out) {
    clipped_mean_of(rows, samples, light_of_8_bit(curve).data(), curve, step, out);
}

void clipped_mean(Rows<std::uint16_t> rows, std::size_t samples, const LightCurve& curve, int step,
                  std::uint16_t* out) {
    clipped_mean_of(rows, samples, curve.table(), curve, step, out);
}

}  // namespace bp::kernels
