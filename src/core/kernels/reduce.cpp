#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/reduce.cpp"
#include "kernels/reduce.h"

#include <hwy/foreach_target.h>

#include <algorithm>
#include <cstring>

#include "kernels/lanes.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

constexpr std::size_t side = 4;

void turn_square(const float* from, std::size_t stride, float* to, std::size_t to_stride) {
    typedef float Four __attribute__((vector_size(side * sizeof(float))));
    Four rows[side];
    for (std::size_t r = 0; r < side; ++r) std::memcpy(&rows[r], from + r * stride, sizeof(Four));
    const Four a = __builtin_shufflevector(rows[0], rows[1], 0, 4, 1, 5);
    const Four b = __builtin_shufflevector(rows[2], rows[3], 0, 4, 1, 5);
    const Four c = __builtin_shufflevector(rows[0], rows[1], 2, 6, 3, 7);
    const Four d = __builtin_shufflevector(rows[2], rows[3], 2, 6, 3, 7);
    const Four turned[side] = {__builtin_shufflevector(a, b, 0, 1, 4, 5), __builtin_shufflevector(a, b, 2, 3, 6, 7),
                               __builtin_shufflevector(c, d, 0, 1, 4, 5), __builtin_shufflevector(c, d, 2, 3, 6, 7)};
    for (std::size_t r = 0; r < side; ++r) std::memcpy(to + r * to_stride, &turned[r], sizeof(Four));
}

// What stood in rows stands in columns.
void turn(const float* from, std::size_t rows, std::size_t columns, std::size_t stride, float* to,
          std::size_t to_stride) {
    std::size_t r = 0;
    for (; r + side <= rows; r += side) {
        std::size_t c = 0;
        for (; c + side <= columns; c += side)
            turn_square(from + r * stride + c, stride, to + c * to_stride + r, to_stride);
        for (; c < columns; ++c)
            for (std::size_t k = 0; k < side; ++k) to[c * to_stride + r + k] = from[(r + k) * stride + c];
    }
    for (; r < rows; ++r)
        for (std::size_t c = 0; c < columns; ++c) to[c * to_stride + r] = from[r * stride + c];
}

// So many samples of the rows, down: the rows of the piece stand side by side for each sample, so that all that
// follows does them at once.
void reduce_down(std::span<const float* const> from, const Taps& down, const ReducedPiece& piece, std::size_t count,
                 float* to) {
    constexpr std::size_t block = reduced_padding;
    alignas(64) float made[reduced_together][block];
    const hn::CappedTag<float, block / 4> d;
    const std::size_t lanes = hn::Lanes(d);
    const int top = down.first[std::size_t(piece.first_row)];
    for (std::size_t i = 0; i < count; i += block, to += block * reduced_together) {
        const std::size_t samples = std::min(block, count - i);
        for (std::size_t r = 0; r < piece.rows; ++r) {
            const std::size_t place = std::size_t(piece.first_row) + r;
            const float* const* rows = &from[std::size_t(down.first[place] - top)];
            const float* weights = down.at(place);
            for (std::size_t s = 0; s < block; s += 4 * lanes) {
                auto a = hn::Zero(d), b = hn::Zero(d), c = hn::Zero(d), e = hn::Zero(d);
                for (std::size_t k = 0; k < down.count; ++k) {
                    const auto weight = hn::Set(d, weights[k]);
                    const float* row = rows[k] + i + s;
                    a = hn::Add(a, hn::Mul(weight, hn::LoadU(d, row)));
                    b = hn::Add(b, hn::Mul(weight, hn::LoadU(d, row + lanes)));
                    c = hn::Add(c, hn::Mul(weight, hn::LoadU(d, row + 2 * lanes)));
                    e = hn::Add(e, hn::Mul(weight, hn::LoadU(d, row + 3 * lanes)));
                }
                hn::StoreU(a, d, made[r] + s);
                hn::StoreU(b, d, made[r] + s + lanes);
                hn::StoreU(c, d, made[r] + s + 2 * lanes);
                hn::StoreU(e, d, made[r] + s + 3 * lanes);
            }
        }
        turn(made[0], piece.rows, samples, block, to, reduced_together);
    }
}

// `wide` is what reduce_down() wrote.
template <int channels>
void reduce_across(const float* wide, const Taps& across, const ReducedPiece& piece, float* out, std::size_t stride) {
    const hn::CappedTag<float, reduced_together> d;
    const std::size_t lanes = hn::Lanes(d);
    constexpr std::size_t block = 16;  // pixels
    alignas(64) float made[block * std::size_t(channels) * reduced_together];
    const int left = across.first[std::size_t(piece.first_column)];
    for (std::size_t x = 0; x < piece.columns; x += block) {
        const std::size_t pixels = std::min(block, piece.columns - x);
        for (std::size_t i = 0; i < pixels; ++i) {
            const std::size_t place = std::size_t(piece.first_column) + x + i;
            const float* weights = across.at(place);
            const float* from = wide + std::ptrdiff_t(across.first[place] - left) * channels * reduced_together;
            float* to = made + i * std::size_t(channels) * reduced_together;
            for (std::size_t r = 0; r < reduced_together; r += lanes) {
                auto a = hn::Zero(d), b = hn::Zero(d), c = hn::Zero(d);
                const float* at = from + r;
                for (std::size_t k = 0; k < across.count; ++k, at += channels * reduced_together) {
                    const auto weight = hn::Set(d, weights[k]);
                    a = hn::Add(a, hn::Mul(weight, hn::LoadU(d, at)));
                    if constexpr (channels == 3) {
                        b = hn::Add(b, hn::Mul(weight, hn::LoadU(d, at + reduced_together)));
                        c = hn::Add(c, hn::Mul(weight, hn::LoadU(d, at + 2 * reduced_together)));
                    }
                }
                hn::StoreU(a, d, to + r);
                if constexpr (channels == 3) {
                    hn::StoreU(b, d, to + reduced_together + r);
                    hn::StoreU(c, d, to + 2 * reduced_together + r);
                }
            }
        }
        turn(made, pixels * std::size_t(channels), reduced_together, reduced_together, out + x * std::size_t(channels),
             stride);
    }
}

void reduce_piece(std::span<const float* const> from, const Taps& down, const Taps& across, const ReducedPiece& piece,
                  std::vector<float>& room, float* out, std::size_t stride) {
    const std::size_t first = std::size_t(piece.first_column), last = first + piece.columns - 1;
    const std::size_t samples =
        std::size_t(across.first[last] - across.first[first] + int(across.count)) * std::size_t(piece.channels);
    // Rows that a last piece has not are done with the others, as nothing.
    if (piece.rows < reduced_together) std::fill(room.begin(), room.end(), 0.0F);
    room.resize(std::max(room.size(), samples * reduced_together));
    reduce_down(from, down, piece, samples, room.data());
    if (piece.channels == 3)
        reduce_across<3>(room.data(), across, piece, out, stride);
    else
        reduce_across<1>(room.data(), across, piece, out, stride);
}

}  // namespace
}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace bp::kernels {

HWY_EXPORT(reduce_piece);

void reduce(std::span<const float* const> from, const Taps& down, const Taps& across, const ReducedPiece& piece,
            std::vector<float>& room, float* out, std::size_t stride) {
    HWY_DYNAMIC_DISPATCH(reduce_piece)(from, down, across, piece, room, out, stride);
}

}  // namespace bp::kernels
#endif
