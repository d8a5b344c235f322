#include "io/clip_decoder.h"

#include <dlfcn.h>

#include "base/files.h"

namespace bp::io {

Result<std::unique_ptr<ClipDecoder>> open_clip(const fs::path& clip) {
    std::error_code error;
    const fs::path library = fs::read_symlink("/proc/self/exe", error).parent_path() / clip_library;
    // It stays open: loading it again takes as long.
    static void* const loaded = ::dlopen(library.c_str(), RTLD_NOW | RTLD_LOCAL);
    const auto open = loaded ? reinterpret_cast<OpenClip>(::dlsym(loaded, open_clip_name)) : nullptr;
    if (!open)
        return Failure{Fault::input,
                       clip.string(),
                       {"%1 cannot be read: %2 is missing beside the program. Install Bright Pile again.",
                        {clip.filename().string(), std::string(clip_library)}}};
    return std::unique_ptr<ClipDecoder>(open(clip.c_str()));
}

}  // namespace bp::io
