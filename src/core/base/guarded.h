// The border at which what libraries throw becomes a failure: every job, and every body that another thread runs.
#pragma once

#include <utility>

#include "base/result.h"

namespace bp {

// Only inside a catch block: the failure that stands for what was caught. Out of memory is told as such.
Failure caught_failure();

// What `work` returns, a Result; or what stopped it.
template <class Work>
auto guarded(const Work& work) -> decltype(work()) {
    try {
        return work();
    } catch (...) {
        return caught_failure();
    }
}

}  // namespace bp
