// Aligning one frame to a reference.
#pragma once

#include <optional>
#include <span>
#include <string_view>

#include "image/brightness.h"
#include "image/geometry.h"
#include "image/raster.h"

namespace bp {

enum class Model { none, shift, rigid };

struct ModelEntry {
    Model model;
    std::string_view name;  // on the command line and in pile files
};

std::span<const ModelEntry> models();
std::string_view name_of(Model model);
std::optional<Model> model_named(std::string_view name);

struct Alignment {
    Matrix to_reference;     // frame pixel to reference pixel, level 0
    double residual_px = 0;  // what is left between the two after the transform, median over the textured blocks
    double confidence = 0;   // 0 to 1: correlation of the two after the transform
    bool aligned = true;     // false: the transform is not to be trusted
    friend bool operator==(const Alignment&, const Alignment&) = default;
};

// Both pictures have one channel and the same size, at least 32 pixels each way. Shift by phase correlation (Kuglin and
// Hines, 1975) on a coarse level, then least squares from coarse to fine (descent.h). Pure; any thread.
Alignment align_to(const RasterF& reference, const RasterF& frame, Model model);

// The median, over blocks with enough texture in both directions, of the shift that is left between the reference and
// the frame under `to_reference` (one step of Lucas and Kanade, 1981). Negative when no block has texture.
double residual_after(const RasterF& reference, const RasterF& frame, const Matrix& to_reference);

}  // namespace bp
