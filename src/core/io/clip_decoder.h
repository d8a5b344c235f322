// The decoder of clips, which is a library of its own: it brings more than a hundred others with it, for which only
// those wait who open a clip.
#pragma once

#include <cstdint>
#include <filesystem>
#include <memory>

#include "base/result.h"

namespace bp::io {

// A clip that is open, before its first frame. One thread at a time.
class ClipDecoder {
  public:
    virtual ~ClipDecoder() = default;
    // As the clip's header says; none of it is sure.
    virtual double width() const = 0;
    virtual double height() const = 0;
    virtual double rate() const = 0;  // frames a second
    virtual double frames() const = 0;
    // Goes on to the next frame; false where there is none.
    virtual bool next() = 0;
    // Decodes that frame, if it is one of three channels of 8 bits and of a size that does not change.
    virtual bool read(int frame_width, int frame_height, std::uint8_t* rgb) = 0;
};

// What the library gives: a decoder, or null when the file is no clip that it can read.
using OpenClip = ClipDecoder* (*)(const char* file);
constexpr const char* open_clip_name = "bright_pile_open_clip";
constexpr const char* clip_library = "bright-pile-clips.so";

// Null as above. Fails when the library does not lie beside the program.
Result<std::unique_ptr<ClipDecoder>> open_clip(const std::filesystem::path& clip);

}  // namespace bp::io
