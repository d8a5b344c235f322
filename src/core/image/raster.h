// A rectangle of samples in memory.
#pragma once

#include <cstddef>
#include <cstdint>
#include <memory>

#include "base/raw_vector.h"
#include "image/geometry.h"

namespace bp {

// For a raster of which every sample is written before it is read.
struct Unset {};

// Rows from top to bottom without padding; the channels of a pixel stand together (1: grey, 3: red, green, blue).
// Move-only, because a raster may be hundreds of megabytes: a copy is asked for by clone().
template <class T>
class Raster {
  public:
    Raster() = default;
    // All 0.
    Raster(Size size, int channels) : size_(size), channels_(channels), data_(samples(size, channels), T{}) {}
    Raster(Size size, int channels, Unset) : size_(size), channels_(channels), data_(samples(size, channels)) {}
    Raster(Raster&&) noexcept = default;
    Raster& operator=(Raster&&) noexcept = default;
    Raster(const Raster&) = delete;
    Raster& operator=(const Raster&) = delete;

    Raster clone() const {
        Raster out;
        out.size_ = size_;
        out.channels_ = channels_;
        out.data_ = data_;
        return out;
    }

    Size size() const { return size_; }
    int width() const { return size_.width; }
    int height() const { return size_.height; }
    int channels() const { return channels_; }
    int row_samples() const { return size_.width * channels_; }
    std::size_t bytes() const { return data_.size() * sizeof(T); }
    bool empty() const { return data_.empty(); }

    T* row(int y) { return data_.data() + std::size_t(y) * std::size_t(row_samples()); }
    const T* row(int y) const { return data_.data() + std::size_t(y) * std::size_t(row_samples()); }
    T& at(int x, int y, int c) { return row(y)[x * channels_ + c]; }
    const T& at(int x, int y, int c) const { return row(y)[x * channels_ + c]; }
    RawVector<T>& data() { return data_; }
    const RawVector<T>& data() const { return data_; }

  private:
    static std::size_t samples(Size size, int channels) {
        return std::size_t(size.width) * std::size_t(size.height) * std::size_t(channels);
    }

    Size size_;
    int channels_ = 1;
    RawVector<T> data_;
};

using Raster8 = Raster<std::uint8_t>;
using Raster16 = Raster<std::uint16_t>;
using RasterF = Raster<float>;
using SharedRaster = std::shared_ptr<const Raster16>;

}  // namespace bp
