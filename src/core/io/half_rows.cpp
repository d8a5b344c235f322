// TIFF of floats of 16 bits (IEEE 754 binary16), which libvips does not read.
#include <tiffio.h>

#include <algorithm>
#include <array>
#include <bit>
#include <cstdio>
#include <optional>
#include <vector>

#include "io/readers.h"

namespace bp::io {
namespace {

struct CloseTiff {
    void operator()(TIFF* tiff) const { TIFFClose(tiff); }
};

// The library's view of a file that is not held open.
struct Cursor {
    FileBytes bytes;
    std::uint64_t at = 0;
};
tmsize_t read_some(thandle_t handle, void* to, tmsize_t count) {
    auto& cursor = *static_cast<Cursor*>(handle);
    const Result<std::size_t> got =
        cursor.bytes.read(cursor.at, {static_cast<std::uint8_t*>(to), std::size_t(std::max<tmsize_t>(0, count))});
    if (!got.ok()) return -1;
    cursor.at += got.value();
    return tmsize_t(got.value());
}
tmsize_t write_nothing(thandle_t, void*, tmsize_t) {
    return -1;
}
toff_t seek_to(thandle_t handle, toff_t by, int whence) {
    auto& cursor = *static_cast<Cursor*>(handle);
    const std::uint64_t from = whence == SEEK_CUR ? cursor.at : whence == SEEK_END ? cursor.bytes.size() : 0;
    return cursor.at = from + by;
}
int close_nothing(thandle_t) {
    return 0;
}
toff_t size_of(thandle_t handle) {
    return static_cast<Cursor*>(handle)->bytes.size();
}

float from_half(std::uint16_t half) {
    const std::uint32_t sign = std::uint32_t(half & 0x8000U) << 16, exponent = half >> 10 & 31U, rest = half & 1023U;
    // Below the smallest that is written in full: so many parts of 2^24.
    if (exponent == 0) return (sign != 0 ? -1.0F : 1.0F) * float(rest) / 16777216.0F;
    const std::uint32_t wide = exponent == 31 ? 255 : exponent + 112;
    return std::bit_cast<float>(sign | wide << 23 | rest << 13);
}

class HalfRows final : public RowReader {
  public:
    HalfRows(const FileBytes& bytes, int stops)
        : cursor_{bytes},
          stops_(stops),
          tiff_(TIFFClientOpen(bytes.file().c_str(), "rm", &cursor_, read_some, write_nothing, seek_to, close_nothing,
                               size_of, nullptr, nullptr)) {}

    bool holds_halves() const {
        std::uint16_t bits = 0, format = 0;
        return tiff_ && TIFFGetField(tiff_.get(), TIFFTAG_BITSPERSAMPLE, &bits) == 1 && bits == 16 &&
               TIFFGetField(tiff_.get(), TIFFTAG_SAMPLEFORMAT, &format) == 1 && format == SAMPLEFORMAT_IEEEFP;
    }
    Orientation orientation() const {
        std::uint16_t tag = 1;
        TIFFGetFieldDefaulted(tiff_.get(), TIFFTAG_ORIENTATION, &tag);
        return tag >= 1 && tag <= 8 ? Orientation(tag) : Orientation::upright;
    }
    Status start() {
        std::uint32_t width = 0, height = 0;
        std::uint16_t samples = 1, planes = PLANARCONFIG_CONTIG, meaning = PHOTOMETRIC_MINISBLACK;
        TIFFGetField(tiff_.get(), TIFFTAG_IMAGEWIDTH, &width);
        TIFFGetField(tiff_.get(), TIFFTAG_IMAGELENGTH, &height);
        TIFFGetFieldDefaulted(tiff_.get(), TIFFTAG_SAMPLESPERPIXEL, &samples);
        TIFFGetFieldDefaulted(tiff_.get(), TIFFTAG_PLANARCONFIG, &planes);
        TIFFGetField(tiff_.get(), TIFFTAG_PHOTOMETRIC, &meaning);
        const bool grey = meaning == PHOTOMETRIC_MINISBLACK && samples <= 2;
        const bool rgb = meaning == PHOTOMETRIC_RGB && (samples == 3 || samples == 4);
        samples_ = samples;
        if ((!grey && !rgb) || !plan_blocks({width, height}, planes == PLANARCONFIG_SEPARATE))
            return refuse(cursor_.bytes.file(),
                          "%1 holds floats of 16 bits in a way that cannot be read here. Save it as 16-bit TIFF.");
        facts_.size = size_ = {int(width), int(height)};
        facts_.bits = bits_ = 16;
        facts_.beyond_white = true;
        facts_.channels = grey ? 1 : 3;
        return Done{};
    }

    Status read(std::span<std::uint8_t* const> rows) override {
        const SamplesOfFloats sample(facts_.channels, stops_);
        for (std::uint8_t* row : rows) {
            const std::uint16_t* halves = next_row();
            if (!halves) return unreadable(cursor_.bytes);
            auto* to = reinterpret_cast<std::uint16_t*>(row);
            for (int x = 0; x < size_.width; ++x)
                for (int c = 0; c < facts_.channels; ++c)
                    *to++ = sample(from_half(halves[std::size_t(x) * samples_ + std::size_t(c)]));
        }
        return Done{};
    }
    std::size_t memory_bytes() const override {
        const std::size_t rows = blocks_ ? std::size_t(blocks_->height) * (blocks_->tiled ? 2 : 1) : 1;
        return rows * row_halves() * 2 + (std::size_t(1) << 20);
    }

  private:
    // How the file is divided where its rows do not simply follow each other.
    struct Blocks {
        int width, height;
        bool tiled;
        bool apart;  // each sample of a pixel in blocks of its own
        std::size_t bytes;
    };

    std::size_t row_halves() const { return std::size_t(size_.width) * samples_; }

    // False for what is out of all proportion.
    bool plan_blocks(const std::array<std::uint32_t, 2>& size, bool apart) {
        const bool tiled = TIFFIsTiled(tiff_.get()) != 0;
        if (!tiled && !apart) return true;
        std::uint32_t wide = size[0], high = size[1];
        if (tiled) {
            TIFFGetField(tiff_.get(), TIFFTAG_TILEWIDTH, &wide);
            TIFFGetField(tiff_.get(), TIFFTAG_TILELENGTH, &high);
        } else {
            TIFFGetFieldDefaulted(tiff_.get(), TIFFTAG_ROWSPERSTRIP, &high);
            high = std::min(high, size[1]);
        }
        const tmsize_t bytes = tiled ? TIFFTileSize(tiff_.get()) : TIFFStripSize(tiff_.get());
        constexpr std::uint64_t most = std::uint64_t(1) << 30;
        const std::uint64_t needed = std::uint64_t(wide) * high * (apart ? 1 : samples_) * 2;
        if (wide == 0 || high == 0 || bytes <= 0 || std::uint64_t(bytes) < needed || std::uint64_t(bytes) > most)
            return false;
        blocks_ = {int(wide), int(high), tiled, apart, std::size_t(bytes)};
        return true;
    }
    // Null when it cannot be read.
    const std::uint16_t* next_row() {
        const int y = next_++;
        if (!blocks_) {
            halves_.resize(std::size_t(TIFFScanlineSize(tiff_.get())) / 2 + 1);
            return TIFFReadScanline(tiff_.get(), halves_.data(), std::uint32_t(y)) == 1 ? halves_.data() : nullptr;
        }
        const int within = y % blocks_->height;
        if (within == 0 && !read_blocks(y)) return nullptr;
        return halves_.data() + std::size_t(within) * row_halves();
    }
    // All blocks side by side whose first row is `top`.
    bool read_blocks(int top) {
        const int height = std::min(blocks_->height, size_.height - top);
        halves_.resize(std::size_t(height) * row_halves());
        block_.resize(blocks_->bytes / 2 + 1);
        const int planes = blocks_->apart ? int(samples_) : 1;
        const std::size_t together = blocks_->apart ? 1 : samples_;  // samples of a pixel in a block
        for (int plane = 0; plane < planes; ++plane)
            for (int left = 0; left < size_.width; left += blocks_->width) {
                if (!read_block(left, top, height, plane)) return false;
                const int width = std::min(blocks_->width, size_.width - left);
                for (int y = 0; y < height; ++y) {
                    const std::uint16_t* from = block_.data() + std::size_t(y) * std::size_t(blocks_->width) * together;
                    std::uint16_t* to = halves_.data() + std::size_t(y) * row_halves() + std::size_t(left) * samples_;
                    for (int x = 0; x < width; ++x)
                        for (std::size_t s = 0; s < together; ++s)
                            to[std::size_t(x) * samples_ + std::size_t(plane) + s] =
                                from[std::size_t(x) * together + s];
                }
            }
        return true;
    }
    // A strip at the end is as high as what is left; a tile is always whole.
    bool read_block(int left, int top, int height, int plane) {
        const std::size_t row = std::size_t(blocks_->width) * (blocks_->apart ? 1 : samples_) * 2;
        const tmsize_t needed = tmsize_t(row) * (blocks_->tiled ? blocks_->height : height);
        const tmsize_t got =
            blocks_->tiled
                ? TIFFReadEncodedTile(
                      tiff_.get(),
                      TIFFComputeTile(tiff_.get(), std::uint32_t(left), std::uint32_t(top), 0, std::uint16_t(plane)),
                      block_.data(), tmsize_t(blocks_->bytes))
                : TIFFReadEncodedStrip(tiff_.get(),
                                       TIFFComputeStrip(tiff_.get(), std::uint32_t(top), std::uint16_t(plane)),
                                       block_.data(), tmsize_t(blocks_->bytes));
        return got >= needed;
    }

    Cursor cursor_;
    int stops_;
    std::unique_ptr<TIFF, CloseTiff> tiff_;
    std::size_t samples_ = 1;
    std::optional<Blocks> blocks_;
    std::vector<std::uint16_t> halves_;  // a row, or those of blocks side by side
    std::vector<std::uint16_t> block_;
};

}  // namespace

Result<Halves> half_rows(const FileBytes& bytes, int stops) {
    std::array<std::uint8_t, 4> first{};
    const Result<std::size_t> got = bytes.read(0, first);
    if (!got.ok() || got.value() != first.size()) return Halves{};
    const bool little = first[0] == 'I' && first[1] == 'I' && first[3] == 0;
    const bool big = first[0] == 'M' && first[1] == 'M' && first[2] == 0;
    if (!little && !big) return Halves{};
    TIFFSetErrorHandler(nullptr);
    TIFFSetWarningHandler(nullptr);
    auto rows = std::make_unique<HalfRows>(bytes, stops);
    if (!rows->holds_halves()) return Halves{};
    if (Status started = rows->start(); !started.ok()) return started.failure();
    const Orientation orientation = rows->orientation();
    return Halves{std::move(rows), orientation};
}

}  // namespace bp::io
