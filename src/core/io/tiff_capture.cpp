#include "io/tiff_capture.h"

#include <algorithm>

namespace bp::io {
namespace {

void put(TIFF* t, const CaptureData& c) {
    if (c.captured) {
        const CaptureTime time = capture_time(*c.captured);
        TIFFSetField(t, EXIFTAG_DATETIMEORIGINAL, time.date.c_str());
        TIFFSetField(t, EXIFTAG_SUBSECTIMEORIGINAL, time.fraction.c_str());
    }
    if (c.exposure_s) TIFFSetField(t, EXIFTAG_EXPOSURETIME, *c.exposure_s);
    if (c.aperture) TIFFSetField(t, EXIFTAG_FNUMBER, *c.aperture);
    if (c.focal_mm) TIFFSetField(t, EXIFTAG_FOCALLENGTH, *c.focal_mm);
    if (c.iso) {
        const auto iso = std::uint16_t(std::min(65535.0, *c.iso));
        TIFFSetField(t, EXIFTAG_ISOSPEEDRATINGS, 1, &iso);
    }
}

}  // namespace

bool write_with_capture(TIFF* tiff, const CaptureData& capture) {
    const CaptureData& c = capture;
    if (TIFFWriteDirectory(tiff) != 1) return false;
    // An empty directory of capture data would be refused.
    if (!(c.captured || c.exposure_s || c.aperture || c.focal_mm || c.iso)) return true;
    // The directory of the picture is written once more, with the place of the one that it refers to.
    std::uint64_t place = 0;
    if (TIFFCreateEXIFDirectory(tiff) != 0) return false;
    put(tiff, c);
    return TIFFWriteCustomDirectory(tiff, &place) == 1 && TIFFSetDirectory(tiff, 0) == 1 &&
           TIFFSetField(tiff, TIFFTAG_EXIFIFD, place) == 1 && TIFFRewriteDirectory(tiff) == 1;
}

}  // namespace bp::io
