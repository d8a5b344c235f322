// Memory for whole pictures, of which only so many may be decoded at once.
#pragma once

#include <condition_variable>
#include <cstddef>
#include <mutex>

namespace bp {

// Whoever takes a whole picture into memory holds a ticket while it is decoded. Tickets are given while all together
// stay within the limit, and always to one, however much it wants: a picture that is larger than the limit comes alone.
// A holder must not wait for another ticket. Any thread.
class MemoryGate {
  public:
    explicit MemoryGate(std::size_t limit_bytes) : limit_(limit_bytes) {}
    // Of this process; at first a quarter of the machine's memory.
    static MemoryGate& of_process();
    void set_limit(std::size_t bytes);

    class Ticket {
      public:
        Ticket(MemoryGate& gate, std::size_t bytes);
        ~Ticket();
        Ticket(const Ticket&) = delete;
        Ticket& operator=(const Ticket&) = delete;

      private:
        MemoryGate& gate_;
        std::size_t bytes_;
    };
    // The most that was held at once.
    std::size_t peak_bytes() const;

  private:
    mutable std::mutex mutex_;
    std::condition_variable given_back_;
    std::size_t limit_;
    std::size_t held_ = 0;
    std::size_t peak_ = 0;
    int holders_ = 0;
};

}  // namespace bp
