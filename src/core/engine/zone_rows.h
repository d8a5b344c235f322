// Rows of frames as sky and land lie.
#pragma once

#include <map>
#include <vector>

#include "engine/in_step.h"

namespace bp {

// A mask of the reference in a row of a level; beyond it, it goes on as at its edges.
void read_beyond(const Mask& mask, int level, int y, int left, int width, std::uint8_t* out);
// The zones' softened border in a row of a level; beyond the reference it goes on as at its edges.
void read_sky(const Zones& zones, int level, int y, int left, int width, std::uint8_t* out);

// How much of a piece of row is sky, by pixel: all of it in a pile without zones.
class SkyRow {
  public:
    SkyRow(const Pile& pile, int level, int y, kernels::Span columns);
    bool any() const;
    bool all() const;
    // Where all() is false.
    const std::uint8_t* from(int x) const { return mask_.data() + x; }
    int width() const { return width_; }

  private:
    int width_;
    std::vector<std::uint8_t> mask_;  // none where there are no zones
};

// Collects the takes that a piece of work wants, each once in every zone. The pile must live as long.
class Gathering {
  public:
    Gathering(const Pile& pile, const Rect& region, int level);

    // Where a frame's rows will stand among all rows: in the sky, and in the land of a pile with zones.
    struct Places {
        std::size_t sky = 0;
        std::size_t land = 0;
    };
    Places add(int frame, const Look& look = {}) {
        return {add(frame, Zone::sky, {}, look), pile_.zones ? add(frame, Zone::land, {}, look) : 0};
    }
    std::size_t add(int frame, Zone zone, const Softening& softening = {}, const Look& look = {});
    // A take of its own, whatever others there are.
    std::size_t add(Take take);
    // Somewhere else in the sky.
    std::size_t add(int frame, Elsewhere elsewhere);
    const std::vector<Take>& takes() const { return takes_; }

    // A frame as its zones lie; `scratch` may hold it.
    FrameRow row(const std::vector<FrameRow>& rows, const Places& at, const SkyRow& share, int channels,
                 std::vector<std::uint16_t>& scratch) const;

  private:
    const Pile& pile_;
    std::map<Zone, Band> rows_;
    std::vector<Take> takes_;
};

// The covered samples of a row in 16 bits; `scratch` holds them when they had to be widened.
const std::uint16_t* widened(const FrameRow& row, int channels, std::vector<std::uint16_t>& scratch);

}  // namespace bp
