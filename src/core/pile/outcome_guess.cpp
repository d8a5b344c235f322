#include "pile/outcome_guess.h"

#include <algorithm>
#include <vector>

#include "frames/robust.h"

namespace bp {

std::optional<OutcomeGuess> guessed_outcome(const Pile& pile) {
    constexpr std::size_t fewest = 3, few = 8;
    std::vector<double> exposures, steps, isos;
    std::optional<double> before;
    std::size_t scene = 0, foreground = 0;
    for (const Frame& frame : pile.frames) {
        if (!usable(frame)) continue;
        if (frame.role == Role::foreground) ++foreground;
        if (frame.role != Role::scene) continue;
        ++scene;
        const CaptureData& c = frame.file->capture;
        if (!c.exposure_s || !c.captured) continue;
        exposures.push_back(*c.exposure_s);
        if (c.iso) isos.push_back(*c.iso);
        if (before) steps.push_back(*c.captured - *before);
        before = c.captured;
    }
    // One view, and light for it from many sides.
    if (scene > 0 && scene < fewest && foreground >= fewest)
        return OutcomeGuess{Outcome::best_of, exposures.empty() ? 0 : exposures.front(), 0};
    if (exposures.size() < fewest || exposures.size() < scene) return std::nullopt;
    const double exposure = median(exposures), step = median(steps), iso = isos.empty() ? 0 : median(isos);
    const auto guess = [&](Outcome outcome) { return OutcomeGuess{outcome, exposure, step}; };
    constexpr double long_s = 1, far_apart = 8, burst_s = 1;  // the second in exposures
    constexpr double dim_iso = 1600;
    if (exposure >= long_s) return guess(step > far_apart * exposure ? Outcome::shower : Outcome::trails);
    if (step <= burst_s) return guess(iso >= dim_iso ? Outcome::quiet : Outcome::sequence);
    return guess(scene <= few ? Outcome::best_of : Outcome::clear);
}

}  // namespace bp
