// A zip archive as named pieces of bytes (libzip). Internal to the room.
#pragma once

#include <cstdint>
#include <filesystem>
#include <map>
#include <string>
#include <vector>

#include "base/result.h"

namespace bp {

using Bytes = std::vector<std::uint8_t>;
using Pieces = std::map<std::string, Bytes>;

// Pieces whose names end in .png are stored, the others deflated. All carry one fixed time, so that the same pile gives
// the same bytes.
Result<Bytes> zipped(const Pieces& pieces);
// Refuses archives that would unpack to more than `limit` bytes. The sentence of a failure is the reason alone.
Result<Pieces> read_zip(const std::filesystem::path& file, std::uint64_t limit);

}  // namespace bp
