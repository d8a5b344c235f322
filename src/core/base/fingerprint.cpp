#include "base/fingerprint.h"

#include <xxhash.h>

#include <cstdio>

namespace bp {

Fingerprinter& Fingerprinter::text(std::string_view text) {
    number(std::uint64_t(text.size()));
    return bytes(text.data(), text.size());
}

Fingerprinter& Fingerprinter::bytes(const void* begin, std::size_t count) {
    all_.append(static_cast<const char*>(begin), count);
    return *this;
}

Fingerprint Fingerprinter::done() const {
    return fingerprint_of_bytes(all_.data(), all_.size());
}

std::string in_hex(const Fingerprint& value) {
    std::array<char, 33> text{};
    std::snprintf(text.data(), text.size(), "%016llx%016llx", static_cast<unsigned long long>(value[0]),
                  static_cast<unsigned long long>(value[1]));
    return text.data();
}

Fingerprint fingerprint_of_bytes(const void* begin, std::size_t count) {
    const XXH128_hash_t hash = XXH3_128bits(begin, count);
    return {hash.high64, hash.low64};
}

}  // namespace bp
