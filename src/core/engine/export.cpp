#include "engine/export.h"

#include <algorithm>
#include <chrono>

#include "base/files.h"
#include "base/guarded.h"
#include "engine/cover.h"
#include "engine/knitting.h"
#include "engine/part_edges.h"
#include "engine/render.h"
#include "pile/edits.h"
#include "pile/part_edits.h"

namespace bp {
namespace {

double seconds_since(std::chrono::steady_clock::time_point begin) {
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
}

Rect middle_of(const Rect& area, Size wanted) {
    const int width = std::min(wanted.width, area.width), height = std::min(wanted.height, area.height);
    return {area.left + (area.width - width) / 2, area.top + (area.height - height) / 2, width, height};
}

// The frame that a failure names, or whose file it names.
const Frame* broken_frame(const Pile& pile, const Failure& failure) {
    if (const Frame* named = find_frame(pile, failure.frame)) return named;
    const auto found = std::find_if(pile.frames.begin(), pile.frames.end(),
                                    [&](const Frame& f) { return f.file->path.string() == failure.file; });
    return found == pile.frames.end() ? nullptr : &*found;
}

// Rows of the picture between the merge that makes them and the file: two bands of them.
class ToFile final : public RowSink {
  public:
    // What of the rows lies in `kept_area` is copied to `kept` as well.
    ToFile(const Rect& area, int channels, RowWriter& writer, const Rect& kept_area, Raster16& kept)
        : area_(area),
          channels_(channels),
          stride_(std::size_t(area.width) * std::size_t(channels)),
          writer_(writer),
          kept_area_(kept_area),
          kept_(kept) {}

    void begin(const StripPlan& plan) override {
        plan_ = plan;
        rows_held_ = 2 * plan.band_rows;
        rows_.resize(std::size_t(rows_held_) * stride_);
    }
    std::uint16_t* row(int y) override { return rows_.data() + std::size_t((y - area_.top) % rows_held_) * stride_; }
    Status finish(const Band& band) override {
        std::vector<const std::uint16_t*> rows;
        rows.reserve(std::size_t(band.second - band.first));
        for (int y = band.first; y < band.second; ++y) {
            rows.push_back(row(y));
            if (y < kept_area_.top || y >= kept_area_.bottom()) continue;
            const std::uint16_t* from = row(y) + std::ptrdiff_t(kept_area_.left - area_.left) * channels_;
            std::copy_n(from, std::ptrdiff_t(kept_area_.width) * channels_, kept_.row(y - kept_area_.top));
        }
        return writer_.write(rows);
    }
    void end(const StepTimes& spent) override { spent_ = spent; }
    const StripPlan& plan() const { return plan_; }
    const StepTimes& spent() const { return spent_; }

  private:
    Rect area_;
    int channels_;
    std::size_t stride_;
    RowWriter& writer_;
    Rect kept_area_;
    Raster16& kept_;
    StripPlan plan_;
    StepTimes spent_;
    int rows_held_ = 0;
    std::vector<std::uint16_t> rows_;
};

// Fills in all of `out` but its pile.
Status write_pile(const Pile& pile, const fs::path& file, const ExportOptions& options, Job& job, Exported& out) {
    // Nothing is read twice here, so nothing is kept.
    out.area = output_area(pile);
    out.kept_area = middle_of(out.area, options.keep_middle);
    out.kept = Raster16(out.kept_area.size(), pile.channels);
    const std::size_t memory = options.memory_bytes - std::min(options.memory_bytes, out.kept.bytes());
    FrameStore store(working_space(pile), {0, memory}, options.scratch);
    if (options.known && knits(pile)) {
        const Result<std::shared_ptr<const MovingLights>> lights = moving_lights(pile, *options.known, job);
        if (!lights.ok()) return lights.failure();
        store.keep(lights.value()->recipe, lights.value());
    }
    if (options.known)
        for (const Part& part : pile.parts) {
            if (part.edge == Edge::painted) continue;
            const Fingerprint key = key_of_edge(pile, part);
            if (const SharedEdge known = options.known->kept<SolvedEdge>(key)) store.keep(key, known);
        }
    const double dpi = pile.canvas.measure == Measure::px ? 0 : pile.canvas.dpi;
    const PictureHead head{out.area.size(), pile.channels, pile.profile, merged_capture(pile), dpi};
    const auto begin = std::chrono::steady_clock::now();
    Status written = write_picture(file, head, options.write, [&](RowWriter& writer) -> Status {
        ToFile sink(out.area, pile.channels, writer, out.kept_area, out.kept);
        Status rendered = render_to(pile, store, out.area, 0, job, sink);
        out.plan = sink.plan();
        out.spent = sink.spent();
        out.merge_s = seconds_since(begin);
        if (rendered.ok()) job.begin({"Finishing %1", {file.filename().string()}}, 1);
        return rendered;
    });
    out.finish_s = seconds_since(begin) - out.merge_s;
    if (written.ok()) job.advance();
    return written;
}

Result<Exported> exported(const Pile& pile, const fs::path& file, const ExportOptions& options, Job& job) {
    for (const Frame& frame : pile.frames)
        if (same_file(frame.file->path, file))
            return Failure{Fault::output,
                           file.string(),
                           {"%1 is one of the frames. Originals are never written over: choose another name.",
                            {file.filename().string()}}};
    Exported out;
    out.pile = pile;
    while (true) {
        if (merged_ids(out.pile).empty() && !shows_parts(out.pile))
            return Failure{Fault::input, "", "No frame is left to merge: all are set aside, broken or not aligned."};
        Status written = write_pile(out.pile, file, options, job, out);
        if (written.ok()) return out;
        const Frame* broken = broken_frame(out.pile, written.failure());
        if (written.failure().fault != Fault::input || !broken || !usable(*broken)) return written.failure();
        out.pile = with_problem(std::move(out.pile), broken->id, written.failure().sentence);
    }
}

}  // namespace

Result<Exported> export_picture(const Pile& pile, const fs::path& file, const ExportOptions& options, Job& job) {
    return guarded([&] { return exported(pile, file, options, job); });
}

}  // namespace bp
