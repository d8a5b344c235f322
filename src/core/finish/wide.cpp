#include "finish/wide.h"

#include <algorithm>
#include <cmath>

#include "finish/tone_tool.h"
#include "kernels/tone_rows.h"

namespace bp {
namespace {

class WideTool final : public FinishTool {
  public:
    WideTool(double amount, const std::array<double, 3>& luminance, std::shared_ptr<const WideTones> around_places,
             const Rect& canvas)
        : amount_(float(amount)),
          luminance_(as_floats(luminance)),
          around_(std::move(around_places)),
          canvas_(canvas) {}
    void run(Sheet& sheet, const Rect&) const override {
        const auto width = std::size_t(sheet.area.width);
        std::vector<float> tones(width), made(width), around_row(std::size_t(around_->size.width)), part(width);
        std::vector<int> first(width);
        const double across = double(around_->size.width) / canvas_.width;
        for (std::size_t x = 0; x < width; ++x) {
            const double u = std::clamp((sheet.area.left + int(x) + 0.5 - canvas_.left) * across - 0.5, 0.0,
                                        double(around_->size.width - 1));
            first[x] = std::min(int(u), std::max(0, around_->size.width - 2));
            part[x] = float(u - first[x]);
        }
        for (int y = sheet.area.top; y < sheet.area.bottom(); ++y) {
            kernels::tones_of(sheet.row(y), width, sheet.channels, luminance_, tones.data());
            read_row(y, around_row);
            for (std::size_t x = 0; x < width; ++x) {
                const float left = around_row[std::size_t(first[x])];
                const float right = around_row[std::min(std::size_t(first[x]) + 1, around_row.size() - 1)];
                made[x] = left + part[x] * (right - left);
            }
            kernels::draw_apart(amount_, tones.data(), width, made.data());
            kernels::bring_to_tones(tones.data(), made.data(), width, sheet.channels, sheet.row(y));
        }
    }

  private:
    // The surroundings of a row, at every column of theirs.
    void read_row(int y, std::vector<float>& out) const {
        const int rows = around_->size.height;
        const double v = std::clamp((y + 0.5 - canvas_.top) * rows / canvas_.height - 0.5, 0.0, double(rows - 1));
        const int top = std::min(int(v), std::max(0, rows - 2)), bottom = std::min(top + 1, rows - 1);
        const auto part = float(v - top);
        const float* above = around_->tones.data() + std::size_t(top) * out.size();
        const float* below = around_->tones.data() + std::size_t(bottom) * out.size();
        for (std::size_t x = 0; x < out.size(); ++x) out[x] = above[x] + part * (below[x] - above[x]);
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
