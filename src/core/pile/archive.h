// A pile as the pieces of an archive, and back. Nothing here touches the disk. Internal to the room.
#pragma once

#include <filesystem>
#include <vector>

#include "pile/pile.h"
#include "pile/zip.h"

namespace bp::pile {

// `folder`: of the pile's file, which frames are named against; absolute.
Result<Pieces> pieces_of(const Pile& pile, const std::filesystem::path& folder);

struct Unpacked {
    Pile pile;  // each frame's file as it was saved: path, size and hash alone
    // Where else a frame may lie, by frame id: the places are tried in order.
    std::map<int, std::vector<std::filesystem::path>> places;
    std::vector<Saying> remarks;  // what could not be read and was left out
};
// Fails for what is no pile at all. Everything else that cannot be read or cannot be true is left out with a remark: a
// frame whose place cannot be read counts as not aligned.
Result<Unpacked> unpacked(const Pieces& pieces, const std::filesystem::path& folder);

// A finish alone, of a picture of a size; and back.
Result<Pieces> pieces_of(const Finish& finish, Size size);
struct UnpackedFinish {
    Finish finish;
    Size size;
    std::vector<Saying> remarks;
};
Result<UnpackedFinish> unpacked_finish(const Pieces& pieces);

}  // namespace bp::pile
