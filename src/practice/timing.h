// Another exposure and pause than the scene's own. Internal to the practice camera.
#pragma once

#include <vector>

#include "practice/scene.h"

namespace bp::practice {

// Scene frames one after the other with the exposure and pause that are set; more exposure gives more light. Frames of
// other roles follow with the time they had.
std::vector<Shot> timed(std::vector<Shot> shots, const Timing& timing);

}  // namespace bp::practice
