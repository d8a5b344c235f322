#include "app/looks/pictures.h"

#include "base/parallel.h"

namespace bp::app {

QImage to_image(const Raster16& raster, const Profile& profile) {
    QImage out(raster.width(), raster.height(), QImage::Format_RGB32);
    uchar* const first = out.bits();
    const bool as_it_is = profile.is_srgb();
    const Result<Conversion> conversion =
        as_it_is ? Result<Conversion>(Failure{}) : Conversion::make(profile, raster.channels(), Profile::srgb(), 3);
    parallel_for(0, raster.height(), [&](int y) {
        const std::uint16_t* in = raster.row(y);
        std::vector<std::uint16_t> converted;
        if (!as_it_is && conversion.ok()) {
            converted.resize(std::size_t(raster.width()) * 3);
            conversion.value().run(in, converted.data(), raster.width());
            in = converted.data();
        }
        const int step = as_it_is || !conversion.ok() ? raster.channels() : 3;
        auto* to = reinterpret_cast<QRgb*>(first + qsizetype(y) * out.bytesPerLine());
        const auto narrow = [](std::uint16_t v) { return (v + 128) / 257; };
        for (int x = 0; x < raster.width(); ++x, in += step)
            to[x] = step == 3 ? qRgb(narrow(in[0]), narrow(in[1]), narrow(in[2]))
                              : qRgb(narrow(in[0]), narrow(in[0]), narrow(in[0]));
    });
    return out;
}

}  // namespace bp::app
