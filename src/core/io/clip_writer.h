// Writing clips: H.264 in MP4 or VP9 in WebM (FFmpeg), read everywhere: 8 bits, BT.709, the tones of sRGB.
#pragma once

#include <filesystem>
#include <functional>
#include <memory>

#include "base/result.h"
#include "image/raster.h"

namespace bp {

// Whether the name's ending is that of a clip that can be written: .mp4 or .webm, in any case.
bool writes_as_clip(const std::filesystem::path& file);

struct ClipHead {
    Size size;         // even in both ways
    double rate = 24;  // pictures a second
    int quality = 80;  // 1 to 100
};

// One call at a time.
class ClipWriter {
  public:
    virtual ~ClipWriter() = default;
    // The next picture, so many times: of sRGB, one channel or three, of the clip's size.
    virtual Status add(const Raster16& picture, int times) = 0;
};

// Writes a clip through a neighbouring file (write_whole): `fill` is given a writer and must give it all pictures.
// Failures of `fill` that are no failures to write come back as they are.
Status write_clip(const std::filesystem::path& file, const ClipHead& head,
                  const std::function<Status(ClipWriter&)>& fill);

}  // namespace bp
