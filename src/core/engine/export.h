// From a pile to a file.
#pragma once

#include <filesystem>
#include <optional>

#include "base/job.h"
#include "io/writer.h"
#include "pile/pile.h"

namespace bp {

struct Exported {
    Pile pile;  // with a problem on every frame that turned out broken on the way
    Rect area;  // what was written, in canvas pixels
    double render_s = 0;
    double write_s = 0;
};

// Renders output_area() at full size and writes it by the name's ending. A frame that breaks while it is read is set
// aside and the merge begins anew without it. Never writes over a frame of the pile.
Result<Exported> export_picture(const Pile& pile, const std::filesystem::path& file, const WriteOptions& options,
                                Job& job);

}  // namespace bp
