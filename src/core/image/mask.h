// Masks: one 8-bit value a pixel, held in shared tiles.
#pragma once

#include <array>
#include <cstdint>
#include <functional>
#include <memory>
#include <optional>
#include <span>
#include <vector>

#include "base/fingerprint.h"
#include "image/geometry.h"
#include "image/raster.h"

namespace bp {

// 0 gives nothing, 255 everything. A value: copies share all they have until one is written to, and tiles that are not
// written to even then, so a snapshot costs a pointer. A tile that was never written is all 0 and takes no memory.
class Mask {
  public:
    static constexpr int tile = 128;

    Mask() = default;
    explicit Mask(Size size);

    // All of it kept, in little more than the memory of one tile.
    static Mask full(Size size);

    Size size() const { return size_; }
    bool empty() const;  // all 0
    std::uint8_t at(int x, int y) const;
    // The pixels [left, left + width) of row y of the mask seen at `level`: the mean of the pixels there, half up.
    void read_row(int level, int y, int left, int width, std::uint8_t* out) const;
    // A 128-bit hash of the values (XXH3).
    Fingerprint fingerprint() const;
    // Memory of the tiles that it does not share with `other`, tile by tile.
    std::size_t bytes_beside(const Mask& other) const;
    // The smallest rectangle that holds every value above 0.
    Rect bounds() const;
    // The same of every value that another mask of the same size has otherwise.
    Rect bounds_of_change(const Mask& other) const;

    // Replaces every value in `area` by change(x, y, value).
    void edit(const Rect& area, const std::function<std::uint8_t(int x, int y, std::uint8_t value)>& change);
    // The same by stretches of rows, `values` being those from x on: what is long and even is so much quicker.
    void edit_rows(const Rect& area, const std::function<void(int x, int y, std::span<std::uint8_t> values)>& change);

    // Every border between more and less as a ramp `width` pixels wide, 0 to widest_softening. Tiles far from borders
    // are shared.
    Mask softened(double width) const;
    static constexpr double widest_softening = 200;

    static Mask from_raster(Size size, Point corner, const Raster8& raster);
    Raster8 to_raster(const Rect& area) const;

    // The same size and the same values.
    friend bool operator==(const Mask& a, const Mask& b);

  private:
    using Tile = std::array<std::uint8_t, std::size_t(tile) * tile>;
    using Tiles = std::vector<std::shared_ptr<const Tile>>;
    // The tiles, row by row, with what was asked of them before.
    struct Table;

    const Tiles& tiles() const;
    // That no copy shares any more: what was known of it may be so no more.
    Tiles& own_tiles();
    Rect find_bounds() const;
    Fingerprint find_fingerprint() const;

    int columns() const { return (size_.width + tile - 1) / tile; }
    int rows() const { return (size_.height + tile - 1) / tile; }
    std::uint8_t mean_of(const Rect& area) const;
    const Tile* tile_at(int column, int row) const;
    std::optional<std::uint8_t> even_value(int column, int row) const;

    Size size_;
    std::shared_ptr<Table> table_;  // null: nothing is kept
};

}  // namespace bp
