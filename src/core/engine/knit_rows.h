// Rows of what closes the breaks in trails.
#pragma once

#include <optional>
#include <vector>

#include "engine/knitting.h"
#include "engine/zone_rows.h"

namespace bp {

// Adds what a knitting has to rows of a sky that is merged so that the brightest shows. In every step the smaller of
// two lights counts, channel by channel: that of the frame before and that of the frame after, by the lesser of their
// strengths. Where one of them is not covered or left out nothing is added. The pile and the knitting must live as
// long.
class KnitRows {
  public:
    // `tools` are those of the sky, with a strength for each of its frames.
    KnitRows(const Pile& pile, const MergeTools& tools, const Knitting& knitting, Gathering& gathering, int level);

    // `out` is canvas row y from columns.begin on, merged; rows are those of the gathering. Any thread.
    void add(int y, kernels::Span columns, const std::vector<FrameRow>& rows, std::uint16_t* out) const;

  private:
    struct Step {
        const RunMask* where;
        std::size_t before, after;  // among the rows
        std::size_t strength;       // of the tools
    };
    void add_step(const Step& step, int y, kernels::Span columns, const std::vector<FrameRow>& rows,
                  std::uint16_t* out) const;

    int channels_;
    int level_;
    bool strong_;  // strengths count
    const MergeTools tools_;
    std::vector<Step> steps_;
};

}  // namespace bp
