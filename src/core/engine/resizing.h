// A picture made smaller on its way to a file.
#pragma once

#include "engine/light_there.h"
#include "engine/picture.h"

namespace bp {

// The size of a picture whose longer side becomes so many pixels; as it is when that is no less, or 0.
Size reduced_size(Size from, int long_edge_px);

// Rows of a region made smaller, in linear light, by a sinc of three lobes as wide as so many pixels become one, across
// and then down; and handed on as rows of a picture that begins at (0, 0). The border of the region goes on beyond it.
class Reducer final : public RowSink {
  public:
    Reducer(const Rect& region, Size to, const Profile& profile, int channels, RowSink& sink);

    void begin(const StripPlan& plan) override;
    std::uint16_t* row(int y) override;
    Status finish(const Band& band) override;
    void end(const StepTimes& spent) override { sink_.end(spent); }

    // Memory for a plan of such bands.
    static std::size_t bytes(const Rect& region, Size to, int channels, int band_rows);

  private:
    // What one pixel is made from: the first of the pixels before, and their weights, which add up to one.
    struct Weights {
        int first = 0;
        std::vector<float> of;
    };
    static std::vector<Weights> weights(int from, int to);

    Rect region_;
    Size to_;
    int channels_;
    RowSink& sink_;
    std::shared_ptr<const LightThere> light_;
    std::vector<Weights> across_, down_;
    int held_ = 0;         // rows of the region
    int held_narrow_ = 0;  // rows that were made narrower
    int next_in_, next_out_ = 0;
    std::vector<std::uint16_t> rows_;
    std::vector<float> narrow_;
};

// All of a picture at once; as it is when it has that size.
Result<Raster16> reduced(const Raster16& picture, Size to, const Profile& profile);

}  // namespace bp
