#include "engine/export.h"

#include <algorithm>
#include <chrono>

#include "base/files.h"
#include "base/guarded.h"
#include "engine/layers.h"
#include "engine/render.h"
#include "engine/way_out.h"
#include "engine/writing_out.h"
#include "io/layered_writer.h"

namespace bp {
namespace {

double seconds_since(std::chrono::steady_clock::time_point begin) {
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
}

Rect middle_of(const Rect& area, Size wanted) {
    const int width = std::min(wanted.width, area.width), height = std::min(wanted.height, area.height);
    return {area.left + (area.width - width) / 2, area.top + (area.height - height) / 2, width, height};
}

// What comes by is noted, and copied where it lies in an area.
class Noting final : public RowSink {
  public:
    Noting(const Rect& area, int channels, const Rect& kept_area, Raster16& kept, RowSink& sink)
        : area_(area), channels_(channels), kept_area_(kept_area), kept_(kept), sink_(sink) {}
    void begin(const StripPlan& plan) override {
        plan_ = plan;
        sink_.begin(plan);
    }
    std::uint16_t* row(int y) override { return sink_.row(y); }
    Status finish(const Band& band) override {
        for (int y = std::max(band.first, kept_area_.top); y < std::min(band.second, kept_area_.bottom()); ++y)
            std::copy_n(row(y) + std::ptrdiff_t(kept_area_.left - area_.left) * channels_, kept_.row_samples(),
                        kept_.row(y - kept_area_.top));
        return sink_.finish(band);
    }
    void end(const StepTimes& spent) override {
        spent_ = spent;
        sink_.end(spent);
    }
    const StripPlan& plan() const { return plan_; }
    const StepTimes& spent() const { return spent_; }

  private:
    Rect area_;
    int channels_;
    Rect kept_area_;
    Raster16& kept_;
    RowSink& sink_;
    StripPlan plan_;
    StepTimes spent_;
};

// Fills in all of `out` but its pile.
Status write_pile(const Pile& pile, const fs::path& file, const ExportOptions& options, Job& job, Exported& out) {
    const Result<WayOut> way = WayOut::of(pile);
    if (!way.ok()) return way.failure();
    out.area = way.value().area();
    out.size = way.value().size();
    out.kept_area = middle_of(out.area, options.keep_middle);
    out.kept = Raster16(out.kept_area.size(), pile.channels);
    const std::size_t taken = out.kept.bytes() + way.value().bytes();
    const std::size_t memory = options.memory_bytes - std::min(options.memory_bytes, taken);
    // Nothing is read twice here, so nothing is kept.
    FrameStore store(working_space(pile), {0, memory}, options.scratch);
    if (options.known)
        if (const Status shared = share_what_is_known(pile, *options.known, store, job); !shared.ok()) return shared;
    const auto begin = std::chrono::steady_clock::now();
    Status written = write_picture(file, exported_head(pile), options.write, [&](RowWriter& writer) -> Status {
        std::optional<Noting> noting;
        Status rendered = way.value().write(pile, store, job, writer, [&](RowSink& to) -> RowSink& {
            return noting.emplace(out.area, pile.channels, out.kept_area, out.kept, to);
        });
        out.plan = noting->plan();
        out.spent = noting->spent();
        out.merge_s = seconds_since(begin);
        if (rendered.ok()) job.begin({"Finishing %1", {file.filename().string()}}, 1);
        return rendered;
    });
    out.finish_s = seconds_since(begin) - out.merge_s;
    if (written.ok()) job.advance();
    return written;
}

Result<Exported> exported(const Pile& pile, const fs::path& file, const ExportOptions& options, Job& job) {
    Exported out;
    Result<Pile> written = write_without_broken(pile, file, [&](const Pile& now) {
        return writes_in_layers(file) ? write_layers(now, file, options, job, out)
                                      : write_pile(now, file, options, job, out);
    });
    if (!written.ok()) return written.failure();
    out.pile = std::move(written).value();
    return out;
}

}  // namespace

Result<Exported> export_picture(const Pile& pile, const fs::path& file, const ExportOptions& options, Job& job) {
    return guarded([&] { return exported(pile, file, options, job); });
}

}  // namespace bp
