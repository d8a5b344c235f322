// libjpeg-turbo without a library in between: measured, that takes a quarter off the time of a merge, most of which is
// decoding.
#include <cstdio>
// after <cstdio>, which it needs
#include <jpeglib.h>
// after jpeglib.h
#include <jerror.h>

#include <array>
#include <csetjmp>
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

class JpegRows final : public RowReader {
  public:
    JpegRows(const FileBytes& bytes, const PictureFacts& facts, int level) : decoder_(bytes, level) {
        facts_ = facts;
        bits_ = 8;
    }

    Status start(int level) {
        jpeg_decompress_struct& info = decoder_.info;
        info.err = jpeg_std_error(&decoder_.errors);
        decoder_.errors.error_exit = on_error;
        decoder_.errors.emit_message = on_message;
        info.client_data = &decoder_;
        if (setjmp(decoder_.escape) != 0) return broken();
        jpeg_create_decompress(&info);
        decoder_.made = true;
        decoder_.source.init_source = [](j_decompress_ptr) {};
        decoder_.source.fill_input_buffer = fill;
        decoder_.source.skip_input_data = skip;
        decoder_.source.resync_to_restart = jpeg_resync_to_restart;
        decoder_.source.term_source = [](j_decompress_ptr) {};
        info.src = &decoder_.source;
        jpeg_read_header(&info, TRUE);
        info.out_color_space = facts_.channels == 1 ? JCS_GRAYSCALE : JCS_RGB;
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

    Status read(std::span<std::uint8_t* const> rows) override {
        if (setjmp(decoder_.escape) != 0) return broken();
        if (!decoding_) {
            jpeg_start_decompress(&decoder_.info);
            decoding_ = true;
        }
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
    Failure broken() const {
        const std::filesystem::path& file = decoder_.bytes.file();
        if (!decoder_.cannot_read.empty()) return {Fault::input, file.string(), decoder_.cannot_read};
        return refuse(file, "%1 is broken or cut short: %2. Copy it again from the camera.",
                      {std::string(decoder_.words.data())});
    }

    Decoder decoder_;
    bool decoding_ = false;
    std::size_t coefficient_bytes_ = 0;  // of a picture in several scans: all of them before the first row
};

}  // namespace

Result<std::unique_ptr<RowReader>> jpeg_rows(const FileBytes& bytes, const PictureFacts& facts, int level) {
    auto rows = std::make_unique<JpegRows>(bytes, facts, level);
    Status started = rows->start(level);
    if (!started.ok()) return started.failure();
    std::unique_ptr<RowReader> out = std::move(rows);
    return out;
}

}  // namespace bp::io
