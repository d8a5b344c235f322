#include "engine/zoning.h"

#include <algorithm>
#include <cmath>

#include "engine/render.h"
#include "pile/edits.h"
#include "zones/snap.h"
#include "zones/suggest.h"

namespace bp {
namespace {

constexpr int cut_side = 1200;           // cuts are made in pictures no larger than this
constexpr std::size_t still_frames = 8;  // enough to be rid of noise
constexpr double least_island = 0.01;    // of the picture
constexpr double fine_reach_px = 24;     // how far branches may stand out from a cut

std::uint8_t eye_of(const LightCurve& curve, std::uint16_t sample) {
    return std::uint8_t(std::lround(255 * std::clamp(curve.eye()[sample], 0.0F, 1.0F)));
}

Raster8 as_seen(const Raster16& picture, const LightCurve& curve) {
    Raster8 out(picture.size(), picture.channels());
    std::transform(picture.data().begin(), picture.data().end(), out.data().begin(),
                   [&](std::uint16_t v) { return eye_of(curve, v); });
    return out;
}

// A pile whose base is what stands still: the mean of a few frames, as the land lies.
Pile still_pile(const Pile& pile) {
    Pile out = pile.zones ? only_zone(pile, Zone::land) : pile;
    if (!pile.zones) out.methods.sky.model = Model::none;
    out = with_mode(std::move(out), Mode::mean);
    out.parts.clear();
    const std::vector<int> ids = merged_ids(out);
    std::vector<int> others;
    for (std::size_t i = 0; i < ids.size(); ++i)
        if (i * still_frames / ids.size() == (i + 1) * still_frames / ids.size()) others.push_back(ids[i]);
    if (ids.size() > still_frames) out = with_aside(std::move(out), others, true);
    out.finish = {};
    out.turn_deg = 0;
    return out;
}

// Rows as luminance, so that a picture at full size is never held with its channels.
class IntoGrey final : public RowSink {
  public:
    IntoGrey(Size size, int channels, const LightCurve& curve) : grey(size, 1), channels_(channels), curve_(curve) {}
    void begin(const StripPlan& plan) override {
        held_ = 2 * plan.band_rows;
        rows_.resize(std::size_t(held_) * stride());
    }
    std::uint16_t* row(int y) override { return rows_.data() + std::size_t(y % held_) * stride(); }
    Status finish(const Band& band) override {
        for (int y = band.first; y < band.second; ++y)
            for (int x = 0; x < grey.width(); ++x) {
                int sum = 0;
                for (int c = 0; c < channels_; ++c) sum += eye_of(curve_, row(y)[x * channels_ + c]);
                grey.at(x, y, 0) = std::uint8_t((sum + channels_ / 2) / channels_);
            }
        return Done{};
    }

    Raster8 grey;

  private:
    std::size_t stride() const { return std::size_t(grey.width()) * std::size_t(channels_); }
    int channels_;
    const LightCurve& curve_;
    int held_ = 0;
    std::vector<std::uint16_t> rows_;
};

// A mask of a level, smoothly at full size.
Raster8 enlarged(const Raster8& small, Size size, int level) {
    const double unit = 1 << level;
    Raster8 out(size, 1);
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x) {
            const double u = std::clamp((x + 0.5) / unit - 0.5, 0.0, small.width() - 1.0);
            const double v = std::clamp((y + 0.5) / unit - 0.5, 0.0, small.height() - 1.0);
            const int left = std::min(int(u), std::max(0, small.width() - 2));
            const int top = std::min(int(v), std::max(0, small.height() - 2));
            const int right = std::min(left + 1, small.width() - 1);
            const int bottom = std::min(top + 1, small.height() - 1);
            const double a = u - left;
            const double b = v - top;
            const double value = (1 - b) * ((1 - a) * small.at(left, top, 0) + a * small.at(right, top, 0)) +
                                 b * ((1 - a) * small.at(left, bottom, 0) + a * small.at(right, bottom, 0));
            out.at(x, y, 0) = value < 127.5 ? 0 : 255;
        }
    return out;
}

// Cuts a small picture along its edges, and follows what is finer at full size.
Result<Mask> cut_and_follow(const Pile& still, const Raster8& belief, int level, FrameStore& store, Job& job) {
    const LightCurve curve = LightCurve::of(still.profile, still.channels);
    Result<Raster16> picture = composed(still, store, at_level(whole(still.size), level), level, job);
    if (!picture.ok()) return picture.failure();
    const Raster8 coarse = without_islands(cut_along_edges(as_seen(picture.value(), curve), belief), least_island);
    if (job.stopped()) return stopped_failure();
    IntoGrey sink(still.size, still.channels, curve);
    Status read = render_to(still, store, whole(still.size), 0, job, sink);
    if (!read.ok()) return read.failure();
    const Raster8 fine =
        refined_by(sink.grey, enlarged(coarse, still.size, level), int(fine_reach_px / 2) + (1 << level), job);
    if (job.stopped()) return stopped_failure();
    return Mask::from_raster(still.size, {0, 0}, fine);
}

RasterF detail_of(const Raster16& picture, const LightCurve& curve) {
    RasterF eye(picture.size(), 1);
    for (int y = 0; y < eye.height(); ++y)
        for (int x = 0; x < eye.width(); ++x) {
            float sum = 0;
            for (int c = 0; c < picture.channels(); ++c) sum += curve.eye()[picture.at(x, y, c)];
            eye.at(x, y, 0) = sum / float(picture.channels());
        }
    return fine_detail(eye);
}

Result<Mask> found_sky(const Pile& turning, FrameStore& store, Job& job) {
    constexpr std::size_t looked_at = 16;
    constexpr int suggest_side = 1200;
    Pile still = turning;
    still.methods.sky.model = Model::none;
    const std::vector<int> ids = merged_ids(turning);
    const int level = level_within(turning.size, suggest_side);
    const Size size = at_level(turning.size, level);
    const LightCurve curve = LightCurve::of(turning.profile, turning.channels);
    Common as_sky(size), as_land(size);
    constexpr double edge = 6;  // what lies nearer to a frame's edge has detail that is none
    const std::size_t count = std::min(looked_at, ids.size());
    for (std::size_t i = 0; i < count; ++i) {
        const Frame& frame = *find_frame(turning, ids[i * ids.size() / count]);
        Result<Raster16> turned = render_frame(turning, store, frame.id, whole(size), level, job);
        if (!turned.ok()) return turned.failure();
        Result<Raster16> standing = render_frame(still, store, frame.id, whole(size), level, job);
        if (!standing.ok()) return standing.failure();
        const Placement place = at_level(placement(turning, frame), level);
        as_sky.add(detail_of(turned.value(), curve), [&](int x, int y) {
            const Point at = place.to_frame({double(x), double(y)});
            return at.x >= edge && at.y >= edge && at.x <= size.width - 1 - edge && at.y <= size.height - 1 - edge;
        });
        as_land.add(detail_of(standing.value(), curve), [](int, int) { return true; });
    }
    if (job.stopped()) return stopped_failure();
    const Raster8 belief = belief_of_motion(as_sky, as_land);
    if (belief.empty())
        return Failure{Fault::input, "",
                       "It is not seen what turns and what stands still. Paint roughly what is sky instead."};
    return cut_and_follow(still_pile(turning), belief, level, store, job);
}

}  // namespace

Result<Mask> snap_zones(const Pile& pile, double reach_px, FrameStore& store, Job& job) {
    if (!pile.zones || pile.zones->sky.empty())
        return Failure{Fault::wrong_call, "", "Paint roughly what is sky first: then its border can be found."};
    const int level = level_within(pile.size, cut_side);
    const Size size = at_level(pile.size, level);
    Raster8 rough(size, 1);
    for (int y = 0; y < size.height; ++y) pile.zones->sky.read_row(level, y, 0, size.width, rough.row(y));
    const int reach = std::max(2, int(std::lround(reach_px / (1 << level))));
    return cut_and_follow(still_pile(pile), belief_of(rough, reach), level, store, job);
}

Result<Mask> suggest_sky(const Pile& pile, FrameStore& store, Job& job) {
    if (method_of(pile, Zone::sky).model != Model::stars)
        return Failure{Fault::wrong_call, "", "Align by the stars first: what turns with them is sky."};
    // However the frames are merged otherwise, the sky is where it is.
    Pile turning = with_mode(pile, Mode::mean);
    turning.zones.reset();
    return solved<Mask>(store.derived(), base_key("sky", turning), [&] { return found_sky(turning, store, job); });
}

}  // namespace bp
