// A picture made smaller on its way to a file.
#pragma once

#include "base/line_vector.h"
#include "engine/light_there.h"
#include "engine/picture.h"
#include "kernels/reduce.h"

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
    // The next rows; gives those that are made of them and of what came before, in order. After the last row another
    // picture may come. Spread over the cores.
    Band add(const Band& rows, const RowIn& row_in, const RowOut& row_out);

    // A picture of that size, whole.
    Raster16 all(const Raster16& picture);

    static std::size_t bytes(Size from, Size to, int channels);

  private:
    static constexpr int rows_at_once = 16;
    // Columns that go their own way, so that their light stays in the nearest caches.
    struct Strip {
        int first = 0, columns = 0;    // made
        int left = 0, pixels = 0;      // of what is made from
        LineVector<float> light = {};  // held_ rows
    };
    const float* light_row(const Strip& strip, int y) const { return strip.light.data() + offset(strip, y); }
    float* light_row(Strip& strip, int y) const { return strip.light.data() + offset(strip, y); }
    std::size_t offset(const Strip& strip, int y) const { return std::size_t(y % held_) * pitch(strip.pixels); }
    std::size_t pitch(int pixels) const {
        constexpr std::size_t of = kernels::reduced_padding;
        return (std::size_t(pixels) * std::size_t(channels_) + of - 1) / of * of;
    }
    static std::size_t pixels_for_one(int from, int to);
    static int columns_of_strip(int from, int to);
    static std::size_t rows_held(int from, int to);
    static kernels::Taps taps(int from, int to);
    // One past the last row that can be made when the rows before `end` are there and those before `made` are made.
    int made_before(int end, int made) const;
    void make(const Strip& strip, const Band& rows, std::span<std::uint16_t* const> out) const;

    Size from_, to_;
    int channels_;
    std::shared_ptr<const LightThere> light_;
    kernels::Taps across_, down_;
    int held_;
    std::vector<Strip> strips_;
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
