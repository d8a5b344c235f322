#include "finish/shade.h"

#include <algorithm>
#include <cmath>

namespace bp {
namespace {

// |x|^p + |y|^p tells the distance: 2 gives ellipses, more of it rectangles with round corners.
double power_of(const EdgeShade& shade) {
    constexpr double least = 2, more = 8;
    return least + more * (1 - shade.round / 100);
}

double share_of(const EdgeShade& shade, double sum, double power) {
    const double corner = std::pow(2, 1 / power);
    const double way = std::pow(sum, 1 / power) / corner;
    const double from = shade.from / 100;
    const double t = std::clamp((way - from) / (1 - from), 0.0, 1.0);
    return t * t * (3 - 2 * t);
}

class ShadeTool final : public FinishTool {
  public:
    ShadeTool(const EdgeShade& shade, const Rect& crop, int level)
        : crop_(crop), level_(level), power_(power_of(shade)), gains_(steps + 2) {
        for (int i = 0; i < steps + 2; ++i) {
            const double sum = most * std::min(i, steps) / steps;
            gains_[std::size_t(i)] = float(std::exp2(shade.stops * share_of(shade, sum, power_)));
        }
    }
    void run(Sheet& sheet, const Rect&) const override {
        std::vector<float> across(std::size_t(sheet.area.width));
        for (int x = 0; x < sheet.area.width; ++x)
            across[std::size_t(x)] = part(sheet.area.left + x, crop_.left, crop_.width);
        for (int y = sheet.area.top; y < sheet.area.bottom(); ++y) {
            const float down = part(y, crop_.top, crop_.height);
            float* row = sheet.row(y);
            for (const float one : across) {
                const float place = std::min((one + down) * float(steps / most), float(steps));
                const int at = int(place);
                const float gain = gains_[std::size_t(at)] +
                                   (gains_[std::size_t(at) + 1] - gains_[std::size_t(at)]) * (place - float(at));
                for (int c = 0; c < sheet.channels; ++c) *row++ *= gain;
            }
        }
    }

  private:
    static constexpr int steps = 8192;
    static constexpr double most = 2;  // in the corners of the crop; beyond it nothing more happens

    // A pixel of the level stands in the middle of those that it is made of.
    float part(int at, int begin, int length) const {
        const double size = double(1 << level_);
        const double middle = (at + 0.5) * size - begin;
        return float(std::min(std::pow(std::abs(2 * middle / length - 1), power_), 4.0));
    }

    Rect crop_;
    int level_;
    double power_;
    std::vector<float> gains_;
};

}  // namespace

double shade_at(const EdgeShade& shade, double x, double y) {
    const double power = power_of(shade);
    return share_of(shade, std::pow(std::abs(x), power) + std::pow(std::abs(y), power), power);
}

std::shared_ptr<const FinishTool> shade_tool(const EdgeShade& shade, const Rect& crop, int level) {
    return std::make_shared<const ShadeTool>(shade, crop, level);
}

}  // namespace bp
