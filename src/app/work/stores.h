// What the pixels of the open pile are kept in, and how much of the machine that may take.
#pragma once

#include "app/work/jobs.h"
#include "engine/base_tiles.h"
#include "engine/derived.h"
#include "engine/store.h"

namespace bp::app {

// How much of the machine the program may take.
struct Allowance {
    std::size_t memory_bytes = 0;
    std::uint64_t scratch_bytes = 0;
};
struct AllowanceLimits {
    std::size_t least_memory, most_memory;
    std::uint64_t least_scratch, most_scratch;
};

class Stores {
  public:
    Stores();

    std::shared_ptr<FrameStore> frames() const { return frames_; }
    std::shared_ptr<BaseTiles> bases() const { return bases_; }
    std::shared_ptr<Scratch> scratch() const { return scratch_; }
    Derived& derived() { return *derived_; }
    // For another pile, whose frames are seen in this space.
    void begin_anew(const WorkingSpace& space);

    // Kept from one run of the program to the next; holds at once.
    const Allowance& allowance() const { return allowance_; }
    void set_allowance(const Allowance& allowance);
    static AllowanceLimits limits();
    MemoryBudget budget() const;

  private:
    void share_out();

    Allowance allowance_;
    std::shared_ptr<Scratch> scratch_;
    std::shared_ptr<Derived> derived_;
    std::shared_ptr<FrameStore> frames_;
    std::shared_ptr<BaseTiles> bases_;
    Lane sweeping_;
};

}  // namespace bp::app
