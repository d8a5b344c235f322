#include "base/gate.h"

#include <unistd.h>

#include <algorithm>

namespace bp {

MemoryGate& MemoryGate::of_process() {
    static MemoryGate gate(std::size_t(::sysconf(_SC_PHYS_PAGES)) * std::size_t(::sysconf(_SC_PAGESIZE)) / 4);
    return gate;
}

void MemoryGate::set_limit(std::size_t bytes) {
    const std::lock_guard lock(mutex_);
    limit_ = bytes;
    given_back_.notify_all();
}

std::size_t MemoryGate::peak_bytes() const {
    const std::lock_guard lock(mutex_);
    return peak_;
}

MemoryGate::Ticket::Ticket(MemoryGate& gate, std::size_t bytes) : gate_(gate), bytes_(bytes) {
    std::unique_lock lock(gate_.mutex_);
    gate_.given_back_.wait(lock, [&] { return gate_.holders_ == 0 || gate_.held_ + bytes_ <= gate_.limit_; });
    ++gate_.holders_;
    gate_.held_ += bytes_;
    gate_.peak_ = std::max(gate_.peak_, gate_.held_);
}

MemoryGate::Ticket::~Ticket() {
    const std::lock_guard lock(gate_.mutex_);
    --gate_.holders_;
    gate_.held_ -= bytes_;
    gate_.given_back_.notify_all();
}

}  // namespace bp
