// A value that many hold and nobody changes, compared by what it is and not by where it lies.
#pragma once

#include <cstddef>
#include <memory>
#include <utility>

namespace bp {

template <class T>
class Shared {
  public:
    Shared() = default;
    Shared(std::nullptr_t) {}
    Shared(std::shared_ptr<const T> value) : value_(std::move(value)) {}
    Shared(std::shared_ptr<T> value) : value_(std::move(value)) {}

    const T& operator*() const { return *value_; }
    const T* operator->() const { return value_.get(); }
    const T* get() const { return value_.get(); }
    explicit operator bool() const { return value_ != nullptr; }
    friend bool operator==(const Shared& a, const Shared& b) {
        return a.value_ == b.value_ || (a.value_ && b.value_ && *a.value_ == *b.value_);
    }

  private:
    std::shared_ptr<const T> value_;
};

}  // namespace bp
