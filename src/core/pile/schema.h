// The JSON Schema of pile.json, made from the tables of fields (fields.h). docs/pile.schema.json is this text.
#pragma once

#include <string>

namespace bp {

std::string pile_schema();

}  // namespace bp
