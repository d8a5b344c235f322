// The command line in the language of the environment: what people read of it, never what programs read.
#pragma once

#include <CLI/CLI.hpp>
#include <string>

#include "base/saying.h"

namespace bp::cli {

// Takes the language from LANGUAGE, LC_ALL, LC_MESSAGES and LANG, as gettext does, and the catalogs from beside the
// program. Before the first thread; numbers stay as they are everywhere.
void speak();

// In that language; in English where a catalog has no words for it. Any thread.
std::string said(const Saying& saying);

// The help of a program and all of its commands.
void translate(CLI::App& app);

}  // namespace bp::cli
