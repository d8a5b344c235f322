// Measuring frames alone: each is decoded at the level at which it is looked at, looked at, and held against the
// others.
#include <chrono>
#include <cstdio>
#include <mutex>

#include "base/parallel.h"
#include "engine/open.h"
#include "engine/render.h"
#include "engine/survey.h"
#include "io/gather.h"

// Prints seconds for the frames given.
int main(int argc, char** argv) {
    using namespace bp;
    Job job;
    Result<std::vector<NamedFile>> files = gather_run(std::vector<std::string>(argv + 1, argv + argc));
    if (!files.ok()) return 2;
    const Result<Pile> opened = open_frames(files.value(), Outcome::trails, Order::name, job, KnownBy::path);
    if (!opened.ok()) return 3;
    const Pile& pile = opened.value();
    FrameStore store(working_space(pile));
    const auto begin = std::chrono::steady_clock::now();
    const Result<Anchor> anchor = anchor_of(pile, anchor_for(pile));
    if (!anchor.ok()) return 3;
    Sightings seen;
    std::mutex mutex;
    parallel_for(0, int(pile.frames.size()), [&](int n) {
        const Frame& frame = pile.frames[std::size_t(n)];
        Result<Sighting> sight = look_at(pile, frame, anchor.value(), store, job);
        const std::lock_guard lock(mutex);
        if (sight.ok()) seen[frame.id] = std::make_shared<const Sighting>(std::move(sight).value());
    });
    const std::vector<Findings> known = know(pile, seen);
    std::printf("%.4f\n", std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count());
    return known.size() == seen.size() ? 0 : 1;
}
