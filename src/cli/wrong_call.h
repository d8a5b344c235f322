// What is wrong with a call, in sentences of our own.
#pragma once

#include <CLI/CLI.hpp>

#include "base/saying.h"

namespace bp::cli {

// By what the library for options tells of it, which is English alone; its own words where they are of no known kind.
Saying wrong_call(const CLI::ParseError& error);

}  // namespace bp::cli
