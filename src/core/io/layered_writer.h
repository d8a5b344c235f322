// Writing pictures in layers: OpenRaster (freedesktop.org, Baseline specification 0.0.5), a zip archive of PNG pictures
// and a list of them.
#pragma once

#include <filesystem>
#include <memory>
#include <string>
#include <vector>

#include "base/files.h"
#include "io/writer.h"

namespace bp {

// Whether the name's ending is that of such a file: .ora, in any case.
bool writes_in_layers(const std::filesystem::path& file);

// One of the layers, from the one below all others to the one above.
struct PictureLayer {
    std::string name;
    std::string operation = "svg:src-over";  // by which it meets what lies below
    double opacity = 1;
    bool visible = true;
    int left = 0, top = 0;
};

// The pictures go to files without a name until all are there: one at a time is in memory, row by row.
class LayeredWriter {
  public:
    virtual ~LayeredWriter() = default;
    // The next layer, of three channels or one, and one more where it lets through: how much of it there is, as a
    // share of the 16-bit range. Its rows are written before anything else is asked for.
    virtual Result<std::unique_ptr<RowWriter>> layer(const PictureLayer& layer, const PictureHead& head) = 0;
    // The whole picture as it is seen, and a small one of at most 256 pixels a side.
    virtual Result<std::unique_ptr<RowWriter>> merged(const PictureHead& head) = 0;
    virtual Result<std::unique_ptr<RowWriter>> thumbnail(const PictureHead& head) = 0;
    static constexpr int thumbnail_side = 256;
};

// Writes a file through a neighbouring one (write_whole): `fill` gives all layers, the merged picture and the small
// one. `bits`: 8 or 16 a sample. What waits takes room in `folder`.
Status write_in_layers(const std::filesystem::path& file, Size size, double dpi, int bits,
                       const std::filesystem::path& folder, const std::function<Status(LayeredWriter&)>& fill);

}  // namespace bp
