// libvips, held safely. Internal to the room.
#pragma once

#include <vips/vips.h>

#include <memory>

#include "io/file_bytes.h"

namespace bp::io {

struct Unref {
    void operator()(VipsImage* image) const { g_object_unref(image); }
    void operator()(VipsRegion* region) const { g_object_unref(region); }
    void operator()(VipsSource* source) const { g_object_unref(source); }
    void operator()(VipsTargetCustom* target) const { g_object_unref(target); }
};
using Image = std::unique_ptr<VipsImage, Unref>;
using Source = std::unique_ptr<VipsSource, Unref>;
using Target = std::unique_ptr<VipsTargetCustom, Unref>;
using Region = std::unique_ptr<VipsRegion, Unref>;

// Starts the library once for the process. Its words about errors are of no use: all threads share them, so that they
// may be about another file.
void start_vips();

// Lets the library read a file without holding it open. Null when there is no memory for it.
Source vips_source(const FileBytes& bytes);

}  // namespace bp::io
