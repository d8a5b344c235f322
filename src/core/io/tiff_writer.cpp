// libtiff without a library in between: capture data can be written without the whole file being copied in memory, and
// rows go straight to the disk. Uncompressed, because compressing 16-bit samples with noise takes longer than decoding
// a frame and saves little.
#include <tiffio.h>

#include <array>

#include "base/output.h"
#include "io/tiff_capture.h"
#include "io/writers.h"

namespace bp::io {
namespace {

Output& output_of(thandle_t handle) {
    return *static_cast<Output*>(handle);
}

tmsize_t on_write(thandle_t handle, void* bytes, tmsize_t count) {
    return output_of(handle).write(bytes, count);
}

tmsize_t on_read(thandle_t handle, void* bytes, tmsize_t count) {
    return ::read(output_of(handle).fd, bytes, std::size_t(count));
}

toff_t on_seek(thandle_t handle, toff_t offset, int whence) {
    return toff_t(::lseek(output_of(handle).fd, off_t(offset), whence));
}

toff_t on_size(thandle_t handle) {
    const off_t at = ::lseek(output_of(handle).fd, 0, SEEK_CUR);
    const off_t end = ::lseek(output_of(handle).fd, 0, SEEK_END);
    ::lseek(output_of(handle).fd, at, SEEK_SET);
    return toff_t(end);
}

struct Close {
    void operator()(TIFF* tiff) const { TIFFClose(tiff); }
};

class TiffWriter final : public RowWriter {
  public:
    TiffWriter(const std::filesystem::path& file, const PictureHead& head, int bits)
        : file_(file), head_(head), bits_(bits), output_(file) {}

    Status start() {
        if (output_.fd < 0) return broken();
        // Classic TIFF counts bytes in 32 bits.
        constexpr double classic_limit = 4.0e9;
        const double bytes = double(head_.size.width) * head_.size.height * head_.channels * bits_ / 8;
        tiff_.reset(TIFFClientOpen(
            file_.c_str(), bytes > classic_limit ? "w8m" : "wm", &output_, on_read, on_write, on_seek,
            [](thandle_t) { return 0; }, on_size, [](thandle_t, void**, toff_t*) { return 0; },
            [](thandle_t, void*, toff_t) {}));
        if (!tiff_) return broken();
        TIFF* t = tiff_.get();
        TIFFSetField(t, TIFFTAG_IMAGEWIDTH, std::uint32_t(head_.size.width));
        TIFFSetField(t, TIFFTAG_IMAGELENGTH, std::uint32_t(head_.size.height));
        TIFFSetField(t, TIFFTAG_SAMPLESPERPIXEL, std::uint16_t(head_.channels));
        TIFFSetField(t, TIFFTAG_BITSPERSAMPLE, std::uint16_t(bits_));
        TIFFSetField(t, TIFFTAG_PHOTOMETRIC, head_.channels == 1 ? PHOTOMETRIC_MINISBLACK : PHOTOMETRIC_RGB);
        TIFFSetField(t, TIFFTAG_PLANARCONFIG, PLANARCONFIG_CONTIG);
        TIFFSetField(t, TIFFTAG_COMPRESSION, COMPRESSION_NONE);
        TIFFSetField(t, TIFFTAG_ORIENTATION, ORIENTATION_TOPLEFT);
        TIFFSetField(t, TIFFTAG_ROWSPERSTRIP, rows_per_strip());
        TIFFSetField(t, TIFFTAG_SOFTWARE, "Bright Pile " BRIGHT_PILE_VERSION);
        if (head_.dpi > 0) {
            TIFFSetField(t, TIFFTAG_XRESOLUTION, head_.dpi);
            TIFFSetField(t, TIFFTAG_YRESOLUTION, head_.dpi);
            TIFFSetField(t, TIFFTAG_RESOLUTIONUNIT, RESUNIT_INCH);
        }
        if (!head_.capture.made_of.empty()) TIFFSetField(t, TIFFTAG_IMAGEDESCRIPTION, head_.capture.made_of.c_str());
        if (!head_.capture.camera.empty()) TIFFSetField(t, TIFFTAG_MODEL, head_.capture.camera.c_str());
        if (!head_.profile.is_srgb() || head_.channels == 3) {
            const std::vector<std::uint8_t> icc = head_.profile.bytes();
            TIFFSetField(t, TIFFTAG_ICCPROFILE, std::uint32_t(icc.size()), icc.data());
        }
        return Done{};
    }

    Status write(std::span<const std::uint16_t* const> rows) override {
        const std::size_t samples = std::size_t(head_.size.width) * std::size_t(head_.channels);
        for (const std::uint16_t* row : rows) {
            // The library takes what is not const, and only reads it in the machine's own byte order.
            void* bytes = const_cast<std::uint16_t*>(row);
            if (bits_ == 8) {
                narrow_ = to_8_bit({row, samples});
                bytes = narrow_.data();
            }
            if (TIFFWriteScanline(tiff_.get(), bytes, next_++, 0) != 1) return broken();
        }
        return Done{};
    }

    Status finish() override {
        TIFF* t = tiff_.get();
        const bool well = write_with_capture(t, head_.capture);
        tiff_.reset();
        if (!well || output_.error != 0) return broken();
        return Done{};
    }

  private:
    std::uint32_t rows_per_strip() const {
        constexpr std::size_t strip_bytes = std::size_t(256) << 10;
        const std::size_t row = std::size_t(head_.size.width) * std::size_t(head_.channels * bits_ / 8);
        return std::uint32_t(std::max<std::size_t>(1, strip_bytes / row));
    }

    Failure broken() const { return output_.failure(file_, "the TIFF library refuses it"); }

    std::filesystem::path file_;
    PictureHead head_;
    int bits_;
    Output output_;
    std::unique_ptr<TIFF, Close> tiff_;
    std::uint32_t next_ = 0;
    std::vector<std::uint8_t> narrow_;
};

}  // namespace

Result<std::unique_ptr<RowWriter>> tiff_writer(const std::filesystem::path& file, const PictureHead& head, int bits) {
    static const bool quiet = [] {
        TIFFSetErrorHandler(nullptr);
        TIFFSetWarningHandler(nullptr);
        return true;
    }();
    (void)quiet;
    auto writer = std::make_unique<TiffWriter>(file, head, bits);
    Status started = writer->start();
    if (!started.ok()) return started.failure();
    std::unique_ptr<RowWriter> out = std::move(writer);
    return out;
}

}  // namespace bp::io
