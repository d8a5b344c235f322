// A picture made smaller on its way to a file.
#pragma once

#include "engine/light_there.h"
#include "engine/picture.h"

namespace bp {

// The size of a picture whose longer side becomes so many pixels; as it is when that is no less, or 0.
Size reduced_size(Size from, int long_edge_px);

// Rows made smaller as they come, in linear light, by a sinc of three lobes as wide as so many pixels become one, down
// and then across. The border of the picture goes on beyond it.
class Reduction {
  public:
    using RowIn = std::function<const std::uint16_t*(int y)>;
    using RowOut = std::function<std::uint16_t*(int y)>;

    Reduction(Size from, Size to, const Profile& profile, int channels);
    // The next rows; gives those that are made of them and of what came before, in order. Spread over the cores.
    Band add(const Band& rows, const RowIn& row_in, const RowOut& row_out);

    static std::size_t bytes(Size from, Size to, int channels);

  private:
    static constexpr int rows_at_once = 32;
    // What each pixel is made from: the first of as many pixels before, and their weights, which add up to one.
    struct Weights {
        std::vector<int> first;
        std::vector<float> of;
        std::size_t count = 0;  // for each
        std::span<const float> at(int i) const { return {of.data() + std::size_t(i) * count, count}; }
    };
    static std::size_t pixels_for_one(int from, int to);
    static Weights weights(int from, int to);
    std::size_t row_samples() const { return std::size_t(from_.width) * std::size_t(channels_); }
    float* light_row(int y) { return rows_.data() + std::size_t(y % held_) * (row_samples() + 1); }
    void make_row(int y, std::uint16_t* out);
    void narrow(const float* light, float* out) const;

    Size from_, to_;
    int channels_;
    std::shared_ptr<const LightThere> light_;
    Weights across_, down_;
    int held_;  // rows of light
    std::vector<float> rows_;
    int next_out_ = 0;
};

// Rows of a region made smaller, and handed on as rows of a picture that begins at (0, 0).
class Reducer final : public RowSink {
  public:
    Reducer(const Rect& region, Size to, const Profile& profile, int channels, RowSink& sink)
        : region_(region),
          to_(to),
          channels_(channels),
          sink_(sink),
          reduction_(region.size(), to, profile, channels) {}

    void begin(const StripPlan& plan) override;
    std::uint16_t* row(int y) override;
    Status finish(const Band& band) override;
    void end(const StepTimes& spent) override { sink_.end(spent); }

    // Memory for a plan of such bands.
    static std::size_t bytes(const Rect& region, Size to, int channels, int band_rows);

  private:
    Rect region_;
    Size to_;
    int channels_;
    RowSink& sink_;
    Reduction reduction_;
    int held_ = 0;
    std::vector<std::uint16_t> rows_;
};

// All of a picture at once; as it is when it has that size.
Raster16 reduced(const Raster16& picture, Size to, const Profile& profile);

}  // namespace bp
