// libvips, held safely. Internal to the room.
//
// The library brings a hundred others with it, whose loading takes as long as decoding a frame. It is therefore loaded
// when first needed, and these functions, under the names that they have there, are what was found in it: null before
// start_vips(). One that is missing here does not link.
#pragma once

#include <vips/vips.h>

#include <memory>

#include "io/file_bytes.h"

namespace bp::io {

// clang-format off
#define BP_VIPS_FUNCTIONS(each) \
    each(g_free) each(g_log_set_handler) each(g_object_unref) each(g_object_weak_ref) \
    each(g_signal_connect_data) each(g_type_check_instance_cast) each(vips_cache_set_max) \
    each(vips_error_clear) each(vips_foreign_find_load) \
    each(vips_foreign_find_load_source) each(vips_format_sizeof_unsafe) each(vips_image_generate) \
    each(vips_icc_transform) each(vips_image_get_bands) each(vips_image_get_blob) each(vips_image_get_format) \
    each(vips_image_get_height) each(vips_image_get_interpretation) each(vips_image_get_orientation) \
    each(vips_image_get_typeof) each(vips_image_get_width) each(vips_image_init_fields) each(vips_image_new) \
    each(vips_image_new_from_buffer) each(vips_image_new_from_file) each(vips_image_new_from_memory) \
    each(vips_image_new_from_source) each(vips_image_pipelinev) each(vips_image_remove) \
    each(vips_image_set_blob_copy) each(vips_image_write_to_memory) each(vips_init) each(vips_jpegsave_target) each(vips_jxlsave_target) \
    each(vips_pngsave_buffer) each(vips_pngsave_target) each(vips_region_new) each(vips_region_prepare) \
    each(vips_source_custom_new) each(vips_source_get_type) each(vips_target_custom_new) \
    each(vips_target_get_type) each(vips_thread_shutdown) each(vips_webpsave_target)
// clang-format on

// A name that is declared takes no parentheses. NOLINTNEXTLINE(bugprone-macro-parentheses)
#define BP_VIPS_DECLARE(name) extern decltype(&::name) name;
BP_VIPS_FUNCTIONS(BP_VIPS_DECLARE)
#undef BP_VIPS_DECLARE

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

// Loads and starts the library once for the process. Its words about errors are of no use: all threads share them, so
// that they may be about another file. Fails when it is not there.
Status start_vips();

// Lets the library read a file without holding it open. Null when there is no memory for it.
Source vips_source(const FileBytes& bytes);

}  // namespace bp::io
