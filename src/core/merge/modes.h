// The merge modes. A new mode is one function template and one line in the table of modes.cpp.
#pragma once

#include <array>
#include <memory>
#include <mutex>
#include <optional>
#include <span>
#include <string_view>
#include <utility>
#include <vector>

#include "image/profile.h"
#include "kernels/extremes.h"
#include "kernels/voted.h"
#include "kernels/weighed.h"
#include "kernels/whole_pixels.h"

namespace bp {

enum class Mode { lighten, maximum, minimum, median, mean, clipped_mean, add, one };
enum class Light { linear, encoded };
// What is chosen among frames: each channel for itself, or whole pixels by their brightness.
enum class By { channel, pixel };

// How much of a frame's light counts: a share of 0 to 1, in 65536 parts. Copies share their tables; any thread.
class Strength {
  public:
    Strength() = default;
    Strength(double share, const LightCurve& curve);
    bool whole() const { return !tables_; }
    std::uint32_t parts() const { return parts_; }
    // Not of a whole one: for every sample of T, the 16-bit sample of the share of its light, and that light itself.
    template <class T>
    const std::uint16_t* samples() const {
        return of<T>().samples.data();
    }
    template <class T>
    const kernels::Mapping& mapping() const {
        return *of<T>().mapping;
    }
    template <class T>
    const std::uint32_t* light() const {
        return of<T>().light.data();
    }

  private:
    struct Table {
        std::vector<std::uint16_t> samples;
        std::vector<std::uint32_t> light;
        std::optional<kernels::Mapping> mapping;  // of `samples`
    };
    struct Tables {
        Tables(double of, LightCurve in) : share(of), curve(std::move(in)) {}
        double share;
        LightCurve curve;
        std::once_flag narrow_once, wide_once;  // most frames have samples of one kind
        Table narrow, wide;
    };
    template <class T>
    const Table& of() const;

    std::uint32_t parts_ = kernels::Share::whole;
    std::shared_ptr<Tables> tables_;
};

// What a mode may need besides the samples.
struct MergeTools {
    LightCurve curve;
    std::vector<Strength> strengths = {};  // one a frame
    // The frame that shows where none votes; the first that covers the place when it does not, or is none of them.
    int reference = 0;
    std::array<std::uint16_t, 3> background{};    // by channel: where no frame reaches
    kernels::White white = kernels::White::hard;  // of added light
    int step = 1;  // between neighbouring values of the coarsest frame: 257 when one has 8 bits
    // Of the brightness by which whole pixels are chosen, where they are: of three channels alone.
    std::optional<kernels::BrightnessWeights> by_brightness = {};
};

// Some frames' samples of the same pixels: frame numbers[k] gives rows[k]. At least one.
template <class T>
struct MergeInput {
    kernels::Rows<T> rows;
    std::span<const int> numbers;
    std::size_t samples = 0;
    kernels::Votes votes;  // empty: all samples vote. Where none votes the result is any value
};

template <class T>
using MergeFunction = void (*)(const MergeInput<T>&, const MergeTools&, std::uint16_t* out);

struct ModeEntry {
    Mode mode;
    std::string_view name;  // on the command line and in pile files
    bool uses_strength;     // of each frame
    bool uses_light;        // Light changes the picture
    // The same picture from 16-bit rows and from 8-bit ones, whose values v stand for 257 v.
    MergeFunction<std::uint16_t> merge_16;
    MergeFunction<std::uint8_t> merge_8;
    // The same of whole pixels by brightness; null for modes that choose no frame.
    MergeFunction<std::uint16_t> pixels_16 = nullptr;
    MergeFunction<std::uint8_t> pixels_8 = nullptr;
    bool chooses_pixels() const { return pixels_16 != nullptr; }
    // The brightest shows, so that trails grow.
    bool shows_brightest() const { return mode == Mode::lighten || mode == Mode::maximum; }
};

std::span<const ModeEntry> modes();
const ModeEntry& entry_of(Mode mode);
std::optional<Mode> mode_named(std::string_view name);

// How much each channel of a profile adds to brightness.
kernels::BrightnessWeights brightness_weights(const Profile& profile);
// The brightness of a pixel of three samples as whole pixels are chosen by it.
inline std::uint64_t brightness_of(const std::uint16_t* pixel, const kernels::BrightnessWeights& weights,
                                   const LightCurve& curve) {
    std::uint64_t out = 0;
    for (std::size_t c = 0; c < weights.size(); ++c) out += std::uint64_t(weights[c]) * curve.light(pixel[c]);
    return out;
}

}  // namespace bp
