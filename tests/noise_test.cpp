// The noise of a merge beside that of a frame, against noise that is known.
#include "even/noise.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

using namespace bp;

namespace {

// A scene of ramps, waves and edges with Gaussian noise that is `noise` samples wide at all brightnesses.
Raster16 noisy(double noise, unsigned seed) {
    std::mt19937 dice(seed);
    std::normal_distribution<double> grain(0, noise);
    Raster16 out({768, 512}, 3);
    for (int y = 0; y < out.height(); ++y)
        for (int x = 0; x < out.width(); ++x)
            for (int c = 0; c < 3; ++c) {
                double v = 9000 + 60.0 * x + 900 * std::sin(y / 40.0);
                if (x % 256 > 100 && x % 256 < 160) v += 4000 * ((x / 3 + y / 5) % 2);  // a fine pattern is not flat
                out.at(x, y, c) = std::uint16_t(std::clamp(v + grain(dice), 0.0, 65535.0));
            }
    return out;
}

}  // namespace

TEST_CASE("noise is measured within a few per cent in flat places, whatever lies beside them") {
    const Noise noise = noise_of(noisy(800, 1), noisy(200, 2));
    REQUIRE(noise.levels.size() >= 3);
    double before = -1;
    for (const NoiseLevel& level : noise.levels) {
        INFO("at " << level.brightness);
        CHECK(level.frame == Approx(800 / 65535.0).epsilon(0.05));
        CHECK(level.result == Approx(200 / 65535.0).epsilon(0.05));
        CHECK(level.brightness > before);
        before = level.brightness;
    }
    CHECK(noise.gain_ev == Approx(2).margin(0.05));
}

TEST_CASE("nothing is told where nothing differs, or nothing can be measured") {
    const Raster16 same = noisy(500, 3);
    CHECK(noise_of(same, same).levels.empty());
    const Raster16 small({20, 20}, 3);
    CHECK(noise_of(small, small).levels.empty());
    Raster16 white({400, 400}, 1);
    std::fill(white.data().begin(), white.data().end(), std::uint16_t(65535));
    CHECK(noise_of(white, white).levels.empty());
}
