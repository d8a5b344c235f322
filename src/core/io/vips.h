// libvips, held safely. Internal to the room.
#pragma once

#include <vips/vips.h>

#include <memory>
#include <string>

namespace bp::io {

struct Unref {
    void operator()(VipsImage* image) const { g_object_unref(image); }
    void operator()(VipsRegion* region) const { g_object_unref(region); }
};
using Image = std::unique_ptr<VipsImage, Unref>;
using Region = std::unique_ptr<VipsRegion, Unref>;

// Starts the library once for the process.
void start_vips();
// The library's own words about the last error on this thread, on one line; clears them.
std::string vips_words();

}  // namespace bp::io
