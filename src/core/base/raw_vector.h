// Numbers in a row whose memory is not set to 0 before something is written to them.
#pragma once

#include <algorithm>
#include <cstddef>
#include <cstring>
#include <memory>
#include <type_traits>
#include <utility>

namespace bp {

// As long as it was made. A class of its own, because a std::vector, whatever its allocator does, may go through all of
// its values before it lets them go: of pictures that takes as long as making them.
template <class T>
requires std::is_trivial_v<T>
class RawVector {
  public:
    RawVector() = default;
    // Undefined until they are written.
    explicit RawVector(std::size_t count)
        : values_(count > 0 ? std::make_unique_for_overwrite<T[]>(count) : nullptr), count_(count) {}
    RawVector(std::size_t count, T value) : RawVector(count) {
        if (value == T{})
            std::fill_n(reinterpret_cast<unsigned char*>(data()), count * sizeof(T), static_cast<unsigned char>(0));
        else
            std::fill_n(data(), count, value);
    }
    RawVector(const RawVector& other) : RawVector(other.count_) {
        if (count_ > 0) std::memcpy(static_cast<void*>(data()), other.data(), count_ * sizeof(T));
    }
    RawVector(RawVector&& other) noexcept : values_(std::move(other.values_)), count_(std::exchange(other.count_, 0)) {}
    RawVector& operator=(RawVector other) noexcept {
        std::swap(values_, other.values_);
        std::swap(count_, other.count_);
        return *this;
    }
    ~RawVector() = default;

    std::size_t size() const { return count_; }
    bool empty() const { return count_ == 0; }
    T* data() { return values_.get(); }
    const T* data() const { return values_.get(); }
    T& operator[](std::size_t i) { return values_[i]; }
    const T& operator[](std::size_t i) const { return values_[i]; }
    T* begin() { return data(); }
    T* end() { return data() + count_; }
    const T* begin() const { return data(); }
    const T* end() const { return data() + count_; }
    friend bool operator==(const RawVector& a, const RawVector& b) {
        return std::equal(a.begin(), a.end(), b.begin(), b.end());
    }

  private:
    std::unique_ptr<T[]> values_;
    std::size_t count_ = 0;
};

}  // namespace bp
