// The merge modes. A new mode is one function template and one line in the table of modes.cpp.
#pragma once

#include <array>
#include <memory>
#include <optional>
#include <span>
#include <string_view>
#include <vector>

#include "image/profile.h"
#include "kernels/voted.h"

namespace bp {

enum class Mode { lighten, maximum, minimum, median, mean, clipped_mean, one };
enum class Light { linear, encoded };

// What a mode may need besides the samples.
struct MergeTools {
    LightCurve curve;
    // One entry a frame; an empty one leaves the frame as it is, else it maps samples (65536 entries).
    std::vector<std::shared_ptr<const std::vector<std::uint16_t>>> strength_tables = {};
    // The frame that shows where none votes; the first that covers the place when it does not, or is none of them.
    int reference = 0;
    std::array<std::uint16_t, 3> background{};  // by channel: where no frame reaches
    int step = 1;  // between neighbouring values of the coarsest frame: 257 when one has 8 bits
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
};

std::span<const ModeEntry> modes();
const ModeEntry& entry_of(Mode mode);
std::optional<Mode> mode_named(std::string_view name);

// Samples of a frame merged at `strength` (0 to 1 of its light). Empty for full strength.
std::shared_ptr<const std::vector<std::uint16_t>> strength_table(double strength, const LightCurve& curve);

}  // namespace bp
