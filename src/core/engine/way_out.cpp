#include "engine/way_out.h"

#include "base/parallel.h"
#include "engine/cover.h"
#include "engine/finisher.h"
#include "engine/render.h"
#include "engine/resizing.h"
#include "engine/turning.h"
#include "image/known_profiles.h"
#include "pile/edits.h"

namespace bp {
namespace {

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

PictureHead exported_head(const Pile& pile) {
    return {reduced_size(output_area(pile).size(), pile.exporting.long_edge_px), pile.channels, exported_profile(pile),
            merged_capture(pile), pile.canvas.measure == Measure::px ? 0 : pile.canvas.dpi};
}

Result<WayOut> WayOut::of(const Pile& pile) {
    WayOut out;
    out.area_ = output_area(pile);
    out.size_ = reduced_size(out.area_.size(), pile.exporting.long_edge_px);
    out.bytes_ = Turner::bytes(pile, out.area_, 0, StripPlan::highest_band);
    if (out.smaller()) out.bytes_ += Reducer::bytes(out.area_, out.size_, pile.channels, StripPlan::highest_band);
    const Profile profile = exported_profile(pile);
    if (!(profile == pile.profile)) {
        Result<Conversion> made = Conversion::make(pile.profile, pile.channels, profile, pile.channels);
        if (!made.ok()) return made.failure();
        out.conversion_.emplace(std::move(made).value());
    }
    return out;
}

Status WayOut::write(const Pile& pile, FrameStore& store, Job& job, RowWriter& writer,
                     const std::function<RowSink&(RowSink&)>& between) const {
    const Rect written = smaller() ? whole(size_) : area_;
    const Finishing sharpening(smaller() ? sharpening_of(pile) : FinishTools{}, pile.profile, pile.channels, written);
    ToFile to_file(written, pile.channels, writer, conversion_ ? &*conversion_ : nullptr);
    Finisher sharpened(sharpening, pile.channels, written, to_file);
    RowSink& from_small = sharpening.empty() ? static_cast<RowSink&>(to_file) : sharpened;
    std::optional<Reducer> reducer;
    if (smaller()) reducer.emplace(area_, size_, pile.profile, pile.channels, from_small);
    return render_to(pile, store, area_, 0, job, between(smaller() ? static_cast<RowSink&>(*reducer) : from_small));
}

}  // namespace bp
