// The practice camera: a run of frames with known truth, written as a camera would.
#pragma once

#include <filesystem>

#include "base/job.h"
#include "practice/scene.h"

namespace bp::practice {

struct PracticeOptions {
    int frames = 0;  // scene frames; 0 takes the scene's own number
    Size size{1600, 1067};
    std::string ending = ".jpg";  // .jpg, .png, .tif (16 bit) or .dng (raw)
    std::uint64_t seed = 1;
    bool truth = true;  // also write the folder truth/
    double live_s = 0;  // above 0: frames are written one by one, so many seconds from one to the next
    Timing timing;      // instead of the scene's own
};

struct Practised {
    std::vector<std::filesystem::path> frames;  // scene frames in order, then darks, then foregrounds
};

// Writes DIR/SCENE-0001.jpg ..., DIR/darks/, DIR/foreground/ and DIR/truth/. The same scene, options and seed give the
// same bytes. `folder` is made when it is not there.
Result<Practised> practise(const SceneEntry& scene, const std::filesystem::path& folder, const PracticeOptions& options,
                           Job& job);

}  // namespace bp::practice
