#include "even/noise.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include "image/brightness.h"

namespace bp {
namespace {

constexpr int side = 16;             // of a block
constexpr int coarse = 4;            // side of what its flatness is told by
constexpr int bins = 6;              // of brightness, evenly as it stands
constexpr int enough = 12;           // blocks of a bin
constexpr double most_alike = 0.75;  // two frames have 0.71
constexpr double white = 65535;

struct Block {
    double brightness, unevenness, frame, result;
};

// The standard deviations of noise in a block of both, as Immerkaer has it, and how alike what they are told by is: the
// noise of a mean of n frames is that of one of them to a share of 1 / sqrt(n), fine patterns are the same in both.
struct Deviations {
    double frame, result, alike;
};
Deviations deviations(const Raster16& frame, const Raster16& result, int left, int top, int channel) {
    double sum_a = 0, sum_b = 0, aa = 0, ab = 0, bb = 0;
    const auto laplacian = [channel](const Raster16& of, int x, int y) {
        const auto v = [&](int dx, int dy) { return double(of.at(x + dx, y + dy, channel)); };
        return v(-1, -1) - 2 * v(0, -1) + v(1, -1) - 2 * v(-1, 0) + 4 * v(0, 0) - 2 * v(1, 0) + v(-1, 1) - 2 * v(0, 1) +
               v(1, 1);
    };
    for (int y = top + 1; y < top + side - 1; ++y)
        for (int x = left + 1; x < left + side - 1; ++x) {
            const double a = laplacian(frame, x, y), b = laplacian(result, x, y);
            sum_a += std::abs(a);
            sum_b += std::abs(b);
            aa += a * a;
            ab += a * b;
            bb += b * b;
        }
    const double each = std::sqrt(std::numbers::pi / 2) / 6 / (double(side - 2) * (side - 2)) / white;
    return {each * sum_a, each * sum_b, aa > 0 && bb > 0 ? ab / std::sqrt(aa * bb) : 1};
}

Block block_at(const Raster16& frame, const Raster16& result, int left, int top, int channel) {
    double least = white, most = 0, all = 0;
    bool burnt = false;
    for (int v = 0; v < side; v += coarse)
        for (int u = 0; u < side; u += coarse) {
            double sum = 0;
            for (int y = 0; y < coarse; ++y)
                for (int x = 0; x < coarse; ++x) {
                    const auto here = result.at(left + u + x, top + v + y, channel);
                    sum += here;
                    const auto there = frame.at(left + u + x, top + v + y, channel);
                    burnt = burnt || there == 0 || there == 65535;
                }
            sum /= coarse * coarse;
            least = std::min(least, sum);
            most = std::max(most, sum);
            all += sum;
        }
    // What is cut off at black or white has less noise than it had.
    const Deviations of = deviations(frame, result, left, top, channel);
    if (burnt || of.alike > most_alike) return {-1, 0, 0, 0};
    constexpr int across = side / coarse;
    constexpr double count = double(across) * across;
    return {all / count / white, most - least, of.frame, of.result};
}

template <class Of>
double median(std::vector<Block>& blocks, const Of& of) {
    const auto middle = blocks.begin() + std::ptrdiff_t(blocks.size() / 2);
    std::nth_element(blocks.begin(), middle, blocks.end(),
                     [&](const Block& a, const Block& b) { return of(a) < of(b); });
    return of(*middle);
}

}  // namespace

Noise noise_of(const Raster16& frame, const Raster16& result) {
    const int channel = result.channels() == 3 ? 1 : 0;
    std::array<std::vector<Block>, bins> by_brightness;
    for (int top = 0; top + side <= result.height(); top += side)
        for (int left = 0; left + side <= result.width(); left += side) {
            const Block block = block_at(frame, result, left, top, channel);
            if (block.brightness < 0) continue;
            by_brightness[std::size_t(std::min(bins - 1, int(block.brightness * bins)))].push_back(block);
        }
    Noise out;
    double weight = 0;
    for (std::vector<Block>& blocks : by_brightness) {
        std::sort(blocks.begin(), blocks.end(),
                  [](const Block& a, const Block& b) { return a.unevenness < b.unevenness; });
        blocks.resize(blocks.size() / 3);
        if (int(blocks.size()) < enough) continue;
        NoiseLevel level;
        level.places = int(blocks.size());
        level.brightness = median(blocks, [](const Block& b) { return b.brightness; });
        level.frame = median(blocks, [](const Block& b) { return b.frame; });
        level.result = median(blocks, [](const Block& b) { return b.result; });
        out.levels.push_back(level);
        if (level.frame <= 0 || level.result <= 0) continue;
        out.gain_ev += level.places * std::log2(level.frame / level.result);
        weight += level.places;
    }
    if (weight > 0) out.gain_ev /= weight;
    return out;
}

double noise_of_tones(const Raster16& picture, const LightCurve& curve) {
    // Brightness is told as the eye has it, the power 1/2.2 of light.
    constexpr double to_root = LightCurve::eye_power / 2;
    RasterF tones = brightness_of(picture, curve);
    for (float& tone : tones.data()) tone = float(std::pow(double(tone), to_root));
    struct Flat {
        double unevenness, noise;
    };
    std::vector<Flat> blocks;
    for (int top = 0; top + side <= tones.height(); top += side)
        for (int left = 0; left + side <= tones.width(); left += side) {
            double sum = 0, least = 1, most = 0;
            for (int y = top + 1; y < top + side - 1; ++y)
                for (int x = left + 1; x < left + side - 1; ++x) {
                    const auto v = [&](int dx, int dy) { return double(tones.at(x + dx, y + dy, 0)); };
                    sum += std::abs(v(-1, -1) - 2 * v(0, -1) + v(1, -1) - 2 * v(-1, 0) + 4 * v(0, 0) - 2 * v(1, 0) +
                                    v(-1, 1) - 2 * v(0, 1) + v(1, 1));
                    const double mean = (v(0, 0) + v(1, 0) + v(0, 1) + v(1, 1) + v(-1, 0) + v(0, -1)) / 6;
                    least = std::min(least, mean);
                    most = std::max(most, mean);
                }
            blocks.push_back(
                {most - least, std::sqrt(std::numbers::pi / 2) / 6 * sum / (double(side - 2) * (side - 2))});
        }
    if (blocks.empty()) return 0;
    std::sort(blocks.begin(), blocks.end(), [](const Flat& a, const Flat& b) { return a.unevenness < b.unevenness; });
    // The flattest of all have the least noise by chance, or none at all.
    const std::size_t flat = std::max<std::size_t>(1, blocks.size() / 3);
    std::vector<double> noise;
    for (std::size_t i = 0; i < flat; ++i) noise.push_back(blocks[i].noise);
    std::nth_element(noise.begin(), noise.begin() + std::ptrdiff_t(flat / 2), noise.end());
    return noise[flat / 2];
}

}  // namespace bp
