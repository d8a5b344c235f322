#include "engine/finisher.h"

#include <algorithm>

namespace bp {

Finisher::Finisher(const Finishing& finishing, int channels, const Rect& region, RowSink& sink)
    : finishing_(finishing),
      channels_(channels),
      around_(finishing.around(region)),
      region_(region),
      sink_(sink),
      next_(region.top) {}

void Finisher::begin(const StripPlan& plan) {
    held_ = rows_held(plan.band_rows, finishing_);
    rows_.resize(std::size_t(held_) * stride());
    StripPlan handed_on = plan;
    handed_on.band_rows += finishing_.rows_at_once() + 2 * finishing_.reach();  // that the last band may bring
    sink_.begin(handed_on);
}

Status Finisher::finish(const Band& band) {
    const bool last = band.second == around_.bottom();
    const int end = last ? region_.bottom() : std::min(region_.bottom(), band.second - finishing_.reach());
    if (end <= next_ || (!last && end - next_ < finishing_.rows_at_once())) return Done{};
    finishing_.make(
        {region_.left, next_, region_.width, end - next_}, [&](int y) { return row(y); },
        [&](int y) { return sink_.row(y); });
    const Band done{next_, end};
    next_ = end;
    return sink_.finish(done);
}

}  // namespace bp
