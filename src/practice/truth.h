// The truth of a run, written beside it. Internal to the practice camera.
#pragma once

#include <filesystem>

#include "practice/practice.h"

namespace bp::practice {

struct TruthFrame {
    std::string file;  // relative to the run's folder
    Shot shot;
};

Status write_truth(const SceneEntry& entry, const Scene& scene, const std::vector<TruthFrame>& frames,
                   const Canvas& still, const std::filesystem::path& folder, const PracticeOptions& options);

}  // namespace bp::practice
