// What a merge did, as JSON.
#pragma once

#include <filesystem>
#include <nlohmann/json_fwd.hpp>

#include "cli/commands.h"
#include "engine/export.h"
#include "even/noise.h"

namespace bp::cli {

// As text; names that are no UTF-8 are written as far as they are.
std::string json_text(const nlohmann::json& json);
// What is said of a frame's place: docs/cli.md.
nlohmann::json alignment_json(const Alignment& alignment);

struct Stages {
    double open_s = 0;
    double align_s = 0;
    double even_s = 0;
    double lights_s = 0;           // looking for those that move
    std::size_t memory_bytes = 0;  // that were allowed
    std::optional<Noise> noise;    // of the middle of the picture
};

Status write_report(const std::filesystem::path& file, const Exported& exported, const GivenPaths& paths,
                    const Stages& stages);

}  // namespace bp::cli
