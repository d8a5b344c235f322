#include "finish/stars.h"

#include <algorithm>
#include <cmath>

#include "finish/tone_tool.h"

namespace bp {
namespace {

constexpr double radius_px = 4;

class StarsTool final : public ToneTool {
  public:
    StarsTool(double amount, const std::array<double, 3>& luminance, int radius)
        : ToneTool(luminance), powers_(steps + 2), radius_(radius) {
        const double power = std::pow(3.0, -amount);
        for (int i = 0; i < steps + 2; ++i)
            powers_[std::size_t(i)] = float(std::pow(std::min(double(i) / steps, 1.0), power));
    }
    int reach() const override { return 3 * radius_; }

  private:
    Plane changed(const Plane& tones, const Rect& wanted) const override {
        const Rect around_peaks = around(wanted, radius_, tones.area);
        const Rect around_opened = around(wanted, 2 * radius_, tones.area);
        // Without what is small: the largest of the smallest around.
        const Plane eroded = least_around(tones, radius_, around_opened);
        const Plane opened = most_around(eroded, radius_, around_peaks);
        Plane above(around_peaks);
        for (int y = around_peaks.top; y < around_peaks.bottom(); ++y) {
            const float* tone = tones.row(y) + (around_peaks.left - tones.area.left);
            for (int x = 0; x < around_peaks.width; ++x) above.row(y)[x] = std::max(tone[x] - opened.row(y)[x], 0.0F);
        }
        const Plane peaks = most_around(above, radius_, wanted);
        Plane made(wanted);
        for (int y = wanted.top; y < wanted.bottom(); ++y) {
            const int over = wanted.left - around_peaks.left;
            const float *top = above.row(y) + over, *peak = peaks.row(y);
            const float* tone = tones.row(y) + (wanted.left - tones.area.left);
            float* to = made.row(y);
            for (int x = 0; x < wanted.width; ++x) {
                // Noise has tops, too: what rises little stays as it is.
                constexpr float little = 0.015F, enough = 0.05F;
                to[x] = tone[x];
                if (peak[x] <= little) continue;
                const float counts = std::min((peak[x] - little) / (enough - little), 1.0F);
                to[x] += counts * (peak[x] * risen(std::min(top[x] / peak[x], 1.0F)) - top[x]);
            }
        }
        return made;
    }

    static constexpr int steps = 1024;
    // A share of what rises, steeper or less so.
    float risen(float share) const {
        const float place = share * steps;
        const int at = int(place);
        return powers_[std::size_t(at)] +
               (powers_[std::size_t(at) + 1] - powers_[std::size_t(at)]) * (place - float(at));
    }

    std::vector<float> powers_;
    int radius_;
};

}  // namespace

std::shared_ptr<const FinishTool> stars_tool(double amount, const std::array<double, 3>& luminance, int level) {
    const int radius = int(std::lround(radius_px / (1 << level)));
    // At smaller levels a star is one pixel, which neither shrinks nor grows.
    if (amount == 0 || radius < 1) return nullptr;
    return std::make_shared<const StarsTool>(amount, luminance, radius);
}

}  // namespace bp
