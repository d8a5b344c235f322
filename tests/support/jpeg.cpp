#include "support/jpeg.h"

#include <cstdio>
// after <cstdio>, which it needs
#include <jpeglib.h>

#include <array>
#include <stdexcept>

namespace bp::test {
namespace {

J_COLOR_SPACE space_of(Stored stored) {
    switch (stored) {
        case Stored::ycc:
            return JCS_YCbCr;
        case Stored::rgb:
            return JCS_RGB;
        case Stored::grey:
            return JCS_GRAYSCALE;
        case Stored::four_inks:
            return JCS_CMYK;
    }
    return JCS_UNKNOWN;
}

}  // namespace

void write_jpeg(const fs::path& path, const Raster16& picture, Scans scans, Stored stored, int orientation) {
    std::FILE* file = std::fopen(path.c_str(), "wb");
    if (!file) throw std::runtime_error("cannot write " + path.string());
    jpeg_compress_struct info;
    jpeg_error_mgr errors;
    info.err = jpeg_std_error(&errors);
    jpeg_create_compress(&info);
    jpeg_stdio_dest(&info, file);
    const bool inks = stored == Stored::four_inks;
    info.image_width = JDIMENSION(picture.width());
    info.image_height = JDIMENSION(picture.height());
    info.input_components = inks ? 4 : picture.channels();
    info.in_color_space = inks ? JCS_CMYK : picture.channels() == 1 ? JCS_GRAYSCALE : JCS_RGB;
    jpeg_set_defaults(&info);
    jpeg_set_colorspace(&info, space_of(stored));
    jpeg_set_quality(&info, 90, TRUE);
    if (scans == Scans::many) jpeg_simple_progression(&info);
    jpeg_start_compress(&info, TRUE);
    if (orientation != 1) {
        // A directory of one entry: tag 274, a short, one value.
        const std::array<JOCTET, 32> exif{'E', 'x', 'i', 'f', 0,  0, 'M', 'M', 0, 42, 0, 0, 0,
                                          8,   0,   1,   1,   18, 0, 3,   0,   0, 0,  1, 0, JOCTET(orientation)};
        jpeg_write_marker(&info, JPEG_APP0 + 1, exif.data(), unsigned(exif.size()));
    }
    std::vector<JSAMPLE> row(std::size_t(picture.width()) * std::size_t(info.input_components), 90);
    for (int y = 0; y < picture.height(); ++y) {
        if (!inks)
            for (std::size_t i = 0; i < row.size(); ++i) row[i] = JSAMPLE(picture.row(y)[i] / 257);
        JSAMPROW pointer = row.data();
        jpeg_write_scanlines(&info, &pointer, 1);
    }
    jpeg_finish_compress(&info);
    jpeg_destroy_compress(&info);
    std::fclose(file);
}

}  // namespace bp::test
