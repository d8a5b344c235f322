// The picture as it comes into being, frame after frame and then part after part, as a clip or numbered pictures.
#pragma once

#include <filesystem>
#include <vector>

#include "engine/export.h"

namespace bp {

// Which pictures a growth is made of.
struct GrowthPlan {
    struct Shown {
        int until = 0;  // steps: the frames that are merged, in their order, then the parts that show
        int times = 1;  // how often it follows itself
    };
    std::vector<Shown> pictures;
    long count() const;  // with those that follow themselves
    double seconds = 0;  // that they take
    Size size;
};
// By the pile's growth settings, and no larger than its export is. Empty for a pile that has nothing to show.
GrowthPlan growth_plan(const Pile& pile);

struct GrownFile {
    Pile pile;  // with a problem on every frame that turned out broken on the way
    GrowthPlan plan;
    double grow_s = 0;
};

// Grows output_area() at the smallest level that is no smaller than the size asked for, finishes every picture as the
// whole one is finished, makes it smaller and writes them: a clip by the name's ending, .mp4 or .webm, or, where there
// is none, a new or empty folder of numbered PNG files. Each frame is gone through once where what it adds does not
// depend on those before it (grows_by_one()); else as often as memory asks for. The last picture is the one that
// render() gives at that level. Never writes into a folder that holds something.
Result<GrownFile> export_growth(const Pile& pile, const std::filesystem::path& file, const ExportOptions& options,
                                Job& job);

}  // namespace bp
