#include "pile/history.h"

#include <algorithm>

namespace bp {

History::History(Pile first) {
    entries_.push_back({std::move(first), "", 0});
}

void History::push(Pile pile, const std::string& what) {
    entries_.resize(at_ + 1);
    entries_.push_back({std::move(pile), what, next_serial_++});
    ++at_;
}

void History::replace(Pile pile) {
    entries_[at_].pile = std::move(pile);
}

void History::each(const std::function<Pile(Pile)>& change) {
    for (Entry& entry : entries_) entry.pile = change(std::move(entry.pile));
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

}  // namespace bp
