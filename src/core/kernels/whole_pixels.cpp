#include "kernels/whole_pixels.h"

#include <algorithm>

namespace bp::kernels {
namespace {

constexpr std::size_t channels = 3;
constexpr std::size_t block = 256;  // pixels

// The sum of weights is 2^16 and light has 32 bits: it fits. Kept so that larger is better, both ways.
struct Brightest {
    static constexpr std::uint64_t rank(std::uint64_t brightness) { return brightness; }
};
struct Darkest {
    static constexpr std::uint64_t rank(std::uint64_t brightness) { return (std::uint64_t(1) << 48) - brightness; }
};

template <class Better, class T>
void pick(Rows<T> rows, std::span<const Competitor> as, const BrightnessWeights& weights, Votes votes,
          std::size_t pixels, std::uint16_t* out) {
    std::array<std::uint64_t, block> best;
    for (std::size_t begin = 0; begin < pixels; begin += block) {
        const std::size_t here = std::min(block, pixels - begin);
        best.fill(0);
        std::uint16_t* to = out + begin * channels;
        for (std::size_t k = 0; k < rows.size(); ++k) {
            const T* row = rows[k] + begin * channels;
            const std::uint8_t* voting = votes.empty() || !votes[k] ? nullptr : votes[k] + begin * channels;
            const Competitor& competitor = as[k];
            for (std::size_t i = 0; i < here; ++i) {
                if (voting && voting[i * channels] == 0) continue;
                const T* pixel = row + i * channels;
                std::uint64_t brightness = 0;
                for (std::size_t c = 0; c < channels; ++c)
                    brightness += std::uint64_t(weights[c]) * competitor.light[pixel[c]];
                // One more than the rank, so that the first that votes always wins over none.
                const std::uint64_t rank = Better::rank(brightness) + 1;
                if (rank <= best[i]) continue;
                best[i] = rank;
                for (std::size_t c = 0; c < channels; ++c)
                    to[i * channels + c] = competitor.shown ? competitor.shown[pixel[c]] : to_16(pixel[c]);
            }
        }
    }
}

}  // namespace

void brightest_pixels(Rows<std::uint8_t> rows, std::span<const Competitor> as, const BrightnessWeights& weights,
                      Votes votes, std::size_t pixels, std::uint16_t* out) {
    pick<Brightest>(rows, as, weights, votes, pixels, out);
}
void brightest_pixels(Rows<std::uint16_t> rows, std::span<const Competitor> as, const BrightnessWeights& weights,
                      Votes votes, std::size_t pixels, std::uint16_t* out) {
    pick<Brightest>(rows, as, weights, votes, pixels, out);
}
void darkest_pixels(Rows<std::uint8_t> rows, std::span<const Competitor> as, const BrightnessWeights& weights,
                    Votes votes, std::size_t pixels, std::uint16_t* out) {
    pick<Darkest>(rows, as, weights, votes, pixels, out);
}
void darkest_pixels(Rows<std::uint16_t> rows, std::span<const Competitor> as, const BrightnessWeights& weights,
                    Votes votes, std::size_t pixels, std::uint16_t* out) {
    pick<Darkest>(rows, as, weights, votes, pixels, out);
}

}  // namespace bp::kernels
