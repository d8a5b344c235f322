#include "kernels/network.h"

namespace bp::kernels {

namespace {

using Networks = std::array<Network, Network::most_inputs + 1>;

Networks all(Network (*make)(int)) {
    Networks out{};
    for (std::size_t n = 1; n < out.size(); ++n) out[n] = make(int(n));
    return out;
}

}  // namespace

const Network& sorting_network_for(std::size_t n) {
    static const Networks networks = all(sorting_network);
    return networks[n];
}

const Network& median_network_for(std::size_t n) {
    static const Networks networks = all(median_network);
    return networks[n];
}

}  // namespace bp::kernels
