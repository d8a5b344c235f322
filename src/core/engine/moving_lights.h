// The moving lights of a run: where every frame has some, and how those of the sky move. Derived data (derived.h).
#pragma once

#include <map>
#include <memory>
#include <optional>

#include "align/sky_motion.h"
#include "base/job.h"
#include "engine/store.h"
#include "image/run_mask.h"
#include "pile/pile.h"

namespace bp {

struct MovingLights {
    // Lights are looked for in pictures of this level.
    static constexpr int level = 1;

    std::optional<SkyMotion> sky;
    // Of every usable frame of the scene, whether it takes part or is set aside.
    struct OfFrame {
        RunMask lights;         // thin ones, see traces.h
        bool fits_sky = false;  // its sky lies where the motion has it
        friend bool operator==(const OfFrame&, const OfFrame&) = default;
    };
    std::map<int, OfFrame> frames;  // by id
    Fingerprint recipe{};           // of the frames that they were found in; not packed
    std::size_t bytes() const;
};
void pack(Packer& to, const MovingLights& lights);
void unpack(Unpacker& from, MovingLights& lights);

// Of all frames of the scene, as their files have them and as they lie on the sensor: nothing of the pile's looks,
// zones and placements counts. Without lights for fewer than four frames. What was found before is not looked for
// again.
Result<std::shared_ptr<const MovingLights>> moving_lights(const Pile& pile, FrameStore& store, Job& job);

}  // namespace bp
