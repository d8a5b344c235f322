// Text between people, files and the system.
#pragma once

#include <filesystem>
#include <string>
#include <string_view>

namespace bp {

// Bytes that are no UTF-8 become question marks. Names of files may hold any bytes; texts may not.
std::string valid_utf8(std::string_view text);
// The same, with a space for every control character: names may hold those, too, and would break a sentence.
std::string one_line(std::string_view text);
// As much of a text as so many bytes hold, to a whole character.
std::string_view cut_to(std::string_view text, std::size_t most_bytes);
// A path as UTF-8 that gives the same bytes back: what is no UTF-8, a control character or a per cent sign stands as %
// and two hexadecimal digits. Forward slashes.
std::string path_to_text(const std::filesystem::path& path);
std::filesystem::path path_from_text(std::string_view text);

}  // namespace bp
