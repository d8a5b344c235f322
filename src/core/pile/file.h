// Pile files (.pile): docs/pile-format.md.
#pragma once

#include <filesystem>
#include <string>
#include <vector>

#include "pile/pile.h"

namespace bp {

// Fails where writing to a file would write over a frame of the pile, by whatever name or link: originals are never
// written to. Whatever is written of a pile asks this first.
Status keeps_originals(const Pile& pile, const std::filesystem::path& file);

// Writes as write_whole() does, and never over a frame. What would be written is read back first, as a reader does:
// when that does not give the same pile nothing is written. Frames are named relative to the pile's folder and from the
// root.
Status save_pile(const Pile& pile, const std::filesystem::path& file);

struct LoadedPile {
    Pile pile;
    std::vector<int> missing;     // ids of frames whose file is not there or cannot be read
    std::vector<int> changed;     // ids of frames whose file is not the one that was saved
    std::vector<Saying> remarks;  // what in the pile could not be read and was left out
};

// Frames that are missing or changed carry a problem and take no part until a file is pointed to (with_file()).
Result<LoadedPile> load_pile(const std::filesystem::path& file);

// What a file is known again by. The hash of its content takes reading the whole file: only for piles that outlive the
// program's run, or that are told apart by content.
enum class KnownBy { content, path };

// Reads header and capture data of a picture, and its hash when it is known by its content (else the hash is empty).
Result<FrameFile> read_frame_file(const std::filesystem::path& path, KnownBy known = KnownBy::content);
// The same pile, with hashes of the frames that were known by their paths alone: what is saved must have them.
Result<Pile> known_by_content(Pile pile);

}  // namespace bp
