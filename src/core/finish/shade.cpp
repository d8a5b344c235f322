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
    ShadeTool(const EdgeShade& shade, const Rect& crop, const Matrix& turn, int level)
        : crop_(crop), turn_(turn), level_(level), power_(power_of(shade)), gains_(steps + 2), parts_(steps + 2) {
        for (int i = 0; i < steps + 2; ++i)
            parts_[std::size_t(i)] = float(std::min(std::pow(furthest * i / steps, power_), most_part));
        for (int i = 0; i < steps + 2; ++i) {
            const double sum = most * std::min(i, steps) / steps;
            gains_[std::size_t(i)] = float(std::exp2(shade.stops * share_of(shade, sum, power_)));
        }
    }
    void run(Sheet& sheet, const Rect&) const override {
        if (!turn_.is_identity()) {
            run_turned(sheet);
            return;
        }
        std::vector<float> across(std::size_t(sheet.area.width));
        for (int x = 0; x < sheet.area.width; ++x)
            across[std::size_t(x)] = part(sheet.area.left + x, crop_.left, crop_.width);
        for (int y = sheet.area.top; y < sheet.area.bottom(); ++y) {
            const float down = part(y, crop_.top, crop_.height);
            float* row = sheet.row(y);
            for (const float one : across) {
                const float gain = looked_up(gains_, (one + down) * float(steps / most));
                for (int c = 0; c < sheet.channels; ++c) *row++ *= gain;
            }
        }
    }

  private:
    static constexpr int steps = 8192;
    static constexpr double most = 2;  // in the corners of the crop; beyond it nothing more happens
    static constexpr double most_part = 4;
    static constexpr double furthest = 2;  // from the middle, in halves of the crop

    // Between two values of a table.
    static float looked_up(const std::vector<float>& table, float place) {
        const float held = std::min(place, float(steps));
        const int at = int(held);
        return table[std::size_t(at)] + (table[std::size_t(at) + 1] - table[std::size_t(at)]) * (held - float(at));
    }
    void run_turned(Sheet& sheet) const {
        const double size = double(1 << level_);
        const auto& m = turn_.m();
        for (int y = sheet.area.top; y < sheet.area.bottom(); ++y) {
            float* row = sheet.row(y);
            for (int x = 0; x < sheet.area.width; ++x) {
                const double u = (sheet.area.left + x + 0.5) * size - 0.5, v = (y + 0.5) * size - 0.5;
                const double across = m[0] * u + m[1] * v + m[2] + 0.5 - crop_.left;
                const double down = m[3] * u + m[4] * v + m[5] + 0.5 - crop_.top;
                const auto part = [&](double at, int length) {
                    return looked_up(parts_, float(std::abs(2 * at / length - 1) * steps / furthest));
                };
                const float gain =
                    looked_up(gains_, (part(across, crop_.width) + part(down, crop_.height)) * float(steps / most));
                for (int c = 0; c < sheet.channels; ++c) *row++ *= gain;
            }
        }
    }

    // A pixel of the level stands in the middle of those that it is made of.
    float part(int at, int begin, int length) const {
        const double size = double(1 << level_);
        const double middle = (at + 0.5) * size - begin;
        return float(std::min(std::pow(std::abs(2 * middle / length - 1), power_), most_part));
    }

    Rect crop_;
    Matrix turn_;
    int level_;
    double power_;
    std::vector<float> gains_;
    std::vector<float> parts_;  // where the picture is turned
};

}  // namespace

double shade_at(const EdgeShade& shade, double x, double y) {
    const double power = power_of(shade);
    return share_of(shade, std::pow(std::abs(x), power) + std::pow(std::abs(y), power), power);
}

std::shared_ptr<const FinishTool> shade_tool(const EdgeShade& shade, const Rect& crop, const Matrix& turn, int level) {
    return std::make_shared<const ShadeTool>(shade, crop, turn, level);
}

}  // namespace bp
