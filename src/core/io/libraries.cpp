#include "io/libraries.h"

#include <dlfcn.h>

#include "base/files.h"

namespace bp::io {

Result<void*> function_of_library(const char* library, const char* function, const fs::path& file, Fault fault) {
    std::error_code error;
    const fs::path beside = fs::read_symlink("/proc/self/exe", error).parent_path() / library;
    // Never closed: loading it again takes as long.
    void* const loaded = ::dlopen(beside.c_str(), RTLD_NOW | RTLD_LOCAL);
    void* const found = loaded ? ::dlsym(loaded, function) : nullptr;
    if (!found)
        return Failure{fault,
                       file.string(),
                       {"%1: %2 is missing beside the program. Install Bright Pile again.",
                        {file.filename().string(), std::string(library)}}};
    return found;
}

}  // namespace bp::io
