#include "io/clip_decoder.h"

#include "io/libraries.h"

namespace bp::io {

Result<std::unique_ptr<ClipDecoder>> open_clip(const std::filesystem::path& clip) {
    const Result<void*> open = function_of_library(clip_library, open_clip_name, clip, Fault::input);
    if (!open.ok()) return open.failure();
    return std::unique_ptr<ClipDecoder>(reinterpret_cast<OpenClip>(open.value())(clip.c_str()));
}

}  // namespace bp::io
