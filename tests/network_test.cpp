#include "kernels/network.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <random>
#include <vector>

using namespace bp::kernels;

namespace {

void run(const Network& network, std::vector<int>& values) {
    for (std::size_t i = 0; i < network.size; ++i) {
        const Comparator c = network.comparators[i];
        if (values[c.low] > values[c.high]) std::swap(values[c.low], values[c.high]);
    }
}

std::vector<int> zeros_and_ones(unsigned pattern, int n) {
    std::vector<int> out;
    for (int i = 0; i < n; ++i) out.push_back(int(pattern >> i & 1U));
    return out;
}

}  // namespace

// A network that sorts every row of zeros and ones sorts everything (Knuth, 5.3.4, the 0-1 principle).
TEST_CASE("sorting networks sort") {
    for (int n = 1; n <= 14; ++n) {
        const Network network = sorting_network(n);
        bool sorts = true;
        for (unsigned pattern = 0; pattern < 1U << n; ++pattern) {
            std::vector<int> values = zeros_and_ones(pattern, n);
            run(network, values);
            sorts = sorts && std::is_sorted(values.begin(), values.end());
        }
        INFO(n);
        CHECK(sorts);
    }
}

TEST_CASE("median networks bring both middle values into place with fewer comparators") {
    for (int n = 1; n <= 14; ++n) {
        const Network network = median_network(n);
        bool right = true;
        for (unsigned pattern = 0; pattern < 1U << n; ++pattern) {
            std::vector<int> values = zeros_and_ones(pattern, n);
            std::vector<int> sorted = values;
            std::sort(sorted.begin(), sorted.end());
            run(network, values);
            for (const int middle : {(n - 1) / 2, n / 2})
                right = right && values[std::size_t(middle)] == sorted[std::size_t(middle)];
        }
        INFO(n);
        CHECK(right);
        CHECK(network.size <= sorting_network(n).size);
        if (n >= 9) CHECK(network.size < sorting_network(n).size);
    }
}

TEST_CASE("the largest networks hold for random values, and every size is made once") {
    std::mt19937 random(7);
    for (std::size_t n = 15; n <= Network::most_inputs; ++n) {
        const Network& network = median_network_for(n);
        CHECK(&network == &median_network_for(n));
        for (int round = 0; round < 50; ++round) {
            std::vector<int> values(n);
            for (int& v : values) v = int(random() % 40);
            std::vector<int> sorted = values;
            std::sort(sorted.begin(), sorted.end());
            run(network, values);
            REQUIRE(values[(n - 1) / 2] == sorted[(n - 1) / 2]);
            REQUIRE(values[n / 2] == sorted[n / 2]);
        }
    }
}
