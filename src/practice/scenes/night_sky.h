// A turning sky seen through a wide lens.
#pragma once

#include <array>

#include "practice/canvas.h"
#include "practice/scene.h"

namespace bp::practice {

class NightSky {
  public:
    NightSky(std::uint64_t seed, int stars);

    Scene::Lens lens() const;
    // Adds what the stars draw from `begin_s` to `end_s`. `clear(p)` is 1 in open sky and 0 where something hides it;
    // `exposure` scales the light.
    void expose(Canvas& canvas, double begin_s, double end_s, double exposure,
                const std::function<double(Point)>& clear) const;

  private:
    struct Star {
        std::array<double, 3> direction;  // pole along z
        Rgb light;
    };
    // Scene point of a direction after the sky has turned by `angle`; false behind the camera.
    bool project(const Star& star, double angle, Point& out) const;

    std::vector<Star> stars_;
};

}  // namespace bp::practice
