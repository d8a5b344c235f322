// Files handled so that nothing the user made is lost.
#pragma once

#include <cstdint>
#include <filesystem>
#include <functional>
#include <string>
#include <string_view>

#include "base/result.h"

namespace bp {

namespace fs = std::filesystem;

// Writes a file by way of one that nobody sees: `write` fills the path it is given (which has no ending of its own),
// which is then synced to the disk and takes the place of `target`. Whatever goes wrong before, also when the program
// is killed, `target` is as it was and nothing lies beside it, but for a moment's hidden name (clear_unseen). Links
// stay and what they lead to is written; mode, owner and ACL of a file that is replaced stay; one that is protected
// from writing is refused. A failure of `write` that is no failure to write comes back as it is. Files that can be made
// anew may do without the wait for the disk.
enum class Sync { yes, no };
Status write_whole(const fs::path& target, const std::function<Status(const fs::path&)>& write, Sync sync = Sync::yes);
Status write_bytes(const fs::path& target, std::string_view bytes, Sync sync = Sync::yes);
// Removes the hidden files of writers in `folder` that were killed in the moment in which theirs had a name and not yet
// their own. What a living one holds stays. Every write that is synced does so in its folder.
void clear_unseen(const fs::path& folder);
// The file that write_whole() would write, behind links; or why it would not.
Result<fs::path> place_to_write(const fs::path& target);

// 128-bit XXH3 of the file's bytes as 32 hexadecimal digits.
Result<std::string> content_hash(const fs::path& file);

// When the file was last written to, in the system's own count; 0 when there is none.
std::int64_t modified_at(const fs::path& file);

// True when both paths name one existing file, also by way of links.
bool same_file(const fs::path& a, const fs::path& b);

// Order of names as people count: "frame2" before "frame10"; digits compare as numbers, the rest by character.
bool natural_less(const std::string& a, const std::string& b);

}  // namespace bp
