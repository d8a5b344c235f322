// Libraries of ours that are loaded when they are first needed, because of all that comes with them.
#pragma once

#include <filesystem>

#include "base/result.h"

namespace bp::io {

// A function of one; it stays loaded. Fails when it does not lie beside the program, naming the file that it was needed
// for.
Result<void*> function_of_library(const char* library, const char* function, const std::filesystem::path& file,
                                  Fault fault = Fault::output);

}  // namespace bp::io
