#include <algorithm>
#include <cstdlib>
#include <vector>

#include "kernels/light_sums.h"
#include "kernels/mean.h"
#include "kernels/median.h"

namespace bp::kernels {
namespace {

constexpr std::size_t piece = 32;  // samples that are asked together whether any of them stands apart

struct Distances {
    std::vector<std::uint16_t> values;  // sum_block of each row
    std::vector<const std::uint16_t*> rows;

    explicit Distances(std::size_t count) : values(count * sum_block), rows(count) {
        for (std::size_t k = 0; k < count; ++k) rows[k] = values.data() + k * sum_block;
    }
    std::uint16_t* row(std::size_t k) { return values.data() + k * sum_block; }
};

template <class T>
void measure(const T* row, const std::uint16_t* middle, std::size_t count, std::uint16_t* out) {
    for (std::size_t i = 0; i < count; ++i) out[i] = std::uint16_t(std::abs(int(to_16(row[i])) - int(middle[i])));
}

bool any_beyond(const std::uint16_t* distance, const std::uint16_t* reach, std::size_t count) {
    unsigned beyond = 0;
    for (std::size_t i = 0; i < count; ++i) beyond |= unsigned(distance[i] > reach[i]);
    return beyond != 0;
}

// Values that stand apart are few: all are summed, and those taken back.
template <class T>
void take_back(const T* row, const std::uint16_t* distance, const std::uint16_t* reach, std::size_t count,
               const std::uint32_t* light, LightSums& sums, std::array<std::uint32_t, sum_block>& voters) {
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

template <class T>
void clipped_mean_of(Rows<T> rows, std::size_t samples, const std::uint32_t* light, const LightCurve& curve, int step,
                     std::uint16_t* out) {
    LightSums sums;
    std::array<std::uint16_t, sum_block> middle{};
    std::array<std::uint16_t, sum_block> reach{};
    std::array<std::uint32_t, sum_block> voters{};
    Distances distances(rows.size());
    std::vector<const T*> pieces(rows.size());
    for (std::size_t begin = 0; begin < samples; begin += sum_block) {
        const std::size_t here = std::min(sum_block, samples - begin);
        for (std::size_t k = 0; k < rows.size(); ++k) pieces[k] = rows[k] + begin;
        median(Rows<T>(pieces), here, middle.data());
        for (std::size_t k = 0; k < rows.size(); ++k) measure(pieces[k], middle.data(), here, distances.row(k));
        median(Rows<std::uint16_t>(distances.rows), here, reach.data());
        for (std::size_t i = 0; i < here; ++i) reach[i] = std::uint16_t(std::min(65535, clip_reach(reach[i], step)));
        sum_light(rows, begin, here, light, sums);
        voters.fill(std::uint32_t(rows.size()));
        for (std::size_t k = 0; k < rows.size(); ++k)
            take_back(pieces[k], distances.rows[k], reach.data(), here, light, sums, voters);
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
