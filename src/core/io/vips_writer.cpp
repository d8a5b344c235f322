#include <algorithm>
#include <condition_variable>
#include <cstring>
#include <deque>
#include <mutex>
#include <thread>

#include "base/gate.h"
#include "base/output.h"
#include "io/vips.h"
#include "io/writers.h"

namespace bp::io {
namespace {

// Rows that wait between the one who makes them and the library, which asks for them in pieces from its own threads.
class RowQueue {
  public:
    RowQueue(std::size_t row_bytes, int width) : row_bytes_(row_bytes), width_(width) {
        most_rows_ = std::max<std::size_t>(64, (std::size_t(32) << 20) / row_bytes);
    }

    // False when nobody takes rows any more.
    bool put(std::vector<std::uint8_t> row) {
        std::unique_lock lock(mutex_);
        room_.wait(lock, [&] { return rows_.size() < most_rows_ || ended_; });
        if (ended_) return false;
        rows_.push_back({std::move(row), width_});
        arrived_.notify_all();
        return true;
    }

    // No more rows are put, or taken.
    void end() {
        const std::lock_guard lock(mutex_);
        ended_ = true;
        room_.notify_all();
        arrived_.notify_all();
    }

    // Copies a piece of row y, each piece of a row once; false when the row will never come.
    bool take(int y, int left, int width, VipsPel* out) {
        std::unique_lock lock(mutex_);
        arrived_.wait(lock, [&] { return y < first_ + int(rows_.size()) || ended_; });
        if (y < first_ || y >= first_ + int(rows_.size())) return false;
        Waiting& row = rows_[std::size_t(y - first_)];
        const std::size_t pixel = row_bytes_ / std::size_t(width_);
        std::memcpy(out, row.bytes.data() + std::size_t(left) * pixel, std::size_t(width) * pixel);
        row.pixels_left -= width;
        while (!rows_.empty() && rows_.front().pixels_left <= 0) {
            rows_.pop_front();
            ++first_;
            room_.notify_all();
        }
        return true;
    }

  private:
    struct Waiting {
        std::vector<std::uint8_t> bytes;
        int pixels_left;
    };

    std::size_t row_bytes_;
    int width_;
    std::size_t most_rows_;
    std::mutex mutex_;
    std::condition_variable arrived_;
    std::condition_variable room_;
    std::deque<Waiting> rows_;
    int first_ = 0;
    bool ended_ = false;
};

int generate(VipsRegion* region, void*, void* queue, void*, gboolean*) {
    const VipsRect area = region->valid;
    for (int y = area.top; y < area.top + area.height; ++y)
        if (!static_cast<RowQueue*>(queue)->take(y, area.left, area.width, VIPS_REGION_ADDR(region, area.left, y)))
            return -1;
    return 0;
}

gint64 on_write(VipsTargetCustom*, const void* bytes, gint64 count, Output* output) {
    return output->write(bytes, count);
}

class VipsWriter final : public RowWriter {
  public:
    VipsWriter(const std::filesystem::path& file, const PictureHead& head, int bits)
        : file_(file),
          output_(file),
          samples_(std::size_t(head.size.width) * std::size_t(head.channels)),
          bits_(bits),
          height_(head.size.height),
          queue_(samples_ * std::size_t(bits / 8), head.size.width) {}

    ~VipsWriter() override {
        queue_.end();
        if (thread_.joinable()) thread_.join();
    }
    VipsWriter(const VipsWriter&) = delete;
    VipsWriter& operator=(const VipsWriter&) = delete;

    Status start(const PictureHead& head, Format format, int quality) {
        image_.reset(vips_image_new());
        const VipsInterpretation narrow = head.channels <= 2 ? VIPS_INTERPRETATION_B_W : VIPS_INTERPRETATION_sRGB;
        const VipsInterpretation wide = head.channels <= 2 ? VIPS_INTERPRETATION_GREY16 : VIPS_INTERPRETATION_RGB16;
        constexpr double mm_an_inch = 25.4;
        const double per_mm = head.dpi > 0 ? head.dpi / mm_an_inch : 1.0;
        vips_image_init_fields(image_.get(), head.size.width, head.size.height, head.channels,
                               bits_ == 8 ? VIPS_FORMAT_UCHAR : VIPS_FORMAT_USHORT, VIPS_CODING_NONE,
                               bits_ == 8 ? narrow : wide, per_mm, per_mm);
        if (!head.profile.is_srgb() || head.channels >= 3) {
            const std::vector<std::uint8_t> icc = head.profile.bytes();
            vips_image_set_blob_copy(image_.get(), VIPS_META_ICC_NAME, icc.data(), icc.size());
        }
        const std::vector<std::uint8_t> exif = encode_capture(head.capture);
        vips_image_set_blob_copy(image_.get(), VIPS_META_EXIF_NAME, exif.data(), exif.size());
        if (vips_image_pipelinev(image_.get(), VIPS_DEMAND_STYLE_THINSTRIP, nullptr) != 0 ||
            vips_image_generate(image_.get(), nullptr, generate, nullptr, &queue_, nullptr) != 0)
            return failure();
        thread_ = std::thread([this, format, quality] {
            failed_ = save(format, quality);
            queue_.end();
            vips_thread_shutdown();
        });
        return Done{};
    }

    Status write(std::span<const std::uint16_t* const> rows) override {
        for (const std::uint16_t* row : rows) {
            std::vector<std::uint8_t> bytes;
            if (bits_ == 8) {
                bytes = to_8_bit({row, samples_});
            } else {
                bytes.resize(samples_ * sizeof(std::uint16_t));
                std::memcpy(bytes.data(), row, bytes.size());
            }
            if (!queue_.put(std::move(bytes))) return finish();
        }
        return Done{};
    }

    Status finish() override {
        // Rows that never came are waited for no longer.
        queue_.end();
        if (thread_.joinable()) thread_.join();
        if (failed_) return failure();
        return Done{};
    }

  private:
    bool save(Format format, int quality) {
        if (output_.error != 0) return true;
        const Target target(vips_target_custom_new());
        g_signal_connect(target.get(), "write", G_CALLBACK(on_write), &output_);
        VipsTarget* to = VIPS_TARGET(target.get());
        // Both take in all of the picture before they write any of it.
        if (format == Format::webp || format == Format::jxl) {
            const MemoryGate::Ticket ticket(MemoryGate::of_process(), whole_bytes());
            if (format == Format::webp)
                return vips_webpsave_target(image_.get(), to, "Q", quality, "lossless", quality == 100, nullptr) != 0;
            return vips_jxlsave_target(image_.get(), to, "Q", quality, "lossless", quality == 100, nullptr) != 0;
        }
        if (format == Format::png) return vips_pngsave_target(image_.get(), to, "compression", 6, nullptr) != 0;
        return vips_jpegsave_target(image_.get(), to, "Q", quality, "optimize_coding", TRUE, "subsample_mode",
                                    quality >= 90 ? VIPS_FOREIGN_SUBSAMPLE_OFF : VIPS_FOREIGN_SUBSAMPLE_AUTO,
                                    nullptr) != 0;
    }
    std::size_t whole_bytes() const { return 2 * samples_ * std::size_t(bits_ / 8) * std::size_t(height_); }
    Failure failure() const { return output_.failure(file_, "the picture library refuses it"); }

    std::filesystem::path file_;
    Output output_;
    std::size_t samples_;
    int bits_;
    int height_;
    RowQueue queue_;
    Image image_;
    std::thread thread_;
    bool failed_ = false;  // written before the thread ends, read after
};

}  // namespace

Result<std::unique_ptr<RowWriter>> vips_writer(const std::filesystem::path& file, const PictureHead& head, int bits,
                                               Format format, int quality) {
    if (const Status started = start_vips(); !started.ok()) return started.failure();
    auto writer = std::make_unique<VipsWriter>(file, head, bits);
    Status started = writer->start(head, format, quality);
    if (!started.ok()) return started.failure();
    std::unique_ptr<RowWriter> out = std::move(writer);
    return out;
}

}  // namespace bp::io
