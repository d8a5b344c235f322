// The merge modes. A new mode is one function and one line in the table of modes.cpp.
#pragma once

#include <memory>
#include <optional>
#include <span>
#include <string_view>
#include <vector>

#include "image/profile.h"

namespace bp {

enum class Mode { lighten, maximum, minimum, median, mean, one };
enum class Light { linear, encoded };

struct MergeSettings {
    Mode mode = Mode::lighten;
    Light light = Light::linear;  // for mean and for the strengths of lighten
    friend bool operator==(const MergeSettings&, const MergeSettings&) = default;
};

// What a mode may need besides the samples.
struct MergeTools {
    LightCurve curve;
    // One entry a frame; an empty one leaves the frame as it is, else it maps samples (65536 entries).
    std::vector<std::shared_ptr<const std::vector<std::uint16_t>>> strength_tables;
};

// Some frames' samples of the same pixels: frame numbers[k] gives rows[k]. At least one.
struct MergeInput {
    std::span<const std::uint16_t* const> rows;
    std::span<const int> numbers;
    std::size_t samples = 0;
};

struct ModeEntry {
    Mode mode;
    std::string_view name;  // on the command line and in pile files
    bool uses_strength;
    void (*merge)(const MergeInput&, const MergeTools&, std::uint16_t* out);
};

std::span<const ModeEntry> modes();
const ModeEntry& entry_of(Mode mode);
std::optional<Mode> mode_named(std::string_view name);

// Samples of a frame merged at `strength` (0 to 1 of its light). Empty for full strength.
std::shared_ptr<const std::vector<std::uint16_t>> strength_table(double strength, const LightCurve& curve);

}  // namespace bp
