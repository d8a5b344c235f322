// The kinds of files that frames come from: a line each.
#pragma once

#include <filesystem>
#include <optional>
#include <span>
#include <string>
#include <string_view>

namespace bp {

enum class ReadBy {
    picture,  // libvips, or libjpeg-turbo
    raw,      // LibRaw
    clip,     // a file of many frames
};

struct Kind {
    std::string_view name;     // as people call it
    std::string_view endings;  // with dots, lower case, a space between
    ReadBy way;
    std::string_view loader;  // what the name of libvips' loader holds; empty for other ways
    bool whole;               // its decoder takes in the whole picture before it gives a row
};

std::span<const Kind> kinds();
// By the ending of the name, in any case; null for other files.
const Kind* kind_of(const std::filesystem::path& file);
// True for pictures and raw files.
bool is_frame_file(const std::filesystem::path& file);
// "JPEG, PNG, ... or FITS"
std::string kinds_in_words();

}  // namespace bp
