#include "finish/wide.h"

#include <algorithm>
#include <cmath>

#include "finish/plane.h"
#include "kernels/light_rows.h"

namespace bp {
namespace {

std::array<float, 3> as_floats(const std::array<double, 3>& v) {
    return {float(v[0]), float(v[1]), float(v[2])};
}

class WideTool final : public FinishTool {
  public:
    WideTool(double amount, const std::array<double, 3>& luminance, std::shared_ptr<const WideTones> around_places,
             const Rect& canvas)
        : amount_(float(amount)),
          luminance_(as_floats(luminance)),
          around_(std::move(around_places)),
          canvas_(canvas) {}
    void run(Sheet& sheet, const Rect&) const override {
        std::vector<float> tones(std::size_t(sheet.area.width)), made(tones.size());
        const double across = double(around_->size.width) / canvas_.width;
        const double down = double(around_->size.height) / canvas_.height;
        for (int y = sheet.area.top; y < sheet.area.bottom(); ++y) {
            kernels::tones_of(sheet.row(y), tones.size(), sheet.channels, luminance_, tones.data());
            const double v = (y + 0.5 - canvas_.top) * down - 0.5;
            for (int x = 0; x < sheet.area.width; ++x) {
                const float tone = tones[std::size_t(x)];
                const float off = tone - at((sheet.area.left + x + 0.5 - canvas_.left) * across - 0.5, v);
                // Black and white stay where they are.
                const float room = std::min(std::max(4 * tone * (1 - tone), 0.0F), 1.0F);
                made[std::size_t(x)] = std::max(tone + amount_ * off * room, 0.0F);
            }
            kernels::bring_to_tones(tones.data(), made.data(), tones.size(), sheet.channels, sheet.row(y));
        }
    }

  private:
    float at(double x, double y) const {
        const double u = std::clamp(x, 0.0, double(around_->size.width - 1));
        const double v = std::clamp(y, 0.0, double(around_->size.height - 1));
        const int left = int(u), top = int(v);
        const int right = std::min(left + 1, around_->size.width - 1),
                  bottom = std::min(top + 1, around_->size.height - 1);
        const auto tone = [&](int px, int py) {
            return around_->tones[std::size_t(py) * std::size_t(around_->size.width) + std::size_t(px)];
        };
        const auto a = float(u - left), b = float(v - top);
        const float above = tone(left, top) + a * (tone(right, top) - tone(left, top));
        const float below = tone(left, bottom) + a * (tone(right, bottom) - tone(left, bottom));
        return above + b * (below - above);
    }

    float amount_;
    std::array<float, 3> luminance_;
    std::shared_ptr<const WideTones> around_;
    Rect canvas_;
};

}  // namespace

WideTones wide_tones(const Sheet& canvas, const std::array<double, 3>& luminance) {
    constexpr double share = 0.05;
    const double deviation = share * std::max(canvas.area.width, canvas.area.height);
    const Plane soft = weighed(tones_of(canvas, as_floats(luminance)), gaussian_weights(deviation), 1, canvas.area);
    return {canvas.area.size(), {soft.values.begin(), soft.values.end()}};
}

std::shared_ptr<const FinishTool> wide_tool(double amount, const std::array<double, 3>& luminance,
                                            std::shared_ptr<const WideTones> around_places, const Rect& canvas) {
    return std::make_shared<const WideTool>(amount, luminance, std::move(around_places), canvas);
}

}  // namespace bp
