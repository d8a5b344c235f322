// LibRaw: demosaiced to 16-bit linear light with the primaries of sRGB. Every setting is fixed, and nothing is adapted
// to what a frame shows, so that the frames of a run agree.
#include <libraw/libraw.h>

#include <algorithm>
#include <cstring>

#include "io/raw_capture.h"
#include "io/readers.h"

namespace bp::io {
namespace {

constexpr int largest_side = 200000;

Failure broken(const std::filesystem::path& file, int code) {
    if (code == LIBRAW_UNSUFFICIENT_MEMORY)
        return {Fault::memory,
                file.string(),
                {"There is not enough memory to develop %1. Close other programs, or set frames aside.",
                 {file.filename().string()}}};
    return refuse(file, "%1 is not a raw file that can be read: %2. Copy it again from the camera, or use its JPEG.",
                  {std::string(libraw_strerror(code))});
}

void fix_settings(LibRaw& raw, bool half) {
    libraw_output_params_t& p = raw.imgdata.params;
    p.output_bps = 16;
    p.output_color = 1;  // the primaries of sRGB
    p.gamm[0] = 1;       // linear
    p.gamm[1] = 1;
    p.use_camera_wb = 1;
    p.no_auto_bright = 1;
    p.adjust_maximum_thr = 0;  // white is what the camera says, not what the frame holds
    p.user_qual = 3;           // adaptive homogeneity (Hirakawa and Parks, 2005)
    p.half_size = half ? 1 : 0;
}

// Opens the file and reads its header. LibRaw's objects are too large for the stack.
Result<std::unique_ptr<LibRaw>> open_raw(const std::filesystem::path& file, bool half) {
    auto raw = std::make_unique<LibRaw>();
    fix_settings(*raw, half);
    const int code = raw->open_file(file.c_str());
    if (code != LIBRAW_SUCCESS) return broken(file, code);
    return raw;
}

Result<PictureFacts> facts_of(LibRaw& raw, const std::filesystem::path& file) {
    const int code = raw.adjust_sizes_info_only();
    if (code != LIBRAW_SUCCESS) return broken(file, code);
    const libraw_image_sizes_t& sizes = raw.imgdata.sizes;
    PictureFacts facts;
    facts.size = {int(sizes.iwidth), int(sizes.iheight)};
    if (facts.size.width < 1 || facts.size.height < 1 || facts.size.width > largest_side ||
        facts.size.height > largest_side)
        return refuse(file, "%1 claims a size that cannot be true. Copy it again from the camera.");
    if (raw.imgdata.idata.colors != 3)
        return refuse(file, "%1 comes from a sensor without red, green and blue. Develop it to a 16-bit TIFF.");
    facts.channels = 3;
    facts.bits = 16;
    facts.profile = Profile::linear_srgb();
    const float* cam = raw.imgdata.color.cam_mul;
    if (cam[0] > 0 && cam[1] > 0 && cam[2] > 0) facts.balance = WhiteBalance{cam[0] / cam[1], 1, cam[2] / cam[1]};
    return facts;
}

// What the sensor's pixel gives without any light.
float black_of(const LibRaw& raw, int row, int column) {
    const libraw_colordata_t& color = raw.imgdata.color;
    const libraw_image_sizes_t& sizes = raw.imgdata.sizes;
    // The library tells colours and patterns from the corner of the picture on, inside the borders of the sensor.
    const int y = row - sizes.top_margin;
    const int x = column - sizes.left_margin;
    const auto around = [](int at, unsigned period) { return (at % int(period) + int(period)) % int(period); };
    // Every arrangement of colours repeats after so many pixels.
    constexpr unsigned all_colours = 48;
    const unsigned* black = color.cblack;
    const int colour = const_cast<LibRaw&>(raw).COLOR(around(y, all_colours), around(x, all_colours));
    // Beyond four stands for a sensor without colours.
    float out = float(color.black) + (colour < 4 ? float(black[colour]) : 0.0F);
    constexpr int pattern = 6;
    if (black[4] > 0 && black[5] > 0)
        out += float(black[pattern + around(y, black[4]) * int(black[5]) + around(x, black[5])]);
    return out;
}

// Calls body(value, row, column) for every pixel of an unpacked mosaic; false when it is none.
template <class Body>
bool each_of_mosaic(LibRaw& raw, Body body) {
    std::uint16_t* samples = raw.imgdata.rawdata.raw_image;
    if (!samples) return false;
    const libraw_image_sizes_t& sizes = raw.imgdata.sizes;
    const std::size_t pitch = sizes.raw_pitch / sizeof(std::uint16_t);
    for (int y = 0; y < sizes.raw_height; ++y)
        for (int x = 0; x < sizes.raw_width; ++x) body(samples[std::size_t(y) * pitch + std::size_t(x)], y, x);
    return true;
}

Status subtract(LibRaw& raw, const Developing& use, const std::filesystem::path& file) {
    const libraw_image_sizes_t& sizes = raw.imgdata.sizes;
    if (use.dark->size != Size{sizes.raw_width, sizes.raw_height})
        return refuse(file, "%1 is not of the sensor size of the dark frames. Set them aside.");
    const auto scale = float(use.scale);
    const bool done = each_of_mosaic(raw, [&](std::uint16_t& v, int y, int x) {
        const float dark = use.dark->above_black[std::size_t(y) * std::size_t(sizes.raw_width) + std::size_t(x)];
        v = std::uint16_t(std::clamp(float(v) - scale * dark + 0.5F, 0.0F, 65535.0F));
    });
    if (!done) return refuse(file, "%1 holds no mosaic, so dark frames cannot be subtracted from it. Set them aside.");
    return Done{};
}

// Developed with the first rows that are asked for.
class RawRows final : public RowReader {
  public:
    RawRows(std::filesystem::path file, PictureFacts facts, bool half, const std::optional<WhiteBalance>& balance,
            Developing how)
        : file_(std::move(file)), half_(half), balance_(balance), how_(std::move(how)) {
        facts_ = std::move(facts);
        bits_ = 16;
        size_ = at_level(facts_.size, half ? 1 : 0);
    }

    Status read(std::span<std::uint8_t* const> rows) override {
        if (picture_.empty()) {
            Status done = develop();
            if (!done.ok()) return done;
        }
        for (std::uint8_t* row : rows) std::memcpy(row, picture_.row(next_++), row_bytes());
        if (next_ == size_.height) picture_ = {};
        return Done{};
    }

    bool whole() const override { return true; }
    // The sensor's samples, four colours a pixel while demosaicing, and the result.
    std::size_t memory_bytes() const override {
        constexpr std::size_t bytes_a_pixel = 26;
        return bytes_a_pixel * std::size_t(facts_.size.width) * std::size_t(facts_.size.height) / (half_ ? 2 : 1);
    }

  private:
    Status develop() {
        Result<std::unique_ptr<LibRaw>> opened = open_raw(file_, half_);
        if (!opened.ok()) return opened.failure();
        LibRaw& raw = *opened.value();
        if (balance_) {
            libraw_output_params_t& p = raw.imgdata.params;
            p.use_camera_wb = 0;
            for (std::size_t c = 0; c < 4; ++c) p.user_mul[c] = c == 3 ? (*balance_)[1] : (*balance_)[c];
        }
        int code = raw.unpack();
        if (code == LIBRAW_SUCCESS && how_.dark) {
            Status subtracted = subtract(raw, how_, file_);
            if (!subtracted.ok()) return subtracted;
        }
        if (code == LIBRAW_SUCCESS) code = raw.dcraw_process();
        if (code != LIBRAW_SUCCESS) return broken(file_, code);
        libraw_processed_image_t* developed = raw.dcraw_make_mem_image(&code);
        if (!developed) return broken(file_, code);
        const std::unique_ptr<libraw_processed_image_t, void (*)(libraw_processed_image_t*)> image(
            developed, &LibRaw::dcraw_clear_mem);
        // At half size LibRaw leaves out the last of an odd number of rows or columns.
        const Size made{int(image->width), int(image->height)};
        const int slack = half_ ? 1 : 0;
        if (image->type != LIBRAW_IMAGE_BITMAP || image->colors != 3 || image->bits != 16 || made.width > size_.width ||
            made.width < size_.width - slack || made.height > size_.height || made.height < size_.height - slack)
            return refuse(
                file_,
                "%1 develops to another size than its header says. Use its JPEG, or develop it to a 16-bit TIFF.");
        picture_ = Raster16(size_, 3);
        const auto* samples = reinterpret_cast<const std::uint16_t*>(image->data);
        for (int y = 0; y < size_.height; ++y) {
            const std::uint16_t* in = samples + std::ptrdiff_t(std::min(y, made.height - 1)) * made.width * 3;
            std::copy_n(in, made.width * 3, picture_.row(y));
            if (made.width < size_.width) std::copy_n(in + (made.width - 1) * 3, 3, picture_.row(y) + made.width * 3);
        }
        return Done{};
    }

    std::filesystem::path file_;
    bool half_;
    std::optional<WhiteBalance> balance_;
    Developing how_;
    Raster16 picture_;
};

}  // namespace

Result<PictureFacts> raw_facts(const std::filesystem::path& file) {
    Result<std::unique_ptr<LibRaw>> raw = open_raw(file, false);
    if (!raw.ok()) return raw.failure();
    return facts_of(*raw.value(), file);
}

Result<std::unique_ptr<RowReader>> raw_rows(const std::filesystem::path& file, int level,
                                            const std::optional<WhiteBalance>& balance, const Developing& how) {
    Result<PictureFacts> facts = raw_facts(file);
    if (!facts.ok()) return facts.failure();
    const bool half = level > 0;
    std::unique_ptr<RowReader> rows = std::make_unique<RawRows>(file, std::move(facts).value(), half, balance, how);
    return rows;
}

std::optional<RawCapture> raw_capture(const std::filesystem::path& file) {
    Result<std::unique_ptr<LibRaw>> opened = open_raw(file, false);
    if (!opened.ok()) return std::nullopt;
    const libraw_data_t& data = opened.value()->imgdata;
    return RawCapture{data.other.timestamp, data.other.shutter,   data.other.iso_speed,
                      data.other.aperture,  data.other.focal_len, data.idata.model};
}

}  // namespace bp::io

namespace bp {

Result<std::shared_ptr<const RawDark>> mean_raw_dark(const std::vector<std::filesystem::path>& files) {
    auto out = std::make_shared<RawDark>();
    for (const std::filesystem::path& file : files) {
        Result<std::unique_ptr<LibRaw>> opened = io::open_raw(file, false);
        if (!opened.ok()) return opened.failure();
        LibRaw& raw = *opened.value();
        if (const int code = raw.unpack(); code != LIBRAW_SUCCESS) return io::broken(file, code);
        const libraw_image_sizes_t& sizes = raw.imgdata.sizes;
        const Size size{sizes.raw_width, sizes.raw_height};
        if (out->above_black.empty()) {
            out->size = size;
            out->above_black.assign(std::size_t(size.width) * std::size_t(size.height), 0);
        }
        if (size != out->size)
            return io::refuse(file, "%1 is not of the sensor size of the other darks. Set it aside.");
        const auto share = 1 / float(files.size());
        const bool done = io::each_of_mosaic(raw, [&](std::uint16_t v, int y, int x) {
            out->above_black[std::size_t(y) * std::size_t(size.width) + std::size_t(x)] +=
                share * (float(v) - io::black_of(raw, y, x));
        });
        if (!done) return io::refuse(file, "%1 holds no mosaic and is of no use as a dark. Set it aside.");
    }
    out->values = fingerprint_of_bytes(out->above_black.data(), out->above_black.size() * sizeof(float));
    std::shared_ptr<const RawDark> made = std::move(out);
    return made;
}

}  // namespace bp
