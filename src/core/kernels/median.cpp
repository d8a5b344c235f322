#include "kernels/median.h"

#include <algorithm>
#include <array>
#include <cstring>
#include <mutex>
#include <vector>

namespace bp::kernels {
namespace {

constexpr std::size_t largest_network = 64;
constexpr std::size_t block = 64;

using Lane = std::array<std::uint16_t, block>;

struct Comparator {
    std::uint8_t low;
    std::uint8_t high;
};
using Network = std::vector<Comparator>;

Network sorting_network(int n) {
    Network out;
    int t = 0;
    while ((1 << t) < n) ++t;
    for (int p = t > 0 ? 1 << (t - 1) : 0; p > 0; p /= 2) {
        int q = 1 << (t - 1);
        int r = 0;
        int d = p;
        while (true) {
            for (int i = 0; i + d < n; ++i)
                if ((i & p) == r) out.push_back({std::uint8_t(i), std::uint8_t(i + d)});
            if (q == p) break;
            d = q - p;
            q /= 2;
            r = p;
        }
    }
    return out;
}

// Walks backwards from the middle and keeps the comparators it depends on.
Network median_network(int n) {
    const Network sorted = sorting_network(n);
    std::vector<bool> needed(std::size_t(n), false);
    needed[std::size_t(n / 2)] = true;
    needed[std::size_t((n - 1) / 2)] = true;
    Network out;
    for (auto it = sorted.rbegin(); it != sorted.rend(); ++it) {
        if (!needed[it->low] && !needed[it->high]) continue;
        needed[it->low] = true;
        needed[it->high] = true;
        out.push_back(*it);
    }
    std::reverse(out.begin(), out.end());
    return out;
}

const Network& network_for(std::size_t n) {
    static std::array<std::once_flag, largest_network + 1> made;
    static std::array<Network, largest_network + 1> networks;
    std::call_once(made[n], [n] { networks[n] = median_network(int(n)); });
    return networks[n];
}

// min and max by saturated differences, on pointers that the compiler knows not to overlap: so it makes vector code for
// every x86-64 and not only for those with unsigned minima.
void compare(std::uint16_t* __restrict__ low, std::uint16_t* __restrict__ high) {
    for (std::size_t i = 0; i < block; ++i) {
        const std::uint16_t a = low[i];
        const std::uint16_t b = high[i];
        const auto over = std::uint16_t(a > b ? a - b : 0);
        low[i] = std::uint16_t(a - over);
        high[i] = std::uint16_t(b + over);
    }
}

std::uint16_t middle(std::uint16_t a, std::uint16_t b) {
    return std::uint16_t((unsigned(a) + unsigned(b) + 1) / 2);
}

void by_network(std::span<const std::uint16_t* const> rows, std::size_t samples, std::uint16_t* out) {
    const std::size_t n = rows.size();
    const Network& network = network_for(n);
    std::array<Lane, largest_network> lanes;
    for (std::size_t begin = 0; begin < samples; begin += block) {
        const std::size_t count = std::min(block, samples - begin);
        for (std::size_t k = 0; k < n; ++k) {
            std::memcpy(lanes[k].data(), rows[k] + begin, count * sizeof(std::uint16_t));
            std::fill(lanes[k].begin() + std::ptrdiff_t(count), lanes[k].end(), std::uint16_t{0});
        }
        for (const Comparator& c : network) compare(lanes[c.low].data(), lanes[c.high].data());
        const Lane& a = lanes[(n - 1) / 2];
        const Lane& b = lanes[n / 2];
        for (std::size_t i = 0; i < count; ++i) out[begin + i] = middle(a[i], b[i]);
    }
}

void by_selection(std::span<const std::uint16_t* const> rows, std::size_t samples, std::uint16_t* out) {
    const std::size_t n = rows.size();
    std::vector<std::uint16_t> column(n);
    for (std::size_t i = 0; i < samples; ++i) {
        for (std::size_t k = 0; k < n; ++k) column[k] = rows[k][i];
        const auto upper = column.begin() + std::ptrdiff_t(n / 2);
        std::nth_element(column.begin(), upper, column.end());
        out[i] = n % 2 == 1 ? *upper : middle(*std::max_element(column.begin(), upper), *upper);
    }
}

}  // namespace

void median(std::span<const std::uint16_t* const> rows, std::size_t samples, std::uint16_t* out) {
    if (rows.size() <= largest_network)
        by_network(rows, samples, out);
    else
        by_selection(rows, samples, out);
}

}  // namespace bp::kernels
