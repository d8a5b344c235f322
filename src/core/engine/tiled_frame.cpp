#include "engine/tiled_frame.h"

#include <algorithm>
#include <cstring>

namespace bp {
namespace {

class TiledRows final : public FrameRows {
  public:
    TiledRows(SharedTiles tiles, kernels::Span columns, int height)
        : tiles_(std::move(tiles)),
          columns_(columns),
          height_(std::max(1, height)),
          stride_(std::size_t(std::max(0, columns.end - columns.begin)) * tiles_->pixel_bytes()),
          memory_(std::size_t(height_) * stride_ / 2 + 1) {}

    Size size() const override { return tiles_->size(); }
    int bits() const override { return tiles_->bits(); }
    int left() const override { return columns_.begin; }

    Status require(int first, int last) override {
        const int end = std::min(last, size().height);
        const int untouched = next_;
        for (next_ = std::max(next_, first); next_ < end;) {
            // Up to where the ring begins anew.
            const int here = std::min(end - next_, height_ - next_ % height_);
            tiles_->read({columns_.begin, next_, columns_.end - columns_.begin, here}, slot(next_), stride_);
            next_ += here;
        }
        tiles_->let_go(untouched, next_);
        return Done{};
    }

    SourceRow row(int y) const override {
        if (bits() == 8) return {slot(y), nullptr};
        return {nullptr, reinterpret_cast<const std::uint16_t*>(slot(y))};
    }

  private:
    std::uint8_t* slot(int y) { return bytes(memory_.data()) + std::size_t(y % height_) * stride_; }
    const std::uint8_t* slot(int y) const { return bytes(memory_.data()) + std::size_t(y % height_) * stride_; }
    static std::uint8_t* bytes(std::uint16_t* words) { return reinterpret_cast<std::uint8_t*>(words); }
    static const std::uint8_t* bytes(const std::uint16_t* words) {
        return reinterpret_cast<const std::uint8_t*>(words);
    }

    SharedTiles tiles_;
    kernels::Span columns_;
    int height_;
    std::size_t stride_;
    std::vector<std::uint16_t> memory_;  // aligned for either kind of sample
    int next_ = 0;
};

}  // namespace

TiledFrame::TiledFrame(Size size, int bits, std::size_t pixel_bytes, std::unique_ptr<Scratch::Piece> piece)
    : size_(size), bits_(bits), pixel_(pixel_bytes), piece_(std::move(piece)) {}

std::size_t TiledFrame::bytes_for(Size size, std::size_t pixel_bytes) {
    const auto across = std::size_t(size.width + side - 1) / side;
    const auto down = std::size_t(size.height + side - 1) / side;
    return across * down * side * side * pixel_bytes;
}

std::size_t TiledFrame::offset_of(int x, int y) const {
    const std::size_t tile = std::size_t(y / side) * tiles_across() + std::size_t(x / side);
    return tile * tile_bytes() + (std::size_t(y % side) * side + std::size_t(x % side)) * pixel_;
}

Result<SharedTiles> TiledFrame::make(OpenFrame& open, Scratch& scratch, Job& job) {
    const Size size = open.size();
    const std::size_t pixel = open.row_bytes() / std::size_t(size.width);
    auto piece = scratch.take(bytes_for(size, pixel));
    if (!piece.ok()) return piece.failure();
    Scratch::Piece& to = *piece.value();
    const std::shared_ptr<TiledFrame> out(new TiledFrame(size, open.bits(), pixel, std::move(piece).value()));
    const std::unique_ptr<FrameRows> rows = open.window(side, 0);
    std::vector<std::uint8_t> tiles(out->tiles_across() * out->tile_bytes());  // one row of them
    for (int top = 0; top < size.height; top += side) {
        if (job.stopped()) return stopped_failure();
        const int end = std::min(top + side, size.height);
        Status got = rows->require(top, end);
        if (!got.ok()) return got.failure();
        for (int y = top; y < end; ++y) {
            const SourceRow row = rows->row(y);
            const auto* bytes = row.narrow ? row.narrow : reinterpret_cast<const std::uint8_t*>(row.wide);
            for (int x = 0; x < size.width; x += side)
                std::memcpy(tiles.data() + out->offset_of(x, y - top), bytes + std::size_t(x) * pixel,
                            std::size_t(std::min(side, size.width - x)) * pixel);
        }
        Status written = to.write(out->offset_of(0, top), tiles);
        if (!written.ok()) return written.failure();
    }
    Status sealed = to.seal();
    if (!sealed.ok()) return sealed.failure();
    return SharedTiles(out);
}

void TiledFrame::read(const Rect& box, std::uint8_t* out, std::size_t stride) const {
    const std::uint8_t* memory = piece_->bytes().data();
    for (int y = box.top; y < box.bottom(); ++y, out += stride)
        for (int x = box.left; x < box.right();) {
            const int here = std::min(box.right(), (x / side + 1) * side) - x;
            std::memcpy(out + std::size_t(x - box.left) * pixel_, memory + offset_of(x, y), std::size_t(here) * pixel_);
            x += here;
        }
}

void TiledFrame::let_go(int first, int last) const {
    const std::size_t begin = offset_of(0, first / side * side);
    const std::size_t end = std::min(offset_of(0, (last + side - 1) / side * side), piece_->bytes().size());
    if (end > begin) piece_->let_go(begin, end - begin);
}

std::unique_ptr<FrameRows> tiled_rows(SharedTiles tiles, kernels::Span columns, int height) {
    return std::make_unique<TiledRows>(std::move(tiles), columns, height);
}

}  // namespace bp
