#include "io/reader.h"

#include <algorithm>
#include <cstring>

#include "io/vips.h"

namespace bp {
namespace {

using io::Image;
using io::vips_words;

// A picture beyond this is taken for a broken header before any memory is asked for.
constexpr int largest_side = 200000;
constexpr double largest_area = 4e9;

Failure refuse(const std::filesystem::path& file, const std::string& why) {
    return {Fault::input, file.string(), file.filename().string() + " " + why};
}

bool is_jpeg(const Image& image) {
    const char* loader = nullptr;
    return vips_image_get_typeof(image.get(), VIPS_META_LOADER) != 0 &&
           vips_image_get_string(image.get(), VIPS_META_LOADER, &loader) == 0 &&
           std::string(loader).rfind("jpegload", 0) == 0;
}

Result<Image> open_image(const std::filesystem::path& file, int shrink, VipsAccess access) {
    io::start_vips();
    vips_error_clear();
    const char* loader = vips_foreign_find_load(file.c_str());
    if (!loader) {
        vips_error_clear();
        std::error_code error;
        if (!std::filesystem::exists(file, error)) return refuse(file, "is not there. Was it moved or renamed?");
        return refuse(file, "is not a picture that can be read here. Use JPEG, PNG or TIFF.");
    }
    const std::string kind = loader;
    const bool jpeg = kind.find("Jpeg") != std::string::npos;
    if (!jpeg && kind.find("Png") == std::string::npos && kind.find("Tiff") == std::string::npos)
        return refuse(file, "is of a kind that cannot be read yet. Use JPEG, PNG or TIFF.");
    VipsImage* raw = nullptr;
    if (jpeg && shrink > 1)
        raw = vips_image_new_from_file(file.c_str(), "access", access, "fail_on", VIPS_FAIL_ON_ERROR, "shrink", shrink,
                                       nullptr);
    else
        raw = vips_image_new_from_file(file.c_str(), "access", access, "fail_on", VIPS_FAIL_ON_ERROR, nullptr);
    if (!raw) return refuse(file, "is broken: " + vips_words() + ".");
    return Image(raw);
}

Result<PictureFacts> facts_of(const Image& image, const std::filesystem::path& file) {
    PictureFacts facts;
    const int width = vips_image_get_width(image.get());
    const int height = vips_image_get_height(image.get());
    if (width < 1 || height < 1 || width > largest_side || height > largest_side ||
        double(width) * height > largest_area)
        return refuse(file, "claims to be " + std::to_string(width) + " x " + std::to_string(height) +
                                " pixels, which cannot be true.");
    facts.size = {width, height};
    const VipsBandFormat format = vips_image_get_format(image.get());
    if (format != VIPS_FORMAT_UCHAR && format != VIPS_FORMAT_USHORT)
        return refuse(file, "does not hold 8 or 16 bit samples. Save it as 16-bit TIFF.");
    facts.bits = format == VIPS_FORMAT_UCHAR ? 8 : 16;
    const VipsInterpretation meaning = vips_image_get_interpretation(image.get());
    const int bands = vips_image_get_bands(image.get());
    const bool grey = meaning == VIPS_INTERPRETATION_B_W || meaning == VIPS_INTERPRETATION_GREY16;
    const bool rgb = meaning == VIPS_INTERPRETATION_sRGB || meaning == VIPS_INTERPRETATION_RGB ||
                     meaning == VIPS_INTERPRETATION_RGB16;
    if (!(grey && bands <= 2) && !(rgb && (bands == 3 || bands == 4)))
        return refuse(file, "is neither grey nor RGB. Save it as RGB.");
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

class VipsRows final : public RowReader {
  public:
    VipsRows(std::filesystem::path file, Image image, PictureFacts facts, int box_level)
        : file_(std::move(file)), image_(std::move(image)), box_(box_level) {
        facts_ = std::move(facts);
        decoded_ = {vips_image_get_width(image_.get()), vips_image_get_height(image_.get())};
        size_ = at_level(decoded_, box_);
    }

    Status read(int count, std::uint16_t* out) override {
        if (box_ == 0) {
            next_ += count;
            return decode(next_ - count, count, out);
        }
        const int unit = 1 << box_;
        std::vector<std::uint16_t> rows(std::size_t(unit) * std::size_t(decoded_.width) * std::size_t(facts_.channels));
        for (int i = 0; i < count; ++i, ++next_) {
            const int top = next_ * unit;
            const int here = std::min(unit, decoded_.height - top);
            Status got = decode(top, here, rows.data());
            if (!got.ok()) return got;
            average(rows, here, out + std::size_t(i) * std::size_t(size_.width * facts_.channels));
        }
        return Done{};
    }

  private:
    // A region belongs to the thread that made it, and readers move between threads: one a call.
    Status decode(int top, int count, std::uint16_t* out) {
        const io::Region region(vips_region_new(image_.get()));
        const VipsRect area{0, top, decoded_.width, count};
        if (!region || vips_region_prepare(region.get(), &area) != 0)
            return refuse(file_, "is broken or cut short: " + vips_words() + ". Copy it again from the camera.");
        for (int y = 0; y < count; ++y, out += std::size_t(decoded_.width) * std::size_t(facts_.channels))
            unpack(VIPS_REGION_ADDR(region.get(), 0, top + y), out);
        return Done{};
    }

    void unpack(const VipsPel* in, std::uint16_t* out) const {
        const int bands = vips_image_get_bands(image_.get());
        const int channels = facts_.channels;
        const auto* wide = reinterpret_cast<const std::uint16_t*>(in);
        const int samples = decoded_.width * channels;
        if (bands == channels && facts_.bits == 8) {
            for (int i = 0; i < samples; ++i) out[i] = std::uint16_t(in[i] * 257);
        } else if (bands == channels) {
            std::memcpy(out, in, std::size_t(samples) * sizeof(std::uint16_t));
        } else {
            for (int x = 0; x < decoded_.width; ++x)
                for (int c = 0; c < channels; ++c) {
                    const int i = x * bands + c;
                    out[x * channels + c] = facts_.bits == 8 ? std::uint16_t(in[i] * 257) : wide[i];
                }
        }
    }

    void average(const std::vector<std::uint16_t>& rows, int here, std::uint16_t* out) const {
        const int unit = 1 << box_;
        const int channels = facts_.channels;
        for (int x = 0; x < size_.width; ++x)
            for (int c = 0; c < channels; ++c) {
                const int end = std::min((x + 1) * unit, decoded_.width);
                std::uint64_t sum = 0;
                for (int y = 0; y < here; ++y)
                    for (int u = x * unit; u < end; ++u)
                        sum += rows[(std::size_t(y) * std::size_t(decoded_.width) + std::size_t(u)) *
                                        std::size_t(channels) +
                                    std::size_t(c)];
                const auto n = std::uint64_t(here) * std::uint64_t(end - x * unit);
                out[x * channels + c] = std::uint16_t((sum + n / 2) / n);
            }
    }

    std::filesystem::path file_;
    Image image_;
    int box_;
    Size decoded_;
};

struct Opened {
    Image image;
    PictureFacts facts;  // of the upright picture at full size
    bool turned = false;
};

Result<Opened> open_facts(const std::filesystem::path& file) {
    Result<Image> image = open_image(file, 1, VIPS_ACCESS_SEQUENTIAL);
    if (!image.ok()) return image.failure();
    Result<PictureFacts> facts = facts_of(image.value(), file);
    if (!facts.ok()) return facts.failure();
    Opened out{std::move(image).value(), std::move(facts).value(), false};
    const int orientation = vips_image_get_orientation(out.image.get());
    out.turned = orientation > 1;
    if (orientation >= 5) std::swap(out.facts.size.width, out.facts.size.height);
    return out;
}

}  // namespace

Result<PictureFacts> probe_picture(const std::filesystem::path& file) {
    Result<Opened> opened = open_facts(file);
    if (!opened.ok()) return opened.failure();
    return opened.value().facts;
}

Result<std::unique_ptr<RowReader>> RowReader::open(const std::filesystem::path& file, int level) {
    Result<Opened> first = open_facts(file);
    if (!first.ok()) return first.failure();
    Opened opened = std::move(first).value();
    int box = level;
    if (is_jpeg(opened.image) && level > 0) {
        const int in_decoder = std::min(level, 3);
        Result<Image> scaled = open_image(file, 1 << in_decoder, VIPS_ACCESS_SEQUENTIAL);
        if (!scaled.ok()) return scaled.failure();
        const Size wanted = at_level(opened.facts.size, in_decoder);
        const int width = vips_image_get_width(scaled.value().get());
        const int height = vips_image_get_height(scaled.value().get());
        // libvips may drop an odd edge when it scales; then the average over boxes keeps it.
        if (Size{width, height} == wanted || (opened.turned && Size{height, width} == wanted)) {
            opened.image = std::move(scaled).value();
            box -= in_decoder;
        }
    }
    if (opened.turned) {
        const int in_decoder = level - box;
        Result<Image> source = open_image(file, 1 << in_decoder, VIPS_ACCESS_RANDOM);
        if (!source.ok()) return source.failure();
        VipsImage* upright = nullptr;
        if (vips_autorot(source.value().get(), &upright, nullptr) != 0)
            return refuse(file, "cannot be turned upright: " + vips_words() + ".");
        opened.image = Image(upright);
    }
    std::unique_ptr<RowReader> out =
        std::make_unique<VipsRows>(file, std::move(opened.image), std::move(opened.facts), box);
    return out;
}

Result<Raster16> read_picture(const std::filesystem::path& file, int level) {
    Result<std::unique_ptr<RowReader>> opened = RowReader::open(file, level);
    if (!opened.ok()) return opened.failure();
    RowReader& reader = *opened.value();
    Raster16 out(reader.size(), reader.facts().channels);
    constexpr int band = 64;
    for (int y = 0; y < out.height(); y += band) {
        Status got = reader.read(std::min(band, out.height() - y), out.row(y));
        if (!got.ok()) return got.failure();
    }
    return out;
}

Result<Raster8> decode_mask(const void* bytes, std::size_t size, const std::string& name) {
    io::start_vips();
    const Image image(vips_image_new_from_buffer(bytes, size, "", "fail_on", VIPS_FAIL_ON_ERROR, nullptr));
    if (!image) return refuse(name, "is broken: " + vips_words() + ".");
    const Result<PictureFacts> facts = facts_of(image, name);
    if (!facts.ok()) return facts.failure();
    if (facts.value().channels != 1 || facts.value().bits != 8 || vips_image_get_bands(image.get()) != 1)
        return refuse(name, "is not an 8-bit grey mask.");
    Raster8 out(facts.value().size, 1);
    std::size_t length = 0;
    void* memory = vips_image_write_to_memory(image.get(), &length);
    if (!memory) return refuse(name, "is broken: " + vips_words() + ".");
    std::memcpy(out.data().data(), memory, std::min(length, out.bytes()));
    g_free(memory);
    return out;
}

}  // namespace bp
