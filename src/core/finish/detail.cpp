#include "finish/detail.h"

#include <algorithm>
#include <cmath>

#include "finish/tone_tool.h"
#include "kernels/light_rows.h"
#include "kernels/tone_rows.h"

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
          // Small differences are noise, or a surface that is to stay calm.
          how_{float(detail.sharpen / 100), float(detail.flat / 1000), float(detail.halo / 1000)} {}
    int reach() const override { return std::max(int(weights_.size()) / 2, near_); }

  private:
    Plane changed(const Plane& tones, const Rect& wanted) const override {
        const Plane soft = weighed(tones, weights_, 1, wanted);
        const Plane smallest = least_around(tones, near_, wanted), largest = most_around(tones, near_, wanted);
        Plane out(wanted);
        for (int y = wanted.top; y < wanted.bottom(); ++y)
            kernels::sharpen(how_, tones.row(y) + (wanted.left - tones.area.left), soft.row(y), smallest.row(y),
                             largest.row(y), std::size_t(wanted.width), out.row(y));
        return out;
    }

    std::vector<float> weights_;
    int near_;
    kernels::Sharpening how_;
};

// Contrast against the surroundings; edges that are strong already get less of it.
class LocalTool final : public ToneTool {
  public:
    LocalTool(const Detail& detail, const std::array<double, 3>& luminance, double deviation)
        : ToneTool(luminance), soft_(deviation), amount_(float(detail.local / 100)) {}
    int reach() const override { return soft_.reach(); }

  private:
    Plane changed(const Plane& tones, const Rect& wanted) const override {
        constexpr float strong = 0.15F;  // of tones: as much and more would draw a rim
        Plane out = soft_.of(tones, wanted);
        for (int y = wanted.top; y < wanted.bottom(); ++y)
            kernels::draw_apart(amount_, strong, tones.row(y) + (wanted.left - tones.area.left),
                                std::size_t(wanted.width), out.row(y));
        return out;
    }

    BlockSoftening soft_;
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
        if (sheet.channels == 3 && colours_ != 0) {
            smooth_colours(sheet, tones, calm, wanted);
            return;
        }
        sheet.narrow_to(wanted);
        for (int y = wanted.top; y < wanted.bottom(); ++y) {
            float* to = sheet.row(y);
            if (sheet.channels == 1)
                std::transform(calm.row(y), calm.row(y) + wanted.width, to, [](float tone) { return tone * tone; });
            else
                kernels::bring_to_tones(tones.row(y) + (wanted.left - tones.area.left), calm.row(y),
                                        std::size_t(wanted.width), 3, to);
        }
    }

  private:
    static constexpr double in_deviations = 4;
    static constexpr std::array<float, 5> spline{1 / 16.0F, 4 / 16.0F, 6 / 16.0F, 4 / 16.0F, 1 / 16.0F};
    // What of white noise of one deviation lives on each scale.
    static constexpr std::array<float, 3> of_scale{0.891F, 0.201F, 0.086F};

    // What red and blue are off the tone is smoothed; green goes along, so that brightness stays.
    void smooth_colours(Sheet& sheet, const Plane& tones, const Plane& calm, const Rect& wanted) const {
        const auto off_tone = [&](std::size_t channel) {
            Plane off(sheet.area);
            for (int y = off.area.top; y < off.area.bottom(); ++y)
                kernels::roots_off(tones.row(y), sheet.row(y), channel, std::size_t(off.area.width), off.row(y));
            return off;
        };
        const Plane red = off_tone(0), blue = off_tone(2);
        const Plane calm_red = smoothed(red, colours_, wanted), calm_blue = smoothed(blue, colours_, wanted);
        const std::ptrdiff_t from = wanted.left - sheet.area.left;
        sheet.narrow_to(wanted);
        for (int y = wanted.top; y < wanted.bottom(); ++y)
            kernels::calm({tones.row(y) + from, red.row(y) + from, blue.row(y) + from, calm.row(y), calm_red.row(y),
                           calm_blue.row(y), luminance_[0] / luminance_[1], luminance_[2] / luminance_[1]},
                          std::size_t(wanted.width), sheet.row(y));
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
