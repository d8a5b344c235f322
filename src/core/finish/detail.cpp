#include "finish/detail.h"

#include <algorithm>
#include <cmath>

#include "finish/tone_tool.h"
#include "kernels/light_rows.h"

namespace bp {
namespace {

// Below this many pixels of a level a Gaussian takes nothing away that can be seen there.
constexpr double least_deviation_px = 0.25;

class SharpenTool final : public ToneTool {
  public:
    SharpenTool(const Detail& detail, const std::array<double, 3>& luminance, double deviation)
        : ToneTool(luminance),
          weights_(gaussian_weights(deviation)),
          near_(std::max(1, int(std::lround(deviation)))),
          amount_(float(detail.sharpen / 100)),
          halo_(float(detail.halo / 1000)),
          flat_(float(detail.flat / 1000)) {}
    int reach() const override { return std::max(int(weights_.size()) / 2, near_); }

  private:
    Plane changed(const Plane& tones, const Rect& wanted) const override {
        const Plane soft = weighed(tones, weights_, 1, wanted);
        const Plane smallest = least_around(tones, near_, wanted), largest = most_around(tones, near_, wanted);
        Plane out(wanted);
        const float flat = flat_ * flat_;
        for (int y = wanted.top; y < wanted.bottom(); ++y) {
            const float* tone = tones.row(y) + (wanted.left - tones.area.left);
            const float *below = soft.row(y), *least = smallest.row(y), *most = largest.row(y);
            float* to = out.row(y);
            for (int x = 0; x < wanted.width; ++x) {
                const float off = tone[x] - below[x];
                // Small differences are noise, or a surface that is to stay calm.
                const float share = off * off / (off * off + flat + 1e-12F);
                const float made = tone[x] + amount_ * share * off;
                to[x] = std::min(std::max(made, least[x] - halo_), most[x] + halo_);
            }
        }
        return out;
    }

    std::vector<float> weights_;
    int near_;
    float amount_, halo_, flat_;
};

// Contrast against the surroundings; edges that are strong already get less of it.
class LocalTool final : public ToneTool {
  public:
    LocalTool(const Detail& detail, const std::array<double, 3>& luminance, double deviation)
        : ToneTool(luminance), weights_(gaussian_weights(deviation)), amount_(float(detail.local / 100)) {}
    int reach() const override { return int(weights_.size()) / 2; }

  private:
    Plane changed(const Plane& tones, const Rect& wanted) const override {
        constexpr float strong = 0.15F;  // of tones: as much and more would draw a rim
        Plane out = weighed(tones, weights_, 1, wanted);
        for (int y = wanted.top; y < wanted.bottom(); ++y) {
            const float* tone = tones.row(y) + (wanted.left - tones.area.left);
            float* to = out.row(y);
            for (int x = 0; x < wanted.width; ++x) {
                const float off = tone[x] - to[x];
                const float more = amount_ * off * strong * strong / (strong * strong + off * off);
                // Black and white stay where they are.
                const float room = std::min(std::max(4 * tone[x] * (1 - tone[x]), 0.0F), 1.0F);
                to[x] = tone[x] + more * room;
            }
        }
        return out;
    }

    std::vector<float> weights_;
    float amount_;
};

// Noise by the scales on which it lives: what a picture loses from one smoothing to the next is noise where it is
// small, and kept where it is not (Starck and Murtagh, the starlet transform, with its B3 spline).
class SmoothTool final : public FinishTool {
  public:
    SmoothTool(const Detail& detail, double noise, const std::array<double, 3>& luminance)
        : luminance_(as_floats(luminance)),
          tones_(float(in_deviations * noise * detail.smooth / 100)),
          colours_(float(in_deviations * noise * detail.smooth_colour / 100)) {}
    int reach() const override { return 2 * (1 + 2 + 4); }

    void run(Sheet& sheet, const Rect& wanted) const override {
        const Plane tones = bp::tones_of(sheet, luminance_);
        const Plane calm = smoothed(tones, tones_, wanted);
        Sheet out = cut_out(sheet, wanted);
        if (sheet.channels == 1) {
            for (std::size_t i = 0; i < out.light.size(); ++i) out.light[i] = calm.values[i] * calm.values[i];
        } else if (colours_ == 0) {
            for (int y = wanted.top; y < wanted.bottom(); ++y)
                kernels::bring_to_tones(tones.row(y) + (wanted.left - tones.area.left), calm.row(y),
                                        std::size_t(wanted.width), out.channels, out.row(y));
        } else {
            smooth_colours(sheet, tones, calm, out);
        }
        sheet = std::move(out);
    }

  private:
    static constexpr double in_deviations = 4;
    static constexpr std::array<float, 5> spline{1 / 16.0F, 4 / 16.0F, 6 / 16.0F, 4 / 16.0F, 1 / 16.0F};
    // What of white noise of one deviation lives on each scale.
    static constexpr std::array<float, 3> of_scale{0.891F, 0.201F, 0.086F};

    // What red and blue are off the tone is smoothed; green goes along, so that brightness stays.
    void smooth_colours(const Sheet& sheet, const Plane& tones, const Plane& calm, Sheet& out) const {
        const auto off_tone = [&](int channel) {
            Plane off(sheet.area);
            for (std::size_t i = 0; i < off.values.size(); ++i)
                off.values[i] = std::sqrt(std::max(sheet.light[3 * i + std::size_t(channel)], 0.0F)) - tones.values[i];
            return off;
        };
        const Plane red = off_tone(0), blue = off_tone(2);
        const Plane calm_red = smoothed(red, colours_, out.area), calm_blue = smoothed(blue, colours_, out.area);
        const float of_red = luminance_[0] / luminance_[1], of_blue = luminance_[2] / luminance_[1];
        for (int y = out.area.top; y < out.area.bottom(); ++y) {
            const std::ptrdiff_t from = out.area.left - sheet.area.left;
            const float *tone = tones.row(y) + from, *r = red.row(y) + from, *b = blue.row(y) + from;
            const float *to_tone = calm.row(y), *to_r = calm_red.row(y), *to_b = calm_blue.row(y);
            float* p = out.row(y);
            for (int x = 0; x < out.area.width; ++x, p += 3) {
                const float green = std::sqrt(std::max(p[1], 0.0F)) - tone[x];
                const float to_g = green - of_red * (to_r[x] - r[x]) - of_blue * (to_b[x] - b[x]);
                const float roots[3] = {to_tone[x] + to_r[x], to_tone[x] + to_g, to_tone[x] + to_b[x]};
                for (int c = 0; c < 3; ++c) {
                    const float root = std::max(roots[c], 0.0F);
                    p[c] = root * root;
                }
            }
        }
    }
    static Plane part_of(const Plane& in, const Rect& wanted) {
        Plane out(wanted);
        for (int y = wanted.top; y < wanted.bottom(); ++y)
            std::copy_n(in.row(y) + (wanted.left - in.area.left), wanted.width, out.row(y));
        return out;
    }
    static Plane smoothed(const Plane& in, float threshold, const Rect& wanted) {
        if (threshold == 0) return part_of(in, wanted);
        Plane detail(wanted);
        std::fill(detail.values.begin(), detail.values.end(), 0.0F);
        Plane now = in;
        int left = 2 * (1 + 2 + 4);
        for (std::size_t k = 0; k < of_scale.size(); ++k) {
            const int step = 1 << k;
            left -= 2 * step;
            Plane next = weighed(now, spline, step, around(wanted, left, in.area));
            const float least = threshold * of_scale[k];
            for (int y = wanted.top; y < wanted.bottom(); ++y) {
                const float* fine = now.row(y) + (wanted.left - now.area.left);
                const float* coarse = next.row(y) + (wanted.left - next.area.left);
                float* to = detail.row(y);
                kernels::add_above_noise(fine, coarse, least, std::size_t(wanted.width), to);
            }
            now = std::move(next);
        }
        for (int y = wanted.top; y < wanted.bottom(); ++y) {
            const float* coarse = now.row(y) + (wanted.left - now.area.left);
            float* to = detail.row(y);
            for (int x = 0; x < wanted.width; ++x) to[x] += coarse[x];
        }
        return detail;
    }

    std::array<float, 3> luminance_;
    float tones_, colours_;
};

}  // namespace

std::shared_ptr<const FinishTool> sharpen_tool(const Detail& detail, const std::array<double, 3>& luminance,
                                               int level) {
    const double deviation = std::ldexp(detail.sharpen_px, -level);
    if (detail.sharpen == 0 || deviation < least_deviation_px) return nullptr;
    return std::make_shared<const SharpenTool>(detail, luminance, deviation);
}

std::shared_ptr<const FinishTool> local_tool(const Detail& detail, const std::array<double, 3>& luminance, int level) {
    const double deviation = std::ldexp(detail.local_px, -level);
    if (detail.local == 0 || deviation < least_deviation_px) return nullptr;
    return std::make_shared<const LocalTool>(detail, luminance, deviation);
}

std::shared_ptr<const FinishTool> smooth_tool(const Detail& detail, double noise,
                                              const std::array<double, 3>& luminance, int level) {
    // A level is the mean of 2^n pixels each way.
    const double there = std::ldexp(noise, -level);
    constexpr double unseen = 1e-5;
    if ((detail.smooth == 0 && detail.smooth_colour == 0) || there < unseen) return nullptr;
    return std::make_shared<const SmoothTool>(detail, there, luminance);
}

}  // namespace bp
