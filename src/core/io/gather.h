// From what a person names to a list of files.
#pragma once

#include <filesystem>
#include <string>
#include <vector>

#include "base/result.h"

namespace bp {

// Whether folders also give what is in the folders in them, one folder after the other.
enum class Inner { no, yes };

// Files as they are; folders give the pictures in them (by ending), in natural order of their names; globs give what
// they match. A name that gives nothing is a failure. No file comes twice.
Result<std::vector<std::filesystem::path>> gather_files(const std::vector<std::string>& names, Inner inner = Inner::no);

}  // namespace bp
