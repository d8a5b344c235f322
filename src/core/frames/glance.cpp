#include "frames/glance.h"

#include <algorithm>
#include <cmath>

#include "frames/robust.h"
#include "image/brightness.h"

namespace bp {
namespace {

constexpr int place_side = 32;
constexpr int clipped_at = 65535 - 257;  // 8-bit 254 and above

// The squares' sum of a kernel is what it makes of the variance of independent noise.
template <std::size_t N>
constexpr float gain_of(const std::array<float, N>& kernel) {
    float sum = 0;
    for (const float k : kernel) sum += k * k;
    return sum;
}

// The Laplacian of the 3 x 3 binomial, 5 x 5.
constexpr std::array<float, 25> fine_kernel = [] {
    constexpr std::array<float, 9> soft{1, 2, 1, 2, 4, 2, 1, 2, 1};
    constexpr std::array<float, 9> edge{0, 1, 0, 1, -4, 1, 0, 1, 0};
    std::array<float, 25> out{};
    for (int a = 0; a < 9; ++a)
        for (int b = 0; b < 9; ++b)
            out[std::size_t((a / 3 + b / 3) * 5 + a % 3 + b % 3)] += soft[std::size_t(a)] / 16 * edge[std::size_t(b)];
    return out;
}();
constexpr std::array<float, 9> noise_kernel{1, -2, 1, -2, 4, -2, 1, -2, 1};

struct Window {
    int left, top, right, bottom;
};

Window window_of(Size grid, int column, int row, Size picture) {
    return {picture.width * column / grid.width, picture.height * row / grid.height,
            picture.width * (column + 1) / grid.width, picture.height * (row + 1) / grid.height};
}

struct Texture {
    double tone = 0;   // mean
    double fine = 0;   // mean square of the fine kernel's answer
    double noise = 0;  // deviation by the noise kernel
};

Texture texture_of(const RasterF& plane, const Window& w) {
    Texture out;
    double squares = 0, absolute = 0, tone = 0;
    long count = 0;
    for (int y = std::max(w.top, 2); y < std::min(w.bottom, plane.height() - 2); ++y)
        for (int x = std::max(w.left, 2); x < std::min(w.right, plane.width() - 2); ++x) {
            float fine = 0;
            for (int j = 0; j < 5; ++j)
                for (int i = 0; i < 5; ++i)
                    fine += fine_kernel[std::size_t(j * 5 + i)] * plane.row(y + j - 2)[x + i - 2];
            float noise = 0;
            for (int j = 0; j < 3; ++j)
                for (int i = 0; i < 3; ++i)
                    noise += noise_kernel[std::size_t(j * 3 + i)] * plane.row(y + j - 1)[x + i - 1];
            tone += double(plane.row(y)[x]);
            squares += double(fine) * double(fine);
            absolute += std::abs(double(noise));
            ++count;
        }
    if (count == 0) return out;
    constexpr double mean_to_deviation = 1.2533141373155;  // sqrt(pi / 2), of a normal distribution
    out.tone = tone / double(count);
    out.fine = squares / double(count);
    out.noise = mean_to_deviation * absolute / double(count) / std::sqrt(double(gain_of(noise_kernel)));
    return out;
}

double log2_ratio(double a, double b) {
    // Below this there is hardly light to speak of, and ratios are noise.
    constexpr double floor = 2e-4;
    return std::log2((a + floor) / (b + floor));
}

double whole_light(const Place& p) {
    return 0.2126 * double(p.light[0]) + 0.7152 * double(p.light[1]) + 0.0722 * double(p.light[2]);
}

}  // namespace

Glance glance_of(const Raster16& picture, const LightCurve& curve) {
    Glance out;
    out.grid = {std::max(1, picture.width() / place_side), std::max(1, picture.height() / place_side)};
    out.places.resize(std::size_t(out.grid.width) * std::size_t(out.grid.height));
    const RasterF plane = brightness_of(picture, curve);
    const int channels = picture.channels();
    std::vector<double> noises;
    std::vector<Texture> textures;
    double light_sum = 0;
    long clipped = 0;
    for (int row = 0; row < out.grid.height; ++row)
        for (int column = 0; column < out.grid.width; ++column) {
            const Window w = window_of(out.grid, column, row, picture.size());
            std::array<double, 3> sum{};
            for (int y = w.top; y < w.bottom; ++y)
                for (int x = w.left; x < w.right; ++x) {
                    const std::uint16_t* pixel = picture.row(y) + x * channels;
                    bool full = false;
                    for (int c = 0; c < 3; ++c) {
                        const std::uint16_t v = pixel[channels == 1 ? 0 : c];
                        sum[std::size_t(c)] += double(curve.light(v));
                        full = full || v >= clipped_at;
                    }
                    clipped += full ? 1 : 0;
                }
            Place& place = out.places[std::size_t(row * out.grid.width + column)];
            const double pixels = double(w.right - w.left) * (w.bottom - w.top);
            for (std::size_t c = 0; c < 3; ++c) place.light[c] = float(sum[c] / pixels / LightCurve::full);
            light_sum += whole_light(place) * pixels;
            textures.push_back(texture_of(plane, w));
            noises.push_back(textures.back().noise);
        }
    const double pixels = double(picture.width()) * picture.height();
    out.brightness = light_sum / pixels;
    out.clipped = double(clipped) / pixels;
    const double noise = quantile(noises, 0.125);
    out.noise = 100 * noise;
    const double of_noise = noise * noise * double(gain_of(fine_kernel));
    for (std::size_t i = 0; i < textures.size(); ++i) {
        out.places[i].tone = float(textures[i].tone);
        out.places[i].contrast = float(std::max(0.0, textures[i].fine - of_noise));
        out.places[i].doubt = float(of_noise);
    }
    return out;
}

namespace {

double tone_ratio(const Place& a, const Place& b) {
    constexpr double black = 0.01;  // below it tones are mostly noise
    return (double(a.tone) + black) / (double(b.tone) + black);
}

}  // namespace

void append(Glance& glance, const Glance& band) {
    const double here = double(glance.places.size());
    const double more = double(band.places.size());
    if (more == 0) return;
    const auto mean = [&](double a, double b) { return (a * here + b * more) / (here + more); };
    glance.brightness = mean(glance.brightness, band.brightness);
    glance.clipped = mean(glance.clipped, band.clipped);
    glance.noise = mean(glance.noise, band.noise);
    glance.places.insert(glance.places.end(), band.places.begin(), band.places.end());
    glance.grid = {band.grid.width, glance.grid.height + band.grid.height};
}

std::optional<double> sharpness_beside(const Glance& frame, const Glance& reference) {
    if (frame.places.size() != reference.places.size()) return std::nullopt;
    constexpr std::size_t fewest = 5;
    std::vector<double> contrasts, textures;
    // Places that hardly have texture say nothing of sharpness: those above the middle count.
    for (const Place& p : reference.places) textures.push_back(double(p.contrast));
    const double enough = quantile(textures, 0.5);
    for (std::size_t i = 0; i < frame.places.size(); ++i) {
        const Place& a = frame.places[i];
        const Place& b = reference.places[i];
        if (double(b.contrast) >= enough && b.contrast > b.doubt && b.contrast > 0)
            contrasts.push_back(std::sqrt(double(a.contrast) / double(b.contrast)) * tone_ratio(b, a));
    }
    if (contrasts.size() < fewest) return std::nullopt;
    return median(contrasts);
}

void compare(const Glance& frame, const Glance& reference, FrameMeasures& out) {
    if (frame.places.size() != reference.places.size()) return;
    std::vector<double> levels, warmths;
    for (std::size_t i = 0; i < frame.places.size(); ++i) {
        const Place& a = frame.places[i];
        const Place& b = reference.places[i];
        levels.push_back(log2_ratio(whole_light(a), whole_light(b)));
        warmths.push_back(log2_ratio(double(a.light[0]), double(b.light[0])) -
                          log2_ratio(double(a.light[2]), double(b.light[2])));
    }
    out.gain_ev = median(levels);
    out.warmth_ev = median(warmths);
    out.sharpness = sharpness_beside(frame, reference);
}

std::vector<double> veils(const std::vector<const Glance*>& run) {
    constexpr int around = 4;          // frames looked at on either side
    constexpr double least_ev = 0.06;  // of difference that counts
    std::vector<double> out(run.size(), 0);
    for (std::size_t i = 0; i < run.size(); ++i) {
        if (!run[i]) continue;
        const Glance& here = *run[i];
        std::vector<const Glance*> others;
        std::vector<double> when;  // places in the run, from this one on
        const auto take = [&](std::ptrdiff_t from, std::ptrdiff_t step) {
            int taken = 0;
            for (std::ptrdiff_t k = from; k >= 0 && k < std::ptrdiff_t(run.size()) && taken < around; k += step)
                if (run[std::size_t(k)] && run[std::size_t(k)]->places.size() == here.places.size()) {
                    others.push_back(run[std::size_t(k)]);
                    when.push_back(double(k) - double(i));
                    ++taken;
                }
        };
        take(std::ptrdiff_t(i) - 1, -1);
        take(std::ptrdiff_t(i) + 1, 1);
        // With fewer there is no telling which of them is the veiled one.
        if (others.size() < 3) continue;
        std::vector<double> differences;
        for (std::size_t p = 0; p < here.places.size(); ++p) {
            std::vector<double> lights;
            for (const Glance* other : others) lights.push_back(whole_light(other->places[p]));
            const double usual = log2_ratio(whole_light(here.places[p]), median(lights));
            const double onward = log2_ratio(whole_light(here.places[p]), std::max(0.0, steady_line(when, lights)(0)));
            differences.push_back(std::abs(onward) < std::abs(usual) ? onward : usual);
        }
        const double all = median(differences);
        long veiled = 0;
        const int columns = here.grid.width;
        const int rows = here.grid.height;
        for (int y = 0; y < rows; ++y)
            for (int x = 0; x < columns; ++x) {
                int signs = 0, looked = 0;
                for (int v = std::max(0, y - 1); v <= std::min(rows - 1, y + 1); ++v)
                    for (int u = std::max(0, x - 1); u <= std::min(columns - 1, x + 1); ++u) {
                        const double d = differences[std::size_t(v * columns + u)] - all;
                        signs += d > least_ev ? 1 : d < -least_ev ? -1 : 0;
                        ++looked;
                    }
                veiled += std::abs(signs) == looked ? 1 : 0;
            }
        out[i] = double(veiled) / double(here.places.size());
    }
    return out;
}

}  // namespace bp
