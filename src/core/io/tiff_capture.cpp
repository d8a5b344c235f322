#include "io/tiff_capture.h"

#include <algorithm>
#include <array>
#include <cmath>

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
    if (!c.lens.empty()) TIFFSetField(t, EXIFTAG_LENSMODEL, c.lens.c_str());
    if (!c.serial.empty()) TIFFSetField(t, EXIFTAG_BODYSERIALNUMBER, c.serial.c_str());
    if (c.frames > 1) {
        constexpr std::uint16_t captured_together = 3;
        const auto count = std::uint16_t(std::min(65535, c.frames));
        const std::uint16_t of_all[] = {count, count};
        TIFFSetField(t, EXIFTAG_COMPOSITEIMAGE, captured_together);
        TIFFSetField(t, EXIFTAG_SOURCEIMAGENUMBEROFCOMPOSITEIMAGE, of_all);
    }
}

void put(TIFF* t, const Whereabouts& where) {
    const std::uint8_t version[] = {2, 3, 0, 0};
    TIFFSetField(t, GPSTAG_VERSIONID, version);
    const std::array<double, 3> north = in_minutes(std::abs(where.north)), east = in_minutes(std::abs(where.east));
    TIFFSetField(t, GPSTAG_LATITUDEREF, where.north < 0 ? "S" : "N");
    TIFFSetField(t, GPSTAG_LATITUDE, north.data());
    TIFFSetField(t, GPSTAG_LONGITUDEREF, where.east < 0 ? "W" : "E");
    TIFFSetField(t, GPSTAG_LONGITUDE, east.data());
    if (!where.above_m) return;
    TIFFSetField(t, GPSTAG_ALTITUDEREF, std::uint8_t(*where.above_m < 0 ? 1 : 0));
    TIFFSetField(t, GPSTAG_ALTITUDE, std::abs(*where.above_m));
}

}  // namespace

bool write_with_capture(TIFF* tiff, const CaptureData& capture) {
    const CaptureData& c = capture;
    if (TIFFWriteDirectory(tiff) != 1) return false;
    // An empty directory of capture data would be refused. The directory of the picture is written once more, with the
    // place of each that it refers to.
    const auto refer = [&](std::uint32_t tag) {
        std::uint64_t place = 0;
        return TIFFWriteCustomDirectory(tiff, &place) == 1 && TIFFSetDirectory(tiff, 0) == 1 &&
               TIFFSetField(tiff, tag, place) == 1 && TIFFRewriteDirectory(tiff) == 1;
    };
    if (c.captured || c.exposure_s || c.aperture || c.focal_mm || c.iso || c.frames > 1 || !c.lens.empty() ||
        !c.serial.empty()) {
        if (TIFFCreateEXIFDirectory(tiff) != 0) return false;
        put(tiff, c);
        if (!refer(TIFFTAG_EXIFIFD)) return false;
    }
    if (!c.where) return true;
    if (TIFFCreateGPSDirectory(tiff) != 0) return false;
    put(tiff, *c.where);
    return refer(TIFFTAG_GPSIFD);
}

}  // namespace bp::io
