#include "lights/traces.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace bp {
namespace {

constexpr int quarters = 4;
// Few pixels are light when one of them stands out by so many deviations.
constexpr int surely = 8 * quarters;

class Groups {
  public:
    explicit Groups(std::size_t count) : of_(count) { std::iota(of_.begin(), of_.end(), std::size_t(0)); }
    std::size_t find(std::size_t i) {
        while (of_[i] != i) i = of_[i] = of_[of_[i]];
        return i;
    }
    void join(std::size_t a, std::size_t b) { of_[std::max(find(a), find(b))] = std::min(find(a), find(b)); }

  private:
    std::vector<std::size_t> of_;
};

}  // namespace

bool Trace::thin() const {
    constexpr double widest = 8;  // pixels
    return double(pixels.size()) <= widest * (1 + std::hypot(bounds.width, bounds.height));
}

std::vector<Trace> traces_of(std::span<const Bright> pixels, std::size_t fewest) {
    Groups groups(pixels.size());
    // Neighbours above lie in a stretch of the row before, which goes along from left to right.
    std::size_t above = 0;
    for (std::size_t i = 0; i < pixels.size(); ++i) {
        const Bright& p = pixels[i];
        if (i > 0 && pixels[i - 1].y == p.y && pixels[i - 1].x == p.x - 1) groups.join(i - 1, i);
        while (pixels[above].y < p.y - 1 || (pixels[above].y == p.y - 1 && pixels[above].x < p.x - 1)) ++above;
        for (std::size_t n = above; n < i && pixels[n].y == p.y - 1 && pixels[n].x <= p.x + 1; ++n) groups.join(n, i);
    }
    std::vector<std::size_t> place(pixels.size(), pixels.size());
    std::vector<Trace> out;
    for (std::size_t i = 0; i < pixels.size(); ++i) {
        const std::size_t first = groups.find(i);
        if (place[first] == pixels.size()) {
            place[first] = out.size();
            out.emplace_back();
        }
        Trace& trace = out[place[first]];
        trace.pixels.push_back(pixels[i]);
        trace.bounds = unite(trace.bounds, {pixels[i].x, pixels[i].y, 1, 1});
        trace.peak = std::max(trace.peak, int(pixels[i].deviations));
    }
    std::erase_if(out, [fewest](const Trace& t) { return t.pixels.size() < fewest && t.peak < surely; });
    return out;
}

RunMask thin_lights(Size size, std::span<const Trace> traces) {
    std::vector<RunMask::Stretch> out;
    for (const Trace& trace : traces) {
        if (!trace.thin()) continue;
        for (const Bright& p : trace.pixels) out.push_back({p.y, {p.x, p.x + 1}});
    }
    return {size, out};
}

}  // namespace bp
