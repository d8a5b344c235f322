// Piles as earlier versions wrote them.
#pragma once

#include <cstdint>
#include <nlohmann/json_fwd.hpp>

namespace bp::pile {

// What pile.json of `version` says, in the words of the present one. Nothing is checked: what is not of the kind that
// it should be stays as it is.
nlohmann::json as_of_now(nlohmann::json pile, std::int64_t version);

}  // namespace bp::pile
