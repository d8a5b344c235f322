// Between which limits the numbers of a pile lie. Edits keep to them, readers hold them.
#pragma once

namespace bp::pile {

constexpr double furthest_px = 1e7;     // that a place may be off
constexpr double largest_entry = 1e12;  // of a matrix
constexpr int largest_side_px = 200000;
constexpr double longest_lens = 100;  // most distortion, in units of the lens
constexpr double most_gain = 1000;
constexpr double widest_streak_px = 2000;
constexpr double brightest_streak = 1e9;  // light in a pixel of its way, and shares of it
constexpr int most_things = 1000000;      // that have streaks
constexpr int most_subjects = 1000000;
constexpr double widest_spacing = 5;     // in lengths of a subject
constexpr double widest_band_px = 2000;  // of a part's edge
constexpr double lowest_dpi = 10, highest_dpi = 10000;
constexpr double most_turn_deg = 45;
constexpr double lowest_rate = 1, highest_rate = 120;  // of pictures of a clip, a second
constexpr double longest_growth_s = 600, longest_hold_s = 60;
constexpr int fewest_lines = 120, most_lines = 2160;
constexpr int most_nodes = 4000;  // of a bend, each way

}  // namespace bp::pile
