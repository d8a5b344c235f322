#include "engine/aligning.h"

#include <algorithm>
#include <mutex>

#include "base/parallel.h"
#include "engine/render.h"

namespace bp {
namespace {

constexpr int shortest_side = 32;

}  // namespace

Result<std::map<int, Alignment>> align_frames(const Pile& pile, Model model, int reference, Job& job,
                                              int longest_side) {
    std::map<int, Alignment> out;
    if (model == Model::none) return out;
    const Frame* fixed = find_frame(pile, reference);
    if (!fixed || !usable(*fixed))
        return Failure{Fault::wrong_call, "", "The reference frame cannot be used. Choose another one."};
    if (std::min(pile.size.width, pile.size.height) < shortest_side)
        return Failure{Fault::input, "", "The frames are too small to be aligned."};
    const int level = level_within(pile.size, longest_side);
    const WorkingSpace space = working_space(pile);
    Result<Raster16> still = read_frame(*fixed->file, level, space, job);
    if (!still.ok()) return still.failure();
    const RasterF reference_light = brightness_of(still.value());
    std::vector<int> ids;
    for (const Frame& frame : pile.frames)
        if (usable(frame) && frame.role != Role::dark && frame.id != reference) ids.push_back(frame.id);
    out[reference] = Alignment{Matrix{}, 0, 1, true};
    std::mutex mutex;
    job.begin("Aligning " + std::to_string(ids.size() + 1) + " frames", long(ids.size()));
    parallel_for(0, int(ids.size()), [&](int i) {
        if (job.stopped()) return;
        const Frame& frame = *find_frame(pile, ids[std::size_t(i)]);
        Result<Raster16> moved = read_frame(*frame.file, level, space, job);
        Alignment alignment{Matrix{}, 0, 0, false};
        if (moved.ok()) {
            alignment = align_to(reference_light, brightness_of(moved.value()), model);
            alignment.to_reference = from_level(alignment.to_reference, level);
            alignment.residual_px *= double(1 << level);
        }
        const std::lock_guard lock(mutex);
        out[frame.id] = alignment;
        job.advance();
    });
    if (job.stopped()) return stopped_failure();
    return out;
}

}  // namespace bp
