// From a pile to a file.
#pragma once

#include <filesystem>
#include <optional>

#include "base/job.h"
#include "engine/in_step.h"
#include "io/writer.h"
#include "pile/pile.h"

namespace bp {

struct Exported {
    Pile pile;            // with a problem on every frame that turned out broken on the way
    Rect area;            // what was written, in canvas pixels
    Size size;            // of the file
    StripPlan plan;       // by which the frames went through
    StepTimes spent;      // inside merge_s
    double merge_s = 0;   // decoding, merging and writing rows, which overlap
    double finish_s = 0;  // until the file is whole and on the disk
    Rect kept_area;       // of `kept`, in canvas pixels
    Raster16 kept;        // the middle of what was written, when it was asked for
};

struct ExportOptions {
    WriteOptions write;
    std::size_t memory_bytes = MemoryBudget::of_machine().work_bytes;
    std::shared_ptr<Scratch> scratch = Scratch::in_cache();
    // Where the pile's moving lights and the edges of its parts may be known already. Must live on; null: they are
    // found when they are needed.
    FrameStore* known = nullptr;
    // How much of the middle of the picture is kept in memory, too.
    Size keep_middle{};
};

// Renders output_area() at full size, makes it smaller and brings it to a profile as the pile's export settings say,
// and writes it by the name's ending; .ora in layers (layers.h). A frame that breaks while it is read is set
// aside and the merge begins anew without it. Memory stays within the budget whatever the number of frames; one that is
// too small is a failure that says what is needed. Never writes over a frame of the pile.
Result<Exported> export_picture(const Pile& pile, const std::filesystem::path& file, const ExportOptions& options,
                                Job& job);

}  // namespace bp
