// The writer of OpenEXR, which is a library of its own: what it brings with it is loaded when such a picture is
// written.
#pragma once

#include "io/byte_target.h"

namespace bp::io {

// Rows of a picture on their way to a file. One thread at a time; nothing is thrown out of it.
class ExrRows {
  public:
    virtual ~ExrRows() = default;
    // The next row, of light; false when it cannot be written.
    virtual bool write(const float* row) = 0;
    // After the last.
    virtual bool finish() = 0;
};

struct ExrHead {
    int width, height, channels;
    bool half;
    float primaries[8];  // x and y of red, green, blue, white
    double dpi;          // 0: nothing is said of that
};
// Null when the file cannot be begun.
using OpenExr = ExrRows* (*)(ByteTarget*, const ExrHead*);
constexpr const char* open_exr_name = "bright_pile_open_exr";
constexpr const char* exr_library = "bright-pile-exr.so";

}  // namespace bp::io
