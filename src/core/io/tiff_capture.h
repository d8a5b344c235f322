// Capture data in TIFF files, which DNG files are, too (libtiff).
#pragma once

#include <tiffio.h>

#include "io/capture.h"

namespace bp::io {

// Writes the directory of the picture that `tiff` holds, and with it one of capture data when there is any. False when
// the library refuses. Afterwards the file may be closed.
bool write_with_capture(TIFF* tiff, const CaptureData& capture);

}  // namespace bp::io
