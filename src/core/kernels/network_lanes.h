// Comparator networks over vectors of rows. Included once for every target that Highway compiles for.
#if defined(BP_KERNELS_NETWORK_LANES_H) == defined(HWY_TARGET_TOGGLE)
#ifdef BP_KERNELS_NETWORK_LANES_H
#undef BP_KERNELS_NETWORK_LANES_H
#else
#define BP_KERNELS_NETWORK_LANES_H
#endif

#include <array>
#include <cstring>
#include <utility>

#include "kernels/lanes.h"
#include "kernels/network.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {

// Beyond this the values of a network no longer fit into the registers and pass through memory anyway.
constexpr std::size_t most_in_registers = HWY_TARGET <= HWY_AVX3 ? 24 : 16;

template <Network (*make)(int), std::size_t n, class V, std::size_t... step>
HWY_INLINE void run_steps(V (&v)[n], std::index_sequence<step...>) {
    [[maybe_unused]] static constexpr Network network = make(int(n));
    [[maybe_unused]] const auto compare = [&v](auto at) HWY_ATTR {
        constexpr Comparator c = network.comparators[decltype(at)::value];
        const auto smaller = hn::Min(v[c.low], v[c.high]);
        v[c.high] = hn::Max(v[c.low], v[c.high]);
        v[c.low] = smaller;
    };
    (compare(std::integral_constant<std::size_t, step>()), ...);
}

// The network make(n) over n vectors, step by step without a loop, so that the vectors stay where they are.
template <Network (*make)(int), std::size_t n, class V>
HWY_INLINE void run_in_registers(V (&v)[n]) {
    run_steps<make>(v, std::make_index_sequence<make(int(n)).size>());
}

// Samples that are held at a time: so few that 64 rows of them fit into the nearest cache.
template <class T>
constexpr std::size_t held_part = 128 / sizeof(T);

// Pieces of rows in memory of their own, in which a network changes their places.
template <class T>
class HeldRows {
  public:
    void load(Rows<T> rows, std::size_t at) {
        for (std::size_t k = 0; k < rows.size(); ++k) std::memcpy(held_[k].data(), rows[k] + at, sizeof(held_[k]));
    }
    void run(const Network& network) {
        const hn::CappedTag<T, held_part<T>> d;
        const std::size_t lanes = hn::Lanes(d);
        for (std::size_t c = 0; c < network.size; ++c) {
            T* a = held_[network.comparators[c].low].data();
            T* b = held_[network.comparators[c].high].data();
            for (std::size_t i = 0; i < held_part<T>; i += lanes) {
                const auto x = hn::Load(d, a + i);
                const auto y = hn::Load(d, b + i);
                hn::Store(hn::Min(x, y), d, a + i);
                hn::Store(hn::Max(x, y), d, b + i);
            }
        }
    }
    const T* row(std::size_t k) const { return held_[k].data(); }

  private:
    alignas(64) std::array<std::array<T, held_part<T>>, Network::most_inputs> held_;
};

}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#endif
