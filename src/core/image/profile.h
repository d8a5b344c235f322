// Colour profiles: what a sample means, and how it relates to light.
#pragma once

#include <cstddef>
#include <cstdint>
#include <memory>
#include <string>
#include <vector>

#include "base/result.h"

namespace bp {

// An ICC profile as its bytes. A file without one is taken as sRGB, which is what the empty profile stands for.
class Profile {
  public:
    Profile() = default;
    explicit Profile(std::vector<std::uint8_t> icc);

    static Profile srgb() { return {}; }
    bool is_srgb() const { return !icc_; }
    // Bytes of an ICC profile, also for sRGB.
    std::vector<std::uint8_t> bytes() const;
    std::string name() const;
    // True for profiles whose colour model fits the number of channels (1 grey, 3 RGB).
    bool fits(int channels) const;
    friend bool operator==(const Profile& a, const Profile& b);

  private:
    std::shared_ptr<const std::vector<std::uint8_t>> icc_;
};

// Converts whole pixels of 16-bit samples between two profiles (Little CMS 2, relative colorimetric). May be used from
// several threads at once.
class Conversion {
  public:
    static Result<Conversion> make(const Profile& from, int from_channels, const Profile& to, int to_channels);
    void run(const std::uint16_t* in, std::uint16_t* out, int pixels) const;

  private:
    std::shared_ptr<void> transform_;
};

// The way from 16-bit samples to linear light and back: the luminance of a profile along its grey axis. Light is a
// 32-bit integer, full = 2^32 - 1, so that sums of frames are exact whatever their order.
class LightCurve {
  public:
    static constexpr double full = 4294967295.0;

    static LightCurve of(const Profile& profile, int channels);
    // Samples as they stand: light is the sample itself, scaled.
    static LightCurve encoded();

    std::uint32_t light(std::uint16_t sample) const { return light_[sample]; }
    const std::uint32_t* table() const { return light_.data(); }
    // The sample whose rounding interval holds `light` (0 to `full`): rounded once, in the encoding.
    std::uint16_t sample(double light) const;

  private:
    void finish();

    std::vector<std::uint32_t> light_;  // 65536 entries, never falling
    std::vector<double> border_;        // border_[v]: light half-way between sample v and v + 1
    std::vector<std::uint16_t> guess_;  // first candidate sample by the top bits of light
};

}  // namespace bp
