// The moving lights of a run: where every frame has some, and how those of the sky move. Derived data (derived.h).
#pragma once

#include <map>
#include <memory>
#include <optional>

#include "align/sky_motion.h"
#include "base/job.h"
#include "engine/store.h"
#include "image/run_mask.h"
#include "lights/movers.h"
#include "lights/streaks.h"
#include "pile/pile.h"

namespace bp {

struct MovingLights {
    // Lights are looked for in pictures of this level.
    static constexpr int level = 1;

    std::optional<SkyMotion> sky;
    // Of every usable frame of the scene, whether it takes part or is set aside.
    struct OfFrame {
        // How the camera stood when the frame was taken, against the reference's: frame pixel to canvas pixel. The
        // identity where it stood as it did then.
        Placement stood;
        RunMask lights;         // thin ones, see traces.h
        bool fits_sky = false;  // its sky lies where the motion has it
        bool placed = false;    // it does not, and it is known how the camera stood
        friend bool operator==(const OfFrame&, const OfFrame&) = default;
    };
    std::map<int, OfFrame> frames;  // by id
    // Lights that go ways of their own and leave a trace in a frame and one in the next.
    struct Own {
        int before = 0, after = 0;  // frames, by id
        Point px_per_s;             // over the pause between them, in pixels of level 0
        double across_px = 1;       // deviation of the light about its way, the same
        RunMask end;                // what of its trace before lies nearest to the pause
        friend bool operator==(const Own&, const Own&) = default;
    };
    std::vector<Own> own;
    // In pixels of the frames, level 0; `frame` is an id. Where the sky's motion is known, frames whose place under it
    // is not have none.
    std::vector<Streak> streaks;
    Fingerprint recipe{};  // of the frames that they were found in; not packed
    std::size_t bytes() const;
};
void pack(Packer& to, const MovingLights& lights);
void unpack(Unpacker& from, MovingLights& lights);

// Of all frames of the scene, as their files have them and as they lie on the sensor: nothing of the pile's looks,
// zones and placements counts. Without lights for fewer than four frames. What was found before is not looked for
// again.
Result<std::shared_ptr<const MovingLights>> moving_lights(const Pile& pile, FrameStore& store, Job& job);
// All of a pile that they depend on, its files by their names.
Fingerprint recipe_of_lights(const Pile& pile);

}  // namespace bp
