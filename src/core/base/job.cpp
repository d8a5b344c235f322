#include "base/job.h"

#include <algorithm>

namespace bp {

void Job::begin(const Saying& what, long total) {
    const std::lock_guard lock(mutex_);
    what_ = what;
    total_ = std::max(total, 1L);
    done_ = 0;
    began_ = std::chrono::steady_clock::now();
    if (listener_) listener_(progress_locked());
}

void Job::advance(long steps) {
    const std::lock_guard lock(mutex_);
    done_ = std::min(done_ + steps, total_);
    if (listener_) listener_(progress_locked());
}

Progress Job::progress() const {
    const std::lock_guard lock(mutex_);
    return progress_locked();
}

Progress Job::progress_locked() const {
    Progress out{what_, total_ > 0 ? double(done_) / double(total_) : 0.0, 0.0};
    if (done_ > 0) {
        const std::chrono::duration<double> taken = std::chrono::steady_clock::now() - began_;
        out.seconds_left = taken.count() * double(total_ - done_) / double(done_);
    }
    return out;
}

Failure stopped_failure() {
    return {Fault::stopped, "", "Stopped."};
}

}  // namespace bp
