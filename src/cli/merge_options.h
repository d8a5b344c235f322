// What frames are merged to: the options that subcommands share, and the pile that they ask for.
#pragma once

#include <chrono>
#include <optional>
#include <string>
#include <vector>

#include "cli/commands.h"
#include "cli/report.h"

namespace bp::cli {

struct MergeOptions {
    void add_to(CLI::App& app);

    // Whether an option was given; without a pattern all of them say what is done.
    bool says(const char* option) const { return like.empty() || parser->count(option) > 0; }

    const CLI::App* parser = nullptr;  // that the options were added to
    FrameChoice frames;
    std::string like;  // a pile
    std::string mode = "lighten";
    std::string by = "channel";
    double taper_percent = 0;
    std::string taper_end;
    int head_frames = 0;
    std::optional<int> head_apart;
    std::optional<double> head_radius_px;
    std::string head_light;
    std::string white = "hard";
    std::vector<std::string> left_out;  // N:MASK
    std::string streaks = "keep";
    std::string knit = "off";
    std::optional<double> knit_longest_s;
    std::string light = "linear";
    std::string align = "none";
    std::string even = "off";
    std::string trust;
    std::string sky;
    std::string align_of[2];  // of sky and land, when they are not aligned and merged as --align and --mode say
    std::string mode_of[2];
    std::string hot = "off";
    std::vector<std::string> darks;
    bool scale_darks = false;
    std::string finish;
    std::string cover = "full";
    int depth = 16;
    int quality = 92;
    std::string profile;
    int long_edge_px = 0;
    double sharpen = 0;
    bool without_place = false;
    std::size_t memory = MemoryBudget::of_machine().work_bytes;
    int threads = 0;
};

// The pile that is asked for, and what was worked out on the way.
struct Asked {
    Pile pile;
    GivenPaths paths;
    Stages stages;
    std::unique_ptr<FrameStore> store;
};
// Opens the frames, aligns, evens and looks for what is asked for; remarks go to standard error. `out` is what will be
// written.
Result<Asked> pile_asked_for(const MergeOptions& options, const std::filesystem::path& out, Job& job);

double seconds_since(std::chrono::steady_clock::time_point begin);

}  // namespace bp::cli
