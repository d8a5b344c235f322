// Bringing the samples of one frame to its look and level.
#pragma once

#include <array>
#include <cstdint>
#include <memory>
#include <vector>

#include "even/tone.h"

namespace bp {

// What all frames of a look share. A value; copies share the table.
class SharedTone {
  public:
    SharedTone(const Look& look, const Profile& profile, int channels);
    const Look& look() const { return look_; }
    const ToneTable& table() const { return *table_; }
    const LightCurve& curve() const { return curve_; }
    const std::array<double, 3>& luminance() const { return luminance_; }

  private:
    Look look_;
    LightCurve curve_;
    std::array<double, 3> luminance_;
    std::shared_ptr<const ToneTable> table_;
};

// Works in linear light through the profile's curve and rounds once. May be used from several threads at once.
class Evener {
  public:
    // `level`: gains of linear light, by channel. `bits` of the frame's samples: 8 or 16.
    Evener(const SharedTone& tone, const std::array<double, 3>& level, int channels, int bits);
    void run(const std::uint8_t* in, std::size_t pixels, std::uint16_t* out) const;
    void run(const std::uint16_t* in, std::size_t pixels, std::uint16_t* out) const;

  private:
    template <class T>
    void run_any(const T* in, std::size_t pixels, std::uint16_t* out) const;

    SharedTone tone_;
    int channels_;
    std::array<std::vector<std::uint16_t>, 3> samples_;  // when channels do not meet, or
    std::array<std::vector<float>, 3> light_;
};

}  // namespace bp
