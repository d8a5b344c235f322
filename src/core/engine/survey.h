// Knowing every frame of a run: what it measures, and whether it is odd among the others.
#pragma once

#include <map>
#include <memory>
#include <optional>
#include <vector>

#include "base/job.h"
#include "engine/source.h"
#include "engine/store.h"
#include "frames/glance.h"
#include "frames/odd.h"
#include "pile/pile.h"

namespace bp {

// What was seen in one frame. Depends on its file, the pile's working space and the anchor alone.
struct Sighting {
    Glance glance;
    std::optional<Matrix> to_anchor;  // frame pixel to anchor pixel, level 0; none when the two do not agree
    // Of bands at full size: blur and noise that the small picture does not show. None until look_closer(); without
    // places when the picture is too small for a band, or turned out broken.
    std::optional<Glance> fine;
    // Under which it is kept, with whatever is seen more closely later; none where it is not.
    std::optional<Fingerprint> key;
};

// The level at which frames of this size are looked at: at most 800 pixels on the longer side.
int survey_level(Size size);

// The frame that the others are placed against while they are looked at. Any usable frame serves, because
// places against the pile's reference are worked out from it; but one for the whole run.
struct Anchor {
    int id = 0;
    SharedFrameFile file;
    // Made when the first frame is placed: none is in a pile whose frames were all looked at before.
    struct Reference;
    std::shared_ptr<Reference> reference;
};
Result<Anchor> anchor_of(const Pile& pile, int id);
// The reference when it can be used, else the first frame that can; 0 when none can.
int anchor_for(const Pile& pile);

// Looks at one frame, unless it was looked at before. Any thread.
Result<Sighting> look_at(const Pile& pile, const Frame& frame, const Anchor& anchor, FrameStore& store, Job& job);

// Adds the bands at full size, with a few rows in memory at a time. Any thread.
Result<Sighting> look_closer(const Pile& pile, const Frame& frame, const Sighting& seen, FrameStore& store, Job& job);
// True when the small picture is not the frame itself, so that there is more to see.
bool has_more(Size size);

using Sightings = std::map<int, std::shared_ptr<const Sighting>>;  // by frame id

struct Findings {
    FrameMeasures measures;
    std::vector<Mark> marks;
};
// True when frames of a run drift evenly, as the sky does and no camera: a tripod stands, or is knocked.
bool follows_the_sky(const std::vector<FrameMeasures>& run);
// One entry a frame of the pile, in its order, from what has been seen so far. Frames of the role scene are held
// against each other, by fine places when all of them have been looked at closely; those that are set aside among them;
// the others have measures but no marks.
std::vector<Findings> know(const Pile& pile, const Sightings& seen);

// Roles that frames seem to have, of which nobody said anything: a black frame among lit ones is a dark, one that was
// exposed much longer than the rest is a foreground. Frames that seem to be scene frames are not named.
std::map<int, Role> guess_roles(const Pile& pile, const Sightings& seen);

// All of it. A frame that turns out broken gets its problem in `pile`.
Result<std::vector<Findings>> survey(Pile& pile, FrameStore& store, Job& job);

}  // namespace bp
