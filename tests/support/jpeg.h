// JPEG files as cameras and other programs may write them: the program's own writer makes baseline files only.
#pragma once

#include "support/fixtures.h"

namespace bp::test {

enum class Scans { one, many };
enum class Stored { ycc, rgb, grey, four_inks };

// `orientation` is the value of the tag.
void write_jpeg(const fs::path& path, const Raster16& picture, Scans scans, Stored stored = Stored::ycc,
                int orientation = 1);

}  // namespace bp::test
