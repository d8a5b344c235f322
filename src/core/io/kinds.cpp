#include "io/kinds.h"

#include <algorithm>
#include <array>
#include <cctype>

namespace bp {
namespace {

constexpr std::array<Kind, 10> table{{
    {"JPEG", ".jpg .jpeg .jpe", ReadBy::picture, "Jpeg", false},
    {"PNG", ".png", ReadBy::picture, "Png", false},
    {"TIFF", ".tif .tiff", ReadBy::picture, "Tiff", false},
    {"WebP", ".webp", ReadBy::picture, "Webp", true},
    {"HEIF", ".heic .heif .avif", ReadBy::picture, "Heif", true},
    {"JPEG XL", ".jxl", ReadBy::picture, "Jxl", true},
    {"OpenEXR", ".exr", ReadBy::picture, "Openexr", true},
    {"FITS", ".fits .fit .fts", ReadBy::picture, "Fits", true},
    {"raw files", ".dng .nef .nrw .cr2 .cr3 .crw .arw .srf .sr2 .raf .orf .rw2 .pef .srw .3fr .iiq .erf .mrw .x3f",
     ReadBy::raw, "", true},
    {"clip", ".mp4 .m4v .mov .avi .mkv .webm .mts .mpg", ReadBy::clip, "", false},
}};

}  // namespace

std::span<const Kind> kinds() {
    return table;
}

const Kind* kind_of(const std::filesystem::path& file) {
    std::string ending = file.extension().string();
    std::transform(ending.begin(), ending.end(), ending.begin(), [](unsigned char c) { return char(std::tolower(c)); });
    if (ending.empty()) return nullptr;
    const auto* found = std::find_if(table.begin(), table.end(), [&](const Kind& k) {
        return (" " + std::string(k.endings) + " ").find(" " + ending + " ") != std::string::npos;
    });
    return found == table.end() ? nullptr : found;
}

bool is_frame_file(const std::filesystem::path& file) {
    const Kind* kind = kind_of(file);
    return kind && kind->way != ReadBy::clip;
}

std::string kinds_in_words() {
    std::string out;
    for (std::size_t i = 0; i < table.size(); ++i)
        out += (i == 0 ? "" : i + 1 == table.size() ? " or " : ", ") + std::string(table[i].name);
    return out;
}

}  // namespace bp
