#include "engine/aligning.h"

#include <algorithm>
#include <atomic>
#include <cmath>
#include <mutex>
#include <optional>
#include <vector>

#include "base/parallel.h"
#include "engine/render.h"

namespace bp {
namespace {

constexpr int shortest_side = 32;

// What a person trusts, seen at a level; none when that is everything.
std::optional<RasterF> trusted(const Pile& pile, int level) {
    if (pile.trust.empty()) return std::nullopt;
    RasterF out(at_level(pile.size, level), 1);
    std::vector<std::uint8_t> row(std::size_t(out.width()));
    for (int y = 0; y < out.height(); ++y) {
        pile.trust.read_row(level, y, 0, out.width(), row.data());
        std::transform(row.begin(), row.end(), out.row(y), [](std::uint8_t v) { return float(v) / 255.0F; });
    }
    return out;
}

Result<AlignReference> prepare(const Pile& pile, int level, const Result<RasterF>& brightness) {
    if (!brightness.ok()) return brightness.failure();
    const std::optional<RasterF> trust = trusted(pile, level);
    return AlignReference(brightness.value(), trust ? &*trust : nullptr);
}

Result<SkyFrame> look_for_stars(const Pile& pile, const Frame& frame, int level, Job& job) {
    constexpr std::size_t most = 400;
    const Result<RasterF> picture =
        read_brightness(*frame.file, level, working_space(pile), LightCurve::of(pile.profile, pile.channels), job);
    if (!picture.ok()) return picture.failure();
    std::vector<Star> stars = find_stars(picture.value(), most, longest_star_trail(frame, picture.value().width()));
    const double scale = double(1 << level);
    for (Star& star : stars) star.at = {(star.at.x + 0.5) * scale - 0.5, (star.at.y + 0.5) * scale - 0.5};
    return sky_frame(pile, frame, std::move(stars));
}

Result<std::map<int, Alignment>> align_to_sky(const Pile& pile, int reference, Job& job) {
    constexpr int starry_side = 2400;
    const int level = level_within(pile.size, starry_side);
    std::vector<int> ids;
    std::size_t fixed = 0;
    for (const Frame& frame : pile.frames) {
        if (!usable(frame) || frame.role != Role::scene) continue;
        if (frame.id == reference) fixed = ids.size();
        ids.push_back(frame.id);
    }
    std::vector<SkyFrame> frames(ids.size());
    job.begin({"Finding stars in %1", {frames_counted(ids.size())}}, long(ids.size()));
    std::optional<Failure> unreadable;  // of the reference: without it there is nothing to hold to
    parallel_for(0, int(ids.size()), [&](int i) {
        if (job.stopped()) return;
        Result<SkyFrame> found = look_for_stars(pile, *find_frame(pile, ids[std::size_t(i)]), level, job);
        if (found.ok())
            frames[std::size_t(i)] = std::move(found).value();
        else if (std::size_t(i) == fixed)
            unreadable = of_frame(found.failure(), reference);
        job.advance();
    });
    if (job.stopped()) return stopped_failure();
    if (unreadable) return *unreadable;
    if (!frames[fixed].time_s)
        return Failure{Fault::input, "",
                       "Aligning by the stars needs capture times, and the reference frame has none."};
    job.begin("Placing the frames under the sky", 1);
    const auto placing = place_sky(frames, fixed, pile.size);
    if (job.stopped()) return stopped_failure();
    if (!placing)
        return Failure{Fault::input, "",
                       "The stars of the reference frame were not found again in other frames. Choose a clear frame as "
                       "reference, or another model."};
    std::map<int, Alignment> out;
    for (std::size_t i = 0; i < ids.size(); ++i) out[ids[i]] = (*placing)[i];
    return out;
}

// `keep` may be null.
Result<std::map<int, Alignment>> aligned(const Pile& pile, Model model, int reference, int longest_side,
                                         FrameStore* keep, Job& job) {
    std::map<int, Alignment> out;
    if (model == Model::none) return out;
    const Frame* fixed = find_frame(pile, reference);
    if (!fixed || !usable(*fixed))
        return Failure{Fault::wrong_call, "", "The reference frame cannot be used. Choose another one."};
    // A dark frame shows nothing to align to, and stars are only looked for in the frames of the scene.
    if (fixed->role == Role::dark || (model == Model::stars && fixed->role != Role::scene))
        return Failure{Fault::input, "",
                       "The reference frame is not one of the scene. Choose a frame of the scene as reference."};
    if (std::min(pile.size.width, pile.size.height) < shortest_side)
        return Failure{Fault::input, "", "The frames are too small to be aligned."};
    if (model == Model::stars) return align_to_sky(pile, reference, job);
    const int level = level_within(pile.size, longest_side);
    const WorkingSpace space = working_space(pile);
    const LightCurve curve = LightCurve::of(pile.profile, pile.channels);
    const auto read = [&](int id) -> Result<RasterF> {
        const FrameFile& file = *find_frame(pile, id)->file;
        if (!keep) return read_brightness(file, level, space, curve, job);
        Result<BrightnessAndPixels> both = read_brightness_and_pixels(file, level, space, curve, job);
        if (!both.ok()) return both.failure();
        if (both.value().pixels) keep->keep_read(file, level, both.value().pixels);
        return std::move(both.value().brightness);
    };
    std::vector<int> ids;
    for (const Frame& frame : pile.frames)
        if (usable(frame) && frame.role != Role::dark && frame.id != reference) ids.push_back(frame.id);
    job.begin({"Aligning %1", {frames_counted(ids.size() + 1)}}, long(ids.size()));
    out[reference].confidence = 1;
    struct Coming {
        std::optional<Result<RasterF>> picture;
        std::atomic<int> missing{3};
    };
    std::vector<Coming> coming(ids.size());
    std::optional<Result<AlignReference>> prepared;
    std::mutex mutex;
    const auto align = [&](std::size_t i) {
        Alignment alignment = not_aligned();
        if (coming[i].picture && coming[i].picture->ok() && prepared->ok()) {
            alignment = prepared->value().align(coming[i].picture->value(), model);
            alignment.to_reference = from_level(alignment.to_reference, level);
            alignment.flex = from_level(alignment.flex, level);
            alignment.residual_px *= double(1 << level);
        }
        coming[i].picture.reset();
        const std::lock_guard lock(mutex);
        out[ids[i]] = alignment;
        job.advance();
    };
    // A frame is aligned by the last of three: who has read it, who has prepared the reference, and who comes to its
    // turn, which is when a few more frames have been taken up for reading. So no core has a whole frame left to do
    // when the others are done.
    const auto come_to = [&](std::size_t i) {
        if (--coming[i].missing == 0 && !job.stopped()) align(i);
    };
    const int count = int(ids.size());
    const int ahead = std::min(count, 2 * threads_at_work());
    parallel_each(0, 1 + 2 * count, [&](int n) {
        if (job.stopped()) return;
        if (n == 0) {
            prepared.emplace(prepare(pile, level, read(reference)));
            parallel_each(0, count, [&](int i) { come_to(std::size_t(i)); });
            return;
        }
        // Read, ..., read, turn, read, turn, ..., turn.
        const int beyond = n - 1 - ahead;
        const int last_pair = 2 * (count - ahead);
        if (beyond >= 0 && (beyond >= last_pair || beyond % 2 == 0)) {
            come_to(std::size_t(beyond >= last_pair ? beyond - (count - ahead) : beyond / 2));
            return;
        }
        const auto i = std::size_t(beyond < 0 ? n - 1 : ahead + beyond / 2);
        coming[i].picture.emplace(read(ids[i]));
        come_to(i);
    });
    if (!job.stopped() && !prepared->ok()) return prepared->failure();
    if (job.stopped()) return stopped_failure();
    return out;
}

}  // namespace

Result<std::map<int, Alignment>> align_frames(const Pile& pile, Model model, int reference, Job& job,
                                              int longest_side) {
    return aligned(pile, model, reference, longest_side, nullptr, job);
}

Result<std::map<int, Alignment>> align_and_keep(const Pile& pile, Model model, int reference, FrameStore& keep,
                                                Job& job) {
    return aligned(pile, model, reference, measured_side, &keep, job);
}

Result<Alignment> refine_frame(const Pile& pile, int id, Job& job, int longest_side) {
    const Frame* frame = find_frame(pile, id);
    const Frame* fixed = find_frame(pile, pile.reference);
    if (!frame || !fixed || !usable(*frame) || !usable(*fixed))
        return Failure{Fault::wrong_call, "", "This frame cannot be aligned to the reference. Place it by hand."};
    const Alignment now = frame->places.sky.value_or(Alignment{});
    if (now.lens) return now;
    const int level = level_within(pile.size, longest_side);
    const WorkingSpace space = working_space(pile);
    const LightCurve curve = LightCurve::of(pile.profile, pile.channels);
    const Result<AlignReference> reference =
        prepare(pile, level, read_brightness(*fixed->file, level, space, curve, job));
    if (!reference.ok()) return reference.failure();
    const Result<RasterF> moved = read_brightness(*frame->file, level, space, curve, job);
    if (!moved.ok()) return moved.failure();
    Alignment out = reference.value().refine(
        moved.value(), pile.methods.sky.model == Model::none ? Model::rigid : pile.methods.sky.model,
        at_level(now.to_reference, level));
    out.to_reference = from_level(out.to_reference, level);
    out.flex = from_level(out.flex, level);
    out.residual_px *= double(1 << level);
    if (!out.aligned)
        return Failure{Fault::input, "",
                       "From here the frame does not come to lie on the reference. It was left where it is."};
    return out;
}

double longest_star_trail(const Frame& frame, int width) {
    constexpr double turn_per_second = 7.292e-5;
    constexpr double longest_focal = 2;  // in widths of the picture: stars seen with longer ones are followed, not left
    return frame.file->capture.exposure_s.value_or(0) * turn_per_second * longest_focal * width;
}

SkyFrame sky_frame(const Pile& pile, const Frame& frame, std::vector<Star> stars) {
    SkyFrame out{std::move(stars), std::nullopt};
    if (!pile.trust.empty())
        std::erase_if(out.stars, [&](const Star& s) {
            return pile.trust.at(int(std::lround(s.at.x)), int(std::lround(s.at.y))) < 128;
        });
    const CaptureData& capture = frame.file->capture;
    if (capture.captured) out.time_s = *capture.captured + capture.exposure_s.value_or(0) / 2;
    return out;
}

}  // namespace bp
