#include "kernels/weighed.h"

#include <algorithm>
#include <array>
#include <vector>

#include "kernels/gaps.h"
#include "kernels/light_sums.h"

namespace bp::kernels {
namespace {

// Light of a block, with the parts that it is of.
struct Weighing {
    LightSums light;
    std::array<std::uint64_t, sum_block> parts;

    void clear() {
        light.fill(0);
        parts.fill(0);
    }
    // Of the samples for which counts(i) is true.
    template <class T, class Counts>
    void add(const T* row, const Share& share, std::size_t samples, const Counts& counts) {
        for (std::size_t i = 0; i < samples; ++i) {
            if (!counts(i)) continue;
            light[i] += share.light[row[i]];
            parts[i] += share.parts;
        }
    }
    void means(std::size_t samples, const LightCurve& curve, std::uint16_t* out) const {
        for (std::size_t i = 0; i < samples; ++i)
            out[i] = parts[i] == 0 ? std::uint16_t{0}
                                   : curve.sample(double(light[i]) * double(Share::whole) / double(parts[i]));
    }
};

const std::uint8_t* votes_of(Votes votes, std::size_t k, std::size_t begin) {
    return votes.empty() || !votes[k] ? nullptr : votes[k] + begin;
}

// Rows that count whole and vote everywhere are added up together, which is faster.
template <class T>
class AddedRows {
  public:
    AddedRows(Rows<T> rows, Shares shares, Votes votes) : rows_(rows), shares_(shares), votes_(votes) {
        for (std::size_t k = 0; k < rows.size(); ++k) {
            const bool whole = shares[k].parts == Share::whole && !votes_of(votes, k, 0);
            if (whole)
                whole_.push_back(rows[k]);
            else
                others_.push_back(k);
        }
    }
    void block(std::size_t begin, std::size_t samples, const LightCurve& curve, Weighing& out) const {
        sum_light(Rows<T>(whole_), begin, samples, curve, out.light);
        out.parts.fill(whole_.size() * Share::whole);
        for (const std::size_t k : others_) {
            const T* row = rows_[k] + begin;
            if (const std::uint8_t* voting = votes_of(votes_, k, begin))
                out.add(row, shares_[k], samples, [voting](std::size_t i) { return voting[i] != 0; });
            else
                out.add(row, shares_[k], samples, [](std::size_t) { return true; });
        }
    }

  private:
    Rows<T> rows_;
    Shares shares_;
    Votes votes_;
    std::vector<const T*> whole_;
    std::vector<std::size_t> others_;
};

void press_below_white(LightSums& sums, std::size_t samples) {
    constexpr double from = soft_from * LightCurve::full;
    constexpr double room = LightCurve::full - from;
    for (std::size_t i = 0; i < samples; ++i) {
        const double beyond = double(sums[i]) - from;
        if (beyond > 0) sums[i] = std::uint64_t(from + beyond * room / (room + beyond));
    }
}

template <class T>
void add_of(Rows<T> rows, Shares shares, Votes votes, std::size_t samples, const LightCurve& curve, White white,
            std::uint16_t* out) {
    const AddedRows<T> added(rows, shares, votes);
    Weighing weighing;
    by_blocks(samples, [&](std::size_t begin, std::size_t here) {
        added.block(begin, here, curve, weighing);
        if (white == White::soft) press_below_white(weighing.light, here);
        samples_of(weighing.light, here, 1, curve, out + begin);
    });
}

template <class T>
void mean_of(Rows<T> rows, Shares shares, Votes votes, std::size_t samples, const LightCurve& curve,
             std::uint16_t* out) {
    const AddedRows<T> added(rows, shares, votes);
    Weighing weighing;
    by_blocks(samples, [&](std::size_t begin, std::size_t here) {
        added.block(begin, here, curve, weighing);
        weighing.means(here, curve, out + begin);
    });
}

template <class T>
void clipped_mean_of(Rows<T> rows, Shares shares, Votes votes, std::size_t samples, const LightCurve& curve, int step,
                     std::uint16_t* out) {
    Clip<T> clip(rows.size());
    const std::vector<const std::uint8_t*> all(rows.size(), nullptr);
    if (votes.empty()) votes = all;
    Weighing weighing;
    by_blocks(samples, [&](std::size_t begin, std::size_t here) {
        clip.find(rows, votes, begin, here, step);
        weighing.clear();
        for (std::size_t k = 0; k < rows.size(); ++k) {
            const std::uint8_t* voting = votes_of(votes, k, begin);
            const T* apart = clip.apart(k);
            weighing.add(rows[k] + begin, shares[k], here,
                         [&](std::size_t i) { return apart[i] <= clip.reach()[i] && (!voting || voting[i] != 0); });
        }
        weighing.means(here, curve, out + begin);
    });
}

}  // namespace

void add(Rows<std::uint8_t> rows, Shares shares, Votes votes, std::size_t samples, const LightCurve& curve, White white,
         std::uint16_t* out) {
    add_of(rows, shares, votes, samples, curve, white, out);
}
void add(Rows<std::uint16_t> rows, Shares shares, Votes votes, std::size_t samples, const LightCurve& curve,
         White white, std::uint16_t* out) {
    add_of(rows, shares, votes, samples, curve, white, out);
}

void mean(Rows<std::uint8_t> rows, Shares shares, Votes votes, std::size_t samples, const LightCurve& curve,
          std::uint16_t* out) {
    mean_of(rows, shares, votes, samples, curve, out);
}
void mean(Rows<std::uint16_t> rows, Shares shares, Votes votes, std::size_t samples, const LightCurve& curve,
          std::uint16_t* out) {
    mean_of(rows, shares, votes, samples, curve, out);
}

void clipped_mean(Rows<std::uint8_t> rows, Shares shares, Votes votes, std::size_t samples, const LightCurve& curve,
                  int step, std::uint16_t* out) {
    clipped_mean_of(rows, shares, votes, samples, curve, step, out);
}
void clipped_mean(Rows<std::uint16_t> rows, Shares shares, Votes votes, std::size_t samples, const LightCurve& curve,
                  int step, std::uint16_t* out) {
    clipped_mean_of(rows, shares, votes, samples, curve, step, out);
}

}  // namespace bp::kernels
