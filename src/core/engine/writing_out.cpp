#include "engine/writing_out.h"

#include <algorithm>

#include "base/files.h"
#include "engine/knitting.h"
#include "engine/part_edges.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "pile/part_edits.h"

namespace bp {
namespace {

// The frame that a failure names, or whose file it names.
const Frame* broken_frame(const Pile& pile, const Failure& failure) {
    if (const Frame* named = find_frame(pile, failure.frame)) return named;
    const auto found = std::find_if(pile.frames.begin(), pile.frames.end(),
                                    [&](const Frame& f) { return f.file->path.string() == failure.file; });
    return found == pile.frames.end() ? nullptr : &*found;
}

}  // namespace

Result<Pile> write_without_broken(const Pile& pile, const fs::path& file,
                                  const std::function<Status(const Pile& pile)>& write) {
    if (Status kept = keeps_originals(pile, file); !kept.ok()) return kept.failure();
    Pile now = pile;
    while (true) {
        if (merged_ids(now).empty() && !shows_parts(now))
            return Failure{Fault::input, "", "No frame is left to merge: all are set aside, broken or not aligned."};
        const Status written = write(now);
        if (written.ok()) return now;
        const Frame* broken = broken_frame(now, written.failure());
        if (written.failure().fault != Fault::input || !broken || !usable(*broken)) return written.failure();
        now = with_problem(std::move(now), broken->id, written.failure().sentence);
    }
}

Status share_what_is_known(const Pile& pile, FrameStore& known, FrameStore& store, Job& job) {
    if (knits(pile)) {
        const Result<std::shared_ptr<const MovingLights>> lights = moving_lights(pile, known, job);
        if (!lights.ok()) return lights.failure();
        store.keep(lights.value()->recipe, lights.value());
    }
    for (const Part& part : pile.parts) {
        if (part.edge == Edge::painted) continue;
        const Fingerprint key = key_of_edge(pile, part);
        if (const SharedEdge edge = known.kept<SolvedEdge>(key)) store.keep(key, edge);
    }
    return Done{};
}

}  // namespace bp
