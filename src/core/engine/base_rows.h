// Rows of a picture's base: what its frames are merged to, zone by zone.
#pragma once

#include <array>
#include <optional>
#include <vector>

#include "engine/knit_rows.h"

namespace bp {

// What shows where no frame reaches, by channel.
std::array<std::uint16_t, 3> background_of(const Pile& pile);
// By which the frames of a zone are merged, in their order.
MergeTools tools_for(const Pile& pile, Zone zone);

// The pile, the gathering and the knitting, which may be null, must live as long.
class BaseRows {
  public:
    BaseRows(const Pile& pile, Gathering& gathering, const Knitting* knitting, int level);
    // Columns of canvas row y. Any thread.
    void row(int y, kernels::Span columns, const std::vector<FrameRow>& rows, const SkyRow& share,
             std::uint16_t* out) const;

  private:
    // The frames of a zone, by their places among all rows.
    struct Layer {
        Mode mode;
        std::vector<std::size_t> frames;
        MergeTools tools;
    };

    void merge(Zone zone, const std::vector<FrameRow>& rows, int width, std::uint16_t* out) const;

    const Pile& pile_;
    std::vector<Layer> layers_;  // sky, land
    std::optional<KnitRows> knit_;
};

}  // namespace bp
