#include "practice/dng.h"

#include <tiffio.h>

#include <memory>

#include "base/files.h"
#include "io/tiff_capture.h"

namespace bp::practice {
namespace {

struct Close {
    void operator()(TIFF* tiff) const { TIFFClose(tiff); }
};

bool put_head(TIFF* t, Size size, const CaptureData& capture, const std::array<double, 3>& white_seen) {
    constexpr std::array<std::uint8_t, 4> version{1, 4, 0, 0};
    constexpr std::array<std::uint8_t, 4> backward{1, 1, 0, 0};
    constexpr std::array<std::uint16_t, 2> repeat{2, 2};
    constexpr std::array<std::uint8_t, 4> pattern{0, 1, 1, 2};
    const std::array<float, 3> neutral{float(white_seen[0]), float(white_seen[1]), float(white_seen[2])};
    // From XYZ to the sensor's colours: to linear sRGB (IEC 61966-2-1), then through the filters.
    constexpr std::array<double, 9> to_srgb{3.2406, -1.5372, -0.4986, -0.9689, 1.8758, 0.0415, 0.0557, -0.2040, 1.0570};
    std::array<float, 9> matrix{};
    for (std::size_t i = 0; i < 9; ++i) matrix[i] = float(to_srgb[i] * Sensor::neutral[i / 3]);
    constexpr float black = Sensor::black;
    constexpr std::uint32_t white = Sensor::white;
    constexpr std::uint16_t daylight_65 = 21;
    constexpr std::array<std::uint16_t, 2> black_repeat{1, 1};
    return TIFFSetField(t, TIFFTAG_SUBFILETYPE, 0) && TIFFSetField(t, TIFFTAG_IMAGEWIDTH, std::uint32_t(size.width)) &&
           TIFFSetField(t, TIFFTAG_IMAGELENGTH, std::uint32_t(size.height)) &&
           TIFFSetField(t, TIFFTAG_SAMPLESPERPIXEL, std::uint16_t(1)) &&
           TIFFSetField(t, TIFFTAG_BITSPERSAMPLE, std::uint16_t(16)) &&
           TIFFSetField(t, TIFFTAG_PHOTOMETRIC, PHOTOMETRIC_CFA) &&
           TIFFSetField(t, TIFFTAG_PLANARCONFIG, PLANARCONFIG_CONTIG) &&
           TIFFSetField(t, TIFFTAG_COMPRESSION, COMPRESSION_NONE) &&
           TIFFSetField(t, TIFFTAG_ORIENTATION, ORIENTATION_TOPLEFT) &&
           TIFFSetField(t, TIFFTAG_ROWSPERSTRIP, std::uint32_t(size.height)) &&
           TIFFSetField(t, TIFFTAG_MAKE, "Skerrow") && TIFFSetField(t, TIFFTAG_MODEL, capture.camera.c_str()) &&
           TIFFSetField(t, TIFFTAG_UNIQUECAMERAMODEL, capture.camera.c_str()) &&
           TIFFSetField(t, TIFFTAG_DNGVERSION, version.data()) &&
           TIFFSetField(t, TIFFTAG_DNGBACKWARDVERSION, backward.data()) &&
           TIFFSetField(t, TIFFTAG_CFAREPEATPATTERNDIM, repeat.data()) &&
           TIFFSetField(t, TIFFTAG_CFAPATTERN, 4, pattern.data()) &&
           TIFFSetField(t, TIFFTAG_BLACKLEVELREPEATDIM, black_repeat.data()) &&
           TIFFSetField(t, TIFFTAG_BLACKLEVEL, 1, &black) && TIFFSetField(t, TIFFTAG_WHITELEVEL, 1, &white) &&
           TIFFSetField(t, TIFFTAG_COLORMATRIX1, 9, matrix.data()) &&
           TIFFSetField(t, TIFFTAG_ASSHOTNEUTRAL, 3, neutral.data()) &&
           TIFFSetField(t, TIFFTAG_CALIBRATIONILLUMINANT1, daylight_65);
}

}  // namespace

Status write_dng(const std::filesystem::path& file, const Raster16& mosaic, const CaptureData& capture,
                 const std::array<double, 3>& neutral) {
    const auto fill = [&](const std::filesystem::path& beside) -> Status {
        const Failure failed{Fault::output, beside.string(), "the TIFF library refuses it"};
        const std::unique_ptr<TIFF, Close> tiff(TIFFOpen(beside.c_str(), "w"));
        if (!tiff || !put_head(tiff.get(), mosaic.size(), capture, neutral)) return failed;
        for (int y = 0; y < mosaic.height(); ++y) {
            // The library takes what is not const, and only reads it.
            void* row = const_cast<std::uint16_t*>(mosaic.row(y));
            if (TIFFWriteScanline(tiff.get(), row, std::uint32_t(y), 0) != 1) return failed;
        }
        return io::write_with_capture(tiff.get(), capture) ? Status(Done{}) : Status(failed);
    };
    return write_whole(file, fill, Sync::no);
}

}  // namespace bp::practice
