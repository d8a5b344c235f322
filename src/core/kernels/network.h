// Comparator networks that bring the middle of n values into place.
#pragma once

#include <array>
#include <cstddef>
#include <cstdint>

namespace bp::kernels {

struct Comparator {
    std::uint8_t low;   // receives the smaller value
    std::uint8_t high;  // receives the larger one
};

// Room for the comparators of the largest network.
struct Network {
    static constexpr std::size_t most_inputs = 64;
    std::array<Comparator, 543> comparators{};
    std::size_t size = 0;
};

// Batcher's odd-even merge sort for n values (Knuth, The Art of Computer Programming 3, 5.2.2, algorithm M).
constexpr Network sorting_network(int n) {
    Network out;
    int t = 0;
    while ((1 << t) < n) ++t;
    for (int p = t > 0 ? 1 << (t - 1) : 0; p > 0; p /= 2) {
        int q = 1 << (t - 1);
        int r = 0;
        int d = p;
        while (true) {
            for (int i = 0; i + d < n; ++i)
                if ((i & p) == r) out.comparators[out.size++] = {std::uint8_t(i), std::uint8_t(i + d)};
            if (q == p) break;
            d = q - p;
            q /= 2;
            r = p;
        }
    }
    return out;
}

// What is left of it when only places (n - 1) / 2 and n / 2 must be right: walks backwards from them and keeps the
// comparators they depend on.
constexpr Network median_network(int n) {
    const Network sorted = sorting_network(n);
    std::array<bool, Network::most_inputs> needed{};
    needed[std::size_t(n / 2)] = true;
    needed[std::size_t((n - 1) / 2)] = true;
    Network backwards;
    for (std::size_t i = sorted.size; i-- > 0;) {
        const Comparator c = sorted.comparators[i];
        if (!needed[c.low] && !needed[c.high]) continue;
        needed[c.low] = true;
        needed[c.high] = true;
        backwards.comparators[backwards.size++] = c;
    }
    Network out;
    for (std::size_t i = backwards.size; i-- > 0;) out.comparators[out.size++] = backwards.comparators[i];
    return out;
}

// Both for every n from 1 to most_inputs, made once.
const Network& sorting_network_for(std::size_t n);
const Network& median_network_for(std::size_t n);

}  // namespace bp::kernels
