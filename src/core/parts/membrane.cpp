#include "parts/membrane.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <memory>
#include <vector>

#include "base/parallel.h"

namespace bp {
namespace {

Stretch kind_at(const Raster8& kinds, int x, int y) {
    const Size size = kinds.size();
    if (x < 0 || y < 0 || x >= size.width || y >= size.height) return Stretch::none;
    return Stretch(kinds.at(x, y, 0));
}

constexpr std::array<std::array<int, 2>, 4> beside{{{-1, 0}, {1, 0}, {0, -1}, {0, 1}}};

// The equations of a membrane: of every pixel that is sought its neighbours times its value, less what is sought beside
// it. And the same at half the size, which leads to it: the smooth part of an error is found there.
class Equations {
  public:
    explicit Equations(const Raster8& kinds) : width_(kinds.width()), height_(kinds.height()) {
        neighbours_.resize(count());
        for (int y = 0; y < height_; ++y)
            for (int x = 0; x < width_; ++x) {
                if (kind_at(kinds, x, y) != Stretch::sought) continue;
                float& here = neighbours_[at(x, y)];
                for (const auto& d : beside) here += kind_at(kinds, x + d[0], y + d[1]) != Stretch::none;
                ++unknowns_;
            }
        constexpr std::size_t few = 32;
        if (unknowns_ <= few) return;
        // A pixel of half the size is sought where one of its four is and none is given.
        const Size half = at_level(kinds.size(), 1);
        Raster8 small(half, 1);
        for (int y = 0; y < half.height; ++y)
            for (int x = 0; x < half.width; ++x) {
                int given = 0, sought = 0;
                for (int k = 0; k < 4; ++k) {
                    const Stretch kind = kind_at(kinds, 2 * x + k % 2, 2 * y + k / 2);
                    given += kind == Stretch::given;
                    sought += kind == Stretch::sought;
                }
                small.at(x, y, 0) = std::uint8_t(given ? Stretch::given : sought ? Stretch::sought : Stretch::none);
            }
        auto coarse = std::make_unique<Equations>(small);
        if (coarse->unknowns_ > 0) coarse_ = std::move(coarse);
    }

    std::size_t count() const { return std::size_t(width_) * std::size_t(height_); }
    bool sought(std::size_t i) const { return neighbours_[i] > 0; }
    float neighbours(std::size_t i) const { return neighbours_[i]; }

    void apply(const std::vector<float>& values, std::vector<float>& out) const {
        each([&](std::size_t i, int x, int y) { out[i] = neighbours_[i] * values[i] - around(values, i, x, y); });
    }

    // About what solves the equations for `wanted`, and the same for every one of them in proportion: relaxed twice,
    // led on by what half the size makes of what is left, and relaxed twice the other way around (Briggs et al., "A
    // multigrid tutorial", 2000).
    void roughly(const std::vector<float>& wanted, std::vector<float>& values) const {
        std::fill(values.begin(), values.end(), 0.0F);
        constexpr int sweeps = 2;
        constexpr int alone = 40;  // where there is no coarser one
        for (int i = 0; i < (coarse_ ? sweeps : alone); ++i)
            for (const int colour : {0, 1}) relax(wanted, colour, values);
        if (coarse_) {
            std::vector<float> left(count(), 0.0F), there(coarse_->count(), 0.0F), found(coarse_->count());
            each([&](std::size_t i, int x, int y) {
                left[i] = wanted[i] - neighbours_[i] * values[i] + around(values, i, x, y);
            });
            transfer([&](std::size_t fine, std::size_t coarse, float share) { there[coarse] += share * left[fine]; });
            coarse_->roughly(there, found);
            transfer([&](std::size_t fine, std::size_t coarse, float share) { values[fine] += share * found[coarse]; });
        }
        for (int i = 0; i < (coarse_ ? sweeps : alone); ++i)
            for (const int colour : {1, 0}) relax(wanted, colour, values);
    }

  private:
    std::size_t at(int x, int y) const { return std::size_t(y) * std::size_t(width_) + std::size_t(x); }
    template <class Do>
    void each(const Do& act) const {
        for (int y = 0; y < height_; ++y)
            for (int x = 0; x < width_; ++x)
                if (const std::size_t i = at(x, y); sought(i)) act(i, x, y);
    }
    // Values that are not sought are 0.
    float around(const std::vector<float>& values, std::size_t i, int x, int y) const {
        const auto row = std::size_t(width_);
        return (x > 0 ? values[i - 1] : 0) + (x + 1 < width_ ? values[i + 1] : 0) + (y > 0 ? values[i - row] : 0) +
               (y + 1 < height_ ? values[i + row] : 0);
    }
    void relax(const std::vector<float>& wanted, int colour, std::vector<float>& values) const {
        for (int y = 0; y < height_; ++y)
            for (int x = (y + colour) & 1; x < width_; x += 2)
                if (const std::size_t i = at(x, y); sought(i))
                    values[i] = (wanted[i] + around(values, i, x, y)) / neighbours_[i];
    }
    // Every pixel with the four of half the size that it lies between, which are sought.
    template <class Do>
    void transfer(const Do& act) const {
        each([&](std::size_t i, int x, int y) {
            const int u = x / 2, v = y / 2, other_u = x % 2 ? u + 1 : u - 1, other_v = y % 2 ? v + 1 : v - 1;
            const auto give = [&](int a, int b, float share) {
                if (a < 0 || b < 0 || a >= coarse_->width_ || b >= coarse_->height_) return;
                if (const std::size_t c = coarse_->at(a, b); coarse_->sought(c)) act(i, c, share);
            };
            give(u, v, 9.0F / 16);
            give(other_u, v, 3.0F / 16);
            give(u, other_v, 3.0F / 16);
            give(other_u, other_v, 1.0F / 16);
        });
    }

    int width_, height_;
    std::size_t unknowns_ = 0;
    std::vector<float> neighbours_;  // that have a value, of what is sought; 0 elsewhere
    std::unique_ptr<const Equations> coarse_;
};

// Conjugate gradients from 0 on, each step led by what the equations are roughly solved by.
std::vector<float> solved(const Equations& of, const std::vector<float>& wanted, double off) {
    constexpr int most_steps = 200;
    const std::size_t n = of.count();
    std::vector<float> values(n, 0.0F), left = wanted, led(n), way(n), made(n, 0.0F);
    const auto product = [n](const std::vector<float>& a, const std::vector<float>& b) {
        double sum = 0;
        for (std::size_t i = 0; i < n; ++i) sum += double(a[i]) * double(b[i]);
        return sum;
    };
    of.roughly(left, led);
    way = led;
    double strength = product(left, led);
    for (int step = 0; step < most_steps && strength > 0; ++step) {
        double worst = 0;
        for (std::size_t i = 0; i < n; ++i)
            if (of.sought(i)) worst = std::max(worst, std::abs(double(led[i])));
        // Led that far, little is left.
        if (worst <= off / 4) break;
        of.apply(way, made);
        const double along = product(way, made);
        if (along <= 0) break;
        const auto by = float(strength / along);
        for (std::size_t i = 0; i < n; ++i) {
            values[i] += by * way[i];
            left[i] -= by * made[i];
        }
        of.roughly(left, led);
        const double next = product(left, led);
        const auto on = float(next / strength);
        strength = next;
        for (std::size_t i = 0; i < n; ++i) way[i] = led[i] + on * way[i];
    }
    return values;
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

double widest_given(const RasterF& values, const Raster8& kinds) {
    double out = 0;
    for (int y = 0; y < kinds.height(); ++y)
        for (int x = 0; x < kinds.width(); ++x)
            for (int c = 0; c < values.channels(); ++c)
                if (kind_at(kinds, x, y) == Stretch::given) out = std::max(out, std::abs(double(values.at(x, y, c))));
    return out;
}

}  // namespace

void solve_membrane(RasterF& values, const Raster8& kinds) {
    const Raster8 held = held_by_something(kinds);
    for (int y = 0; y < kinds.height(); ++y)
        for (int x = 0; x < kinds.width(); ++x)
            for (int c = 0; c < values.channels(); ++c)
                if (kind_at(held, x, y) != Stretch::given) values.at(x, y, c) = 0;
    const double off = membrane_off * widest_given(values, held);
    const Equations equations(held);
    parallel_for(0, values.channels(), [&](int c) {
        std::vector<float> wanted(equations.count(), 0.0F);
        const auto at = [&](int x, int y) { return std::size_t(y) * std::size_t(kinds.width()) + std::size_t(x); };
        for (int y = 0; y < kinds.height(); ++y)
            for (int x = 0; x < kinds.width(); ++x)
                for (const auto& d : beside)
                    if (equations.sought(at(x, y)) && kind_at(held, x + d[0], y + d[1]) == Stretch::given)
                        wanted[at(x, y)] += values.at(x + d[0], y + d[1], c);
        const std::vector<float> found = solved(equations, wanted, off);
        for (int y = 0; y < kinds.height(); ++y)
            for (int x = 0; x < kinds.width(); ++x)
                if (equations.sought(at(x, y))) values.at(x, y, c) = found[at(x, y)];
    });
}

}  // namespace bp
