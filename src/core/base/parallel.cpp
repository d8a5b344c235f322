#include "base/parallel.h"

#include <tbb/global_control.h>
#include <tbb/parallel_for.h>
#include <tbb/task_arena.h>

#include <algorithm>
#include <atomic>

#if defined(__SANITIZE_THREAD__)
extern "C" void __tsan_acquire(void*);
extern "C" void __tsan_release(void*);
#endif

namespace bp {
namespace {

// The thread sanitizer cannot see into the scheduler, which is not built with it: these two calls tell it what the
// scheduler guarantees, so that it still watches the bodies themselves.
void handed_over([[maybe_unused]] void* tag) {
#if defined(__SANITIZE_THREAD__)
    __tsan_release(tag);
#endif
}

void taken_over([[maybe_unused]] void* tag) {
#if defined(__SANITIZE_THREAD__)
    __tsan_acquire(tag);
#endif
}

}  // namespace

void parallel_for(int begin, int end, const std::function<void(int)>& body) {
    char out_tag = 0;
    char back_tag = 0;
    handed_over(&out_tag);
    tbb::parallel_for(begin, end, [&](int i) {
        taken_over(&out_tag);
        body(i);
        handed_over(&back_tag);
    });
    taken_over(&back_tag);
}

void parallel_each(int begin, int end, const std::function<void(int)>& body) {
    std::atomic<int> next{begin};
    parallel_for(0, std::min(end - begin, threads_at_work()), [&](int) {
        for (int i = next++; i < end; i = next++) body(i);
    });
}

int threads_at_work() {
    const auto allowed = tbb::global_control::active_value(tbb::global_control::max_allowed_parallelism);
    return std::max(1, std::min(int(allowed), tbb::this_task_arena::max_concurrency()));
}

ThreadLimit::ThreadLimit(int threads) {
    if (threads > 0)
        control_ = new tbb::global_control(tbb::global_control::max_allowed_parallelism, std::size_t(threads));
}

ThreadLimit::~ThreadLimit() {
    delete static_cast<tbb::global_control*>(control_);
}

}  // namespace bp
