// From what a person names to a list of files.
#pragma once

#include <filesystem>
#include <string>
#include <vector>

#include "base/result.h"

namespace bp {

// Files as they are; folders give the pictures directly in them (by ending), in natural order of their names; globs
// give what they match. A name that gives nothing is a failure. No file comes twice.
Result<std::vector<std::filesystem::path>> gather_files(const std::vector<std::string>& names);

}  // namespace bp
