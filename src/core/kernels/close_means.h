// Means of 8-bit values that lie close together, in light. Internal to the room.
//
// Instead of looking up the light of every value, sums of the values' distances from a middle one, of their squares
// and cubes tell the mean light (the curve's Taylor series around the middle, LightCurve::Bend). How far that may be
// off is known of every sample; those that lie so near a border between two samples of 16 bits are looked up, so that
// the outcome is the same to the bit.
#pragma once

#include <cstddef>
#include <cstdint>

#include "image/profile.h"
#include "kernels/rows.h"

namespace bp::kernels {

class CloseMeans {
  public:
    CloseMeans(Rows<std::uint8_t> rows, const LightCurve& curve) : rows_(rows), curve_(curve) {}

    // out[i] = the mean of all rows at begin + i, for count <= sum_block samples. False, and nothing is said of `out`,
    // where the values do not lie close together.
    bool all(std::size_t begin, std::size_t count, std::uint16_t* out);
    // The same of the values no further than reach[i] from middle[i], which one of the rows' values is.
    bool within(std::size_t begin, std::size_t count, const std::uint8_t* middle, const std::uint8_t* reach,
                std::uint16_t* out);

  private:
    template <class Tell, class One>
    bool tell(std::size_t count, std::uint16_t* out, const Tell& tell, const One& one);

    Rows<std::uint8_t> rows_;
    const LightCurve& curve_;
    int pause_ = 0;  // blocks that are not tried: where one is not close, the next are not either
};

}  // namespace bp::kernels
