// The scenes of Skerrow harbour.
#pragma once

#include <memory>

#include "practice/scene.h"

namespace bp::practice {

std::unique_ptr<Scene> make_lighthouse(int frames, std::uint64_t seed);
std::unique_ptr<Scene> make_night_watch(int frames, std::uint64_t seed);
std::unique_ptr<Scene> make_quay(int frames, std::uint64_t seed);
std::unique_ptr<Scene> make_shelf(int frames, std::uint64_t seed);
std::unique_ptr<Scene> make_heron(int frames, std::uint64_t seed);
std::unique_ptr<Scene> make_harbour_cats(int frames, std::uint64_t seed);
std::unique_ptr<Scene> make_hull(int frames, std::uint64_t seed);
std::unique_ptr<Scene> make_fireflies(int frames, std::uint64_t seed);
std::unique_ptr<Scene> make_sparks(int frames, std::uint64_t seed);

}  // namespace bp::practice
