// The practice camera's tools: shapes, canvas, noise, and the camera itself.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "practice/camera.h"
#include "practice/canvas.h"
#include "practice/lettering.h"
#include "practice/shapes.h"
#include "practice/texture.h"
#include "support/fixtures.h"

using namespace bp;
using namespace bp::practice;

namespace {

constexpr Size picture{400, 267};  // a quarter of the scene

// A scene of one grey, to measure the camera with.
class Grey final : public Scene {
  public:
    explicit Grey(Camera camera, std::vector<Shot> shots) : camera_(std::move(camera)), shots_(std::move(shots)) {}
    Camera camera() const override { return camera_; }
    std::vector<Shot> shots() const override { return shots_; }
    void paint_still(Canvas& canvas) const override {
        canvas.each([](Point, Rgb) { return Rgb{0.2F, 0.2F, 0.2F}; });
    }
    void paint_moving(Canvas&, std::size_t, const Shot&) const override {}
    std::vector<TruthPicture> truth() const override { return {}; }

  private:
    Camera camera_;
    std::vector<Shot> shots_;
};

struct Measured {
    double mean = 0;
    double deviation = 0;
};

Measured light_of(const Raster16& raster) {
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    double sum = 0, squares = 0;
    for (const std::uint16_t v : raster.data()) {
        const double l = double(curve.light(v)) / LightCurve::full;
        sum += l;
        squares += l * l;
    }
    const double n = double(raster.data().size());
    return {sum / n, std::sqrt(squares / n - sum * sum / n / n)};
}

Raster16 exposed(const Scene& scene, std::size_t index = 0, std::uint64_t seed = 1) {
    const std::vector<Shot> shots = scene.shots();
    Canvas still(picture, margin_for(picture, shots));
    scene.paint_still(still);
    return expose(scene, shots, index, still, picture, seed);
}

int painted(const Canvas& canvas) {
    int count = 0;
    for (int y = 0; y < canvas.light().height(); ++y)
        for (int x = 0; x < canvas.light().width(); ++x) count += canvas.light().at(x, y, 0) > 0.5F;
    return count;
}

}  // namespace

TEST_CASE("distances are negative inside, zero on the outline, and right outside") {
    const Shape disc = circle({10, 10}, 5);
    CHECK(disc.distance({10, 10}) == Approx(-5));
    CHECK(disc.distance({15, 10}) == Approx(0).margin(1e-9));
    CHECK(disc.distance({13, 14}) == Approx(0).margin(1e-9));
    CHECK(disc.distance({20, 10}) == Approx(5));

    const Shape box = bar(0, 0, 10, 4);
    CHECK(box.distance({5, 2}) == Approx(-2));
    CHECK(box.distance({13, 8}) == Approx(5));
    CHECK(bar(0, 0, 10, 10, 5).distance({0, 0}) == Approx(std::sqrt(50) - 5));

    const Shape rod = capsule({0, 0}, {10, 0}, 2, 2);
    CHECK(rod.distance({5, 0}) == Approx(-2));
    CHECK(rod.distance({5, 5}) == Approx(3));
    CHECK(rod.distance({-5, 0}) == Approx(3));
    CHECK(capsule({0, 0}, {10, 0}, 1, 3).distance({10, 0}) == Approx(-3));

    const Shape square = polygon({{0, 0}, {4, 0}, {4, 4}, {0, 4}});
    CHECK(square.distance({2, 2}) == Approx(-2));
    CHECK(square.distance({6, 2}) == Approx(2));
    CHECK(square.distance({1, 1}) < 0);
    CHECK(ellipse({0, 0}, 6, 3).distance({6, 0}) == Approx(0).margin(1e-9));
    CHECK(ellipse({0, 0}, 6, 3).distance({0, 3}) == Approx(0).margin(1e-9));
    CHECK(ellipse({0, 0}, 6, 3, std::acos(0.0)).distance({0, 6}) == Approx(0).margin(1e-6));
}

TEST_CASE("shapes join, meet, leave out, mirror, turn and move, and their boxes follow") {
    const Shape a = circle({0, 0}, 4);
    const Shape b = circle({5, 0}, 4);
    CHECK(join({a, b}).distance({5, 0}) < 0);
    CHECK(both(a, b).distance({0, 0}) > 0);
    CHECK(both(a, b).distance({2.5, 0}) < 0);
    CHECK(without(a, b).distance({2.5, 0}) > 0);
    CHECK(without(a, b).distance({-2, 0}) < 0);
    CHECK(mirrored(b, 0).distance({-5, 0}) == Approx(-4));
    CHECK(mirrored(b, 0).box.left == Approx(-9));
    CHECK(moved(a, 10, 20).distance({10, 20}) == Approx(-4));
    const Shape upright = turned(bar(-10, -1, 10, 1), {0, 0}, std::acos(0.0));
    CHECK(upright.distance({0, 9}) < 0);
    CHECK(upright.distance({9, 0}) > 0);
    CHECK(upright.box.bottom == Approx(10));
    const Shape ground = below([](double x) { return 5 + x; }, {-10, -10, 10, 20});
    CHECK(ground.distance({0, 8}) < 0);
    CHECK(ground.distance({4, 8}) > 0);
    CHECK(rope({{0, 0}, {10, 0}, {10, 10}}, 1).distance({10, 5}) == Approx(-1));
}

TEST_CASE("a painted shape has its own area at any number of pixels") {
    for (const int width : {200, 400, 800}) {
        Canvas canvas({width, width * 2 / 3}, 0);
        canvas.paint(circle({800, 500}, 200), Rgb{1, 1, 1});
        const double unit = canvas.scale() * canvas.scale();
        CHECK(painted(canvas) / unit == Approx(3.14159 * 200 * 200).epsilon(0.02));
    }
}

TEST_CASE("scene places and pixels go back and forth, with a margin") {
    const Canvas canvas(picture, 7);
    CHECK(canvas.light().width() == 414);
    const Point p = canvas.to_pixel({123.4, 567.8});
    const Point q = canvas.to_scene(p.x, p.y);
    CHECK(q.x == Approx(123.4));
    CHECK(q.y == Approx(567.8));
    // The first pixel of the picture averages four by four scene units.
    CHECK(canvas.to_pixel({1.5, 1.5}).x == Approx(7));
}

TEST_CASE("glows and streaks add light, shadows take it, opacity mixes") {
    Canvas canvas(picture, 0);
    canvas.each([](Point, Rgb) { return Rgb{0.5F, 0.5F, 0.5F}; });
    canvas.glow({800, 500}, 20, Rgb{1, 0, 0});
    CHECK(canvas.at({800, 500}).r == Approx(1.5).margin(0.05));
    CHECK(canvas.at({800, 500}).g == Approx(0.5));
    CHECK(canvas.at({1000, 500}).r == Approx(0.5));
    canvas.darken(circle({200, 200}, 50), 10, 0.4);
    CHECK(canvas.at({200, 200}).g == Approx(0.3).margin(0.001));
    canvas.paint(circle({1200, 200}, 50), Rgb{1, 1, 1}, 0.5);
    CHECK(canvas.at({1200, 200}).b == Approx(0.75).margin(0.001));
    canvas.streak({100, 800}, {500, 800}, 8, Rgb{0, 1, 0}, [](double t) { return t; });
    CHECK(canvas.at({480, 800}).g > canvas.at({200, 800}).g + 0.4);
}

TEST_CASE("letters are inked inside their box only") {
    Canvas canvas(picture, 0);
    letter(canvas, "SALT", {400, 400, 800, 500}, Rgb{1, 1, 1});
    CHECK(painted(canvas) > 100);
    for (const Point p : {Point{395, 450}, Point{805, 450}, Point{600, 395}, Point{600, 505}})
        CHECK(canvas.at(p).r == 0);
}

TEST_CASE("noise is smooth, bounded, centred and always the same") {
    double sum = 0, most = 0, step = 0;
    for (int i = 0; i < 4000; ++i) {
        const double x = i * 0.37, y = i * 0.11;
        const double v = noise(3, x, y);
        sum += v;
        most = std::max(most, std::abs(v));
        step = std::max(step, std::abs(noise(3, x + 0.01, y) - v));
    }
    CHECK(std::abs(sum / 4000) < 0.1);
    CHECK(most <= 1);
    CHECK(step < 0.05);
    CHECK(noise(3, -4.2, 7.7) == noise(3, -4.2, 7.7));
    CHECK(noise(3, -4.2, 7.7) != noise(4, -4.2, 7.7));
    CHECK(std::abs(cloudy(9, 1.5, 2.5, 5)) < 1.5);
    CHECK(smooth_step(2, 4, 1) == 0);
    CHECK(smooth_step(2, 4, 3) == Approx(0.5));
    CHECK(smooth_step(2, 4, 9) == 1);
}

TEST_CASE("the bell has mean 0 and deviation 1") {
    Dice dice(42);
    double sum = 0, squares = 0;
    constexpr int n = 40000;
    for (int i = 0; i < n; ++i) {
        const double v = double(dice.bell());
        sum += v;
        squares += v * v;
    }
    CHECK(std::abs(sum / n) < 0.02);
    CHECK(std::sqrt(squares / n) == Approx(1).epsilon(0.02));
}

TEST_CASE("noise grows with the ISO as photons have it, and light does not") {
    std::vector<Shot> shots(3);
    shots[0].iso = 100;
    shots[1].iso = 1600;
    shots[2].iso = 6400;
    const Grey scene({}, shots);
    double before = 0;
    for (std::size_t i = 0; i < 3; ++i) {
        const Measured light = light_of(exposed(scene, i));
        CHECK(light.mean == Approx(0.2).epsilon(0.01));
        CHECK(light.deviation > 2 * before);
        before = light.deviation;
        const double well = 40000.0 * 100 / shots[i].iso;
        CHECK(light.deviation == Approx(std::sqrt(0.2 * well + 9) / well).epsilon(0.06));
    }
}

TEST_CASE("gain brightens, and another seed gives other noise of the same size") {
    std::vector<Shot> shots(2);
    shots[1].gain = 1.18;
    const Grey scene({}, shots);
    CHECK(light_of(exposed(scene, 1)).mean / light_of(exposed(scene, 0)).mean == Approx(1.18).epsilon(0.01));
    const Raster16 a = exposed(scene, 0, 1);
    const Raster16 b = exposed(scene, 0, 2);
    CHECK(test::difference(a, exposed(scene, 0, 1)) == "");
    CHECK(test::difference(a, b) != "");
    CHECK(light_of(a).deviation == Approx(light_of(b).deviation).epsilon(0.05));
}

TEST_CASE("darks are black but for hot pixels, which stand where the truth says in every frame") {
    Camera camera;
    camera.hot_pixels = 20;
    std::vector<Shot> shots(2);
    for (Shot& s : shots) s.exposure_s = 25;
    shots[1].role = Role::dark;
    const Grey scene(camera, shots);
    const Raster16 dark = exposed(scene, 1);
    const Raster16 lit = exposed(scene, 0);
    int hot = 0;
    for (const practice::HotPixel& h : hot_pixels(20, picture, 1)) {
        const auto brightest = [&](const Raster16& r) {
            return std::max({r.at(h.x, h.y, 0), r.at(h.x, h.y, 1), r.at(h.x, h.y, 2)});
        };
        CHECK(brightest(dark) > 15000);
        CHECK(brightest(lit) > brightest(dark));
        ++hot;
    }
    CHECK(hot == 20);
    CHECK(light_of(dark).mean < 0.001);
}

TEST_CASE("a sensor spot stands still on the sensor while the camera moves") {
    Camera camera;
    camera.sensor_spot = Point{400, 400};
    std::vector<Shot> shots(2);
    shots[1].to_scene = Matrix::shift(12, 8);
    const Grey scene(camera, shots);
    for (const std::size_t i : {0U, 1U}) {
        const Raster16 frame = exposed(scene, i);
        double spot = 0, beside = 0;
        for (int k = -1; k <= 1; ++k) {
            spot += frame.at(100 + k, 100, 1);
            beside += frame.at(120 + k, 100, 1);
        }
        CHECK(spot < 0.93 * beside);
    }
}

TEST_CASE("a shaken camera sees the scene moved by just its transform") {
    CHECK(margin_for(picture, std::vector<Shot>(3)) == 0);
    std::vector<Shot> shots(1);
    shots[0].to_scene = Matrix::shift(8, -4);
    CHECK(margin_for(picture, shots) >= 10);
    const Matrix shake = shake_in(picture, shots[0].to_scene);
    CHECK(shake.m()[2] == Approx(2));
    CHECK(shake.m()[5] == Approx(-1));
    const Matrix turn = shake_in(picture, Matrix::rigid(0.01, {799.5, 533}, 0, 0));
    const Point middle = turn({199.5, 132.875});
    CHECK(middle.x == Approx(199.5).margin(0.01));
    CHECK(middle.y == Approx(132.875).margin(0.01));
}

TEST_CASE("every scene is in the table once, with frames, a summary and pictures of truth") {
    CHECK(scenes().size() == 9);
    for (const SceneEntry& entry : scenes()) {
        INFO(entry.name);
        CHECK(scene_named(entry.name) == &entry);
        CHECK_FALSE(entry.summary.empty());
        const auto scene = entry.make(entry.frames, 1);
        const auto shots = scene->shots();
        const auto count = [&](Role role) {
            return int(std::count_if(shots.begin(), shots.end(), [role](const Shot& s) { return s.role == role; }));
        };
        // Of the boat all exposures but one are lit frames; elsewhere such a frame comes on top.
        const bool of_lights = entry.name == "hull";
        CHECK(count(Role::scene) + (of_lights ? count(Role::foreground) : 0) == entry.frames);
        CHECK(std::is_sorted(shots.begin(), shots.end(),
                             [](const Shot& a, const Shot& b) { return a.begin_s < b.begin_s; }));
        CHECK_FALSE(scene->truth().empty());
        CHECK(shots.front().to_scene.is_identity());
    }
    CHECK(scene_named("volcano") == nullptr);
}
