// What a value of a pile is told apart by in every cache: its fields, as their table names them. What is found out anew
// whenever a pile is opened does not count.
#pragma once

#include <memory>
#include <optional>
#include <vector>

#include "base/fingerprint.h"
#include "pile/fields.h"

namespace bp::pile {

namespace detail {

template <class T>
requires std::is_arithmetic_v<T> || std::is_enum_v<T>
void add(Fingerprinter& to, T value) {
    if constexpr (std::is_enum_v<T>)
        to.number(static_cast<std::underlying_type_t<T>>(value));
    else
        to.number(value);
}
inline void add(Fingerprinter& to, const std::string& text) {
    to.text(text);
}
inline void add(Fingerprinter& to, const std::filesystem::path& path) {
    to.text(path.native());
}
inline void add(Fingerprinter& to, const Fingerprint& value) {
    to.number(value[0]).number(value[1]);
}
inline void add(Fingerprinter& to, const Point& p) {
    to.number(p.x).number(p.y);
}
inline void add(Fingerprinter& to, const Size& size) {
    to.number(size.width).number(size.height);
}
inline void add(Fingerprinter& to, const Rect& rect) {
    to.number(rect.left).number(rect.top).number(rect.width).number(rect.height);
}
inline void add(Fingerprinter& to, const HotPixel& pixel) {
    to.number(pixel.x).number(pixel.y);
}
inline void add(Fingerprinter& to, const Profile& profile) {
    // What stands for sRGB has no bytes of its own, and making them costs a moment.
    to.number(profile.is_srgb());
    if (profile.is_srgb()) return;
    const std::vector<std::uint8_t> bytes = profile.bytes();
    to.number(bytes.size()).bytes(bytes.data(), bytes.size());
}
inline void add(Fingerprinter& to, const Mask& mask) {
    add(to, mask.size());
    add(to, mask.fingerprint());
}
inline void add(Fingerprinter& to, const Matrix& matrix) {
    for (const double m : matrix.m()) to.number(m);
}
inline void add(Fingerprinter& to, const Flex& flex) {
    to.number(flex.fingerprint());
}
inline void add(Fingerprinter& to, const Raster16& raster) {
    add(to, raster.size());
    to.number(raster.channels());
    add(to, fingerprint_of_bytes(raster.data().data(), raster.bytes()));
}
template <HasFields T>
void add(Fingerprinter& to, const T& value);
template <class T, std::size_t n>
void add(Fingerprinter& to, const std::array<T, n>& values);
template <class T>
void add(Fingerprinter& to, const std::vector<T>& values);

// Each says first whether there is one.
template <class Maybe>
requires requires(const Maybe& value) {
    *value;
    bool(value);
}
void add(Fingerprinter& to, const Maybe& value) {
    to.number(bool(value));
    if (value) add(to, *value);
}
template <class T, std::size_t n>
void add(Fingerprinter& to, const std::array<T, n>& values) {
    for (const T& value : values) add(to, value);
}
template <class T>
void add(Fingerprinter& to, const std::vector<T>& values) {
    to.number(values.size());
    for (const T& value : values) add(to, value);
}
template <HasFields T>
void add(Fingerprinter& to, const T& value) {
    fields(value, [&]<class Value, class Limits>(std::string_view, const Value& member, const Limits&) {
        if constexpr (!std::same_as<Limits, FoundAnew>) add(to, member);
    });
}

}  // namespace detail

template <class... Values>
Fingerprint fingerprint(const Values&... values) {
    Fingerprinter to;
    (detail::add(to, values), ...);
    return to.done();
}

}  // namespace bp::pile
