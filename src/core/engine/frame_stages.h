// Which stages a frame of a pile goes through before it is placed, and in which order: the only place that says so.
#pragma once

#include "engine/stages.h"
#include "even/evener.h"
#include "merge/head.h"
#include "pile/pile.h"

namespace bp {

// The light of samples and the way back; shared by all stages that work in light.
class LightThere;

// How a frame is read, darks aside: of light in floats as much above white as its level and look bring back.
Developing developing_of(const Pile& pile, const Frame& frame);

// Makes the stages of a pile's frames at a level; frames share what they have in common. One thread at a time.
class FrameStages {
  public:
    FrameStages(const Pile& pile, int level);

    // Darks and spots of the sensor, hot pixels, level and look; each only where there is something to do. `dark` is
    // subtracted `dark_scale` times, and may be null; `from` is what the frame's rows have.
    // Light in floats comes halved `stops` times.
    Stages of(const Frame& frame, const SharedRaster& dark, double dark_scale, int stops, Samples from);
    // What a take may add to them. The frame's border stands for what lies beyond it. Nothing for a radius of 0. A
    // light that is itself a Gaussian of typical_star_px loses its middle to a factor by which it is raised again where
    // it is asked to stay as bright; other lights come near to that, and what does not stand out on all sides is not
    // raised.
    Stages softened(const Softening& softening);
    // The same, and comes after it.
    Stages looked(const Look& look, Samples from);
    static constexpr double typical_star_px = 1.2;  // standard deviation

  private:
    const std::shared_ptr<const LightThere>& light();
    void add_even(const Look& look, const std::array<double, 3>& gains, Samples from, Stages& to);

    const Pile& pile_;
    int level_;
    SharedSpots spots_;    // of the level; null for none
    SharedHotPixels hot_;  // the same
    std::vector<SharedTone> tones_;
    std::shared_ptr<const LightThere> light_;
};

}  // namespace bp
