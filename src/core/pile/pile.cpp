#include "pile/pile.h"

#include <algorithm>

#include "align/pole.h"

namespace bp {

const Frame* find_frame(const Pile& pile, int id) {
    const auto found =
        std::find_if(pile.frames.begin(), pile.frames.end(), [id](const Frame& f) { return f.id == id; });
    return found == pile.frames.end() ? nullptr : &*found;
}

int frame_before(const Pile& pile, int id) {
    int before = id;
    for (const Frame& frame : pile.frames) {
        if (frame.id == id) return before;
        if (usable(frame) && frame.role == Role::scene) before = frame.id;
    }
    return id;
}

const Part* find_part(const Pile& pile, int id) {
    const auto found = std::find_if(pile.parts.begin(), pile.parts.end(), [id](const Part& p) { return p.id == id; });
    return found == pile.parts.end() ? nullptr : &*found;
}

int number_of(const Pile& pile, int id) {
    const Frame* frame = find_frame(pile, id);
    return frame ? int(frame - pile.frames.data()) + 1 : 0;
}

bool usable(const Frame& frame) {
    return frame.problem.empty();
}

bool lost(const Pile& pile, const Frame& frame) {
    return pile.model != Model::none && frame.alignment && !frame.alignment->aligned && !frame.alignment->insisted;
}

bool merged(const Pile& pile, const Frame& frame) {
    if (!usable(frame)) return false;
    if (pile.merge.mode == Mode::one) return frame.id == pile.base;
    if (frame.aside || frame.role != Role::scene) return false;
    return !lost(pile, frame);
}

std::vector<int> merged_ids(const Pile& pile) {
    std::vector<int> out;
    for (const Frame& frame : pile.frames)
        if (merged(pile, frame)) out.push_back(frame.id);
    return out;
}

Look look_of(const Pile& pile, const Frame& frame) {
    return on_top(pile.look, frame.look);
}

std::array<double, 3> gains_of(const Pile& pile, const Frame& frame) {
    if (pile.levelling == Levelling::off || !frame.level) return {1, 1, 1};
    return frame.level->gain;
}

Placement placement(const Pile& pile, const Frame& frame) {
    if (pile.model == Model::none || !frame.alignment || lost(pile, frame)) return {};
    return frame.alignment->placement();
}

std::optional<Point> pole_in(const Pile& pile) {
    if (pile.model != Model::stars) return std::nullopt;
    std::vector<Alignment> frames;
    for (const Frame& frame : pile.frames)
        if (frame.alignment) frames.push_back(*frame.alignment);
    return pole_of(frames);
}

CaptureData merged_capture(const Pile& pile) {
    CaptureData out;
    bool first = true;
    double exposure = 0;
    for (const Frame& frame : pile.frames) {
        if (!merged(pile, frame)) continue;
        if (first) out = frame.file->capture;
        first = false;
        exposure += frame.file->capture.exposure_s.value_or(0);
    }
    if (exposure > 0) out.exposure_s = exposure;
    return out;
}

}  // namespace bp
