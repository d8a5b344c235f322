#include "practice/timing.h"

#include <algorithm>

namespace bp::practice {

std::vector<Shot> timed(std::vector<Shot> shots, const Timing& timing) {
    if (!timing.exposure_s && !timing.pause_s) return shots;
    std::vector<Shot> own = shots;
    double now = 0;
    double last_own_end = 0;
    for (std::size_t i = 0; i < shots.size(); ++i) {
        Shot& shot = shots[i];
        if (shot.role != Role::scene) {
            shot.begin_s += now - last_own_end;
            continue;
        }
        const bool followed = i + 1 < own.size() && own[i + 1].role == Role::scene;
        const double own_pause = followed ? own[i + 1].begin_s - own[i].begin_s - own[i].exposure_s : 0;
        if (timing.exposure_s) {
            shot.gain *= *timing.exposure_s / shot.exposure_s;
            shot.exposure_s = *timing.exposure_s;
        }
        shot.begin_s = now;
        now += shot.exposure_s + timing.pause_s.value_or(std::max(own_pause, 0.0));
        last_own_end = own[i].begin_s + own[i].exposure_s + std::max(own_pause, 0.0);
    }
    return shots;
}

}  // namespace bp::practice
