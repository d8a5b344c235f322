#include "pile/history.h"

#include <algorithm>

namespace bp {
namespace {

// What a pile takes beyond what it shares with another.
std::size_t bytes_beside(const Pile& pile, const Pile& other) {
    std::size_t out = sizeof(Pile) + pile.frames.size() * sizeof(Frame) + pile.parts.size() * sizeof(Part);
    for (const Frame& frame : pile.frames) {
        const Frame* same = find_frame(other, frame.id);
        out += frame.note.size() + frame.left_out.bytes_beside(same ? same->left_out : Mask()) +
               frame.silence.bytes_beside(same ? same->silence : Mask()) + frame.streaks.size() * sizeof(FrameStreak);
    }
    out += pile.trust.bytes_beside(other.trust);
    for (const Part& part : pile.parts) {
        const Part* same = find_part(other, part.id);
        out += part.mask.bytes_beside(same ? same->mask : Mask());
    }
    if (pile.zones) {
        out += pile.zones->sky.bytes_beside(other.zones ? other.zones->sky : Mask());
        out += pile.zones->soft.bytes_beside(other.zones ? other.zones->soft : Mask());
    }
    if (pile.hot && pile.hot.get() != other.hot.get()) out += pile.hot->size() * sizeof(HotPixel);
    if (pile.spots && pile.spots.get() != other.spots.get())
        for (const SensorSpot& spot : *pile.spots) out += spot.passes->bytes();
    return out;
}

}  // namespace

History::History(Pile first, std::size_t budget_bytes) : budget_(budget_bytes) {
    const std::size_t bytes = bytes_beside(first, {});
    entries_.push_back({std::move(first), "", 0, bytes});
}

void History::push(Pile pile, const std::string& what, bool join) {
    entries_.resize(at_ + 1);
    if (join && at_ > 0) {
        // What the step before made is passed over: it goes from the pile before it to this one.
        entries_.pop_back();
        --at_;
    }
    const std::size_t bytes = bytes_beside(pile, now());
    entries_.push_back({std::move(pile), what, next_serial_++, bytes});
    ++at_;
    shrink();
}

void History::replace(Pile pile) {
    entries_[at_].pile = std::move(pile);
}

void History::complete(Pile pile) {
    replace(std::move(pile));
    entries_[at_].serial = next_serial_++;
}

void History::each(const std::function<Pile(Pile)>& change) {
    for (Entry& entry : entries_) {
        entry.pile = change(std::move(entry.pile));
        entry.serial = next_serial_++;
    }
}

void History::replace_each(const std::function<Pile(Pile)>& change) {
    const auto saved =
        std::find_if(entries_.begin(), entries_.end(), [this](const Entry& entry) { return entry.serial == saved_; });
    each(change);
    if (saved != entries_.end()) saved_ = saved->serial;
}

int History::highest_frame_id() const {
    int highest = 0;
    for (const Entry& entry : entries_)
        for (const Frame& frame : entry.pile.frames) highest = std::max(highest, frame.id);
    return highest;
}

std::string History::undo_text() const {
    return can_undo() ? entries_[at_].what : std::string();
}

std::string History::redo_text() const {
    return can_redo() ? entries_[at_ + 1].what : std::string();
}

void History::undo() {
    if (can_undo()) --at_;
}

void History::redo() {
    if (can_redo()) ++at_;
}

std::vector<std::string> History::steps() const {
    std::vector<std::string> out;
    out.reserve(entries_.size());
    for (const Entry& entry : entries_) out.push_back(entry.what);
    out.front().clear();
    return out;
}

std::size_t History::bytes() const {
    std::size_t out = 0;
    for (const Entry& entry : entries_) out += entry.bytes;
    return out;
}

// The step that was made last can always be taken back.
void History::shrink() {
    std::size_t all = bytes();
    while (all > budget_ && at_ > 1) {
        all -= entries_[0].bytes + entries_[1].bytes;
        entries_.erase(entries_.begin());
        forgot_ = true;
        --at_;
        // The first shares with none before it.
        entries_[0].bytes = bytes_beside(entries_[0].pile, {});
        all += entries_[0].bytes;
    }
}

}  // namespace bp
