// Colour profiles as files of their own.
#pragma once

#include <filesystem>

#include "image/profile.h"

namespace bp {

// An ICC profile of three channels that pictures can be brought to. Fails for what is none, with the file's name.
Result<Profile> read_profile(const std::filesystem::path& file);

}  // namespace bp
