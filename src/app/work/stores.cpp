#include "app/work/stores.h"

#include <QSettings>
#include <algorithm>

#include "base/gate.h"
#include "io/clip.h"

namespace bp::app {
namespace {

constexpr auto memory_key = "room/memory_bytes";
constexpr auto scratch_key = "room/scratch_bytes";

}  // namespace

Stores::Stores()
    : scratch_(Scratch::in_cache()),
      derived_(std::make_shared<Derived>(std::make_shared<KeptFiles>(Scratch::cache_folder() / "derived", 0))),
      sweeping_(nullptr) {
    const QSettings settings;
    const AllowanceLimits limits = Stores::limits();
    allowance_.memory_bytes =
        std::clamp<std::size_t>(settings.value(memory_key, qulonglong(MemoryBudget::machine_bytes() / 4)).toULongLong(),
                                limits.least_memory, limits.most_memory);
    allowance_.scratch_bytes =
        std::clamp<std::uint64_t>(settings.value(scratch_key, qulonglong(Scratch::free_bytes() / 2)).toULongLong(),
                                  limits.least_scratch, limits.most_scratch);
    share_out();
    MemoryGate::of_process().set_limit(budget().work_bytes);
    begin_anew({});
}

void Stores::begin_anew(const WorkingSpace& space) {
    frames_ = std::make_shared<FrameStore>(space, budget(), scratch_, derived_);
    bases_ = std::make_shared<BaseTiles>(allowance_.memory_bytes / 8);
}

AllowanceLimits Stores::limits() {
    constexpr std::size_t least_memory = std::size_t(512) << 20;
    constexpr std::uint64_t least_scratch = std::uint64_t(100) << 20;
    return {least_memory, std::max(least_memory, MemoryBudget::machine_bytes() / 4 * 3), least_scratch,
            std::max(least_scratch, Scratch::free_bytes() / 10 * 9)};
}

// Frames that are kept and an export, or what is on screen, may come together.
MemoryBudget Stores::budget() const {
    return {allowance_.memory_bytes / 2, allowance_.memory_bytes / 4};
}

// What can be made again and is worth keeping has a quarter of it, and never much: it stays when the program ends. So
// have decoded frames of clips. Frames in work have the rest.
void Stores::share_out() {
    constexpr std::uint64_t most_kept = std::uint64_t(2) << 30;
    const std::uint64_t kept = std::min(allowance_.scratch_bytes / 4, most_kept);
    derived_->set_limit(kept);
    limit_clip_frames(kept);
    sweeping_.run<bool>(
        [derived = derived_](Job&) {
            derived->sweep();
            sweep_clip_frames();
            return true;
        },
        [](bool) {});
    scratch_->set_limit(allowance_.scratch_bytes - 2 * kept);
}

void Stores::set_allowance(const Allowance& allowance) {
    allowance_ = allowance;
    MemoryGate::of_process().set_limit(budget().work_bytes);
    QSettings settings;
    settings.setValue(memory_key, qulonglong(allowance.memory_bytes));
    settings.setValue(scratch_key, qulonglong(allowance.scratch_bytes));
    share_out();
    frames_->set_budget(budget());
    bases_->set_budget(allowance.memory_bytes / 8);
}

}  // namespace bp::app
