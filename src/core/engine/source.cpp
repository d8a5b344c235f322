#include "engine/source.h"

#include <algorithm>
#include <cstring>

namespace bp {
namespace {

// Brings rows as the file has them to the working space.
class ToWorking {
  public:
    static Result<ToWorking> make(const PictureFacts& facts, const WorkingSpace& space) {
        ToWorking out;
        out.from_ = facts.channels;
        out.to_ = space.channels;
        // Grey without a profile shares the curve of sRGB, so that it only needs to be repeated.
        const bool same =
            facts.profile == space.profile && (facts.channels == space.channels || space.profile.is_srgb());
        if (same) return out;
        Result<Conversion> conversion = Conversion::make(facts.profile, facts.channels, space.profile, space.channels);
        if (!conversion.ok()) return conversion.failure();
        out.conversion_ = std::move(conversion).value();
        return out;
    }

    bool changes() const { return conversion_ || from_ != to_; }

    void run(const std::uint16_t* in, std::uint16_t* out, int pixels) const {
        if (conversion_) {
            conversion_->run(in, out, pixels);
            return;
        }
        for (int x = 0; x < pixels; ++x)
            for (int c = 0; c < to_; ++c) out[x * to_ + c] = in[x * from_ + (from_ == 1 ? 0 : c)];
    }

  private:
    int from_ = 3;
    int to_ = 3;
    std::optional<Conversion> conversion_;
};

class HeldRows final : public FrameRows {
  public:
    explicit HeldRows(SharedRaster raster) : raster_(std::move(raster)) {}
    Size size() const override { return raster_->size(); }
    Status require(int, int) override { return Done{}; }
    const std::uint16_t* row(int y) const override { return raster_->row(y); }

  private:
    SharedRaster raster_;
};

class StreamedRows final : public FrameRows {
  public:
    StreamedRows(std::unique_ptr<RowReader> reader, ToWorking to_working, int channels)
        : reader_(std::move(reader)), to_working_(std::move(to_working)), channels_(channels) {}

    Size size() const override { return reader_->size(); }

    Status require(int first, int last) override {
        drop_above(first);
        const int wanted = std::min(last, size().height);
        if (wanted <= reader_->rows_read()) return Done{};
        // Rows between the window and `first` are decoded and passed over.
        while (reader_->rows_read() < std::min(first, wanted)) {
            Status got = append(std::min(skip_rows, std::min(first, wanted) - reader_->rows_read()));
            if (!got.ok()) return got;
            drop_above(first);
        }
        return append(wanted - reader_->rows_read());
    }

    const std::uint16_t* row(int y) const override { return rows_.data() + std::size_t(y - first_) * stride(); }

  private:
    static constexpr int skip_rows = 32;

    std::size_t stride() const { return std::size_t(size().width) * std::size_t(channels_); }

    void drop_above(int first) {
        const int held = int(rows_.size() / stride());
        const int dropped = std::clamp(first - first_, 0, held);
        rows_.erase(rows_.begin(), rows_.begin() + std::ptrdiff_t(std::size_t(dropped) * stride()));
        first_ = rows_.empty() ? reader_->rows_read() : first_ + dropped;
    }

    Status append(int count) {
        if (count <= 0) return Done{};
        const std::size_t old = rows_.size();
        rows_.resize(old + std::size_t(count) * stride());
        if (!to_working_.changes()) return reader_->read(count, rows_.data() + old);
        raw_.resize(std::size_t(count) * std::size_t(size().width * reader_->facts().channels));
        Status got = reader_->read(count, raw_.data());
        if (got.ok()) to_working_.run(raw_.data(), rows_.data() + old, count * size().width);
        return got;
    }

    std::unique_ptr<RowReader> reader_;
    ToWorking to_working_;
    int channels_;
    int first_ = 0;
    std::vector<std::uint16_t> rows_;
    std::vector<std::uint16_t> raw_;
};

}  // namespace

std::unique_ptr<FrameRows> held_rows(SharedRaster raster) {
    return std::make_unique<HeldRows>(std::move(raster));
}

Result<std::unique_ptr<FrameRows>> streamed_rows(const FrameFile& file, int level, const WorkingSpace& space) {
    Result<std::unique_ptr<RowReader>> reader = RowReader::open(file.path, level);
    if (!reader.ok()) return reader.failure();
    const PictureFacts& facts = reader.value()->facts();
    if (facts.size != file.facts.size || facts.channels != file.facts.channels)
        return Failure{Fault::input, file.path.string(),
                       file.path.filename().string() + " has changed since it was opened. Open the frames again."};
    Result<ToWorking> to_working = ToWorking::make(facts, space);
    if (!to_working.ok())
        return Failure{Fault::input, file.path.string(),
                       file.path.filename().string() + ": " + to_working.failure().sentence + "."};
    std::unique_ptr<FrameRows> out =
        std::make_unique<StreamedRows>(std::move(reader).value(), std::move(to_working).value(), space.channels);
    return out;
}

Result<Raster16> read_frame(const FrameFile& file, int level, const WorkingSpace& space) {
    Result<std::unique_ptr<FrameRows>> rows = streamed_rows(file, level, space);
    if (!rows.ok()) return rows.failure();
    FrameRows& source = *rows.value();
    Raster16 out(source.size(), space.channels);
    constexpr int band = 64;
    for (int y = 0; y < out.height(); y += band) {
        const int end = std::min(y + band, out.height());
        Status got = source.require(y, end);
        if (!got.ok()) return got.failure();
        std::memcpy(out.row(y), source.row(y),
                    std::size_t(end - y) * std::size_t(out.row_samples()) * sizeof(std::uint16_t));
    }
    return out;
}

}  // namespace bp
