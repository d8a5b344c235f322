// Files handled so that nothing the user made is lost.
#pragma once

#include <cstdint>
#include <filesystem>
#include <functional>
#include <string>

#include "base/result.h"

namespace bp {

namespace fs = std::filesystem;

// Writes a file by way of a neighbour: `write` fills the path it is given, which is then synced to the disk and renamed
// over `target`. Whatever goes wrong before the rename, `target` is as it was and the neighbour is gone. A failure of
// `write` that is no failure to write comes back as it is.
// Files that can be made anew may do without the wait for the disk.
enum class Sync { yes, no };
Status write_whole(const fs::path& target, const std::function<Status(const fs::path&)>& write, Sync sync = Sync::yes);

// 128-bit XXH3 of the file's bytes as 32 hexadecimal digits.
Result<std::string> content_hash(const fs::path& file);

// True when both paths name one existing file, also by way of links.
bool same_file(const fs::path& a, const fs::path& b);

// Order of names as people count: "frame2" before "frame10"; digits compare as numbers, the rest by character.
bool natural_less(const std::string& a, const std::string& b);

}  // namespace bp
