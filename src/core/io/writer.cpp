#include "io/writer.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <cstring>

#include "io/vips.h"

namespace bp {
namespace {

constexpr std::array<FormatEntry, 5> table{{
    {Format::tiff, ".tif", 16},
    {Format::tiff, ".tiff", 16},
    {Format::png, ".png", 16},
    {Format::jpeg, ".jpg", 8},
    {Format::jpeg, ".jpeg", 8},
}};

io::Image wrap(const void* data, std::size_t bytes, Size size, int channels, VipsBandFormat format) {
    io::Image image(vips_image_new_from_memory(data, bytes, size.width, size.height, channels, format));
    if (!image) return image;
    VipsInterpretation meaning = channels == 1 ? VIPS_INTERPRETATION_B_W : VIPS_INTERPRETATION_sRGB;
    if (format == VIPS_FORMAT_USHORT) meaning = channels == 1 ? VIPS_INTERPRETATION_GREY16 : VIPS_INTERPRETATION_RGB16;
    image->Type = meaning;
    return image;
}

Status save(VipsImage* image, const fs::path& file, Format format, int quality) {
    int failed = 0;
    switch (format) {
        case Format::tiff:
            failed = vips_tiffsave(image, file.c_str(), "compression", VIPS_FOREIGN_TIFF_COMPRESSION_DEFLATE,
                                   "predictor", VIPS_FOREIGN_TIFF_PREDICTOR_HORIZONTAL, nullptr);
            break;
        case Format::png:
            failed = vips_pngsave(image, file.c_str(), "compression", 6, nullptr);
            break;
        case Format::jpeg:
            failed = vips_jpegsave(image, file.c_str(), "Q", quality, "optimize_coding", TRUE, "subsample_mode",
                                   quality >= 90 ? VIPS_FOREIGN_SUBSAMPLE_OFF : VIPS_FOREIGN_SUBSAMPLE_AUTO, nullptr);
            break;
    }
    if (failed != 0) return Failure{Fault::output, file.string(), io::vips_words()};
    return Done{};
}

std::vector<std::uint8_t> to_8_bit(const Raster16& picture) {
    std::vector<std::uint8_t> out(picture.data().size());
    std::transform(picture.data().begin(), picture.data().end(), out.begin(),
                   [](std::uint16_t v) { return std::uint8_t((v + 128) / 257); });
    return out;
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

Status write_picture(const fs::path& file, const Raster16& picture, const Profile& profile, const WriteOptions& options,
                     const CaptureData& capture) {
    io::start_vips();
    const std::optional<FormatEntry> format = format_of(file);
    if (!format)
        return Failure{Fault::wrong_call, file.string(),
                       "The name " + file.filename().string() +
                           " ends in no format that can be written: use .tif, "
                           ".png or .jpg."};
    const bool wide = std::min(options.bits, format->most_bits) == 16;
    const std::vector<std::uint8_t> narrow = wide ? std::vector<std::uint8_t>() : to_8_bit(picture);
    const void* data = wide ? static_cast<const void*>(picture.data().data()) : narrow.data();
    const io::Image image = wrap(data, wide ? picture.bytes() : narrow.size(), picture.size(), picture.channels(),
                                 wide ? VIPS_FORMAT_USHORT : VIPS_FORMAT_UCHAR);
    if (!image) return Failure{Fault::output, file.string(), io::vips_words()};
    if (!profile.is_srgb() || picture.channels() == 3) {
        const std::vector<std::uint8_t> icc = profile.bytes();
        vips_image_set_blob_copy(image.get(), VIPS_META_ICC_NAME, icc.data(), icc.size());
    }
    return write_whole(
        file,
        [&](const fs::path& beside) -> Status {
            Status saved = save(image.get(), beside, format->format, options.quality);
            if (!saved.ok()) return saved;
            return write_capture(beside, capture);
        },
        options.sync);
}

Result<std::vector<std::uint8_t>> encode_mask(const Raster8& mask) {
    io::start_vips();
    const io::Image image = wrap(mask.data().data(), mask.bytes(), mask.size(), 1, VIPS_FORMAT_UCHAR);
    void* bytes = nullptr;
    std::size_t size = 0;
    if (!image || vips_pngsave_buffer(image.get(), &bytes, &size, nullptr) != 0)
        return Failure{Fault::output, "", "A mask cannot be written: " + io::vips_words()};
    std::vector<std::uint8_t> out(size);
    std::memcpy(out.data(), bytes, size);
    g_free(bytes);
    return out;
}

}  // namespace bp
