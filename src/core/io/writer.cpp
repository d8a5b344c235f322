#include "io/writer.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <cstring>

#include "io/vips.h"
#include "io/writers.h"

namespace bp {
namespace {

using namespace io;  // the functions of libvips among them, see io/vips.h

constexpr int any_side = 1 << 30;
constexpr std::array<FormatEntry, 8> table{{
    {Format::tiff, ".tif", 8, 16, any_side},
    {Format::tiff, ".tiff", 8, 16, any_side},
    {Format::png, ".png", 8, 16, any_side},
    {Format::jpeg, ".jpg", 8, 8, 65535},
    {Format::jpeg, ".jpeg", 8, 8, 65535},
    {Format::webp, ".webp", 8, 8, 16383},
    {Format::jxl, ".jxl", 8, 16, any_side},
    {Format::exr, ".exr", 16, 32, any_side},
}};

Result<std::unique_ptr<RowWriter>> open_writer(const fs::path& file, const PictureHead& head, int bits, Format format,
                                               int quality) {
    if (format == Format::tiff) return io::tiff_writer(file, head, bits);
    if (format == Format::exr) return io::exr_writer(file, head, bits);
    return io::vips_writer(file, head, bits, format, quality);
}

}  // namespace

std::span<const FormatEntry> formats() {
    return table;
}

std::optional<FormatEntry> format_of(const fs::path& file) {
    std::string ending = file.extension().string();
    std::transform(ending.begin(), ending.end(), ending.begin(), [](unsigned char c) { return char(std::tolower(c)); });
    const auto* found =
        std::find_if(table.begin(), table.end(), [&](const FormatEntry& e) { return e.ending == ending; });
    if (found == table.end()) return std::nullopt;
    return *found;
}

std::string standard_ending(Format format) {
    const auto* found =
        std::find_if(table.begin(), table.end(), [format](const FormatEntry& e) { return e.format == format; });
    return std::string(found->ending);
}

std::vector<std::uint8_t> io::to_8_bit(std::span<const std::uint16_t> row) {
    std::vector<std::uint8_t> out(row.size());
    std::transform(row.begin(), row.end(), out.begin(), [](std::uint16_t v) { return std::uint8_t((v + 128) / 257); });
    return out;
}

Status write_picture(const fs::path& file, const PictureHead& head, const WriteOptions& options,
                     const std::function<Status(RowWriter&)>& fill) {
    const std::optional<FormatEntry> format = format_of(file);
    if (!format)
        return Failure{
            Fault::wrong_call,
            file.string(),
            {"The name %1 ends in no format that can be written: use .tif, .png, .exr, .jxl, .webp, .jpg or .ora.",
             {file.filename().string()}}};
    if (std::max(head.size.width, head.size.height) > format->longest_side)
        return Failure{Fault::wrong_call,
                       file.string(),
                       {"%1 was not written: its format holds %2 pixels a side at most. Write it smaller, or as .tif.",
                        {file.filename().string(), std::to_string(format->longest_side)}}};
    const int bits = std::clamp(options.bits, format->least_bits, format->most_bits);
    return write_whole(
        file,
        [&](const fs::path& beside) -> Status {
            Result<std::unique_ptr<RowWriter>> writer =
                open_writer(beside, head, bits, format->format, options.quality);
            if (!writer.ok()) return writer.failure();
            Status filled = fill(*writer.value());
            if (!filled.ok()) return filled;
            return writer.value()->finish();
        },
        options.sync);
}

Status write_picture(const fs::path& file, const Raster16& picture, const Profile& profile, const WriteOptions& options,
                     const CaptureData& capture) {
    std::vector<const std::uint16_t*> rows;
    rows.reserve(std::size_t(picture.height()));
    for (int y = 0; y < picture.height(); ++y) rows.push_back(picture.row(y));
    return write_picture(file, {picture.size(), picture.channels(), profile, capture}, options,
                         [&](RowWriter& writer) { return writer.write(rows); });
}

Result<std::vector<std::uint8_t>> encode_mask(const Raster8& mask) {
    if (const Status started = io::start_vips(); !started.ok()) return started.failure();
    const io::Image image(vips_image_new_from_memory(mask.data().data(), mask.bytes(), mask.width(), mask.height(), 1,
                                                     VIPS_FORMAT_UCHAR));
    if (image) image->Type = VIPS_INTERPRETATION_B_W;
    void* bytes = nullptr;
    std::size_t size = 0;
    if (!image || vips_pngsave_buffer(image.get(), &bytes, &size, nullptr) != 0)
        return Failure{Fault::output, "", "A mask cannot be made into a picture."};
    std::vector<std::uint8_t> out(size);
    std::memcpy(out.data(), bytes, size);
    g_free(bytes);
    return out;
}

}  // namespace bp
