// A turning sky seen through a wide lens.
#pragma once

#include <array>
#include <optional>

#include "practice/canvas.h"
#include "practice/scene.h"

namespace bp::practice {

class NightSky {
  public:
    using Direction = std::array<double, 3>;  // of length one, the pole along z

    // `pole`: where the pole would stand through a lens without distortion, in scene units.
    NightSky(std::uint64_t seed, int stars, Point pole = {930, 330});

    Scene::Lens lens() const;
    // Where a direction is seen at a time; none behind the camera or far outside of what the lens shows.
    std::optional<Point> seen(const Direction& direction, double at_s) const;
    // Adds what the stars draw from `begin_s` to `end_s`. `clear(p)` is 1 in open sky and 0 where something hides it;
    // `exposure` scales the light.
    void expose(Canvas& canvas, double begin_s, double end_s, double exposure,
                const std::function<double(Point)>& clear) const;

  private:
    struct Star {
        Direction direction;
        Rgb light;
    };
    // Scene point of a direction after the sky has turned by `angle`; false behind the camera.
    bool project(const Direction& direction, double angle, Point& out) const;

    Point pole_;
    std::vector<Star> stars_;
};

}  // namespace bp::practice
