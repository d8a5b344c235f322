#include "engine/cover.h"

#include <algorithm>
#include <vector>

#include "kernels/warp.h"

namespace bp {
namespace {

using kernels::Span;

// For every row of the canvas, the pixels that all merged frames reach.
std::vector<Span> shared_spans(const Pile& pile) {
    std::vector<Span> out(std::size_t(pile.size.height), Span{0, pile.size.width});
    for (const Frame& frame : pile.frames) {
        if (!merged(pile, frame)) continue;
        const Matrix place = placement(pile, frame);
        if (place.is_identity()) continue;
        const Matrix to_source = inverse(place);
        for (int y = 0; y < pile.size.height; ++y) {
            Span& span = out[std::size_t(y)];
            span = kernels::covered_span(to_source, frame.file->facts.size, y, span);
        }
    }
    return out;
}

}  // namespace

Rect full_cover(const Pile& pile) {
    const std::vector<Span> spans = shared_spans(pile);
    // The shared area is an intersection of convex shapes, hence convex: a rectangle between two rows fits when it fits
    // in both of them.
    Rect best;
    long best_area = 0;
    const int height = pile.size.height;
    for (int top = 0; top < height; ++top) {
        const Span& a = spans[std::size_t(top)];
        if (a.empty() || long(a.end - a.begin) * (height - top) <= best_area) continue;
        for (int bottom = height - 1; bottom >= top; --bottom) {
            if (long(a.end - a.begin) * (bottom - top + 1) <= best_area) break;
            const Span& b = spans[std::size_t(bottom)];
            const int left = std::max(a.begin, b.begin);
            const int right = std::min(a.end, b.end);
            const long area = long(right - left) * (bottom - top + 1);
            if (b.empty() || right <= left || area <= best_area) continue;
            best_area = area;
            best = {left, top, right - left, bottom - top + 1};
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
