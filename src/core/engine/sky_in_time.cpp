#include "engine/sky_in_time.h"

#include <cmath>

namespace bp {

std::shared_ptr<const kernels::SourceMap> SkyInTime::later(double seconds) {
    constexpr double in_a_second = 100;
    const long when = std::lround(seconds * in_a_second);
    {
        const std::lock_guard lock(mutex_);
        if (const auto known = known_.find(when); known != known_.end()) return known->second;
    }
    // A map leads back.
    auto made = std::make_shared<const kernels::SourceMap>(at_level(sky_.over(-double(when) / in_a_second), level_),
                                                           size_, kernels::SourceMap::Knots::far);
    const std::lock_guard lock(mutex_);
    return known_.emplace(when, std::move(made)).first->second;
}

LightsInTime::Sight LightsInTime::look(int x, int y) const {
    const Point q = there_->at(x, y);
    const Size size = lights_->size();
    if (!(q.x >= 0 && q.y >= 0 && q.x <= size.width - 1 && q.y <= size.height - 1)) return Sight::beyond;
    return lights_->at(int(std::lround(q.x)), int(std::lround(q.y))) ? Sight::light : Sight::dark;
}

}  // namespace bp
