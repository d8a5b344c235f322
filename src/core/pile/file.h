// Pile files (.pile): docs/pile-format.md.
#pragma once

#include <filesystem>
#include <string>
#include <vector>

#include "pile/pile.h"

namespace bp {

// Writes through a neighbouring file. Frames are named relative to the pile's folder where that is possible.
Status save_pile(const Pile& pile, const std::filesystem::path& file);

struct LoadedPile {
    Pile pile;
    std::vector<int> missing;  // ids of frames whose file is not there or cannot be read
    std::vector<int> changed;  // ids of frames whose file is not the one that was saved
};

// Frames that are missing or changed carry a problem and take no part until a file is pointed to (with_file()).
Result<LoadedPile> load_pile(const std::filesystem::path& file);

// Reads size, hash, header and capture data of a picture.
Result<FrameFile> read_frame_file(const std::filesystem::path& path);

}  // namespace bp
