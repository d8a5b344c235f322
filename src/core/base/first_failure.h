// The first failure that any of several threads meets.
#pragma once

#include <atomic>
#include <mutex>
#include <optional>

#include "base/result.h"

namespace bp {

class FirstFailure {
  public:
    void note(const Failure& failure) {
        const std::lock_guard lock(mutex_);
        if (!failure_) failure_ = failure;
        any_ = true;
    }
    bool any() const { return any_; }
    // Only when any(), and no thread is at work any more.
    const Failure& get() const { return *failure_; }

  private:
    std::mutex mutex_;
    std::atomic<bool> any_{false};
    std::optional<Failure> failure_;
};

}  // namespace bp
