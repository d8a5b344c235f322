#include "engine/levelling.h"

#include <mutex>

#include "base/parallel.h"
#include "engine/survey.h"

namespace bp {

Result<std::map<int, LightGains>> measure_gains(const Pile& pile, Levelling kind, FrameStore& store, Job& job) {
    std::map<int, LightGains> out;
    if (kind == Levelling::off) return out;
    const int level = survey_level(pile.size);
    const LightCurve curve = LightCurve::of(pile.profile, pile.channels);
    const Frame* reference = find_frame(pile, pile.reference);
    if (!reference || !usable(*reference))
        return Failure{Fault::wrong_call, "", "The reference frame cannot be used. Choose another one."};
    if (reference->role == Role::dark)
        return Failure{Fault::input, "",
                       "The reference frame is not one of the scene. Choose a frame of the scene as reference."};
    Result<SharedPixels> still = store.load(*reference->file, level, job);
    if (!still.ok()) return still.failure();
    const LightGrid fixed = light_grid(still.value()->widened(), curve);
    const Placement of_reference = at_level(placement(pile, *reference), level);
    std::vector<const Frame*> frames;
    for (const Frame& frame : pile.frames)
        if (usable(frame) && frame.role == Role::scene && frame.id != reference->id &&
            !(frame.gains && frame.gains->by_person))
            frames.push_back(&frame);
    out[reference->id] = {};
    std::mutex mutex;
    job.begin({"Levelling %1", {frames_counted(frames.size() + 1)}}, long(frames.size()));
    parallel_for(0, int(frames.size()), [&](int i) {
        if (job.stopped()) return;
        const Frame& frame = *frames[std::size_t(i)];
        Result<SharedPixels> pixels = store.load(*frame.file, level, job);
        job.advance();
        if (!pixels.ok()) return;
        const Placement of_frame = at_level(placement(pile, frame), level);
        const auto to_frame = [&](Point p) { return of_frame.to_frame(of_reference.to_canvas(p)); };
        const auto found = gains_between(fixed, light_grid(pixels.value()->widened(), curve), to_frame, kind);
        if (!found) return;
        const std::lock_guard lock(mutex);
        out[frame.id] = *found;
    });
    if (job.stopped()) return stopped_failure();
    return out;
}

}  // namespace bp
