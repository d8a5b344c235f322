// The maker of clips, which is a library of its own: what it brings with it is loaded when a clip is written.
#pragma once

#include <cstdint>

#include "io/byte_target.h"

namespace bp::io {

// Pictures on their way into a clip. One thread at a time; nothing is thrown out of it.
class ClipMaker {
  public:
    virtual ~ClipMaker() = default;
    // The next picture, so many times: rows of three 16-bit samples of sRGB, one after the other. False when it cannot
    // be written.
    virtual bool add(const std::uint16_t* rgb, int times) = 0;
    // After the last.
    virtual bool finish() = 0;
};

struct ClipMakerHead {
    int width, height;  // even
    double rate;        // pictures a second
    int quality;        // 1 to 100
    bool webm;          // VP9 in WebM, else H.264 in MP4
};
// Null when the clip cannot be begun.
using OpenClipMaker = ClipMaker* (*)(ByteTarget*, const ClipMakerHead*);
constexpr const char* open_clip_maker_name = "bright_pile_open_clip_maker";
constexpr const char* clip_maker_library = "bright-pile-clip-maker.so";

}  // namespace bp::io
