// The ways of rows to a file that write_picture chooses among. Internal to the room.
#pragma once

#include "io/writer.h"

namespace bp::io {

std::vector<std::uint8_t> to_8_bit(std::span<const std::uint16_t> row);

Result<std::unique_ptr<RowWriter>> tiff_writer(const std::filesystem::path& file, const PictureHead& head, int bits);
Result<std::unique_ptr<RowWriter>> exr_writer(const std::filesystem::path& file, const PictureHead& head, int bits);
Result<std::unique_ptr<RowWriter>> vips_writer(const std::filesystem::path& file, const PictureHead& head, int bits,
                                               Format format, int quality);

}  // namespace bp::io
