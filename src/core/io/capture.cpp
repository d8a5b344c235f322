#include "io/capture.h"

#include <array>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <cstring>
#include <exiv2/exiv2.hpp>
#include <limits>
#include <mutex>
#include <utility>

#include "io/clip.h"
#include "io/kinds.h"
#include "io/raw_capture.h"

namespace bp {
namespace {

void quiet_exiv2() {
    static std::once_flag once;
    std::call_once(once, [] {
        Exiv2::LogMsg::setLevel(Exiv2::LogMsg::mute);
        Exiv2::XmpParser::initialize();
    });
}

std::optional<double> number(const Exiv2::ExifData& exif, const char* key) {
    const auto found = exif.findKey(Exiv2::ExifKey(key));
    if (found == exif.end() || found->count() == 0) return std::nullopt;
    const Exiv2::Rational value = found->toRational();
    if (value.second == 0) return std::nullopt;
    const double out = double(value.first) / double(value.second);
    return out > 0 ? std::optional(out) : std::nullopt;
}

std::string text(const Exiv2::ExifData& exif, const char* key) {
    const auto found = exif.findKey(Exiv2::ExifKey(key));
    return found == exif.end() ? std::string() : found->toString();
}

// Degrees, minutes and seconds; none where they are no place.
std::optional<double> degrees(const Exiv2::ExifData& exif, const char* key, const char* side, char other,
                              double furthest) {
    const auto found = exif.findKey(Exiv2::ExifKey(key));
    if (found == exif.end() || found->count() != 3) return std::nullopt;
    double out = 0, unit = 1;
    for (int i = 0; i < 3; ++i) {
        const Exiv2::Rational part = found->toRational(i);
        if (part.second == 0) return std::nullopt;
        out += unit * part.first / part.second;
        unit /= 60;
    }
    if (!(out >= 0 && out <= furthest)) return std::nullopt;
    return text(exif, side).starts_with(other) ? -out : out;
}

std::optional<Whereabouts> whereabouts(const Exiv2::ExifData& exif) {
    const auto north = degrees(exif, "Exif.GPSInfo.GPSLatitude", "Exif.GPSInfo.GPSLatitudeRef", 'S', 90);
    const auto east = degrees(exif, "Exif.GPSInfo.GPSLongitude", "Exif.GPSInfo.GPSLongitudeRef", 'W', 180);
    if (!north || !east) return std::nullopt;
    Whereabouts out{*north, *east, std::nullopt};
    const auto above = exif.findKey(Exiv2::ExifKey("Exif.GPSInfo.GPSAltitude"));
    if (above != exif.end() && above->count() == 1 && above->toRational().second != 0) {
        const double metres = double(above->toRational().first) / above->toRational().second;
        const auto side = exif.findKey(Exiv2::ExifKey("Exif.GPSInfo.GPSAltitudeRef"));
        out.above_m = side != exif.end() && side->toLong() == 1 ? -metres : metres;
    }
    return out;
}

struct Civil {
    int year = 0, month = 0, day = 0, hour = 0, minute = 0, second = 0;
};

std::optional<double> moment(const std::string& date, const std::string& fraction) {
    Civil c;
    if (std::sscanf(date.c_str(), "%d:%d:%d %d:%d:%d", &c.year, &c.month, &c.day, &c.hour, &c.minute, &c.second) != 6)
        return std::nullopt;
    const std::chrono::year_month_day day{std::chrono::year(c.year), std::chrono::month(unsigned(c.month)),
                                          std::chrono::day(unsigned(c.day))};
    if (!day.ok()) return std::nullopt;
    const auto days = std::chrono::sys_days(day).time_since_epoch().count();
    double out = double(days) * 86400.0 + c.hour * 3600.0 + c.minute * 60.0 + c.second;
    double scale = 0.1;
    for (const char digit : fraction) {
        if (digit < '0' || digit > '9') break;
        out += (digit - '0') * scale;
        scale /= 10;
    }
    return out;
}

struct Split {
    Civil civil;
    int millisecond = 0;
};

Split split(double seconds) {
    const auto ms = std::llround(seconds * 1000);
    const auto whole = ms >= 0 ? ms / 1000 : (ms - 999) / 1000;
    const auto days = whole >= 0 ? whole / 86400 : (whole - 86399) / 86400;
    const std::chrono::year_month_day date{std::chrono::sys_days(std::chrono::days(days))};
    const int rest = int(whole - days * 86400);
    return {{int(date.year()), int(unsigned(date.month())), int(unsigned(date.day())), rest / 3600, rest / 60 % 60,
             rest % 60},
            int(ms - whole * 1000)};
}

// The simplest fraction within a millionth of a value above zero: a convergent of its continued fraction (Hardy and
// Wright, An Introduction to the Theory of Numbers, chapter 10).
Exiv2::URational rational(double value) {
    constexpr double most = std::numeric_limits<std::uint32_t>::max();
    constexpr double near = 1e-6;
    if (!(value > 0)) return {0, 1};
    double over = 1, under = 0, over_before = 0, under_before = 1;
    for (double rest = std::min(value, most);;) {
        const double whole = std::floor(rest);
        const double next_over = whole * over + over_before;
        const double next_under = whole * under + under_before;
        if (next_over > most || next_under > most) break;
        over_before = std::exchange(over, next_over);
        under_before = std::exchange(under, next_under);
        if (std::abs(over / under - value) <= near * value || rest == whole) break;
        rest = 1 / (rest - whole);
    }
    return {std::uint32_t(over), std::uint32_t(under)};
}

void put(Exiv2::ExifData& exif, const char* key, const std::optional<double>& value) {
    if (value) exif[key] = rational(*value);
}

void put(Exiv2::ExifData& exif, const Whereabouts& where) {
    const auto put_angle = [&](const char* key, const char* side, double value, const char* plus, const char* minus) {
        const std::array<double, 3> parts = in_minutes(std::abs(value));
        Exiv2::URationalValue angle;
        for (const double part : parts) angle.value_.push_back(part > 0 ? rational(part) : Exiv2::URational(0, 1));
        exif.add(Exiv2::ExifKey(key), &angle);
        exif[side] = std::string(value < 0 ? minus : plus);
    };
    put_angle("Exif.GPSInfo.GPSLatitude", "Exif.GPSInfo.GPSLatitudeRef", where.north, "N", "S");
    put_angle("Exif.GPSInfo.GPSLongitude", "Exif.GPSInfo.GPSLongitudeRef", where.east, "E", "W");
    if (!where.above_m) return;
    Exiv2::DataValue side(Exiv2::unsignedByte);
    side.read(*where.above_m < 0 ? "1" : "0");
    exif.add(Exiv2::ExifKey("Exif.GPSInfo.GPSAltitudeRef"), &side);
    const double metres = std::abs(*where.above_m);
    exif["Exif.GPSInfo.GPSAltitude"] = metres > 0 ? rational(metres) : Exiv2::URational(0, 1);
}

std::optional<double> above_zero(float v) {
    return v > 0 ? std::optional(double(v)) : std::nullopt;
}

CaptureData from_raw(const std::filesystem::path& file) {
    CaptureData out;
    const std::optional<io::RawCapture> raw = io::raw_capture(file);
    if (!raw) return out;
    if (raw->taken > 0) {
        // LibRaw reads the camera's clock as local time: back to what the camera showed.
        std::tm local{};
        localtime_r(&raw->taken, &local);
        out.captured = double(raw->taken + local.tm_gmtoff);
    }
    out.exposure_s = above_zero(raw->exposure_s);
    out.iso = above_zero(raw->iso);
    out.aperture = above_zero(raw->aperture);
    out.focal_mm = above_zero(raw->focal_mm);
    out.camera = raw->camera;
    return out;
}

}  // namespace

CaptureData read_capture(const std::filesystem::path& file) {
    if (const auto frame = clip_frame_of(file)) return capture_of_clip_frame(*frame);
    quiet_exiv2();
    CaptureData out;
    try {
        const auto image = Exiv2::ImageFactory::open(file.string());
        image->readMetadata();
        const Exiv2::ExifData& exif = image->exifData();
        out.captured = moment(text(exif, "Exif.Photo.DateTimeOriginal"), text(exif, "Exif.Photo.SubSecTimeOriginal"));
        out.exposure_s = number(exif, "Exif.Photo.ExposureTime");
        out.iso = number(exif, "Exif.Photo.ISOSpeedRatings");
        out.aperture = number(exif, "Exif.Photo.FNumber");
        out.focal_mm = number(exif, "Exif.Photo.FocalLength");
        out.camera = text(exif, "Exif.Image.Model");
        out.lens = text(exif, "Exif.Photo.LensModel");
        out.serial = text(exif, "Exif.Photo.BodySerialNumber");
        out.where = whereabouts(exif);
    } catch (const std::exception&) {
        // Broken capture data is as good as none: the picture itself is judged by its own reader.
        out = {};
    }
    if (const Kind* kind = kind_of(file); kind && kind->way == ReadBy::raw && !out.captured) return from_raw(file);
    return out;
}

std::array<double, 3> in_minutes(double degrees) {
    const double whole = std::floor(degrees), minutes = (degrees - whole) * 60;
    return {whole, std::floor(minutes), (minutes - std::floor(minutes)) * 60};
}

CaptureTime capture_time(double seconds) {
    const Split s = split(seconds);
    std::array<char, 32> date{};
    std::snprintf(date.data(), date.size(), "%04d:%02d:%02d %02d:%02d:%02d", s.civil.year % 10000, s.civil.month % 100,
                  s.civil.day % 100, s.civil.hour % 100, s.civil.minute % 100, s.civil.second % 100);
    std::array<char, 8> fraction{};
    std::snprintf(fraction.data(), fraction.size(), "%03d", s.millisecond % 1000);
    return {date.data(), fraction.data()};
}

std::vector<std::uint8_t> encode_capture(const CaptureData& data) {
    quiet_exiv2();
    Exiv2::ExifData exif;
    if (!data.camera.empty()) exif["Exif.Image.Model"] = data.camera;
    exif["Exif.Image.Software"] = std::string("Bright Pile ") + BRIGHT_PILE_VERSION;
    if (data.captured) {
        const CaptureTime time = capture_time(*data.captured);
        exif["Exif.Photo.DateTimeOriginal"] = time.date;
        exif["Exif.Photo.SubSecTimeOriginal"] = time.fraction;
    }
    put(exif, "Exif.Photo.ExposureTime", data.exposure_s);
    put(exif, "Exif.Photo.FNumber", data.aperture);
    put(exif, "Exif.Photo.FocalLength", data.focal_mm);
    if (data.iso) exif["Exif.Photo.ISOSpeedRatings"] = std::uint16_t(std::min(65535.0, *data.iso));
    if (!data.lens.empty()) exif["Exif.Photo.LensModel"] = data.lens;
    if (!data.serial.empty()) exif["Exif.Photo.BodySerialNumber"] = data.serial;
    if (!data.made_of.empty()) exif["Exif.Image.ImageDescription"] = data.made_of;
    if (data.frames > 1) {
        const auto count = std::uint16_t(std::min(65535, data.frames));
        constexpr std::uint16_t captured_together = 3;
        exif["Exif.Photo.CompositeImage"] = captured_together;
        exif["Exif.Photo.SourceImageNumberOfCompositeImage"] = std::to_string(count) + " " + std::to_string(count);
    }
    if (data.where) put(exif, *data.where);
    Exiv2::Blob bytes;
    Exiv2::ExifParser::encode(bytes, Exiv2::littleEndian, exif);
    std::vector<std::uint8_t> out(6 + bytes.size());
    std::memcpy(out.data(), "Exif\0", 6);
    std::copy(bytes.begin(), bytes.end(), out.begin() + 6);
    return out;
}

std::string time_text(double seconds) {
    const Split s = split(seconds);
    std::array<char, 40> out{};
    std::snprintf(out.data(), out.size(), "%04d-%02d-%02dT%02d:%02d:%02d.%03d", s.civil.year % 10000,
                  s.civil.month % 100, s.civil.day % 100, s.civil.hour % 100, s.civil.minute % 100,
                  s.civil.second % 100, s.millisecond % 1000);
    return out.data();
}

}  // namespace bp
