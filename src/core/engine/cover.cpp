#include "engine/cover.h"

#include <algorithm>
#include <mutex>
#include <vector>

#include "base/parallel.h"
#include "kernels/source_map.h"

namespace bp {
namespace {

using kernels::Span;

// For every row of the canvas, the pixels that all merged frames reach.
std::vector<Span> shared_spans(const Pile& pile) {
    std::vector<const Frame*> frames;
    for (const Frame& frame : pile.frames)
        if (merged(pile, frame) && !placement(pile, frame).is_identity()) frames.push_back(&frame);
    std::vector<Span> out(std::size_t(pile.size.height), Span{0, pile.size.width});
    std::mutex mutex;
    parallel_for(0, int(frames.size()), [&](int i) {
        const Frame& frame = *frames[std::size_t(i)];
        const kernels::SourceMap map(placement(pile, frame), frame.file->facts.size);
        kernels::RowPlaces places(map, {0, pile.size.width});
        std::vector<Span> own;
        own.reserve(out.size());
        for (int y = 0; y < pile.size.height; ++y) {
            places.go_to(y);
            own.push_back(places.covered({0, pile.size.width}));
        }
        const std::lock_guard lock(mutex);
        for (std::size_t y = 0; y < out.size(); ++y)
            out[y] = {std::max(out[y].begin, own[y].begin), std::min(out[y].end, own[y].end)};
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
