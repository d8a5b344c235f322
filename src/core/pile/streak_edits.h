// Edits of the streaks of frames: found, drawn, pulled, left out. Functions from one pile to the next; streaks that are
// not in the pile change nothing.
#pragma once

#include <span>
#include <vector>

#include "parts/shapes.h"
#include "pile/pile.h"

namespace bp {

// One streak of a pile: the frame's id, and its place among the streaks of the frame.
struct StreakAt {
    int frame = 0;
    int place = 0;
    friend bool operator==(const StreakAt&, const StreakAt&) = default;
};

// All of a pile, frame by frame in the order of the run.
std::vector<StreakAt> all_streaks(const Pile& pile);
std::vector<StreakAt> streaks_of(const Pile& pile, StreakKind kind);
// Null when there is none.
const FrameStreak* find_streak(const Pile& pile, const StreakAt& at);

// What of its frame a streak takes up, with its glow. In pixels of the frame, level 0.
DrawnShape band_of(const Line& line);

// What was found in place of what was found before; `found` names frames by their ids. What a person drew, changed or
// left out stays, and what was found anew in its place is not taken.
Pile with_found_streaks(Pile pile, std::span<const Streak> found);
// Leaves streaks out of their frames, or takes them in again.
Pile with_streaks_left_out(Pile pile, std::span<const StreakAt> streaks, bool left_out);
// A streak that a person drew in a frame, the last of its frame's.
Pile with_drawn_streak(Pile pile, int frame, const FrameStreak& streak);
// As a person pulled it.
Pile with_streak_line(Pile pile, const StreakAt& at, const Line& line);
// As a person says it, in all frames that have a streak of the same thing.
Pile with_streak_kind(Pile pile, const StreakAt& at, StreakKind kind);
Pile without_streak(Pile pile, const StreakAt& at);

// What takes no part in a frame's merging: what a person left out of it, and its streaks that are left out.
Mask silence_of(const Frame& frame, Size size);

}  // namespace bp
