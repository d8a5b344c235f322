// A smooth bend of a picture: small shifts that change from place to place.
#pragma once

#include <cstdint>
#include <memory>
#include <vector>

#include "image/geometry.h"

namespace bp {

// Shifts at the nodes of a grid, smooth between them (Catmull and Rom, "A class of local interpolating splines", 1974),
// and as at the outermost nodes beyond. A value that does not change once it is made.
class Flex {
  public:
    struct Grid {
        Point first;      // where node (0, 0) lies, pixels of the canvas
        double step = 1;  // pixels from node to node, across and down
        int columns = 1;
        int rows = 1;
        friend bool operator==(const Grid&, const Grid&) = default;
    };

    // `across` and `down`: one value for each node, row by row, in pixels.
    Flex(const Grid& grid, std::vector<float> across, std::vector<float> down);

    const Grid& grid() const { return grid_; }
    const std::vector<float>& across() const { return across_; }
    const std::vector<float>& down() const { return down_; }
    Point at(Point canvas) const;
    // The largest shift of a node.
    double largest() const;
    // The same for flexes that are alike.
    std::uint64_t fingerprint() const { return fingerprint_; }
    friend bool operator==(const Flex& a, const Flex& b);

  private:
    Grid grid_;
    std::vector<float> across_, down_;
    std::uint64_t fingerprint_;
};
using SharedFlex = std::shared_ptr<const Flex>;
// Both none, or alike.
bool same(const SharedFlex& a, const SharedFlex& b);

// The same bend in pictures of `level`, and taken from them.
SharedFlex at_level(const SharedFlex& flex, int level);
SharedFlex from_level(const SharedFlex& flex, int level);

}  // namespace bp
