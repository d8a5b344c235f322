#include "base/fingerprint.h"

#include <xxhash.h>

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

Fingerprint fingerprint_of_bytes(const void* begin, std::size_t count) {
    const XXH128_hash_t hash = XXH3_128bits(begin, count);
    return {hash.high64, hash.low64};
}

}  // namespace bp
