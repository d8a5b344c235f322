#include "pile/streak_edits.h"

#include <algorithm>
#include <cmath>

#include "pile/limits.h"

namespace bp {
namespace {

Frame* frame_in(Pile& pile, int id) {
    const auto found =
        std::find_if(pile.frames.begin(), pile.frames.end(), [id](const Frame& f) { return f.id == id; });
    return found != pile.frames.end() && usable(*found) ? &*found : nullptr;
}

FrameStreak* streak_in(Pile& pile, const StreakAt& at) {
    Frame* frame = frame_in(pile, at.frame);
    return frame && at.place >= 0 && at.place < int(frame->streaks.size()) ? &frame->streaks[std::size_t(at.place)]
                                                                           : nullptr;
}

void tell_silence(Pile& pile, int frame) {
    if (Frame* f = frame_in(pile, frame)) f->silence = silence_of(*f, pile.size);
}

Line limited(Line line) {
    for (double* v : {&line.from.x, &line.from.y, &line.to.x, &line.to.y})
        *v = std::isfinite(*v) ? std::clamp(*v, -pile::furthest_px, pile::furthest_px) : 0;
    line.width_px = std::isfinite(line.width_px) ? std::clamp(line.width_px, 1.0, pile::widest_streak_px) : 1;
    return line;
}

// Whether two lines of a frame are the same streak: the middle of the one lies within the other.
bool lies_on(const Line& a, const Line& b) {
    const auto has_middle_of = [](const Line& of, const Line& other) {
        return band_of(other).has({(of.from.x + of.to.x) / 2, (of.from.y + of.to.y) / 2});
    };
    return has_middle_of(a, b) || has_middle_of(b, a);
}

bool stays(const FrameStreak& streak) {
    return streak.by_hand || streak.left_out;
}

int highest_thing(const Pile& pile) {
    int out = -1;
    for (const Frame& frame : pile.frames)
        for (const FrameStreak& s : frame.streaks) out = std::max(out, s.thing);
    return out;
}

}  // namespace

std::vector<StreakAt> all_streaks(const Pile& pile) {
    std::vector<StreakAt> out;
    for (const Frame& frame : pile.frames)
        for (std::size_t i = 0; usable(frame) && i < frame.streaks.size(); ++i) out.push_back({frame.id, int(i)});
    return out;
}

std::vector<StreakAt> streaks_of(const Pile& pile, StreakKind kind) {
    std::vector<StreakAt> out = all_streaks(pile);
    std::erase_if(out, [&](const StreakAt& at) { return find_streak(pile, at)->kind != kind; });
    return out;
}

const FrameStreak* find_streak(const Pile& pile, const StreakAt& at) {
    const Frame* frame = find_frame(pile, at.frame);
    return frame && at.place >= 0 && at.place < int(frame->streaks.size()) ? &frame->streaks[std::size_t(at.place)]
                                                                           : nullptr;
}

DrawnShape band_of(const Line& line) {
    constexpr double beside = 6;  // its glow
    return {ShapeKind::band, line.from, line.to, 2 * line.width_px + beside};
}

Mask silence_of(const Frame& frame, Size size) {
    Mask out = frame.left_out;
    for (const FrameStreak& s : frame.streaks) {
        if (!s.left_out) continue;
        if (out.size() != size) out = Mask(size);
        out = with_shape(std::move(out), band_of(s.line), true);
    }
    return out.empty() ? Mask() : out;
}

Pile with_found_streaks(Pile pile, std::span<const Streak> found) {
    for (Frame& frame : pile.frames) std::erase_if(frame.streaks, [](const FrameStreak& s) { return !stays(s); });
    const int first_thing = highest_thing(pile) + 1;
    for (const Streak& streak : found) {
        Frame* frame = frame_in(pile, streak.frame);
        const Line line = limited(streak.line);
        if (!frame || std::any_of(frame->streaks.begin(), frame->streaks.end(),
                                  [&](const FrameStreak& s) { return stays(s) && lies_on(s.line, line); }))
            continue;
        frame->streaks.push_back({streak.kind, first_thing + streak.thing, line, false, false});
    }
    return pile;
}

Pile with_streaks_left_out(Pile pile, std::span<const StreakAt> streaks, bool left_out) {
    for (const StreakAt& at : streaks) {
        FrameStreak* streak = streak_in(pile, at);
        if (!streak || streak->left_out == left_out) continue;
        streak->left_out = left_out;
        tell_silence(pile, at.frame);
    }
    return pile;
}

Pile with_drawn_streak(Pile pile, int frame, const FrameStreak& streak) {
    Frame* of = frame_in(pile, frame);
    if (!of) return pile;
    of->streaks.push_back({streak.kind, highest_thing(pile) + 1, limited(streak.line), streak.left_out, true});
    tell_silence(pile, frame);
    return pile;
}

Pile with_streak_line(Pile pile, const StreakAt& at, const Line& line) {
    FrameStreak* streak = streak_in(pile, at);
    if (!streak) return pile;
    streak->line = limited(line);
    streak->by_hand = true;
    tell_silence(pile, at.frame);
    return pile;
}

Pile with_streak_kind(Pile pile, const StreakAt& at, StreakKind kind) {
    const FrameStreak* said = streak_in(pile, at);
    if (!said) return pile;
    const int thing = said->thing;
    for (Frame& frame : pile.frames)
        for (FrameStreak& s : frame.streaks)
            if (s.thing == thing) {
                s.kind = kind;
                s.by_hand = true;
            }
    return pile;
}

Pile without_streak(Pile pile, const StreakAt& at) {
    if (!streak_in(pile, at)) return pile;
    Frame& frame = *frame_in(pile, at.frame);
    frame.streaks.erase(frame.streaks.begin() + at.place);
    tell_silence(pile, at.frame);
    return pile;
}

}  // namespace bp
