#include "engine/source.h"

#include <sys/mman.h>

#include <algorithm>
#include <array>

#include "base/gate.h"
#include "base/line_vector.h"
#include "image/brightness.h"
#include "kernels/box.h"
#include "kernels/colours_apart.h"
#include "kernels/extremes.h"

namespace bp {
namespace {

// Brings rows as the file has them to the working space.
class ToWorking {
  public:
    static Result<ToWorking> make(const PictureFacts& facts, const WorkingSpace& space) {
        ToWorking out;
        out.from_ = facts.channels;
        out.to_ = space.brightness ? 3 : space.channels;
        out.weighs_ = space.brightness;
        // Grey without a profile shares the curve of sRGB, so that it only needs to be repeated.
        // Of colour a grey one is not one of the channels: that is converted.
        const bool same = facts.profile == space.profile &&
                          (facts.channels == out.to_ || (facts.channels == 1 && space.profile.is_srgb()));
        if (same) return out;
        Result<Conversion> conversion = Conversion::make(facts.profile, facts.channels, space.profile, out.to_);
        if (!conversion.ok()) return conversion.failure();
        out.conversion_ = std::move(conversion).value();
        return out;
    }

    static ToWorking as_it_is() {
        ToWorking out;
        out.from_ = out.to_ = 1;
        return out;
    }

    bool changes() const { return conversion_ || from_ != to_ || weighs_; }

    void run(const std::uint16_t* in, std::uint16_t* out, int pixels) {
        if (!weighs_) return bring(in, out, pixels);
        colour_.resize(std::size_t(pixels) * 3);
        bring(in, colour_.data(), pixels);
        for (int x = 0; x < pixels; ++x) {
            const std::uint16_t* p = colour_.data() + std::ptrdiff_t(x) * 3;
            out[x] = std::uint16_t((unsigned(p[0]) + 2U * p[1] + p[2] + 2U) / 4U);
        }
    }

  private:
    void bring(const std::uint16_t* in, std::uint16_t* out, int pixels) const {
        if (conversion_) return conversion_->run(in, out, pixels);
        for (int x = 0; x < pixels; ++x)
            for (int c = 0; c < to_; ++c) out[x * to_ + c] = in[x * from_ + (from_ == 1 ? 0 : c)];
    }

    int from_ = 3;
    int to_ = 3;
    bool weighs_ = false;  // brightness comes of the colours
    std::optional<Conversion> conversion_;
    std::vector<std::uint16_t> colour_;
};

// The rows of one file in the working space, one after the other.
class WorkingRows {
  public:
    WorkingRows(std::unique_ptr<RowReader> reader, ToWorking to_working, int channels)
        : reader_(std::move(reader)), to_working_(std::move(to_working)), channels_(channels) {}

    Size size() const { return reader_->size(); }
    int channels() const { return channels_; }
    int bits() const { return to_working_.changes() ? 16 : reader_->bits(); }
    std::size_t row_bytes() const {
        return std::size_t(size().width) * std::size_t(channels_) * std::size_t(bits() / 8);
    }
    int rows_read() const { return reader_->rows_read(); }
    std::size_t decoder_bytes() const { return reader_->memory_bytes(); }
    bool whole() const { return reader_->whole(); }
    // While all of the picture is read.
    std::size_t whole_bytes() const { return decoder_bytes() + std::size_t(size().height) * row_bytes(); }

    Status skip(int rows) { return reader_->skip(rows); }
    Status read(std::span<std::uint8_t* const> rows) {
        if (!to_working_.changes()) return reader_->read(rows);
        const std::size_t samples = std::size_t(size().width) * std::size_t(reader_->channels());
        raw_.resize(reader_->row_bytes() / 2 + 1);
        wide_.resize(samples);
        for (std::uint8_t* row : rows) {
            auto* raw = reinterpret_cast<std::uint8_t*>(raw_.data());
            Status got = reader_->read({&raw, 1});
            if (!got.ok()) return got;
            if (reader_->bits() == 8) kernels::widen(raw, samples, wide_.data());
            to_working_.run(reader_->bits() == 8 ? wide_.data() : raw_.data(), reinterpret_cast<std::uint16_t*>(row),
                            size().width);
        }
        return Done{};
    }

  private:
    std::unique_ptr<RowReader> reader_;
    ToWorking to_working_;
    int channels_;
    std::vector<std::uint16_t> raw_;  // a row as the file has it, aligned for either kind of sample
    std::vector<std::uint16_t> wide_;
};

Result<WorkingRows> open_rows(const FrameFile& file, int level, const WorkingSpace& space, const Developing& how) {
    Result<std::unique_ptr<RowReader>> reader{std::unique_ptr<RowReader>()};
    if (space.brightness && file.facts.channels == 3 && file.facts.profile == space.profile)
        reader = RowReader::open_brightness(file.path, level);
    const bool apart = reader.ok() && reader.value();
    if (reader.ok() && !apart) reader = RowReader::open(file.path, level, space.balance, how);
    if (!reader.ok()) return reader.failure();
    const PictureFacts& facts = reader.value()->facts();
    if (facts.size != file.facts.size || (!apart && facts.channels != file.facts.channels))
        return Failure{Fault::input,
                       file.path.string(),
                       {"%1 has changed since it was opened. Open the frames again.", {file.path.filename().string()}}};
    Result<ToWorking> to_working = apart ? ToWorking::as_it_is() : ToWorking::make(facts, space);
    if (!to_working.ok())
        return Failure{Fault::input,
                       file.path.string(),
                       {"%1: %2.", {file.path.filename().string(), to_working.failure().sentence}}};
    return WorkingRows(std::move(reader).value(), std::move(to_working).value(), space.channels);
}

std::array<float, 256> eye_of_8_bit(const LightCurve& curve) {
    std::array<float, 256> out{};
    for (std::size_t v = 0; v < out.size(); ++v) out[v] = curve.eye()[257 * v];
    return out;
}

class HeldRows final : public FrameRows {
  public:
    explicit HeldRows(SharedPixels pixels) : pixels_(std::move(pixels)) {}
    Size size() const override { return pixels_->size(); }
    int bits() const override { return pixels_->bits(); }
    Status require(int, int) override { return Done{}; }
    SourceRow row(int y) const override { return pixels_->row(y); }

  private:
    SharedPixels pixels_;
};

// Rows in a ring: a row stays where it is while later ones are decoded into the places of those let go.
class StreamedRows final : public FrameRows {
  public:
    StreamedRows(WorkingRows rows, int height, int place) : rows_(std::move(rows)), height_(std::max(1, height)) {
        constexpr std::size_t page = 4096;
        stride_ = in_whole_lines<std::uint8_t>(rows_.row_bytes());
        const std::size_t start = std::size_t(place) * 5 * cache_line % page;
        const std::size_t bytes = start + std::size_t(height_) * stride_;
        memory_.reset(new (std::align_val_t(page)) std::uint8_t[bytes]);
        // In large pages, where the system has them: the many small ones of many frames take a while to be made.
        (void)::madvise(memory_.get(), bytes / page * page, MADV_HUGEPAGE);
        first_row_ = memory_.get() + start;
    }

    Size size() const override { return rows_.size(); }
    int bits() const override { return rows_.bits(); }

    Status require(int first, int last) override {
        const int wanted = std::min(last, size().height);
        if (const int above = std::min(first, wanted) - rows_.rows_read(); above > 0)
            if (Status passed = rows_.skip(above); !passed.ok()) return passed;
        while (rows_.rows_read() < wanted) {
            const int from = rows_.rows_read();
            const int to = wanted;
            pointers_.clear();
            for (int y = from; y < to; ++y) pointers_.push_back(slot(y));
            Status got = rows_.read(pointers_);
            if (!got.ok()) return got;
        }
        return Done{};
    }

    SourceRow row(int y) const override {
        if (bits() == 8) return {slot(y), nullptr};
        return {nullptr, reinterpret_cast<const std::uint16_t*>(slot(y))};
    }

  private:
    struct Free {
        void operator()(std::uint8_t* memory) const { ::operator delete[](memory, std::align_val_t(4096)); }
    };

    std::uint8_t* slot(int y) const { return first_row_ + std::size_t(y % height_) * stride_; }

    WorkingRows rows_;
    int height_;
    std::size_t stride_ = 0;
    std::unique_ptr<std::uint8_t[], Free> memory_;
    std::uint8_t* first_row_ = nullptr;
    std::vector<std::uint8_t*> pointers_;
};

class OpenFile final : public OpenFrame {
  public:
    explicit OpenFile(WorkingRows rows) : rows_(std::move(rows)) {}
    Size size() const override { return rows_.size(); }
    int bits() const override { return rows_.bits(); }
    std::size_t row_bytes() const override { return rows_.row_bytes(); }
    std::size_t decoder_bytes() const override { return rows_.decoder_bytes(); }
    bool whole() const override { return rows_.whole(); }
    std::unique_ptr<FrameRows> window(int rows, int place) override {
        return std::make_unique<StreamedRows>(std::move(rows_), rows, place);
    }

  private:
    WorkingRows rows_;
};

template <class T>
Result<FramePixels> read_all(WorkingRows& rows, Job& job) {
    Raster<T> out(rows.size(), rows.channels());
    std::vector<std::uint8_t*> pointers;
    pointers.reserve(std::size_t(out.height()));
    for (int y = 0; y < out.height(); ++y) pointers.push_back(reinterpret_cast<std::uint8_t*>(out.row(y)));
    constexpr std::size_t band = 64;
    for (std::size_t y = 0; y < pointers.size(); y += band) {
        if (job.stopped()) return stopped_failure();
        Status got = rows.read(std::span(pointers).subspan(y, std::min(band, pointers.size() - y)));
        if (!got.ok()) return got.failure();
    }
    return FramePixels(std::move(out));
}

}  // namespace

Size FramePixels::size() const {
    return std::visit([](const auto& r) { return r.size(); }, raster_);
}

int FramePixels::channels() const {
    return std::visit([](const auto& r) { return r.channels(); }, raster_);
}

std::size_t FramePixels::bytes() const {
    return std::visit([](const auto& r) { return r.bytes(); }, raster_);
}

SourceRow FramePixels::row(int y) const {
    if (const auto* narrow = std::get_if<Raster8>(&raster_)) return {narrow->row(y), nullptr};
    return {nullptr, std::get<Raster16>(raster_).row(y)};
}

void pack(Packer& to, const FramePixels& pixels) {
    const Size size = pixels.size();
    to.number(size.width).number(size.height).number(pixels.channels()).number(pixels.bits());
    const std::size_t row = std::size_t(size.width) * std::size_t(pixels.channels());
    for (int y = 0; y < size.height; ++y) {
        const SourceRow samples = pixels.row(y);
        if (samples.narrow)
            to.bytes(samples.narrow, row);
        else
            to.bytes(samples.wide, row * sizeof(std::uint16_t));
    }
}

void unpack(Unpacker& from, FramePixels& pixels) {
    const Size size{from.number<int>(), from.number<int>()};
    const int channels = from.number<int>();
    const int bits = from.number<int>();
    constexpr int largest_side = 1 << 15;
    if (size.width < 1 || size.height < 1 || size.width > largest_side || size.height > largest_side ||
        (channels != 1 && channels != 3) || (bits != 8 && bits != 16))
        return from.refuse();
    const auto read = [&](auto raster) {
        from.bytes(raster.data().data(), raster.bytes());
        pixels = FramePixels(std::move(raster));
    };
    if (bits == 8)
        read(Raster8(size, channels));
    else
        read(Raster16(size, channels));
}

Raster16 FramePixels::widened() const {
    if (const auto* wide = std::get_if<Raster16>(&raster_)) return wide->clone();
    Raster16 out(size(), channels());
    kernels::widen(std::get<Raster8>(raster_).data().data(), out.data().size(), out.data().data());
    return out;
}

std::unique_ptr<FrameRows> held_rows(SharedPixels pixels) {
    return std::make_unique<HeldRows>(std::move(pixels));
}

Result<std::unique_ptr<OpenFrame>> open_frame(const FrameFile& file, int level, const WorkingSpace& space,
                                              const Developing& how) {
    Result<WorkingRows> rows = open_rows(file, level, space, how);
    if (!rows.ok()) return rows.failure();
    std::unique_ptr<OpenFrame> out = std::make_unique<OpenFile>(std::move(rows).value());
    return out;
}

Result<FramePixels> read_pixels(const FrameFile& file, int level, const WorkingSpace& space, Job& job,
                                const Developing& how) {
    if (level > scaled_levels) {
        Result<FramePixels> near = read_pixels(file, scaled_levels, space, job, how);
        if (!near.ok()) return near;
        return further(near.value(), level - scaled_levels);
    }
    Result<WorkingRows> rows = open_rows(file, level, space, how);
    if (!rows.ok()) return rows.failure();
    const MemoryGate::Ticket ticket(MemoryGate::of_process(), rows.value().whole_bytes());
    if (job.stopped()) return stopped_failure();
    return rows.value().bits() == 8 ? read_all<std::uint8_t>(rows.value(), job)
                                    : read_all<std::uint16_t>(rows.value(), job);
}

Result<Raster16> read_frame(const FrameFile& file, int level, const WorkingSpace& space, Job& job) {
    Result<FramePixels> pixels = read_pixels(file, level, space, job);
    if (!pixels.ok()) return pixels.failure();
    return pixels.value().widened();
}

Result<RasterF> read_brightness(const FrameFile& file, int level, const WorkingSpace& space, const LightCurve& curve,
                                Job& job) {
    std::unique_ptr<RowReader> reader;
    if (file.facts.profile == space.profile && file.facts.channels == space.channels) {
        Result<std::unique_ptr<RowReader>> opened = RowReader::open_brightness(file.path, level);
        if (!opened.ok()) return opened.failure();
        reader = std::move(opened).value();
    }
    if (!reader || reader->facts().size != file.facts.size) {
        Result<Raster16> picture = read_frame(file, level, space, job);
        if (!picture.ok()) return picture.failure();
        return brightness_of(picture.value(), curve);
    }
    const MemoryGate::Ticket ticket(MemoryGate::of_process(),
                                    reader->memory_bytes() + std::size_t(reader->size().width) *
                                                                 std::size_t(reader->size().height) * sizeof(float));
    if (job.stopped()) return stopped_failure();
    RasterF out(reader->size(), 1);
    std::vector<std::uint16_t> memory(reader->row_bytes() / 2 + 1);  // aligned for either kind of sample
    auto* row = reinterpret_cast<std::uint8_t*>(memory.data());
    const std::array<float, 256> eye = eye_of_8_bit(curve);
    const auto width = std::size_t(out.width());
    for (int y = 0; y < out.height(); ++y) {
        if (job.stopped()) return stopped_failure();
        Status got = reader->read({&row, 1});
        if (!got.ok()) return got.failure();
        float* to = out.row(y);
        if (reader->bits() == 8)
            for (std::size_t x = 0; x < width; ++x) to[x] = eye[row[x]];
        else
            for (std::size_t x = 0; x < width; ++x) to[x] = curve.eye()[memory[x]];
    }
    return out;
}

Result<BrightnessAndPixels> read_brightness_and_pixels(const FrameFile& file, int level, const WorkingSpace& space,
                                                       const LightCurve& curve, Job& job) {
    std::unique_ptr<RowReader> reader;
    if (file.facts.profile == space.profile && file.facts.channels == 3 && space.channels == 3) {
        Result<std::unique_ptr<RowReader>> opened = RowReader::open_apart(file.path, level);
        if (!opened.ok()) return opened.failure();
        reader = std::move(opened).value();
    }
    if (!reader || reader->facts().size != file.facts.size) {
        Result<RasterF> brightness = read_brightness(file, level, space, curve, job);
        if (!brightness.ok()) return brightness.failure();
        return BrightnessAndPixels{std::move(brightness).value(), nullptr};
    }
    const Size size = reader->size();
    const std::size_t area = std::size_t(size.width) * std::size_t(size.height);
    const MemoryGate::Ticket ticket(MemoryGate::of_process(),
                                    reader->memory_bytes() + area * (sizeof(float) + std::size_t(space.channels)));
    BrightnessAndPixels out{RasterF(size, 1), nullptr};
    Raster8 colours(size, space.channels);
    const std::array<float, 256> eye = eye_of_8_bit(curve);
    std::vector<std::uint8_t> apart(reader->row_bytes());
    for (int y = 0; y < size.height; ++y) {
        if (job.stopped()) return stopped_failure();
        std::uint8_t* row = apart.data();
        Status got = reader->read({&row, 1});
        if (!got.ok()) return got.failure();
        float* to = out.brightness.row(y);
        for (std::size_t x = 0; x < std::size_t(size.width); ++x) to[x] = eye[apart[3 * x]];
        kernels::colours_apart(apart.data(), std::size_t(size.width), colours.row(y));
    }
    out.pixels = std::make_shared<const FramePixels>(std::move(colours));
    return out;
}

FramePixels further(const FramePixels& pixels, int levels) {
    const int unit = 1 << levels;
    Raster16 out(at_level(pixels.size(), levels), pixels.channels());
    std::vector<const std::uint8_t*> narrow;
    std::vector<const std::uint16_t*> wide;
    for (int y = 0; y < out.height(); ++y) {
        narrow.clear();
        wide.clear();
        for (int v = y * unit; v < std::min((y + 1) * unit, pixels.size().height); ++v) {
            const SourceRow row = pixels.row(v);
            if (row.narrow)
                narrow.push_back(row.narrow);
            else
                wide.push_back(row.wide);
        }
        if (wide.empty())
            kernels::box_row(narrow, pixels.size().width, out.channels(), unit, out.row(y));
        else
            kernels::box_row(wide, pixels.size().width, out.channels(), unit, out.row(y));
    }
    return FramePixels(std::move(out));
}

}  // namespace bp
