// A pile as a picture in layers: its base, its parts with their masks over it, and the finished picture.
#pragma once

#include <filesystem>

#include "engine/export.h"

namespace bp {

// Writes output_area() as its export settings say, in OpenRaster (io/layered_writer.h): a layer for the base, as it is
// merged and not finished; one for every part, from the lowest to the highest, with its name, its strength and the join
// by which it meets what lies below, hidden when the part is off; and as the whole picture the finished one. A part
// whose join the format does not know (added light) is a layer of what the picture is there. Fills in all of `out` but
// its pile. Layers come one at a time; each is in memory whole, and holds a ticket for that.
Status write_layers(const Pile& pile, const std::filesystem::path& file, const ExportOptions& options, Job& job,
                    Exported& out);

}  // namespace bp
