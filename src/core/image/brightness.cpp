#include "image/brightness.h"

namespace bp {

RasterF brightness_of(const Raster16& picture, const LightCurve& curve) {
    RasterF out(picture.size(), 1);
    const float* eye = curve.eye();
    for (int y = 0; y < picture.height(); ++y) {
        const std::uint16_t* in = picture.row(y);
        float* to = out.row(y);
        for (int x = 0; x < picture.width(); ++x)
            to[x] = picture.channels() == 1
                        ? eye[in[x]]
                        : 0.2126F * eye[in[3 * x]] + 0.7152F * eye[in[3 * x + 1]] + 0.0722F * eye[in[3 * x + 2]];
    }
    return out;
}

}  // namespace bp
