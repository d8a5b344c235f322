// The maker of clips, which is a library of its own: what it brings with it is loaded when a clip is written.
#pragma once

#include <cstdint>

#include "io/byte_target.h"

namespace bp::io {

// BT.709 in 8 bits with foot- and headroom, the tones of sRGB: brightness of every pixel, blue and red of every second
// column and row. A row begins so many bytes after the one before.
struct ClipPicture {
    std::uint8_t *brightness, *blue, *red;
    int brightness_stride, blue_stride, red_stride;
};

// Pictures on their way into a clip. One thread at a time; nothing is thrown out of it.
class ClipMaker {
  public:
    virtual ~ClipMaker() = default;
    // The room of the next picture; its rows are written before it is added. False when there is none.
    virtual bool begin(ClipPicture& room) = 0;
    // It, so many times. False when it cannot be written.
    virtual bool add(int times) = 0;
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
