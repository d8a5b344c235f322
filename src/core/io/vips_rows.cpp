#include <cmath>
#include <cstring>

#include "io/readers.h"

namespace bp::io {
namespace {

class VipsRows final : public RowReader {
  public:
    VipsRows(FileBytes bytes, Image image, PictureFacts facts, bool whole, int stops)
        : bytes_(std::move(bytes)),
          image_(std::move(image)),
          bands_(vips_image_get_bands(image_.get())),
          whole_(whole),
          samples_(facts.channels, stops) {
        facts_ = std::move(facts);
        bits_ = facts_.bits;
        size_ = {vips_image_get_width(image_.get()), vips_image_get_height(image_.get())};
    }

    Status read(std::span<std::uint8_t* const> rows) override {
        // A region belongs to the thread that made it, and readers move between threads: one a call.
        const Region region(vips_region_new(image_.get()));
        const VipsRect area{0, next_, size_.width, int(rows.size())};
        if (!region || vips_region_prepare(region.get(), &area) != 0) return unreadable(bytes_);
        for (std::uint8_t* row : rows) take(VIPS_REGION_ADDR(region.get(), 0, next_++), row);
        return Done{};
    }

    bool whole() const override { return whole_; }
    // The library's cache of rows behind a sequential source.
    std::size_t memory_bytes() const override {
        constexpr std::size_t rows_held = 300;
        return (rows_held + (whole_ ? std::size_t(size_.height) : 0)) * std::size_t(size_.width) * std::size_t(bands_) *
               (facts_.beyond_white ? sizeof(float) : std::size_t(bits_ / 8));
    }

  private:
    // Leaves out what follows the colours of a pixel.
    void take(const VipsPel* in, std::uint8_t* out) const {
        if (facts_.beyond_white) {
            const auto* light = reinterpret_cast<const float*>(in);
            auto* to = reinterpret_cast<std::uint16_t*>(out);
            for (int x = 0; x < size_.width; ++x, light += bands_)
                for (int c = 0; c < facts_.channels; ++c) *to++ = samples_(light[c]);
            return;
        }
        if (bands_ == facts_.channels) {
            std::memcpy(out, in, row_bytes());
            return;
        }
        const std::size_t sample = std::size_t(bits_) / 8;
        const std::size_t pixel = std::size_t(facts_.channels) * sample;
        for (int x = 0; x < size_.width; ++x, in += std::size_t(bands_) * sample, out += pixel)
            std::memcpy(out, in, pixel);
    }

    FileBytes bytes_;
    Image image_;
    int bands_;
    bool whole_;
    SamplesOfFloats samples_;
};

}  // namespace

SamplesOfFloats::SamplesOfFloats(int channels, int stops)
    : curve_(LightCurve::of(Profile::srgb(), channels)), white_(std::ldexp(double(LightCurve::full), -stops)) {}

std::unique_ptr<RowReader> vips_rows(const FileBytes& bytes, Image image, PictureFacts facts, bool whole, int stops) {
    return std::make_unique<VipsRows>(bytes, std::move(image), std::move(facts), whole, stops);
}

}  // namespace bp::io
