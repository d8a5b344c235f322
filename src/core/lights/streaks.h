// Streaks: straight traces of aircraft, satellites and meteors among what stands out in frames.
#pragma once

#include <optional>
#include <span>
#include <string_view>
#include <vector>

#include "image/geometry.h"
#include "lights/traces.h"

namespace bp {

enum class StreakKind { aircraft, satellite, meteor };
struct StreakKindEntry {
    StreakKind kind;
    std::string_view name;    // on the command line
    std::string_view plural;  // the same, of many
};
std::span<const StreakKindEntry> streak_kinds();

// A straight line of light in one frame.
struct Line {
    Point from, to;
    double width_px = 1;    // across, where it falls to half
    double brightness = 0;  // samples above the usual, in the middle of its profile
    // How uneven it is along its way: deviation of its light from its own smooth course, over its mean.
    double blinks = 0;
    double even = 0;        // light of the fainter end over the most of its course: meteors fade
    double confidence = 0;  // 0 to 1

    double length() const;
    friend bool operator==(const Line&, const Line&) = default;
};

// The lines among bright pixels, from the surest on. What hangs together and is wide, as clouds are, is no line. By the
// Hough transform (Duda and Hart, "Use of the Hough transformation to detect lines and curves in pictures", 1972), each
// line fitted to its pixels and held against how many would lie on it by chance.
std::vector<Line> find_lines(std::span<const Bright> pixels, Size size, double doubt = 1);

struct Streak {
    int frame = 0;  // by its place in the run
    StreakKind kind = StreakKind::meteor;
    int thing = 0;  // streaks of one thing in several frames have the same, counted from 0
    Line line;
};

// A frame of the run with its lines.
struct FrameLines {
    double begin_s = 0, exposure_s = 0;
    std::vector<Line> lines;
};
// Lines that go on in the next frame are one thing. What blinks is an aircraft, what goes on without blinking a
// satellite. What does not go on is a meteor when it lies within a picture whose neighbours in time would have shown
// more of it, or when it fades; else it is as if it did. In the order of frames.
std::vector<Streak> tell_streaks(const std::vector<FrameLines>& run, Size size);

}  // namespace bp
