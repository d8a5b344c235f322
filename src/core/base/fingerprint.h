// Values told apart by 128 bits of their own, so that what is made from them can be kept and found again.
#pragma once

#include <array>
#include <cstddef>
#include <cstdint>
#include <string>
#include <string_view>
#include <type_traits>

namespace bp {

// The same for the same values, added in the same order.
using Fingerprint = std::array<std::uint64_t, 2>;

// Takes values one after the other (XXH3, 128 bits). One thread at a time.
class Fingerprinter {
  public:
    // By its bytes: 0 and -0 are two values.
    template <class T>
    requires std::is_arithmetic_v<T> Fingerprinter& number(T value) { return bytes(&value, sizeof value); }
    // With its length, so that two texts are never taken for two others.
    Fingerprinter& text(std::string_view text);
    // Of a length that what came before tells.
    Fingerprinter& bytes(const void* begin, std::size_t count);
    Fingerprint done() const;

  private:
    std::string all_;
};

// As 32 hexadecimal digits.
std::string in_hex(const Fingerprint& value);

// Of many values at once, which are not copied.
Fingerprint fingerprint_of_bytes(const void* begin, std::size_t count);

}  // namespace bp
