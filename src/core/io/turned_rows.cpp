#include <algorithm>
#include <cstring>
#include <vector>

#include "io/readers.h"

namespace bp::io {
namespace {

bool swaps_sides(Orientation orientation) {
    return int(orientation) >= int(Orientation::transposed);
}

// Where upright pixels come from in the stored picture: x and y of the stored pixel are the upright ones, swapped or
// not, counted from the one end or from the other.
struct Turn {
    bool swapped;
    bool from_right;
    bool from_below;
};

Turn turn_of(Orientation orientation) {
    switch (orientation) {
        case Orientation::upright:
            return {false, false, false};
        case Orientation::mirrored:
            return {false, true, false};
        case Orientation::half_turn:
            return {false, true, true};
        case Orientation::flipped:
            return {false, false, true};
        case Orientation::transposed:
            return {true, false, false};
        case Orientation::quarter_right:
            return {true, false, true};
        case Orientation::transversed:
            return {true, true, true};
        case Orientation::quarter_left:
            return {true, true, false};
    }
    return {false, false, false};
}

class TurnedRows final : public RowReader {
  public:
    TurnedRows(std::unique_ptr<RowReader> stored, Orientation orientation)
        : stored_(std::move(stored)), turn_(turn_of(orientation)), pixel_(stored_->row_bytes() / pixels_a_row()) {
        facts_ = upright(stored_->facts(), orientation);
        bits_ = stored_->bits();
        size_ = stored_->size();
        if (turn_.swapped) std::swap(size_.width, size_.height);
    }

    Status read(std::span<std::uint8_t* const> rows) override {
        if (picture_.empty()) {
            Status taken = take_in();
            if (!taken.ok()) return taken;
        }
        for (std::uint8_t* row : rows) std::memcpy(row, at(0, next_++), row_bytes());
        return Done{};
    }

    bool whole() const override { return true; }
    std::size_t memory_bytes() const override {
        return stored_->memory_bytes() + (std::size_t(stored_->size().height) + band) * stored_->row_bytes();
    }

  private:
    static constexpr int band = 64;  // stored rows at a time: a block of them and its turned copy fit into the cache

    std::size_t pixels_a_row() const { return std::size_t(stored_->size().width); }
    std::uint8_t* at(int x, int y) { return picture_.data() + std::size_t(y) * row_bytes() + std::size_t(x) * pixel_; }

    Status take_in() {
        picture_.resize(std::size_t(size_.height) * row_bytes());
        std::vector<std::uint16_t> memory(std::size_t(band) * stored_->row_bytes() / 2 + 1);  // aligned for both bits
        auto* rows = reinterpret_cast<std::uint8_t*>(memory.data());
        for (int top = 0; top < stored_->size().height; top += band) {
            const int here = std::min(band, stored_->size().height - top);
            std::vector<std::uint8_t*> pointers;
            pointers.reserve(std::size_t(here));
            for (int i = 0; i < here; ++i) pointers.push_back(rows + std::size_t(i) * stored_->row_bytes());
            Status got = stored_->read(pointers);
            if (!got.ok()) return got;
            for (int left = 0; left < stored_->size().width; left += band) turn_block(rows, left, top, here);
        }
        return Done{};
    }

    // Puts stored columns [left, left + band) of `rows`, the first of which is stored row `top`, where they belong.
    void turn_block(const std::uint8_t* rows, int left, int top, int here) {
        const Size stored = stored_->size();
        const int right = std::min(left + band, stored.width);
        for (int y = top; y < top + here; ++y) {
            const std::uint8_t* in = rows + std::size_t(y - top) * stored_->row_bytes() + std::size_t(left) * pixel_;
            const int v = turn_.from_below ? stored.height - 1 - y : y;
            for (int x = left; x < right; ++x, in += pixel_) {
                const int u = turn_.from_right ? stored.width - 1 - x : x;
                std::memcpy(turn_.swapped ? at(v, u) : at(u, v), in, pixel_);
            }
        }
    }

    std::unique_ptr<RowReader> stored_;
    Turn turn_;
    std::size_t pixel_;  // bytes
    std::vector<std::uint8_t> picture_;
};

}  // namespace

PictureFacts upright(PictureFacts stored, Orientation orientation) {
    if (swaps_sides(orientation)) std::swap(stored.size.width, stored.size.height);
    return stored;
}

std::unique_ptr<RowReader> turned_rows(std::unique_ptr<RowReader> stored, Orientation orientation) {
    return std::make_unique<TurnedRows>(std::move(stored), orientation);
}

}  // namespace bp::io
