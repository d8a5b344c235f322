#include "parts/membrane.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <vector>

namespace bp {
namespace {

Stretch kind_at(const Raster8& kinds, int x, int y) {
    const Size size = kinds.size();
    if (x < 0 || y < 0 || x >= size.width || y >= size.height) return Stretch::none;
    return Stretch(kinds.at(x, y, 0));
}

constexpr std::array<std::array<int, 2>, 4> beside{{{-1, 0}, {1, 0}, {0, -1}, {0, 1}}};

// The pixels that are sought, as the unknowns of a set of equations: one a pixel, for its neighbours' sum.
struct Unknowns {
    struct One {
        int x, y;
        int neighbours = 0;            // that have a value
        std::array<int, 4> sought{};   // those that are sought, by number; -1 for others
    };
    std::vector<One> all;

    explicit Unknowns(const Raster8& kinds) {
        const Size size = kinds.size();
        std::vector<int> number(std::size_t(size.width) * std::size_t(size.height), -1);
        for (int y = 0; y < size.height; ++y)
            for (int x = 0; x < size.width; ++x)
                if (kind_at(kinds, x, y) == Stretch::sought) {
                    number[std::size_t(y) * std::size_t(size.width) + std::size_t(x)] = int(all.size());
                    all.push_back({x, y});
                }
        for (One& one : all)
            for (std::size_t k = 0; k < beside.size(); ++k) {
                const int u = one.x + beside[k][0], v = one.y + beside[k][1];
                const Stretch kind = kind_at(kinds, u, v);
                one.neighbours += kind != Stretch::none;
                one.sought[k] = kind == Stretch::sought
                                    ? number[std::size_t(v) * std::size_t(size.width) + std::size_t(u)]
                                    : -1;
            }
    }

    // What the equations make of some values: a pixel's neighbours times its value, less what is sought beside it.
    void apply(const std::vector<double>& values, std::vector<double>& out) const {
        for (std::size_t i = 0; i < all.size(); ++i) {
            double sum = all[i].neighbours * values[i];
            for (const int k : all[i].sought)
                if (k >= 0) sum -= values[std::size_t(k)];
            out[i] = sum;
        }
    }
};

// Conjugate gradients, each equation weighed by how many neighbours it has; `values` come near before and right after.
void solve(const Unknowns& of, const std::vector<double>& wanted, double off, std::vector<double>& values) {
    constexpr int most_steps = 2000;
    const std::size_t n = of.all.size();
    std::vector<double> left(n), weighed(n), way(n), made(n);
    of.apply(values, made);
    const auto share = [&](std::size_t i) { return 1.0 / std::max(1, of.all[i].neighbours); };
    double strength = 0;
    for (std::size_t i = 0; i < n; ++i) {
        left[i] = wanted[i] - made[i];
        way[i] = weighed[i] = left[i] * share(i);
        strength += left[i] * weighed[i];
    }
    for (int step = 0; step < most_steps; ++step) {
        double worst = 0;
        for (std::size_t i = 0; i < n; ++i) worst = std::max(worst, std::abs(left[i]) * share(i));
        // What is left over a wide piece adds up: far below what it may be off by.
        if (worst <= off / 64) return;
        of.apply(way, made);
        double along = 0;
        for (std::size_t i = 0; i < n; ++i) along += way[i] * made[i];
        if (along <= 0) return;
        const double by = strength / along;
        double next = 0;
        for (std::size_t i = 0; i < n; ++i) {
            values[i] += by * way[i];
            left[i] -= by * made[i];
            weighed[i] = left[i] * share(i);
            next += left[i] * weighed[i];
        }
        const double on = next / strength;
        strength = next;
        for (std::size_t i = 0; i < n; ++i) way[i] = weighed[i] + on * way[i];
    }
}

// Pieces that nothing given touches are no membrane.
Raster8 held_by_something(const Raster8& kinds) {
    const Size size = kinds.size();
    Raster8 out(size, 1);
    std::vector<std::array<int, 2>> to_do;
    const auto reach = [&](int x, int y) {
        if (kind_at(kinds, x, y) != Stretch::sought || out.at(x, y, 0)) return;
        out.at(x, y, 0) = std::uint8_t(Stretch::sought);
        to_do.push_back({x, y});
    };
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x)
            if (kind_at(kinds, x, y) == Stretch::given) {
                out.at(x, y, 0) = std::uint8_t(Stretch::given);
                for (const auto& d : beside) reach(x + d[0], y + d[1]);
            }
    while (!to_do.empty()) {
        const auto [x, y] = to_do.back();
        to_do.pop_back();
        for (const auto& d : beside) reach(x + d[0], y + d[1]);
    }
    return out;
}

// The same at half the size: a pixel is given where one of its four is, with the mean of those.
void halved(const RasterF& values, const Raster8& kinds, RasterF& small, Raster8& small_kinds) {
    const Size size = small_kinds.size();
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x) {
            int given = 0, sought = 0;
            std::array<float, 4> sum{};
            for (int v = 2 * y; v < 2 * y + 2; ++v)
                for (int u = 2 * x; u < 2 * x + 2; ++u) {
                    const Stretch kind = kind_at(kinds, u, v);
                    sought += kind == Stretch::sought;
                    if (kind != Stretch::given) continue;
                    ++given;
                    for (int c = 0; c < values.channels(); ++c) sum[std::size_t(c)] += values.at(u, v, c);
                }
            small_kinds.at(x, y, 0) = std::uint8_t(given ? Stretch::given : sought ? Stretch::sought : Stretch::none);
            for (int c = 0; c < values.channels(); ++c)
                small.at(x, y, c) = given ? sum[std::size_t(c)] / float(given) : 0;
        }
}

double widest_given(const RasterF& values, const Raster8& kinds) {
    double out = 0;
    for (int y = 0; y < kinds.height(); ++y)
        for (int x = 0; x < kinds.width(); ++x)
            for (int c = 0; c < values.channels(); ++c)
                if (kind_at(kinds, x, y) == Stretch::given) out = std::max(out, std::abs(double(values.at(x, y, c))));
    return out;
}

void fill(RasterF& values, const Raster8& kinds, double off) {
    constexpr int few = 64;  // unknowns
    const Unknowns unknowns(kinds);
    const Size size = kinds.size();
    if (unknowns.all.empty()) return;
    if (unknowns.all.size() > few) {
        const Size half = at_level(size, 1);
        RasterF small(half, values.channels());
        Raster8 small_kinds(half, 1);
        halved(values, kinds, small, small_kinds);
        small_kinds = held_by_something(small_kinds);
        fill(small, small_kinds, off);
        for (const auto& one : unknowns.all)
            for (int c = 0; c < values.channels(); ++c) values.at(one.x, one.y, c) = small.at(one.x / 2, one.y / 2, c);
    }
    std::vector<double> sought(unknowns.all.size()), wanted(unknowns.all.size());
    for (int c = 0; c < values.channels(); ++c) {
        for (std::size_t i = 0; i < sought.size(); ++i) {
            const auto& one = unknowns.all[i];
            sought[i] = values.at(one.x, one.y, c);
            wanted[i] = 0;
            for (const auto& d : beside)
                if (kind_at(kinds, one.x + d[0], one.y + d[1]) == Stretch::given)
                    wanted[i] += values.at(one.x + d[0], one.y + d[1], c);
        }
        solve(unknowns, wanted, off, sought);
        for (std::size_t i = 0; i < sought.size(); ++i)
            values.at(unknowns.all[i].x, unknowns.all[i].y, c) = float(sought[i]);
    }
}

}  // namespace

void solve_membrane(RasterF& values, const Raster8& kinds) {
    const Raster8 held = held_by_something(kinds);
    for (int y = 0; y < kinds.height(); ++y)
        for (int x = 0; x < kinds.width(); ++x)
            for (int c = 0; c < values.channels(); ++c)
                if (kind_at(held, x, y) != Stretch::given) values.at(x, y, c) = 0;
    fill(values, held, membrane_off * widest_given(values, held));
}

}  // namespace bp
