#include "finish/glow.h"

#include <algorithm>
#include <cmath>

#include "base/median.h"

namespace bp {
namespace {

constexpr int terms = GlowSurface::terms;

// Of places from -1 to 1, where powers stay apart.
std::array<double, terms> powers_at(double x, double y) {
    const double u = 2 * x - 1, v = 2 * y - 1;
    std::array<double, terms> out{};
    std::size_t k = 0;
    double down = 1;
    for (int j = 0; j <= GlowSurface::order; ++j) {
        double both = down;
        for (int i = 0; i + j <= GlowSurface::order; ++i) {
            out[k++] = both;
            both *= u;
        }
        down *= v;
    }
    return out;
}

// Solves a symmetric system by Cholesky's method; false when it has no one solution.
bool solve(std::array<std::array<double, terms>, terms>& a, std::array<double, terms>& b) {
    for (std::size_t i = 0; i < terms; ++i) {
        for (std::size_t j = 0; j <= i; ++j) {
            double sum = a[i][j];
            for (std::size_t k = 0; k < j; ++k) sum -= a[i][k] * a[j][k];
            if (i == j) {
                if (sum <= 1e-12) return false;
                a[i][i] = std::sqrt(sum);
            } else {
                a[i][j] = sum / a[j][j];
            }
        }
    }
    for (std::size_t i = 0; i < terms; ++i) {
        for (std::size_t k = 0; k < i; ++k) b[i] -= a[i][k] * b[k];
        b[i] /= a[i][i];
    }
    for (std::size_t i = terms; i-- > 0;) {
        for (std::size_t k = i + 1; k < terms; ++k) b[i] -= a[k][i] * b[k];
        b[i] /= a[i][i];
    }
    return true;
}

double middle_or_none(std::vector<double> values) {
    return values.empty() ? 0 : middle_of(values);
}

// One channel's.
std::array<double, terms> fitted(const std::vector<std::array<double, terms>>& powers,
                                 const std::vector<double>& light) {
    constexpr int rounds = 8;
    constexpr double tukey = 4.685, to_deviation = 1.4826;
    // Holds what few samples tell nothing of: nothing beside those that do.
    constexpr double ridge = 1e-9;
    std::array<double, terms> out{};
    out[0] = middle_or_none(light);
    std::vector<double> weights(light.size(), 1.0);
    for (int round = 0; round < rounds; ++round) {
        std::array<std::array<double, terms>, terms> a{};
        std::array<double, terms> b{};
        double all = 0;
        for (std::size_t n = 0; n < light.size(); ++n) {
            if (weights[n] == 0) continue;
            all += weights[n];
            for (std::size_t i = 0; i < terms; ++i) {
                b[i] += weights[n] * powers[n][i] * light[n];
                for (std::size_t j = 0; j <= i; ++j) a[i][j] += weights[n] * powers[n][i] * powers[n][j];
            }
        }
        for (std::size_t i = 0; i < terms; ++i) a[i][i] += ridge * all;
        if (!solve(a, b)) return out;
        out = b;
        std::vector<double> off(light.size());
        for (std::size_t n = 0; n < light.size(); ++n) {
            double at = 0;
            for (std::size_t i = 0; i < terms; ++i) at += out[i] * powers[n][i];
            off[n] = light[n] - at;
        }
        std::vector<double> sizes(off.size());
        std::transform(off.begin(), off.end(), sizes.begin(), [](double v) { return std::abs(v); });
        const double scale = std::max(tukey * to_deviation * middle_or_none(sizes), 1e-9);
        for (std::size_t n = 0; n < off.size(); ++n) {
            const double t = off[n] / scale;
            weights[n] = std::abs(t) < 1 ? (1 - t * t) * (1 - t * t) : 0;
        }
    }
    return out;
}

class GlowTool final : public FinishTool {
  public:
    GlowTool(const GlowSurface& surface, double strength, const Rect& canvas, ReadSky sky)
        : surface_(surface), strength_(strength), canvas_(canvas), sky_(std::move(sky)) {}
    void run(Sheet& sheet, const Rect&) const override {
        const auto width = std::size_t(sheet.area.width);
        std::vector<unsigned char> sky(width, 255);
        std::array<std::vector<float>, 3> off;
        for (int c = 0; c < sheet.channels; ++c) off[std::size_t(c)].resize(width);
        for (int y = sheet.area.top; y < sheet.area.bottom(); ++y) {
            if (sky_) sky_(y, sheet.area.left, sheet.area.width, sky.data());
            if (std::all_of(sky.begin(), sky.end(), [](unsigned char s) { return s == 0; })) continue;
            for (int c = 0; c < sheet.channels; ++c) read_row(y, sheet.area.left, c, off[std::size_t(c)]);
            float* to = sheet.row(y);
            for (std::size_t x = 0; x < width; ++x) {
                const float share = float(sky[x]) / 255;
                for (int c = 0; c < sheet.channels; ++c, ++to)
                    *to = std::max(*to - share * off[std::size_t(c)][x], share > 0 ? 0.0F : *to);
            }
        }
    }

  private:
    // What is taken off a row of the sky. Along it the surface is a polynomial of one place.
    void read_row(int y, int left, int c, std::vector<float>& off) const {
        const double v = 2 * (y + 0.5 - canvas_.top) / canvas_.height - 1;
        const auto& all = surface_.by_channel[std::size_t(c)];
        std::array<double, GlowSurface::order + 1> exact{};
        std::size_t k = 0;
        double down = 1;
        for (int j = 0; j <= GlowSurface::order; ++j) {
            for (int i = 0; i + j <= GlowSurface::order; ++i) exact[std::size_t(i)] += all[k++] * down;
            down *= v;
        }
        exact[0] -= surface_.usual[std::size_t(c)];
        std::array<float, GlowSurface::order + 1> along{};
        for (std::size_t i = 0; i < along.size(); ++i) along[i] = float(strength_ * exact[i]);
        const auto step = float(2.0 / canvas_.width);
        for (std::size_t x = 0; x < off.size(); ++x) {
            // From the canvas's own columns, so that a pixel is the same however the picture is divided.
            const float u = step * (float(left - canvas_.left + int(x)) + 0.5F) - 1;
            off[x] = along[0] + u * (along[1] + u * (along[2] + u * (along[3] + u * along[4])));
        }
    }

    GlowSurface surface_;
    double strength_;
    Rect canvas_;
    ReadSky sky_;
};

}  // namespace

double GlowSurface::at(int channel, double x, double y) const {
    const auto powers = powers_at(x, y);
    double out = 0;
    for (std::size_t i = 0; i < terms; ++i) out += by_channel[std::size_t(channel)][i] * powers[i];
    return out;
}

GlowSurface fit_glow(const std::vector<SkySample>& samples, int channels) {
    GlowSurface out;
    std::vector<std::array<double, terms>> powers;
    powers.reserve(samples.size());
    for (const SkySample& s : samples) powers.push_back(powers_at(s.x, s.y));
    for (int c = 0; c < channels; ++c) {
        std::vector<double> light;
        light.reserve(samples.size());
        for (const SkySample& s : samples) light.push_back(s.light[std::size_t(c)]);
        auto& of = out.by_channel[std::size_t(c)];
        if (samples.size() < 4 * terms) {
            of[0] = out.usual[std::size_t(c)] = middle_or_none(light);
            continue;
        }
        of = fitted(powers, light);
        std::vector<double> surface;
        surface.reserve(samples.size());
        for (const SkySample& s : samples) surface.push_back(out.at(c, s.x, s.y));
        out.usual[std::size_t(c)] = middle_or_none(surface);
    }
    return out;
}

std::shared_ptr<const FinishTool> glow_tool(const GlowSurface& surface, double strength, const Rect& canvas,
                                            ReadSky sky) {
    return std::make_shared<const GlowTool>(surface, strength, canvas, std::move(sky));
}

}  // namespace bp
