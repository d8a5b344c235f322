// Colour profiles: what a sample means, and how it relates to light.
#pragma once

#include <algorithm>
#include <array>
#include <cstddef>
#include <cstdint>
#include <memory>
#include <mutex>
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
    // The primaries and white of sRGB with samples that are linear in light. The same bytes always.
    static Profile linear_srgb();
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

// Which colours of one profile another cannot hold: those whose samples there would lie below black or above white by
// more than a hundredth of an 8-bit step (Little CMS 2, in floats without bounds). A profile of tables has no such
// samples: there the colour counts that comes back from it more than 5 away (CIE 1976 L*a*b* difference). Pixels of
// three channels; may be used from several threads at once.
class GamutCheck {
  public:
    static Result<GamutCheck> make(const Profile& from, const Profile& to);
    // 255 for each pixel that lies outside, else 0.
    void run(const std::uint16_t* in, std::uint8_t* outside, int pixels) const;

  private:
    std::shared_ptr<void> transform_;           // into the other profile
    std::shared_ptr<void> meant_, comes_back_;  // in L*a*b*, of samples here and there; null where bounds tell
};

// How much red, green and blue add to luminance in linear light of a profile of three channels; they add up to one.
std::array<double, 3> luminance_weights(const Profile& profile);

// The way from 16-bit samples to linear light and back: the luminance of a profile along its grey axis. Light is a
// 32-bit integer, full = 2^32 - 1, so that sums of frames are exact whatever their order. Copies share their tables,
// and those of the profiles used last are kept.
class LightCurve {
  public:
    static constexpr double full = 4294967295.0;
    static constexpr double eye_power = 2.2;

    static LightCurve of(const Profile& profile, int channels);
    // Samples as they stand: light is the sample itself, scaled.
    static LightCurve encoded();

    std::uint32_t light(std::uint16_t sample) const { return tables_->light[sample]; }
    const std::uint32_t* table() const { return tables_->light.data(); }
    // The light of 8-bit samples: in 32 bits, in 64, and of two of them together, by a + 256 b.
    const std::uint32_t* narrow_table() const { return tables_->narrow.data(); }
    const std::uint64_t* table_of_8_bit() const { return tables_->of_8_bit.data(); }
    const std::uint64_t* table_of_pairs() const { return for_means().of_pairs.data(); }
    // The power 1/2.2 of light, 0 to 1, by sample: about as the eye sees it.
    const float* eye() const;
    // The sample whose rounding interval holds `light` (0 to `full`): rounded once, in the encoding.
    // In the header because the means call it for every sample.
    std::uint16_t sample(double light) const {
        const Tables& tables = *tables_;
        const double clamped = std::clamp(light, 0.0, full);
        std::size_t v = tables.guess[std::size_t(std::int64_t(clamped)) >> guess_shift];
        // Two steps without a branch reach nearly every sample: the first guess is off by more only in deep shadow.
        v += std::size_t(tables.border[v] <= clamped);
        v += std::size_t(tables.border[v] <= clamped);
        while (tables.border[v] <= clamped) ++v;
        return std::uint16_t(v);
    }

    // The same nearly, for code that asks for many: the whole part of at + slope (light - begin) of the segment that
    // holds `light` is its sample, unless what is left of it is nearer than `doubt` to 0 or 1. Segments go from one
    // power of two to the next by equal steps; segment k begins at the float with the bits (first_segment + k) <<
    // segment_shift. Where nothing is sure both are 0, as they are in segment -1, for all that lies below the first.
    struct Segment {
        float at = 0, slope = 0;
    };
    static constexpr int segment_shift = 14;                                           // 512 between two powers of two
    static constexpr std::int32_t first_segment = (127 + 16) << (23 - segment_shift);  // 2^16
    const Segment* segments() const { return for_means().segments.data() + 1; }
    float doubt() const { return for_means().doubt; }
    // The light around an 8-bit value: `d` values further it has changed by about what d + square d^2 + cube d^3 times
    // the slope there is, as far as d = bend_reach; that is off by no more than `fourth` d^4. So much light counted in
    // values, at most 1, the way back (the series turned around) finds the sample but for `off`. Both errors are in
    // samples of 16 bits. Where the curve does not bend evenly, off is 1 or more: nothing is sure.
    struct Bend {
        float square, cube, fourth, off;  // without a start, as there are many of them on the way
    };
    static constexpr int bend_reach = 15;
    const Bend* bends() const { return for_means().bends.data(); }
    // The sample of light that lies near the border between v - 1 and v, 1 to 65536.
    std::uint16_t beside_border(double light, std::size_t v) const {
        return std::uint16_t(v - std::size_t(light < tables_->border[v - 1]));
    }

  private:
    static constexpr int guess_bits = 16;
    static constexpr int guess_shift = 32 - guess_bits;

    struct MeansTables {
        std::vector<std::uint64_t> of_pairs;
        std::vector<Segment> segments;  // from -1 on
        float doubt = 0;
        std::vector<Bend> bends;  // of 256 values
    };
    struct Tables {
        std::vector<std::uint32_t> light;  // 65536 entries, never falling
        std::vector<double> border;        // border[v]: light half-way between sample v and v + 1
        std::vector<std::uint16_t> guess;  // first candidate sample by the top bits of light
        std::vector<std::uint32_t> narrow;
        std::vector<std::uint64_t> of_8_bit;
        // Made when first asked for: most merges ask for neither, and making them takes as long as decoding some rows.
        mutable std::once_flag means_once, eye_once;
        mutable MeansTables means;
        mutable std::vector<float> eye;
    };
    const MeansTables& for_means() const;
    static void draw_segments(const Tables& tables, MeansTables& out);
    static Bend bend_at(const Tables& tables, int value);
    explicit LightCurve(std::shared_ptr<Tables> tables);
    static LightCurve made_for(const Profile& profile, int channels);

    std::shared_ptr<const Tables> tables_;
};

}  // namespace bp
