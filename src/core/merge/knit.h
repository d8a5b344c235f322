// Closing the breaks that pauses between exposures leave in trails: what is added, as numbers.
#pragma once

namespace bp {

// Whether breaks are closed, and up to which pause.
struct Knit {
    static constexpr double longest_pause_s = 3600;

    bool on = false;
    double longest_s = 120;
    friend bool operator==(const Knit&, const Knit&) = default;
};

// Two exposures of `exposure_s` lie `period_s` apart, and what is seen moves by `px_per_s`. How many exposures
// have to be thought in between, evenly, so that their maximum stays even: a trail's end falls off with the width of a
// star, and so does the maximum of two trails where they meet. 0 where nothing moves as far as one would see.
int steps_between(double exposure_s, double period_s, double px_per_s);

}  // namespace bp
