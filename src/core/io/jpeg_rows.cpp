// libjpeg-turbo without a library in between: measured, that takes a quarter off the time of a merge, most of which is
// decoding.
#include <cstdio>
// after <cstdio>, which it needs
#include <jpeglib.h>
// after jpeglib.h
#include <jerror.h>

#include <array>
#include <csetjmp>
#include <cstdlib>
#include <cstring>
#include <vector>

#include "io/readers.h"

namespace bp::io {
namespace {

// Beside the end of what it is given the library decodes more slowly. At full size many files are open at once.
constexpr std::size_t buffer_bytes(int level) {
    return std::size_t(level > 0 ? 256 : 64) << 10;
}

// A decoder with its file. The C library keeps pointers into it, so it stays where it is made.
struct Decoder {
    Decoder(const FileBytes& of, int level) : bytes(of), buffer(buffer_bytes(level)) {}
    ~Decoder() {
        if (made) jpeg_destroy_decompress(&info);
    }
    Decoder(const Decoder&) = delete;
    Decoder& operator=(const Decoder&) = delete;

    FileBytes bytes;
    std::vector<std::uint8_t> buffer;
    std::uint64_t offset = 0;
    jpeg_decompress_struct info{};
    jpeg_error_mgr errors{};
    jpeg_source_mgr source{};
    std::jmp_buf escape{};
    std::array<char, JMSG_LENGTH_MAX> words{};
    Saying cannot_read;  // set when the file, not the picture in it, failed
    bool made = false;
};

Decoder& decoder_of(j_common_ptr info) {
    return *static_cast<Decoder*>(info->client_data);
}

[[noreturn]] void on_error(j_common_ptr info) {
    Decoder& decoder = decoder_of(info);
    info->err->format_message(info, decoder.words.data());
    std::longjmp(decoder.escape, 1);
}

// Damage that the library would paint over with grey is damage: such a frame must not be merged. Bytes too many between
// two markers harm no sample.
void on_message(j_common_ptr info, int level) {
    if (level < 0 && info->err->msg_code != JWRN_EXTRANEOUS_DATA) on_error(info);
}

// Bytes now in the buffer; -1 when the file cannot be read. Apart, because an escape passes over destructors.
long refill(Decoder& decoder) {
    const Result<std::size_t> got = decoder.bytes.read(decoder.offset, decoder.buffer);
    if (!got.ok()) {
        decoder.cannot_read = got.failure().sentence;
        return -1;
    }
    decoder.offset += got.value();
    decoder.source.next_input_byte = decoder.buffer.data();
    decoder.source.bytes_in_buffer = got.value();
    return long(got.value());
}

boolean fill(j_decompress_ptr info) {
    const long got = refill(decoder_of(reinterpret_cast<j_common_ptr>(info)));
    if (got < 0) ERREXIT(info, JERR_FILE_READ);
    if (got == 0) ERREXIT(info, JERR_INPUT_EOF);
    return TRUE;
}

void skip(j_decompress_ptr info, long count) {
    Decoder& decoder = decoder_of(reinterpret_cast<j_common_ptr>(info));
    if (count <= 0) return;
    const auto wanted = std::uint64_t(count);
    if (wanted <= decoder.source.bytes_in_buffer) {
        decoder.source.next_input_byte += wanted;
        decoder.source.bytes_in_buffer -= wanted;
        return;
    }
    decoder.offset += wanted - decoder.source.bytes_in_buffer;
    decoder.source.bytes_in_buffer = 0;
}

// Lets the decoder read from its file. An escape must be set.
void begin_decoder(Decoder& decoder) {
    jpeg_decompress_struct& info = decoder.info;
    jpeg_create_decompress(&info);
    decoder.made = true;
    decoder.source.init_source = [](j_decompress_ptr) {};
    decoder.source.fill_input_buffer = fill;
    decoder.source.skip_input_data = skip;
    decoder.source.resync_to_restart = jpeg_resync_to_restart;
    decoder.source.term_source = [](j_decompress_ptr) {};
    info.src = &decoder.source;
}

// Before the escape is set.
void set_errors(Decoder& decoder) {
    decoder.info.err = jpeg_std_error(&decoder.errors);
    decoder.errors.error_exit = on_error;
    decoder.errors.emit_message = on_message;
    decoder.info.client_data = &decoder;
}

Failure broken(const Decoder& decoder) {
    const std::filesystem::path& file = decoder.bytes.file();
    if (!decoder.cannot_read.empty()) return {Fault::input, file.string(), decoder.cannot_read};
    return refuse(file, "%1 is broken or cut short: %2. Copy it again from the camera.",
                  {std::string(decoder.words.data())});
}

// The number of the orientation tag of the first directory (TIFF 6.0, section 2; Exif 2.32, 4.6.4); 1 when none is
// told.
int orientation_in(std::span<const std::uint8_t> exif) {
    constexpr std::size_t head = 8, entry = 12;
    constexpr std::uint32_t tag = 0x0112;
    if (exif.size() < head) return 1;
    const bool little = exif[0] == 'I';
    const auto number = [&](std::size_t at, std::size_t bytes) {
        std::uint32_t out = 0;
        for (std::size_t i = 0; i < bytes && at + i < exif.size(); ++i)
            out |= std::uint32_t(exif[at + i]) << 8 * (little ? i : bytes - 1 - i);
        return out;
    };
    const std::size_t first = number(4, 4);
    const std::size_t entries = first < exif.size() ? number(first, 2) : 0;
    for (std::size_t i = 0; i < entries; ++i) {
        const std::size_t at = first + 2 + i * entry;
        if (at + entry > exif.size()) break;
        if (number(at, 2) == tag) return int(number(at + 8, 2));
    }
    return 1;
}

// Reads the header with the markers that carry a profile and an orientation. Apart, because an escape passes over
// destructors.
bool read_head(Decoder& decoder) {
    if (setjmp(decoder.escape) != 0) return false;
    constexpr unsigned longest = 0xFFFF;
    begin_decoder(decoder);
    jpeg_save_markers(&decoder.info, JPEG_APP0 + 1, longest);
    jpeg_save_markers(&decoder.info, JPEG_APP0 + 2, longest);
    jpeg_read_header(&decoder.info, TRUE);
    return true;
}

class JpegRows final : public RowReader {
  public:
    JpegRows(const FileBytes& bytes, const PictureFacts& facts, int level, bool apart)
        : decoder_(bytes, level), apart_(apart) {
        facts_ = facts;
        bits_ = 8;
    }

    Status start(int level) {
        jpeg_decompress_struct& info = decoder_.info;
        set_errors(decoder_);
        if (setjmp(decoder_.escape) != 0) return broken(decoder_);
        begin_decoder(decoder_);
        jpeg_read_header(&info, TRUE);
        info.out_color_space = facts_.channels == 1 ? JCS_GRAYSCALE : apart_ ? JCS_YCbCr : JCS_RGB;
        info.scale_num = 1;
        info.scale_denom = 1U << level;
        jpeg_calc_output_dimensions(&info);
        size_ = {int(info.output_width), int(info.output_height)};
        if (jpeg_has_multiple_scans(&info) != 0)
            for (const jpeg_component_info& part : std::span(info.comp_info, std::size_t(info.num_components)))
                coefficient_bytes_ +=
                    std::size_t(part.width_in_blocks) * std::size_t(part.height_in_blocks) * sizeof(JBLOCK);
        return Done{};
    }

    // Their bits are read, and no samples made of them.
    Status skip(int rows) override {
        // A picture in several scans is there whole, and the library does not pass over rows of one that it scales.
        if (whole() || decoder_.info.scale_denom != 1) return RowReader::skip(rows);
        if (setjmp(decoder_.escape) != 0) return broken(decoder_);
        begin();
        next_ += int(jpeg_skip_scanlines(&decoder_.info, JDIMENSION(rows)));
        return Done{};
    }

    Status read(std::span<std::uint8_t* const> rows) override {
        if (setjmp(decoder_.escape) != 0) return broken(decoder_);
        begin();
        std::size_t done = 0;
        while (done < rows.size()) {
            JSAMPROW row = rows[done];
            const JDIMENSION got = jpeg_read_scanlines(&decoder_.info, &row, 1);
            done += got;
            next_ += int(got);
        }
        return Done{};
    }

    // The library's row buffers for upsampling and a row of blocks of coefficients.
    std::size_t memory_bytes() const override {
        constexpr std::size_t rows_held = 36;
        return decoder_.buffer.size() + rows_held * std::size_t(facts_.size.width) * std::size_t(facts_.channels) +
               coefficient_bytes_;
    }

    bool whole() const override { return coefficient_bytes_ > 0; }

  private:
    void begin() {
        if (decoding_) return;
        jpeg_start_decompress(&decoder_.info);
        decoding_ = true;
    }

    Decoder decoder_;
    bool apart_;
    bool decoding_ = false;
    std::size_t coefficient_bytes_ = 0;  // of a picture in several scans: all of them before the first row
};

}  // namespace

bool is_jpeg(const FileBytes& bytes) {
    std::array<std::uint8_t, 3> first{};
    const Result<std::size_t> got = bytes.read(0, first);
    return got.ok() && got.value() == first.size() && first == std::array<std::uint8_t, 3>{0xFF, 0xD8, 0xFF};
}

Result<JpegHead> jpeg_head(const FileBytes& bytes) {
    Decoder decoder(bytes, 0);
    set_errors(decoder);
    if (!read_head(decoder)) return broken(decoder);
    jpeg_decompress_struct& info = decoder.info;
    JpegHead out;
    out.facts.size = {int(info.image_width), int(info.image_height)};
    out.facts.bits = 8;
    out.inks = info.num_components == 4;
    if (out.inks) return out;
    if (info.num_components != 1 && info.num_components != 3)
        return refuse(bytes.file(), "%1 is neither grey nor RGB. Save it as RGB.");
    out.facts.channels = info.num_components;
    out.apart = info.jpeg_color_space == JCS_YCbCr;
    JOCTET* profile = nullptr;
    unsigned length = 0;
    if (jpeg_read_icc_profile(&info, &profile, &length)) {
        out.facts.profile = Profile(std::vector<std::uint8_t>(profile, profile + length));
        std::free(profile);
        if (!out.facts.profile.fits(out.facts.channels)) out.facts.profile = Profile::srgb();
    }
    constexpr std::array<char, 6> mark{'E', 'x', 'i', 'f', 0, 0};
    for (auto* marker = info.marker_list; marker; marker = marker->next) {
        if (marker->marker != JPEG_APP0 + 1 || marker->data_length < mark.size() ||
            std::memcmp(marker->data, mark.data(), mark.size()) != 0)
            continue;
        const int tag = orientation_in({marker->data + mark.size(), marker->data_length - mark.size()});
        if (tag >= 1 && tag <= 8) out.orientation = Orientation(tag);
        break;
    }
    return out;
}

Result<std::unique_ptr<RowReader>> jpeg_rows(const FileBytes& bytes, const PictureFacts& facts, int level, bool apart) {
    auto rows = std::make_unique<JpegRows>(bytes, facts, level, apart);
    Status started = rows->start(level);
    if (!started.ok()) return started.failure();
    std::unique_ptr<RowReader> out = std::move(rows);
    return out;
}

}  // namespace bp::io
