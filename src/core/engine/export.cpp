#include "engine/export.h"

#include <algorithm>
#include <chrono>

#include "base/files.h"
#include "base/guarded.h"
#include "base/parallel.h"
#include "engine/cover.h"
#include "engine/finisher.h"
#include "engine/knitting.h"
#include "engine/part_edges.h"
#include "engine/render.h"
#include "engine/resizing.h"
#include "image/known_profiles.h"
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

// Rows of the picture on their way to the file: two bands of them.
class ToFile final : public RowSink {
  public:
    // Brought to another profile where a conversion is given.
    ToFile(const Rect& area, int channels, RowWriter& writer, const Conversion* conversion)
        : area_(area),
          stride_(std::size_t(area.width) * std::size_t(channels)),
          writer_(writer),
          conversion_(conversion) {}

    void begin(const StripPlan& plan) override {
        rows_held_ = 2 * plan.band_rows;
        rows_.resize(std::size_t(rows_held_) * stride_);
    }
    std::uint16_t* row(int y) override { return rows_.data() + std::size_t((y - area_.top) % rows_held_) * stride_; }
    Status finish(const Band& band) override {
        if (conversion_)
            parallel_for(band.first, band.second, [&](int y) { conversion_->run(row(y), row(y), area_.width); });
        std::vector<const std::uint16_t*> rows;
        rows.reserve(std::size_t(band.second - band.first));
        for (int y = band.first; y < band.second; ++y) rows.push_back(row(y));
        return writer_.write(rows);
    }

  private:
    Rect area_;
    std::size_t stride_;
    RowWriter& writer_;
    const Conversion* conversion_;
    int rows_held_ = 0;
    std::vector<std::uint16_t> rows_;
};

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

// The sharpening of what was made smaller.
FinishTools sharpening_of(const Pile& pile) {
    Detail detail;
    detail.sharpen = pile.exporting.sharpen;
    detail.sharpen_px = 0.6;
    detail.flat = 8;
    auto tool =
        sharpen_tool(detail, pile.channels == 3 ? luminance_weights(pile.profile) : std::array<double, 3>{0, 1, 0}, 0);
    return tool ? FinishTools{std::move(tool)} : FinishTools{};
}

// Fills in all of `out` but its pile.
Status write_pile(const Pile& pile, const fs::path& file, const ExportOptions& options, Job& job, Exported& out) {
    // Nothing is read twice here, so nothing is kept.
    out.area = output_area(pile);
    out.kept_area = middle_of(out.area, options.keep_middle);
    out.kept = Raster16(out.kept_area.size(), pile.channels);
    const Size small = reduced_size(out.area.size(), pile.exporting.long_edge_px);
    const std::size_t taken =
        out.kept.bytes() +
        (small == out.area.size() ? 0 : Reducer::bytes(out.area, small, pile.channels, StripPlan::highest_band));
    const std::size_t memory = options.memory_bytes - std::min(options.memory_bytes, taken);
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
    out.size = reduced_size(out.area.size(), pile.exporting.long_edge_px);
    const Profile profile = exported_profile(pile);
    std::optional<Conversion> conversion;
    if (!(profile == pile.profile)) {
        Result<Conversion> made = Conversion::make(pile.profile, pile.channels, profile, pile.channels);
        if (!made.ok()) return made.failure();
        conversion.emplace(std::move(made).value());
    }
    const bool smaller = out.size != out.area.size();
    const Rect written_area = smaller ? whole(out.size) : out.area;
    const Finishing sharpening(smaller ? sharpening_of(pile) : FinishTools{}, pile.profile, pile.channels,
                               written_area);
    const PictureHead head{out.size, pile.channels, profile, merged_capture(pile), dpi};
    const auto begin = std::chrono::steady_clock::now();
    Status written = write_picture(file, head, options.write, [&](RowWriter& writer) -> Status {
        ToFile to_file(written_area, pile.channels, writer, conversion ? &*conversion : nullptr);
        Finisher sharpened(sharpening, pile.channels, written_area, to_file);
        RowSink& from_small = sharpening.empty() ? static_cast<RowSink&>(to_file) : sharpened;
        std::optional<Reducer> reducer;
        if (smaller) reducer.emplace(out.area, out.size, pile.profile, pile.channels, from_small);
        Noting sink(out.area, pile.channels, out.kept_area, out.kept,
                    smaller ? static_cast<RowSink&>(*reducer) : from_small);
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

Profile exported_profile(const Pile& pile) {
    // A grey picture has no colours that a profile could tell.
    if (pile.channels == 1) return pile.profile;
    switch (pile.exporting.profile) {
        case ExportProfile::srgb:
            return known_profile(KnownProfile::srgb);
        case ExportProfile::display_p3:
            return known_profile(KnownProfile::display_p3);
        case ExportProfile::rec2020:
            return known_profile(KnownProfile::rec2020);
        case ExportProfile::file:
            return pile.exporting.from_file;
        case ExportProfile::own:
            break;
    }
    return pile.profile;
}

Result<Exported> export_picture(const Pile& pile, const fs::path& file, const ExportOptions& options, Job& job) {
    return guarded([&] { return exported(pile, file, options, job); });
}

}  // namespace bp
