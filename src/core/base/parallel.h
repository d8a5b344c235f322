// One way to spread independent work over the cores (oneTBB underneath).
#pragma once

#include <functional>

namespace bp {

// Calls body(i) for every i in [begin, end), in any order, on any thread; returns when all are done.
// The result must not depend on the order. May be nested.
void parallel_for(int begin, int end, const std::function<void(int)>& body);

// The same for bodies that take long: they are handed out in order, one at a time, so that no core has several left
// when the others are done.
void parallel_each(int begin, int end, const std::function<void(int)>& body);

// How many threads the two use at most.
int threads_at_work();

// Holds the number of threads that parallel_for uses while it lives. 0 means every core.
class ThreadLimit {
  public:
    explicit ThreadLimit(int threads);
    ~ThreadLimit();
    ThreadLimit(const ThreadLimit&) = delete;
    ThreadLimit& operator=(const ThreadLimit&) = delete;

  private:
    void* control_ = nullptr;
};

}  // namespace bp
