// A piece of long work seen from outside: what it does, how far it is, how long it will take, and the means to stop it.
#pragma once

#include <atomic>
#include <chrono>
#include <functional>
#include <mutex>
#include <string>

#include "base/result.h"

namespace bp {

struct Progress {
    Saying what;              // e.g. "Merging 48 frames"
    double fraction = 0;      // 0 to 1
    double seconds_left = 0;  // a guess from the time so far; 0 while unknown
};

// All members may be called from any thread.
class Job {
  public:
    using Listener = std::function<void(const Progress&)>;

    // The listener is called from whichever thread advances the job, one call at a time.
    explicit Job(Listener listener = {}) : listener_(std::move(listener)) {}
    Job(const Job&) = delete;
    Job& operator=(const Job&) = delete;

    void stop() { stopped_ = true; }
    bool stopped() const { return stopped_; }

    // What comes of it is wanted soon, for a look: pictures that are not at hand are read as far as it needs, and not
    // kept.
    void set_glance(bool on) { glance_ = on; }
    bool glance() const { return glance_; }

    // Starts a stage of `total` equal steps.
    void begin(const Saying& what, long total);
    void advance(long steps = 1);
    Progress progress() const;

  private:
    Progress progress_locked() const;

    std::atomic<bool> stopped_{false}, glance_{false};
    mutable std::mutex mutex_;
    Saying what_;
    long total_ = 0;
    long done_ = 0;
    std::chrono::steady_clock::time_point began_;
    Listener listener_;
};

Failure stopped_failure();

}  // namespace bp
