#include "image/brightness.h"

namespace bp {

RasterF brightness_of(const Raster16& picture) {
    RasterF out(picture.size(), 1);
    for (int y = 0; y < picture.height(); ++y) {
        const std::uint16_t* in = picture.row(y);
        float* to = out.row(y);
        for (int x = 0; x < picture.width(); ++x)
            to[x] =
                picture.channels() == 1
                    ? float(in[x]) / 65535.0F
                    : (0.2126F * float(in[3 * x]) + 0.7152F * float(in[3 * x + 1]) + 0.0722F * float(in[3 * x + 2])) /
                          65535.0F;
    }
    return out;
}

}  // namespace bp
