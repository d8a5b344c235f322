#include "engine/plumb.h"

#include <algorithm>

#include "engine/in_step.h"
#include "engine/origins.h"
#include "engine/render.h"
#include "engine/zone_rows.h"

namespace bp {
namespace {

constexpr std::uint8_t half = 128;

Zone zone_at(const Pile& pile, int x, int y, int level) {
    const SkyRow share(pile, level, y, {x, x + 1});
    return share.all() || (share.any() && *share.from(0) >= half) ? Zone::sky : Zone::land;
}

// Takes down what every frame has in the rows around the point.
class Looking final : public StepWork {
  public:
    Looking(const Pile& pile, int x, int y, int level, const Rect& around, Plumb& out)
        : pile_(pile), x_(x), y_(y), around_(around), out_(out), gathering_(pile, around, level) {
        const std::vector<int> ids = merged_ids(pile, out.zone);
        const std::vector<double> strengths = strengths_of(pile, out.zone);
        const std::vector<Softening> softenings = softenings_of(pile, out.zone);
        for (std::size_t k = 0; k < ids.size(); ++k) {
            rows_.push_back(gathering_.add(ids[k], out.zone, softenings[k]));
            PlumbFrame frame;
            frame.frame = ids[k];
            frame.strength = strengths[k];
            frame.patch = Raster16(around.size(), pile.channels);
            out.frames.push_back(std::move(frame));
        }
    }
    const std::vector<Take>& takes() const { return gathering_.takes(); }

    void row(int y, kernels::Span columns, const std::vector<FrameRow>& rows) override {
        const int channels = pile_.channels;
        std::vector<std::uint16_t> scratch;
        for (std::size_t k = 0; k < rows_.size(); ++k) {
            const FrameRow& row = rows[rows_[k]];
            if (row.cover.empty()) continue;
            PlumbFrame& frame = out_.frames[k];
            const std::uint16_t* samples = widened(row, channels, scratch);
            std::copy_n(samples, (row.cover.end - row.cover.begin) * channels,
                        frame.patch.row(y - around_.top) +
                            std::ptrdiff_t(columns.begin + row.cover.begin - around_.left) * channels);
            const int x = x_ - columns.begin;
            if (y != y_ || x < row.cover.begin || x >= row.cover.end) continue;
            frame.there = true;
            frame.votes = row.votes_at(x);
            std::copy_n(samples + std::ptrdiff_t(x - row.cover.begin) * channels, channels, frame.samples.begin());
        }
    }

  private:
    const Pile& pile_;
    int x_, y_;
    Rect around_;
    Plumb& out_;
    Gathering gathering_;
    std::vector<std::size_t> rows_;
};

}  // namespace

Result<Plumb> plumb_at(const Pile& pile, FrameStore& store, int x, int y, int level, int reach, Job& job) {
    const Rect point{x, y, 1, 1};
    const Rect around{x - reach, y - reach, 2 * reach + 1, 2 * reach + 1};
    Plumb out;
    out.zone = zone_at(pile, x, y, level);
    Looking work(pile, x, y, level, around, out);
    if (!work.takes().empty()) {
        const Status done = bring_in_step({pile, store, work.takes(), around, level, 0}, job, work);
        if (!done.ok()) return done.failure();
    }
    if (has_origins(pile)) {
        const Result<Origins> origins = origins_of(pile, store, point, level, job);
        if (!origins.ok()) return origins.failure();
        out.first = origins.value().first_at(0, 0);
        out.second = origins.value().second_at(0, 0);
    }
    const Result<Raster16> picture = composed(pile, store, point, level, job);
    if (!picture.ok()) return picture.failure();
    std::copy_n(picture.value().row(0), pile.channels, out.result.begin());
    return out;
}

}  // namespace bp
