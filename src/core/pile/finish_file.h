// Finish files (.finish): the values of Finish alone, to be used on another pile.
#pragma once

#include <filesystem>
#include <vector>

#include "pile/pile.h"

namespace bp {

inline constexpr const char* finish_ending = ".finish";

// Writes as write_whole() does. Reads back what would be written first, and writes nothing when that is not the same.
Status save_finish(const Finish& finish, Size size, const std::filesystem::path& file);

struct LoadedFinish {
    Finish finish;
    std::vector<Saying> remarks;  // what could not be read and is as in a new finish
};
// A finish of a picture of one size for one of another, without what it takes from frames of its own.
LoadedFinish finish_for(const Finish& finish, Size from, Size to);
// For a picture of this size, whatever it was saved of. Takes the finish of a pile, too, when the file is one.
Result<LoadedFinish> load_finish(const std::filesystem::path& file, Size size);

}  // namespace bp
