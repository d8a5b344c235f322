// libvips, held safely. Internal to the room.
#pragma once

#include <vips/vips.h>

#include <memory>
#include <string>

#include "io/file_bytes.h"

namespace bp::io {

struct Unref {
    void operator()(VipsImage* image) const { g_object_unref(image); }
    void operator()(VipsRegion* region) const { g_object_unref(region); }
    void operator()(VipsSource* source) const { g_object_unref(source); }
};
using Image = std::unique_ptr<VipsImage, Unref>;
using Source = std::unique_ptr<VipsSource, Unref>;
using Region = std::unique_ptr<VipsRegion, Unref>;

// Starts the library once for the process.
void start_vips();
// The library's own words about the last error on this thread, on one line; clears them.
std::string vips_words();

// Lets the library read a file without holding it open. Null when there is no memory for it.
Source vips_source(const FileBytes& bytes);

}  // namespace bp::io
