#include "engine/moving_lights.h"

#include <algorithm>
#include <mutex>

#include "engine/aligning.h"
#include "engine/in_step.h"
#include "lights/excess.h"
#include "lights/traces.h"
#include "pile/edits.h"
#include "pile/fingerprint.h"

namespace bp {
namespace {

constexpr std::size_t fewest_frames = 4;
constexpr double least_deviations = 4;

// The frames alone, as they were recorded.
Pile as_recorded(const Pile& pile) {
    Pile out = with_hot_pixels(with_look(pile, {}), nullptr);
    out.methods.sky = {Model::none, Mode::maximum, By::channel, {}};
    out.levelling = Levelling::off;
    out.darks = Darks::off;
    out.zones.reset();
    out.spots = nullptr;
    out.parts.clear();
    out.canvas = {};
    for (Frame& frame : out.frames) {
        frame.look = {};
        frame.left_out = Mask();
    }
    return out;
}

std::vector<int> scene_ids(const Pile& pile) {
    std::vector<int> out;
    for (const Frame& frame : pile.frames)
        if (usable(frame) && frame.role == Role::scene) out.push_back(frame.id);
    return out;
}

// Collects what stands out, row by row.
class Looking final : public StepWork {
  public:
    Looking(int channels, std::size_t frames, int height)
        : channels_(channels), frames_(frames), rows_(std::size_t(height)) {}

    void row(int y, kernels::Span columns, const std::vector<FrameRow>& rows) override {
        const int width = columns.end - columns.begin;
        std::vector<std::uint16_t> samples(frames_ * std::size_t(width));
        std::vector<const std::uint16_t*> brightness;
        for (std::size_t k = 0; k < frames_; ++k) {
            std::uint16_t* out = samples.data() + k * std::size_t(width);
            brightness.push_back(out);
            if (rows[k].narrow)
                for (int x = 0; x < width; ++x) out[x] = kernels::to_16(bright(rows[k].narrow, x));
            else
                for (int x = 0; x < width; ++x) out[x] = bright(rows[k].wide, x);
        }
        std::vector<Excess> found;
        add_excess(brightness, width, least_deviations, found);
        for (Excess& e : found) e.x = std::uint16_t(e.x + columns.begin);
        const std::lock_guard lock(mutex_);
        auto& row = rows_[std::size_t(y)];
        row.insert(row.end(), found.begin(), found.end());
    }

    // By frame, row by row.
    std::vector<std::vector<Bright>> by_frame() {
        std::vector<std::vector<Bright>> out(frames_);
        for (std::size_t y = 0; y < rows_.size(); ++y) {
            std::sort(rows_[y].begin(), rows_[y].end(), [](const Excess& a, const Excess& b) { return a.x < b.x; });
            for (const Excess& e : rows_[y]) out[e.frame].push_back({e.x, int(y), e.by, e.deviations});
        }
        return out;
    }

  private:
    template <class T>
    T bright(const T* row, int x) const {
        if (channels_ == 1) return row[x];
        const T* p = row + std::ptrdiff_t(x) * 3;
        return T((unsigned(p[0]) + 2U * p[1] + p[2] + 2U) / 4U);
    }

    int channels_;
    std::size_t frames_;
    std::mutex mutex_;
    std::vector<std::vector<Excess>> rows_;
};

// How the sky moves, and which frames lie under it.
void find_motion(const Pile& pile, const std::vector<int>& ids, Job& job, MovingLights& out) {
    const Result<std::map<int, Alignment>> placed = align_frames(pile, Model::stars, pile.reference, job);
    if (!placed.ok()) return;
    std::vector<PlacedInTime> frames;
    std::vector<int> placed_ids;
    std::optional<std::size_t> reference;
    for (const int id : ids) {
        const auto place = placed.value().find(id);
        const CaptureData& capture = find_frame(pile, id)->file->capture;
        if (place == placed.value().end() || !capture.captured) continue;
        if (id == pile.reference) reference = frames.size();
        frames.push_back({place->second, *capture.captured + capture.exposure_s.value_or(0) / 2});
        placed_ids.push_back(id);
    }
    if (!reference) return;
    const std::optional<FoundMotion> found = sky_motion(frames, *reference, pile.size);
    if (!found) return;
    out.sky = found->motion;
    for (std::size_t k = 0; k < placed_ids.size(); ++k) out.frames[placed_ids[k]].fits_sky = found->fits[k];
}

Result<MovingLights> look(const Pile& pile, const std::vector<int>& ids, FrameStore& store, Job& job) {
    MovingLights out;
    for (const int id : ids) out.frames[id];
    const Size size = at_level(pile.size, MovingLights::level);
    Looking work(pile.channels, ids.size(), size.height);
    const Status done = bring_in_step({pile, store, takes_of(ids), whole(size), MovingLights::level, 0}, job, work);
    if (!done.ok()) return done.failure();
    const std::vector<std::vector<Bright>> bright = work.by_frame();
    for (std::size_t k = 0; k < ids.size(); ++k) out.frames[ids[k]].lights = thin_lights(size, traces_of(bright[k]));
    find_motion(pile, ids, job, out);
    if (job.stopped()) return stopped_failure();
    return out;
}

// All that lights are found from; `content` stands for the pixels of the frames.
Fingerprint recipe_of(const Pile& pile, const std::vector<int>& ids, const std::vector<Fingerprint>& content) {
    std::vector<double> times;
    for (const int id : ids) {
        const CaptureData& capture = find_frame(pile, id)->file->capture;
        times.push_back(capture.captured.value_or(-1));
        times.push_back(capture.exposure_s.value_or(-1));
    }
    const auto reference = std::find(ids.begin(), ids.end(), pile.reference) - ids.begin();
    return pile::fingerprint(content, times, int(reference), pile.profile, pile.channels, pile.balance, pile.trust);
}

}  // namespace

std::size_t MovingLights::bytes() const {
    std::size_t out = sizeof *this;
    for (const auto& [id, of] : frames) out += of.lights.bytes();
    return out;
}

void pack(Packer& to, const MovingLights& lights) {
    to.number(lights.sky.has_value());
    const SkyMotion sky = lights.sky.value_or(SkyMotion{});
    to.number(sky.lens.middle.x)
        .number(sky.lens.middle.y)
        .number(sky.lens.unit)
        .number(sky.lens.k1)
        .number(sky.lens.k2);
    for (const double s : sky.spin) to.number(s);
    to.number(std::uint64_t(lights.frames.size()));
    for (const auto& [id, of] : lights.frames) {
        to.number(id).number(of.fits_sky);
        pack(to, of.lights);
    }
}

void unpack(Unpacker& from, MovingLights& lights) {
    const bool moves = from.number<bool>();
    SkyMotion sky;
    for (double* value : {&sky.lens.middle.x, &sky.lens.middle.y, &sky.lens.unit, &sky.lens.k1, &sky.lens.k2})
        *value = from.number<double>();
    for (double& s : sky.spin) s = from.number<double>();
    if (moves) lights.sky = sky;
    const std::size_t count = from.count(sizeof(int));
    for (std::size_t i = 0; i < count && from.ok(); ++i) {
        const int id = from.number<int>();
        MovingLights::OfFrame& of = lights.frames[id];
        of.fits_sky = from.number<bool>();
        unpack(from, of.lights);
    }
}

Result<std::shared_ptr<const MovingLights>> moving_lights(const Pile& pile, FrameStore& store, Job& job) {
    const Pile plain = as_recorded(pile);
    const std::vector<int> ids = scene_ids(plain);
    if (ids.size() < fewest_frames || std::find(ids.begin(), ids.end(), pile.reference) == ids.end())
        return std::make_shared<const MovingLights>();
    std::vector<Fingerprint> files;
    for (const int id : ids) files.push_back(pile::fingerprint(find_frame(plain, id)->file, id));
    const Fingerprint here = derived_key("moving lights", recipe_of(plain, ids, files));
    if (auto known = store.kept<MovingLights>(here)) return known;
    std::optional<Fingerprint> key;
    std::vector<Fingerprint> content;
    for (const int id : ids)
        if (const auto of = content_of(*find_frame(plain, id)->file)) content.push_back(pile::fingerprint(*of, id));
    if (content.size() == ids.size()) key = derived_key("moving lights", recipe_of(plain, ids, content));
    Result<MovingLights> found =
        solved<MovingLights>(store.derived(), key, [&] { return look(plain, ids, store, job); });
    if (!found.ok()) return found.failure();
    found.value().recipe = here;
    auto out = std::make_shared<const MovingLights>(std::move(found).value());
    store.keep(here, out);
    return out;
}

}  // namespace bp
