#include "base/text.h"

#include <array>
#include <charconv>
#include <cstdint>

namespace bp {
namespace {

// How many bytes from here on are one character of UTF-8 (RFC 3629); 0 when they are none.
std::size_t character_at(std::string_view text, std::size_t at) {
    const auto byte = [&](std::size_t i) { return i < text.size() ? std::uint8_t(text[i]) : std::uint8_t{0}; };
    const std::uint8_t first = byte(at);
    if (first < 0x80) return 1;
    const std::size_t length = first >= 0xF0 ? 4 : first >= 0xE0 ? 3 : 2;
    if (first < 0xC2 || first > 0xF4) return 0;
    for (std::size_t i = 1; i < length; ++i)
        if ((byte(at + i) & 0xC0U) != 0x80U) return 0;
    const std::uint8_t second = byte(at + 1);
    // Longer forms than needed, halves of pairs, and what lies beyond the last character.
    if ((first == 0xE0 && second < 0xA0) || (first == 0xED && second > 0x9F) || (first == 0xF0 && second < 0x90) ||
        (first == 0xF4 && second > 0x8F))
        return 0;
    return length;
}

}  // namespace

std::string valid_utf8(std::string_view text) {
    std::string out;
    for (std::size_t i = 0; i < text.size();) {
        const std::size_t length = character_at(text, i);
        out += length == 0 ? std::string_view("?") : text.substr(i, length);
        i += std::max<std::size_t>(1, length);
    }
    return out;
}

std::string one_line(std::string_view text) {
    std::string out = valid_utf8(text);
    for (char& c : out)
        if (std::uint8_t(c) < 0x20 || c == 0x7F) c = ' ';
    return out;
}

std::string_view cut_to(std::string_view text, std::size_t most_bytes) {
    if (text.size() <= most_bytes) return text;
    const auto goes_on = [&](std::size_t at) { return (std::uint8_t(text[at]) & 0xC0U) == 0x80U; };
    std::size_t end = most_bytes;
    while (end > 0 && goes_on(end)) --end;
    return text.substr(0, end);
}

std::string path_to_text(const std::filesystem::path& path) {
    const std::string bytes = path.generic_string();
    std::string out;
    for (std::size_t i = 0; i < bytes.size();) {
        const std::size_t length = character_at(bytes, i);
        const auto byte = std::uint8_t(bytes[i]);
        if (length == 0 || byte == '%' || byte < 0x20 || byte == 0x7F) {
            constexpr std::string_view digits = "0123456789ABCDEF";
            out += '%';
            out += digits[byte >> 4U];
            out += digits[byte & 15U];
            ++i;
        } else {
            out += bytes.substr(i, length);
            i += length;
        }
    }
    return out;
}

std::filesystem::path path_from_text(std::string_view text) {
    std::string out;
    for (std::size_t i = 0; i < text.size(); ++i) {
        unsigned value = 0;
        const char* digits = text.data() + i + 1;
        const bool coded =
            text[i] == '%' && i + 2 < text.size() && std::from_chars(digits, digits + 2, value, 16).ptr == digits + 2;
        out += coded ? char(value) : text[i];
        if (coded) i += 2;
    }
    return out;
}

}  // namespace bp
