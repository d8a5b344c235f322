// What a pile file calls itself.
#pragma once

#include <string_view>

namespace bp::pile {

constexpr std::string_view format_name = "bright-pile";
constexpr std::string_view finish_format_name = "bright-pile-finish";
constexpr int format_version = 2;

}  // namespace bp::pile
