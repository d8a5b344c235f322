#include "engine/cover.h"

#include <algorithm>
#include <memory>
#include <mutex>
#include <vector>

#include "base/latest.h"
#include "base/parallel.h"
#include "kernels/source_map.h"

namespace bp {
namespace {

using kernels::Span;

// For every row of the canvas, the pixels that a frame reaches.
struct Reached {
    std::vector<Span> rows;
    std::size_t bytes() const { return rows.size() * sizeof(Span); }
};
using SharedReached = std::shared_ptr<const Reached>;

SharedReached reached_by(const Placement& place, Size frame, Size canvas) {
    const kernels::SourceMap map(place, frame);
    kernels::RowPlaces places(map, {0, canvas.width});
    auto out = std::make_shared<Reached>();
    out->rows.reserve(std::size_t(canvas.height));
    for (int y = 0; y < canvas.height; ++y) {
        places.go_to(y);
        out->rows.push_back(places.covered({0, canvas.width}));
    }
    return out;
}

// The same, kept: the area is asked for after every edit, and under a lens it takes its time. Any thread.
SharedReached known_reach(const Placement& place, Size frame, Size canvas) {
    static std::mutex mutex;
    static Latest<std::vector<double>, SharedReached> latest(std::size_t(64) << 20);
    std::vector<double> key(place.matrix.m.begin(), place.matrix.m.end());
    for (const int side : {frame.width, frame.height, canvas.width, canvas.height}) key.push_back(side);
    key.insert(key.end(), {place.sensor.x, place.sensor.y});
    if (const auto& lens = place.lens)
        key.insert(key.end(), {lens->middle.x, lens->middle.y, lens->unit, lens->k1, lens->k2});
    {
        const std::lock_guard lock(mutex);
        if (SharedReached known = latest.find(key)) return known;
    }
    SharedReached made = reached_by(place, frame, canvas);
    const std::lock_guard lock(mutex);
    latest.keep(key, made);
    return made;
}

// For every row of the canvas, the pixels that all merged frames reach.
std::vector<Span> shared_spans(const Pile& pile) {
    std::vector<const Frame*> frames;
    for (const Frame& frame : pile.frames)
        if (merged(pile, frame) && !placement(pile, frame).is_identity()) frames.push_back(&frame);
    std::vector<Span> out(std::size_t(pile.size.height), Span{0, pile.size.width});
    std::mutex mutex;
    parallel_for(0, int(frames.size()), [&](int i) {
        const Frame& frame = *frames[std::size_t(i)];
        const SharedReached own = known_reach(placement(pile, frame), frame.file->facts.size, pile.size);
        const std::lock_guard lock(mutex);
        for (std::size_t y = 0; y < out.size(); ++y)
            out[y] = {std::max(out[y].begin, own->rows[y].begin), std::min(out[y].end, own->rows[y].end)};
    });
    return out;
}

}  // namespace

Rect full_cover(const Pile& pile) {
    const std::vector<Span> spans = shared_spans(pile);
    Rect best;
    long best_area = 0;
    const int height = pile.size.height;
    for (int top = 0; top < height; ++top) {
        // What all rows from here down share.
        Span shared = spans[std::size_t(top)];
        for (int bottom = top; bottom < height && !shared.empty(); ++bottom) {
            const Span& row = spans[std::size_t(bottom)];
            shared = {std::max(shared.begin, row.begin), std::min(shared.end, row.end)};
            const long width = shared.end - shared.begin;
            if (width * (height - top) <= best_area) break;
            if (width * (bottom - top + 1) <= best_area) continue;
            best_area = width * (bottom - top + 1);
            best = {shared.begin, top, int(width), bottom - top + 1};
        }
    }
    return best;
}

Rect output_area(const Pile& pile) {
    if (pile.cover == Cover::any) return whole(pile.size);
    const Rect shared = full_cover(pile);
    return shared.empty() ? whole(pile.size) : shared;
}

}  // namespace bp
