#include "io/reader.h"

#include <algorithm>
#include <array>
#include <cstring>

#include "io/clip.h"
#include "io/readers.h"
#include "kernels/extremes.h"

namespace bp {

namespace {

using namespace io;  // the functions of libvips among them, see io/vips.h

// A picture beyond this is taken for a broken header before any memory is asked for.
constexpr int largest_side = 200000;
constexpr double largest_area = 4e9;

struct KnownImage {
    Image image;
    bool whole;  // the loader takes in the whole picture first
};

// By what the file holds, whatever its name.
const Kind* kind_by_loader(const char* loader) {
    if (!loader) return nullptr;
    const auto all = kinds();
    const auto found = std::find_if(all.begin(), all.end(), [loader](const Kind& k) {
        return !k.loader.empty() && std::string_view(loader).find(k.loader) != std::string_view::npos;
    });
    return found == all.end() ? nullptr : &*found;
}

// One step of the library's; the image as it was where it cannot be done.
template <class Step>
Image stepped(Image image, const Step& step) {
    VipsImage* out = nullptr;
    return step(image.get(), &out) == 0 ? Image(out) : std::move(image);
}

// Light beyond 16 bits: OpenEXR, TIFF of floats, some JPEG XL.
bool in_floats(const Image& image) {
    return vips_image_get_format(image.get()) == VIPS_FORMAT_FLOAT;
}

// Four inks, by the profile that the file has or, without one, by that of a usual press: as sRGB.
Image in_light(Image image) {
    if (vips_image_get_interpretation(image.get()) != VIPS_INTERPRETATION_CMYK) return image;
    const int bits = vips_image_get_format(image.get()) == VIPS_FORMAT_USHORT ? 16 : 8;
    image = stepped(std::move(image), [bits](VipsImage* in, VipsImage** out) {
        return vips_icc_transform(in, out, "srgb", "embedded", TRUE, "input_profile", "cmyk", "depth", bits,
                                  "black_point_compensation", TRUE, nullptr);
    });
    vips_image_remove(image.get(), VIPS_META_ICC_NAME);
    return image;
}

Result<KnownImage> open_image(const io::FileBytes& bytes) {
    if (const Status started = io::start_vips(); !started.ok()) return started.failure();
    vips_error_clear();
    const std::filesystem::path& file = bytes.file();
    const io::Source source = io::vips_source(bytes);
    const Kind* kind = kind_by_loader(vips_foreign_find_load_source(source.get()));
    Image image;
    if (kind) {
        image.reset(vips_image_new_from_source(source.get(), "", "access", VIPS_ACCESS_SEQUENTIAL, "fail_on",
                                               VIPS_FAIL_ON_ERROR, nullptr));
    } else {
        // OpenEXR is read by its name only.
        vips_error_clear();
        kind = kind_by_loader(vips_foreign_find_load(file.c_str()));
        if (!kind) {
            vips_error_clear();
            if (const auto trouble = bytes.trouble()) return *trouble;
            return refuse(file, "%1 is not a picture that can be read here. Use %2.", {kinds_in_words()});
        }
        image.reset(vips_image_new_from_file(file.c_str(), "access", VIPS_ACCESS_SEQUENTIAL, nullptr));
    }
    if (!image) return io::unreadable(bytes);
    // A picture in passes is whole only after the last.
    const bool in_passes = vips_image_get_typeof(image.get(), "interlaced") != 0;
    return KnownImage{in_light(std::move(image)), kind->whole || in_passes};
}

Status can_be(Size size, const std::filesystem::path& file) {
    if (size.width < 1 || size.height < 1 || size.width > largest_side || size.height > largest_side ||
        double(size.width) * size.height > largest_area)
        return refuse(file, "%1 claims to be %2 x %3 pixels, which cannot be true. Copy it again from the camera.",
                      {std::to_string(size.width), std::to_string(size.height)});
    return Done{};
}

Result<PictureFacts> facts_of(const Image& image, const std::filesystem::path& file) {
    PictureFacts facts;
    const int width = vips_image_get_width(image.get());
    const int height = vips_image_get_height(image.get());
    const Status possible = can_be({width, height}, file);
    if (!possible.ok()) return possible.failure();
    facts.size = {width, height};
    const VipsBandFormat format = vips_image_get_format(image.get());
    const VipsInterpretation meaning = vips_image_get_interpretation(image.get());
    const int bands = vips_image_get_bands(image.get());
    facts.bits = format == VIPS_FORMAT_UCHAR ? 8 : 16;
    if (in_floats(image) &&
        (meaning == VIPS_INTERPRETATION_scRGB ||
         (bands <= 2 && (meaning == VIPS_INTERPRETATION_B_W || meaning == VIPS_INTERPRETATION_GREY16 ||
                         meaning == VIPS_INTERPRETATION_MULTIBAND)))) {
        facts.channels = bands <= 2 ? 1 : 3;
        facts.beyond_white = true;
        return facts;
    }
    if (format != VIPS_FORMAT_UCHAR && format != VIPS_FORMAT_USHORT)
        return refuse(file, "%1 does not hold 8 or 16 bit samples. Save it as 16-bit TIFF.");
    const bool grey = meaning == VIPS_INTERPRETATION_B_W || meaning == VIPS_INTERPRETATION_GREY16 ||
                      (meaning == VIPS_INTERPRETATION_MULTIBAND && bands == 1);
    const bool rgb = meaning == VIPS_INTERPRETATION_sRGB || meaning == VIPS_INTERPRETATION_RGB ||
                     meaning == VIPS_INTERPRETATION_RGB16;
    if (!(grey && bands <= 2) && !(rgb && (bands == 3 || bands == 4)))
        return refuse(file, "%1 is neither grey nor RGB. Save it as RGB.");
    facts.channels = grey ? 1 : 3;
    if (vips_image_get_typeof(image.get(), VIPS_META_ICC_NAME) != 0) {
        const void* bytes = nullptr;
        std::size_t size = 0;
        if (vips_image_get_blob(image.get(), VIPS_META_ICC_NAME, &bytes, &size) == 0) {
            const auto* first = static_cast<const std::uint8_t*>(bytes);
            facts.profile = Profile(std::vector<std::uint8_t>(first, first + size));
            if (!facts.profile.fits(facts.channels)) facts.profile = Profile::srgb();
        }
    }
    return facts;
}

struct Opened {
    io::FileBytes bytes;
    Image image;          // null for JPEG, and where `rows` are there
    bool whole;           // the loader takes in the whole picture first
    PictureFacts stored;  // as the file has it, at full size
    io::Orientation orientation = io::Orientation::upright;
    std::unique_ptr<RowReader> rows = nullptr;  // of a kind that the library does not read
    int stops = 0;                              // as in Developing
    bool apart = false;                         // a JPEG that stores brightness and colour apart
};

// `stops`: as in Developing.
Result<Opened> open_facts(const std::filesystem::path& file, int stops = 0) {
    Result<io::FileBytes> bytes = io::FileBytes::open(file);
    if (!bytes.ok()) return bytes.failure();
    Result<io::JpegHead> head = Failure{};
    if (io::is_jpeg(bytes.value())) {
        head = io::jpeg_head(bytes.value());
        if (!head.ok()) return head.failure();
    }
    // Inks are converted by the library.
    if (head.ok() && !head.value().inks) {
        const Status possible = can_be(head.value().facts.size, file);
        if (!possible.ok()) return possible.failure();
        Opened out{std::move(bytes).value(), nullptr, false, std::move(head.value().facts), head.value().orientation};
        out.apart = head.value().apart;
        return out;
    }
    Result<io::Halves> halves = io::half_rows(bytes.value(), stops);
    if (!halves.ok()) return halves.failure();
    if (halves.value().rows) {
        PictureFacts facts = halves.value().rows->facts();
        if (const Status possible = can_be(facts.size, file); !possible.ok()) return possible.failure();
        return Opened{std::move(bytes).value(),      nullptr, false, std::move(facts), halves.value().orientation,
                      std::move(halves.value().rows)};
    }
    Result<KnownImage> known = open_image(bytes.value());
    if (!known.ok()) return known.failure();
    Image& image = known.value().image;
    Result<PictureFacts> facts = facts_of(image, file);
    if (!facts.ok()) return facts.failure();
    const int tag = vips_image_get_orientation(image.get());
    return Opened{std::move(bytes).value(),
                  std::move(image),
                  known.value().whole,
                  std::move(facts).value(),
                  tag >= 1 && tag <= 8 ? io::Orientation(tag) : io::Orientation::upright,
                  nullptr,
                  stops};
}

// `apart`: as they are stored, where that is told.
Result<std::unique_ptr<RowReader>> rows_of(Opened& opened, int level, bool apart = false) {
    const bool jpeg = !opened.image && !opened.rows;
    // The decoder's scaled picture is averaged further; so is that of other formats, in the same two steps: the levels
    // beyond are then the same whether they are made from the file or from a picture that is at hand.
    const int first_step = std::min(level, scaled_levels);
    Result<std::unique_ptr<RowReader>> rows =
        jpeg ? io::jpeg_rows(opened.bytes, opened.stored, first_step, apart)
        : opened.rows
            ? Result(std::move(opened.rows))
            : Result(io::vips_rows(opened.bytes, std::move(opened.image), opened.stored, opened.whole, opened.stops));
    if (!rows.ok()) return rows;
    std::unique_ptr<RowReader> out = std::move(rows).value();
    if (opened.orientation != io::Orientation::upright) out = io::turned_rows(std::move(out), opened.orientation);
    if (!jpeg && first_step > 0) out = io::boxed_rows(std::move(out), first_step);
    if (level > first_step) out = io::boxed_rows(std::move(out), level - first_step);
    return out;
}

// A JPEG whose channels the decoder gives as they are asked for; none for every other kind.
Result<std::optional<Opened>> opened_jpeg(const std::filesystem::path& file) {
    const Kind* kind = kind_of(file);
    if (clip_frame_of(file) || (kind && kind->way == ReadBy::raw)) return std::optional<Opened>();
    Result<Opened> opened = open_facts(file);
    if (!opened.ok()) return opened.failure();
    if (opened.value().image || opened.value().rows) return std::optional<Opened>();
    return std::optional(std::move(opened).value());
}

}  // namespace

Status RowReader::skip(int rows) {
    passed_over_.resize(row_bytes() / 2 + 1);
    auto* row = reinterpret_cast<std::uint8_t*>(passed_over_.data());
    for (int i = 0; i < rows; ++i)
        if (Status got = read({&row, 1}); !got.ok()) return got;
    return Done{};
}

Result<PictureFacts> probe_picture(const std::filesystem::path& file) {
    if (const auto frame = clip_frame_of(file)) {
        Result<std::filesystem::path> pixels = pixels_of_clip_frame(*frame);
        return pixels.ok() ? probe_picture(pixels.value()) : Result<PictureFacts>(pixels.failure());
    }
    if (const Kind* kind = kind_of(file); kind && kind->way == ReadBy::raw) return io::raw_facts(file);
    Result<Opened> opened = open_facts(file);
    if (!opened.ok()) return opened.failure();
    return io::upright(opened.value().stored, opened.value().orientation);
}

Result<std::unique_ptr<RowReader>> RowReader::open(const std::filesystem::path& file, int level,
                                                   const std::optional<WhiteBalance>& balance, const Developing& how) {
    if (const auto frame = clip_frame_of(file)) {
        Result<std::filesystem::path> pixels = pixels_of_clip_frame(*frame);
        if (!pixels.ok()) return pixels.failure();
        return open(pixels.value(), level);
    }
    if (const Kind* kind = kind_of(file); kind && kind->way == ReadBy::raw) {
        // The developed picture at half size stands for level 1; what is smaller is averaged, as with other kinds.
        Result<std::unique_ptr<RowReader>> rows = io::raw_rows(file, std::min(level, 1), balance, how);
        if (!rows.ok() || level <= 1) return rows;
        const int near = std::min(level, scaled_levels);
        std::unique_ptr<RowReader> out = io::boxed_rows(std::move(rows).value(), near - 1);
        return level > near ? io::boxed_rows(std::move(out), level - near) : std::move(out);
    }
    Result<Opened> opened = open_facts(file, how.stops);
    if (!opened.ok()) return opened.failure();
    return rows_of(opened.value(), level);
}

Result<std::unique_ptr<RowReader>> RowReader::open_brightness(const std::filesystem::path& file, int level) {
    Result<std::optional<Opened>> jpeg = opened_jpeg(file);
    if (!jpeg.ok()) return jpeg.failure();
    if (!jpeg.value()) return std::unique_ptr<RowReader>();
    jpeg.value()->stored.channels = 1;
    return rows_of(*jpeg.value(), level);
}

Result<std::unique_ptr<RowReader>> RowReader::open_apart(const std::filesystem::path& file, int level) {
    if (level > scaled_levels) return std::unique_ptr<RowReader>();
    Result<std::optional<Opened>> jpeg = opened_jpeg(file);
    if (!jpeg.ok()) return jpeg.failure();
    if (!jpeg.value() || !jpeg.value()->apart) return std::unique_ptr<RowReader>();
    return rows_of(*jpeg.value(), level, true);
}

Result<Raster16> read_picture(const std::filesystem::path& file, int level) {
    Result<std::unique_ptr<RowReader>> opened = RowReader::open(file, level);
    if (!opened.ok()) return opened.failure();
    RowReader& reader = *opened.value();
    Raster16 out(reader.size(), reader.channels());
    std::vector<std::uint8_t> narrow(reader.bits() == 8 ? reader.row_bytes() : 0);
    for (int y = 0; y < out.height(); ++y) {
        std::uint8_t* row = reader.bits() == 8 ? narrow.data() : reinterpret_cast<std::uint8_t*>(out.row(y));
        Status got = reader.read({&row, 1});
        if (!got.ok()) return got.failure();
        if (reader.bits() == 8) kernels::widen(narrow.data(), narrow.size(), out.row(y));
    }
    return out;
}

Result<Raster8> decode_mask(const void* bytes, std::size_t size, const std::string& name) {
    if (const Status started = io::start_vips(); !started.ok()) return started.failure();
    const Image image(vips_image_new_from_buffer(bytes, size, "", "fail_on", VIPS_FAIL_ON_ERROR, nullptr));
    if (!image) return refuse(name, "%1 is broken.");
    const Result<PictureFacts> facts = facts_of(image, name);
    if (!facts.ok()) return facts.failure();
    if (facts.value().channels != 1 || facts.value().bits != 8 || vips_image_get_bands(image.get()) != 1)
        return refuse(name, "%1 is not an 8-bit grey mask. Save it as grey with 8 bits.");
    Raster8 out(facts.value().size, 1);
    std::size_t length = 0;
    void* memory = vips_image_write_to_memory(image.get(), &length);
    if (!memory) return refuse(name, "%1 is broken.");
    std::memcpy(out.data().data(), memory, std::min(length, out.bytes()));
    g_free(memory);
    return out;
}

}  // namespace bp
