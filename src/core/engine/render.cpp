#include "engine/render.h"

#include <algorithm>

#include "engine/turning.h"
#include "engine/zone_rows.h"
#include "kernels/blend.h"

namespace bp {
namespace {

// One frame where it covers.
class OneFrame final : public StepWork {
  public:
    OneFrame(const Pile& pile, int frame, const Rect& region, int level, Raster16& out)
        : pile_(pile), region_(region), level_(level), out_(out), gathering_(pile, region, level) {
        at_ = gathering_.add(frame);
    }
    const std::vector<Take>& takes() const { return gathering_.takes(); }
    void row(int y, kernels::Span columns, const std::vector<FrameRow>& rows) override {
        const SkyRow share(pile_, level_, y, columns);
        std::vector<std::uint16_t> together;
        const FrameRow row = gathering_.row(rows, at_, share, out_.channels(), together);
        if (row.cover.empty()) return;
        std::vector<std::uint16_t> scratch;
        const std::uint16_t* from = widened(row, out_.channels(), scratch);
        std::copy_n(from, (row.cover.end - row.cover.begin) * out_.channels(),
                    out_.row(y - region_.top) +
                        std::ptrdiff_t(columns.begin - region_.left + row.cover.begin) * out_.channels());
    }

  private:
    const Pile& pile_;
    Rect region_;
    int level_;
    Raster16& out_;
    Gathering gathering_;
    Gathering::Places at_;
};

}  // namespace

WorkingSpace working_space(const Pile& pile) {
    return {pile.profile, pile.channels, pile.balance};
}

Result<Raster16> render(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job,
                        BaseTiles* tiles) {
    Result<FinishTools> finish = finish_tools(pile, level, store, job);
    if (!finish.ok()) return finish.failure();
    const Picture picture(pile, level, std::move(finish).value());
    return turned(pile, region, level, [&](const Rect& area) { return picture.raster(store, area, job, tiles); });
}

Result<Raster16> composed(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job,
                          BaseTiles* tiles) {
    return Picture(pile, level, {}).raster(store, region, job, tiles);
}

Status render_to(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job, RowSink& sink) {
    Result<FinishTools> finish = finish_tools(pile, level, store, job);
    if (!finish.ok()) return finish.failure();
    const Picture picture(pile, level, std::move(finish).value());
    if (pile.turn_deg == 0) return picture.rows(store, region, job, sink);
    Turner turner(pile, region, level, sink);
    return picture.rows(store, turner.area(), job, turner);
}

Result<Raster16> render_frame(const Pile& pile, FrameStore& store, int frame, const Rect& region, int level, Job& job) {
    Raster16 out(region.size(), pile.channels);
    OneFrame one(pile, frame, region, level, out);
    Status done = bring_in_step({pile, store, one.takes(), region, level, 0}, job, one);
    if (!done.ok()) return done.failure();
    return out;
}

Result<Raster16> render_difference(const Pile& pile, FrameStore& store, int frame, int against, int gain,
                                   const Rect& region, int level, Job& job) {
    Result<Raster16> a = render_frame(pile, store, frame, region, level, job);
    if (!a.ok()) return a;
    Result<Raster16> b = render_frame(pile, store, against, region, level, job);
    if (!b.ok()) return b;
    Raster16 out(region.size(), pile.channels);
    kernels::difference(a.value().data().data(), b.value().data().data(), gain, out.data().size(), out.data().data());
    return out;
}

}  // namespace bp
