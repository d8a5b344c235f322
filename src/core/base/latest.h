// Values that are worth keeping while there is room for them.
#pragma once

#include <cstddef>
#include <list>
#include <map>
#include <utility>

namespace bp {

// Keeps the values used last, within a budget of bytes; the latest stays even when it alone is beyond it. One thread at
// a time. Value is a shared pointer, null when there is none, to something with bytes().
template <class Key, class Value>
class Latest {
  public:
    explicit Latest(std::size_t budget_bytes) : budget_(budget_bytes) {}

    Value find(const Key& key) {
        const auto found = entries_.find(key);
        if (found == entries_.end()) return {};
        recent_.splice(recent_.begin(), recent_, found->second.place);
        return found->second.value;
    }
    void keep(const Key& key, Value value) {
        if (entries_.contains(key)) return;
        recent_.push_front(key);
        bytes_ += value->bytes();
        entries_[key] = {std::move(value), recent_.begin()};
        shrink();
    }
    // Also where there is a value already.
    void replace(const Key& key, Value value) {
        if (const auto found = entries_.find(key); found != entries_.end()) {
            bytes_ -= found->second.value->bytes();
            recent_.erase(found->second.place);
            entries_.erase(found);
        }
        keep(key, std::move(value));
    }
    void set_budget(std::size_t bytes) {
        budget_ = bytes;
        shrink();
    }
    void clear() {
        entries_.clear();
        recent_.clear();
        bytes_ = 0;
    }
    std::size_t bytes() const { return bytes_; }

  private:
    struct Entry {
        Value value;
        typename std::list<Key>::iterator place;
    };

    void shrink() {
        while (bytes_ > budget_ && recent_.size() > 1) {
            const auto oldest = entries_.find(recent_.back());
            bytes_ -= oldest->second.value->bytes();
            entries_.erase(oldest);
            recent_.pop_back();
        }
    }

    std::size_t budget_;
    std::map<Key, Entry> entries_;
    std::list<Key> recent_;  // the latest first
    std::size_t bytes_ = 0;
};

}  // namespace bp
