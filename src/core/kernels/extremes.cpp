#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/extremes.cpp"
#include "kernels/extremes.h"

#include <hwy/foreach_target.h>

#include <algorithm>
#include <array>
#include <bit>

#include "kernels/lanes.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

struct Larger {
    template <class V>
    V operator()(V a, V b) const {
        return hn::Max(a, b);
    }
};

struct Smaller {
    template <class V>
    V operator()(V a, V b) const {
        return hn::Min(a, b);
    }
};

// Two vectors of every row at a time: the result stays in registers while all rows pass.
template <class T, class Pick>
void extreme(Rows<T> rows, std::size_t samples, std::uint16_t* out, Pick pick) {
    const hn::ScalableTag<T> d;
    const std::size_t lanes = hn::Lanes(d);
    const auto two_at = [&](std::size_t i) HWY_ATTR {
        auto a = hn::LoadU(d, rows[0] + i);
        auto b = hn::LoadU(d, rows[0] + i + lanes);
        for (const T* row : rows.subspan(1)) {
            a = pick(a, hn::LoadU(d, row + i));
            b = pick(b, hn::LoadU(d, row + i + lanes));
        }
        store_16(d, a, out + i);
        store_16(d, b, out + i + lanes);
    };
    std::size_t i = 0;
    for (; i + 2 * lanes <= samples; i += 2 * lanes) two_at(i);
    // The last ones overlap those before, which comes to the same.
    if (i < samples && samples >= 2 * lanes) {
        two_at(samples - 2 * lanes);
        return;
    }
    const hn::CappedTag<T, 1> one;
    for (; i < samples; ++i) {
        auto a = hn::LoadU(one, rows[0] + i);
        for (const T* row : rows.subspan(1)) a = pick(a, hn::LoadU(one, row + i));
        out[i] = to_16(hn::GetLane(a));
    }
}

void maximum_8(Rows<std::uint8_t> rows, std::size_t samples, std::uint16_t* out) {
    extreme(rows, samples, out, Larger());
}
void maximum_16(Rows<std::uint16_t> rows, std::size_t samples, std::uint16_t* out) {
    extreme(rows, samples, out, Larger());
}
void minimum_8(Rows<std::uint8_t> rows, std::size_t samples, std::uint16_t* out) {
    extreme(rows, samples, out, Smaller());
}
void minimum_16(Rows<std::uint16_t> rows, std::size_t samples, std::uint16_t* out) {
    extreme(rows, samples, out, Smaller());
}

template <class D>
hn::Vec<D> load_16(D d, const std::uint16_t* row) {
    return hn::LoadU(d, row);
}
template <class D>
hn::Vec<D> load_16(D d, const std::uint8_t* row) {
    const hn::Rebind<std::uint8_t, D> narrow;
    const auto v = hn::PromoteTo(d, hn::LoadU(narrow, row));
    return hn::Or(v, hn::ShiftLeft<8>(v));
}

// Few samples of a row stand above what is there already, where frames lie one over the other.
template <class T>
void raise(const T* row, const std::uint16_t* table, std::uint16_t slope, std::size_t samples, std::uint16_t* out) {
    const hn::ScalableTag<std::uint16_t> d;
    const std::size_t lanes = hn::Lanes(d);
    const auto slopes = hn::Set(d, slope);
    const auto look_up = [&](std::size_t i) { out[i] = std::max(out[i], table[row[i]]); };
    std::size_t i = 0;
    for (; i + lanes <= samples; i += lanes) {
        const auto most = hn::MulHigh(load_16(d, row + i), slopes);
        const auto above = hn::Eq(hn::Max(most, hn::LoadU(d, out + i)), most);
        const std::size_t count = hn::CountTrue(d, above);
        if (count == 0) continue;
        if (2 * count > lanes) {
            for (std::size_t k = 0; k < lanes; ++k) look_up(i + k);
            continue;
        }
        std::array<std::uint8_t, hn::MaxLanes(d) / 8 + 8> bits{};
        hn::StoreMaskBits(d, above, bits.data());
        for (std::size_t byte = 0; byte * 8 < lanes; ++byte)
            for (unsigned left = bits[byte]; left != 0; left &= left - 1)
                look_up(i + byte * 8 + std::size_t(std::countr_zero(left)));
    }
    for (; i < samples; ++i) look_up(i);
}

void raise_8(const std::uint8_t* row, const std::uint16_t* table, std::uint16_t slope, std::size_t samples,
             std::uint16_t* out) {
    raise(row, table, slope, samples, out);
}
void raise_16(const std::uint16_t* row, const std::uint16_t* table, std::uint16_t slope, std::size_t samples,
              std::uint16_t* out) {
    raise(row, table, slope, samples, out);
}

}  // namespace
}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace bp::kernels {

HWY_EXPORT(maximum_8);
HWY_EXPORT(maximum_16);
HWY_EXPORT(minimum_8);
HWY_EXPORT(minimum_16);
HWY_EXPORT(raise_8);
HWY_EXPORT(raise_16);

void maximum(Rows<std::uint8_t> rows, std::size_t samples, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(maximum_8)(rows, samples, out);
}
void maximum(Rows<std::uint16_t> rows, std::size_t samples, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(maximum_16)(rows, samples, out);
}
void minimum(Rows<std::uint8_t> rows, std::size_t samples, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(minimum_8)(rows, samples, out);
}
void minimum(Rows<std::uint16_t> rows, std::size_t samples, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(minimum_16)(rows, samples, out);
}

Mapping::Mapping(const std::vector<std::uint16_t>& table_of) : table(table_of.data()), slope(0) {
    const std::uint32_t unit = table_of.size() == 256 ? 257 : 1;
    for (std::uint32_t v = 1; v < table_of.size(); ++v) {
        const std::uint32_t sample = v * unit, beyond_one = std::max<std::uint32_t>(table_of[v], 1) - 1;
        slope = std::max(slope, std::uint16_t(std::min(65535U, ((beyond_one << 16) + sample - 1) / sample)));
    }
}

void raise_to_mapped(const std::uint16_t* row, const Mapping& mapping, std::size_t samples, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(raise_16)(row, mapping.table, mapping.slope, samples, out);
}
void raise_to_mapped(const std::uint8_t* row, const Mapping& mapping, std::size_t samples, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(raise_8)(row, mapping.table, mapping.slope, samples, out);
}

void widen(const std::uint16_t* row, std::size_t samples, std::uint16_t* out) {
    std::copy_n(row, samples, out);
}
void widen(const std::uint8_t* row, std::size_t samples, std::uint16_t* out) {
    for (std::size_t i = 0; i < samples; ++i) out[i] = to_16(row[i]);
}

}  // namespace bp::kernels
#endif
