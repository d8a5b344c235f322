// Where a frame lies, as pile files write it.
#pragma once

#include <nlohmann/json_fwd.hpp>

#include "align/align.h"

namespace bp {

nlohmann::json alignment_json(const Alignment& place);
// Throws what the JSON library throws when something is missing or of another kind.
Alignment alignment_from(const nlohmann::json& in);
// True for a place that can be: it leads the corners of a picture of that size to pixels that can be counted, can be
// undone, and neither lens nor bend folds the picture.
bool sound(const Alignment& place, Size size);

}  // namespace bp
