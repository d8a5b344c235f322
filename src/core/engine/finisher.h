// Rows that go through finishing as they are made.
#pragma once

#include "engine/finishing.h"
#include "engine/picture.h"

namespace bp {

// Holds the rows that tools read around a row, and hands on what is done.
class Finisher final : public RowSink {
  public:
    Finisher(const Finishing& finishing, int channels, const Rect& region, RowSink& sink);

    // Rows held for a plan of such bands: two in work, those that wait to be finished together, and the reach around
    // them.
    static int rows_held(int band_rows, const Finishing& finishing) {
        return 2 * band_rows + finishing.rows_at_once() + 2 * finishing.reach();
    }

    void begin(const StripPlan& plan) override;
    std::uint16_t* row(int y) override { return rows_.data() + std::size_t((y - around_.top) % held_) * stride(); }
    Status finish(const Band& band) override;
    void end(const StepTimes& spent) override { sink_.end(spent); }

  private:
    std::size_t stride() const { return std::size_t(around_.width) * std::size_t(channels_); }

    const Finishing& finishing_;
    int channels_;
    Rect around_, region_;
    RowSink& sink_;
    int held_ = 1;
    int next_;
    std::vector<std::uint16_t> rows_;
};

}  // namespace bp
