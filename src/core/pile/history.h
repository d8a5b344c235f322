// Undo and redo: a list of piles.
#pragma once

#include <algorithm>
#include <functional>
#include <string>
#include <vector>

#include "pile/pile.h"

namespace bp {

class History {
  public:
    // Steps are forgotten from the oldest on when all piles together take more than this, beyond what they share.
    static constexpr std::size_t usual_budget = std::size_t(256) << 20;

    explicit History(Pile first = {}, std::size_t budget_bytes = usual_budget);

    const Pile& now() const { return entries_[at_].pile; }
    // Adds a pile after the present one and forgets what had been undone. With `join` it becomes one step with the one
    // before: for repeats of a key, a drag, a word that is typed.
    void push(Pile pile, const std::string& what, bool join = false);
    // Replaces the present pile without a step of its own, for what was not the person's doing.
    void replace(Pile pile);
    // The same for what is to be saved: a pile that was saved, or is being saved, before it came lacks it.
    void complete(Pile pile);

    // Changes every pile of the history, for what came from outside and no undo should take away. What was saved before
    // lacks it, as above.
    void each(const std::function<Pile(Pile)>& change);
    // The same for what was not the person's doing: what counted as saved still does, but what is being saved lacks it.
    void replace_each(const std::function<Pile(Pile)>& change);
    // Of all frames in all piles; 0 for none.
    int highest_frame_id() const;

    bool can_undo() const { return at_ > 0; }
    bool can_redo() const { return at_ + 1 < entries_.size(); }
    // What the next undo or redo would take back or bring again; empty when there is none.
    std::string undo_text() const;
    std::string redo_text() const;
    void undo();
    void redo();
    // What was done, from the oldest pile that is remembered, which has no words.
    std::vector<std::string> steps() const;
    std::size_t at() const { return at_; }
    // Nothing was forgotten: the first step is how the pile began.
    bool goes_back_to_the_start() const { return !forgot_; }
    void go_to(std::size_t step) { at_ = std::min(step, entries_.size() - 1); }

    // Tells the present pile apart from all others of this history.
    long serial() const { return entries_[at_].serial; }
    // The pile of this serial is on disk.
    void mark_saved(long serial) { saved_ = serial; }
    // From here on the history counts as edited until it is saved.
    void mark_unsaved() { saved_ = -1; }
    bool edited() const { return saved_ != entries_[at_].serial; }
    std::size_t bytes() const;

  private:
    struct Entry {
        Pile pile;
        std::string what;
        long serial = 0;
        std::size_t bytes = 0;  // beyond what it shares with the one before
    };
    void shrink();

    std::size_t budget_;
    std::vector<Entry> entries_;
    std::size_t at_ = 0;
    long next_serial_ = 1;
    long saved_ = 0;
    bool forgot_ = false;  // the oldest piles
};

}  // namespace bp
