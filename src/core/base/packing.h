// Numbers and bytes in a row, for files that only the program itself reads again.
#pragma once

#include <cstddef>
#include <cstdint>
#include <cstring>
#include <span>
#include <type_traits>
#include <vector>

namespace bp {

using PackedBytes = std::vector<std::uint8_t>;

class Packer {
  public:
    template <class T>
    requires std::is_arithmetic_v<T> Packer& number(T value) { return bytes(&value, sizeof value); }
    Packer& bytes(const void* begin, std::size_t count) {
        const auto* from = static_cast<const std::uint8_t*>(begin);
        all_.insert(all_.end(), from, from + count);
        return *this;
    }
    PackedBytes done() { return std::move(all_); }

  private:
    PackedBytes all_;
};

// Gives zeros from where the bytes do not reach on; ok() tells.
class Unpacker {
  public:
    explicit Unpacker(std::span<const std::uint8_t> from) : from_(from) {}

    template <class T>
    requires std::is_arithmetic_v<T> T number() {
        // A byte that is neither is no bool.
        if constexpr (std::is_same_v<T, bool>) return number<std::uint8_t>() != 0;
        T out{};
        bytes(&out, sizeof out);
        return out;
    }
    void bytes(void* to, std::size_t count) {
        ok_ = ok_ && count <= from_.size();
        if (!ok_) {
            std::memset(to, 0, count);
            return;
        }
        std::memcpy(to, from_.data(), count);
        from_ = from_.subspan(count);
    }
    // A count of things of so many bytes each, that are all there: memory may be taken for them.
    std::size_t count(std::size_t bytes_each) {
        const auto out = number<std::uint64_t>();
        ok_ = ok_ && out <= from_.size() / bytes_each;
        return ok_ ? std::size_t(out) : 0;
    }
    bool has(std::size_t bytes) const { return ok_ && bytes <= from_.size(); }
    // What was packed is found to be none.
    void refuse() { ok_ = false; }
    bool ok() const { return ok_; }
    // All of it was there, and nothing is left.
    bool whole() const { return ok_ && from_.empty(); }

  private:
    std::span<const std::uint8_t> from_;
    bool ok_ = true;
};

}  // namespace bp
