// Aligning frames to a reference.
#pragma once

#include <memory>
#include <optional>
#include <span>
#include <string_view>

#include "image/brightness.h"
#include "image/placement.h"
#include "image/raster.h"

namespace bp {

enum class Model { none, shift, rigid, similarity, perspective, flex, stars };

struct ModelEntry {
    Model model;
    std::string_view name;  // on the command line and in pile files
};

std::span<const ModelEntry> models();
std::string_view name_of(Model model);
std::optional<Model> model_named(std::string_view name);

struct Alignment {
    Matrix to_reference;       // frame pixel to reference pixel, level 0; as a straight lens would show them
    std::optional<Lens> lens;  // of all frames of a run alike
    Point sensor;              // pixels by which the frame lies off its usual place behind the lens
    SharedFlex flex;           // how it is bent beyond that; null for none
    double residual_px = 0;    // what is left between the two after the transform, median over what agrees
    double confidence = 0;     // 0 to 1: share of the textured blocks, or of the stars, that agree
    bool aligned = true;       // false: the transform is not to be trusted
    bool by_clock = false;     // placed by its capture time alone: nothing in the picture could be matched
    bool by_hand = false;      // placed by a person
    bool insisted = false;     // merged although it is not to be trusted, because a person said so

    Placement placement() const { return {to_reference, lens, sensor, flex}; }
    friend bool operator==(const Alignment& a, const Alignment& b);
};
// A frame that could not be aligned.
Alignment not_aligned();

// All that aligning needs of the reference, prepared once. For every model but stars.
//
// Pictures have one channel and one size, at least 32 pixels each way. They are held against each other as local
// contrast, so that exposure, haze and vignetting do not pull; what moves is left out by weights (Tukey's biweight).
// The first guess is phase correlation (Kuglin and Hines, 1975), or features (Lowe, "Distinctive image features from
// scale-invariant keypoints", 2004) where that does not lead anywhere; then least squares on pixels from coarse to fine
// (descent.h). All members may be called from any thread.
class AlignReference {
  public:
    // `trust` (0 to 1, the same size) says where aligning may look; null for everywhere.
    explicit AlignReference(const RasterF& brightness, const RasterF* trust = nullptr);
    ~AlignReference();
    AlignReference(AlignReference&&) noexcept;

    Alignment align(const RasterF& frame, Model model) const;
    // From a transform (frame to reference) that is nearly right. A bend is found anew.
    Alignment refine(const RasterF& frame, Model model, const Matrix& to_reference) const;

  private:
    // Bends a frame onto the reference from where a stiff model has laid it.
    Alignment bend(const RasterF& frame, const Alignment& stiff) const;

    struct Prepared;
    std::unique_ptr<const Prepared> prepared_;
};

}  // namespace bp
