// What the files of an export are called.
#pragma once

#include <string>
#include <vector>

#include "pile/pile.h"

namespace bp {

// Words in braces that a name may have: {pile}, {outcome}, {mode}, {frames}, {width}, {height}, {date}.
std::vector<std::string> name_words();

// The names of a pile's pictures, with their endings: that of pile.exporting first, then those of pile.also. Words in
// braces stand for what they say, others stay; an empty name is the pile's. What no file name can hold becomes a dash;
// names that would be alike get a number.
std::vector<std::string> export_names(const Pile& pile, const std::string& pile_name);

}  // namespace bp
