#include "practice/camera.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <opencv2/imgproc.hpp>

#include "base/parallel.h"
#include "practice/dng.h"
#include "practice/texture.h"

namespace bp::practice {
namespace {

constexpr double full_well_at_100 = 40000;  // electrons at white
constexpr float read_noise = 3;             // electrons

cv::Mat as_mat(RasterF& raster) {
    return {raster.height(), raster.width(), CV_32FC3, raster.row(0)};
}

// Cuts the picture out of the canvas under the camera's place.
RasterF look(Canvas& canvas, Size picture, const Matrix& shake, double blur) {
    RasterF out(picture, 3);
    cv::Mat source = as_mat(canvas.light());
    if (blur > 0) cv::GaussianBlur(source, source, cv::Size(0, 0), blur * canvas.scale());
    const int margin = canvas.margin();
    cv::Mat target = as_mat(out);
    if (shake.is_identity()) {
        source(cv::Rect(margin, margin, picture.width, picture.height)).copyTo(target);
        return out;
    }
    // Places are computed by hand: the library's own warp rounds them to 1/32 pixel, which would be a false truth.
    const Matrix to_canvas = Matrix::shift(margin, margin) * shake;
    parallel_for(0, picture.height, [&](int y) {
        for (int x = 0; x < picture.width; ++x) {
            const Point p = to_canvas({double(x), double(y)});
            const int ix = std::clamp(int(std::floor(p.x)), 1, source.cols - 3);
            const int iy = std::clamp(int(std::floor(p.y)), 1, source.rows - 3);
            const auto weights = [](double t) {
                return std::array<double, 4>{-0.5 * t * t * t + t * t - 0.5 * t, 1.5 * t * t * t - 2.5 * t * t + 1,
                                             -1.5 * t * t * t + 2 * t * t + 0.5 * t, 0.5 * t * t * t - 0.5 * t * t};
            };
            const auto wx = weights(p.x - ix);
            const auto wy = weights(p.y - iy);
            for (int c = 0; c < 3; ++c) {
                double sum = 0;
                for (int j = 0; j < 4; ++j) {
                    const float* row = canvas.light().row(iy - 1 + j);
                    double across = 0;
                    for (int i = 0; i < 4; ++i) across += wx[std::size_t(i)] * double(row[(ix - 1 + i) * 3 + c]);
                    sum += wy[std::size_t(j)] * across;
                }
                out.at(x, y, c) = float(std::max(sum, 0.0));
            }
        }
    });
    return out;
}

// sRGB samples of light, from a table with straight lines between its 65537 entries (the curve begins straight, too).
std::uint16_t encode(float light) {
    constexpr int entries = 65536;
    static const std::vector<float> table = [] {
        const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
        std::vector<float> out(entries + 2);
        for (int i = 0; i < entries + 2; ++i)
            out[std::size_t(i)] = float(curve.sample(double(i) / entries * LightCurve::full));
        return out;
    }();
    const float at = std::clamp(light, 0.0F, 1.0F) * entries;
    const auto slot = std::size_t(at);
    const float t = at - float(slot);
    return std::uint16_t(std::lround(table[slot] * (1 - t) + table[slot + 1] * t));
}

void add_spot(RasterF& light, Point spot, double scale) {
    const double radius = 7 * scale;
    for (int y = 0; y < light.height(); ++y)
        for (int x = 0; x < light.width(); ++x) {
            const double d = std::hypot(x - spot.x * scale, y - spot.y * scale);
            const double shade = 0.34 * (1 - smooth_step(radius * 0.6, radius * 1.5, d));
            for (int c = 0; c < 3; ++c) light.at(x, y, c) *= float(1 - shade);
        }
}

}  // namespace

int margin_for(Size picture, const std::vector<Shot>& shots) {
    const bool moves = std::any_of(shots.begin(), shots.end(), [](const Shot& s) { return !s.to_scene.is_identity(); });
    return moves ? int(std::ceil(widest_shake * picture.width / scene_width)) : 0;
}

Matrix shake_in(Size picture, const Matrix& to_scene) {
    if (to_scene.is_identity()) return to_scene;
    const double s = picture.width / scene_width;
    const Matrix up{{s, 0, 0.5 * s - 0.5, 0, s, 0.5 * s - 0.5, 0, 0, 1}};
    return up * to_scene * inverse(up);
}

std::vector<HotPixel> hot_pixels(int count, Size picture, std::uint64_t seed) {
    Dice dice(seed ^ 0x407);
    std::vector<HotPixel> out;
    out.reserve(std::size_t(count));
    for (int i = 0; i < count; ++i)
        out.push_back(
            {int(dice.unit() * picture.width), int(dice.unit() * picture.height), float(dice.between(0.004, 0.03))});
    return out;
}

namespace {

// The light that falls on the sensor during one shot.
RasterF light_of(const Scene& scene, const std::vector<Shot>& shots, std::size_t index, const Canvas& still,
                 Size picture, std::uint64_t seed) {
    const Shot& shot = shots[index];
    const Camera camera = scene.camera();
    RasterF light(picture, 3);
    if (shot.role != Role::dark) {
        Canvas canvas = still.clone();
        scene.paint_moving(canvas, index, shot);
        light = look(canvas, picture, shake_in(picture, shot.to_scene), shot.blur);
    }
    const double scale = picture.width / scene_width;
    if (camera.sensor_spot) add_spot(light, *camera.sensor_spot, scale);
    const std::vector<HotPixel> hot = hot_pixels(camera.hot_pixels, picture, seed);
    for (const HotPixel& h : hot)
        for (int c = 0; c < 3; ++c)
            light.at(h.x, h.y, c) += h.level * float(shot.exposure_s) * (c == int(h.x + h.y) % 3 ? 1.0F : 0.25F);
    return light;
}

// What the sensor makes of light: photon noise and the noise of reading.
class Noise {
  public:
    explicit Noise(const Shot& shot) : well_(float(full_well_at_100 * 100 / shot.iso)), gain_(float(shot.gain)) {}
    float operator()(float light, Dice& dice) const {
        const float electrons = std::max(0.0F, light * gain_) * well_;
        return (electrons + std::sqrt(electrons + read_noise * read_noise) * dice.bell()) / well_;
    }

  private:
    float well_;
    float gain_;
};

Dice dice_of_row(std::uint64_t seed, std::size_t index, int y) {
    return Dice(seed * 1000003 + index * 65537 + std::uint64_t(y));
}

}  // namespace

Raster16 expose(const Scene& scene, const std::vector<Shot>& shots, std::size_t index, const Canvas& still,
                Size picture, std::uint64_t seed) {
    const RasterF light = light_of(scene, shots, index, still, picture, seed);
    const Noise noise(shots[index]);
    Raster16 out(picture, 3);
    parallel_for(0, picture.height, [&](int y) {
        Dice dice = dice_of_row(seed, index, y);
        const float* in = light.row(y);
        std::uint16_t* to = out.row(y);
        for (int i = 0; i < out.row_samples(); ++i) to[i] = encode(noise(in[i], dice));
    });
    return out;
}

Raster16 expose_raw(const Scene& scene, const std::vector<Shot>& shots, std::size_t index, const Canvas& still,
                    Size picture, std::uint64_t seed) {
    const RasterF light = light_of(scene, shots, index, still, picture, seed);
    const Noise noise(shots[index]);
    Raster16 out(picture, 1);
    parallel_for(0, picture.height, [&](int y) {
        Dice dice = dice_of_row(seed, index, y);
        for (int x = 0; x < picture.width; ++x) {
            const int colour = Sensor::colour_at(x, y);
            const float level = noise(light.at(x, y, colour) * float(Sensor::neutral[std::size_t(colour)]), dice);
            constexpr float range = Sensor::white - Sensor::black;
            out.at(x, y, 0) =
                std::uint16_t(std::clamp(std::lround(Sensor::black + level * range), 0L, long(Sensor::white)));
        }
    });
    return out;
}

Raster16 develop(const Canvas& canvas, Size picture) {
    Raster16 out(picture, 3);
    parallel_for(0, picture.height, [&](int y) {
        const float* in = canvas.light().row(y + canvas.margin()) + std::ptrdiff_t(canvas.margin()) * 3;
        std::uint16_t* to = out.row(y);
        for (int i = 0; i < out.row_samples(); ++i) to[i] = encode(in[i]);
    });
    return out;
}

}  // namespace bp::practice
