#include "engine/merge_noise.h"

#include <algorithm>

#include "engine/render.h"

namespace bp {

int frame_of_noise(const Pile& pile, Zone zone) {
    const std::vector<int> ids = merged_ids(pile, zone);
    const bool has = std::find(ids.begin(), ids.end(), pile.reference) != ids.end();
    return has ? pile.reference : ids.empty() ? 0 : ids.front();
}

Result<Noise> noise_of_merge(const Pile& pile, FrameStore& store, Zone zone, const Rect& region, const Raster16& result,
                             Job& job) {
    const Result<Raster16> one = render_frame(pile, store, frame_of_noise(pile, zone), region, 0, job);
    if (!one.ok()) return one.failure();
    return noise_of(one.value(), result);
}

}  // namespace bp
