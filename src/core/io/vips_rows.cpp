#include <cstring>

#include "io/readers.h"

namespace bp::io {
namespace {

class VipsRows final : public RowReader {
  public:
    VipsRows(FileBytes bytes, Image image, PictureFacts facts, bool whole)
        : bytes_(std::move(bytes)),
          image_(std::move(image)),
          bands_(vips_image_get_bands(image_.get())),
          whole_(whole) {
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
               std::size_t(bits_ / 8);
    }

  private:
    // Leaves out what follows the colours of a pixel.
    void take(const VipsPel* in, std::uint8_t* out) const {
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
};

}  // namespace

std::unique_ptr<RowReader> vips_rows(const FileBytes& bytes, Image image, PictureFacts facts, bool whole) {
    return std::make_unique<VipsRows>(bytes, std::move(image), std::move(facts), whole);
}

}  // namespace bp::io
