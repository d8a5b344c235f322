#include "finish/curve_tool.h"

#include <cmath>

#include "kernels/light_rows.h"

namespace bp {
namespace {

constexpr double eye = 2.2;

class CurveTool final : public FinishTool {
  public:
    explicit CurveTool(const Curves& curves) {
        const std::array<const Curve*, 3> own{&curves.red, &curves.green, &curves.blue};
        for (std::size_t c = 0; c < own.size(); ++c) {
            const bool shared = c > 0 && own[c]->points.empty() && own[0]->points.empty();
            if (!shared)
                roots_[c] = kernels::roots_of([&](double light) {
                    const double tone = curve_at(curves.brightness, std::pow(light, 1 / eye));
                    return std::pow(std::max(curve_at(*own[c], tone), 0.0), eye);
                });
            at_[c] = shared ? roots_[0].data() : roots_[c].data();
        }
    }
    CurveTool(const CurveTool&) = delete;
    CurveTool& operator=(const CurveTool&) = delete;

    void run(Sheet& sheet, const Rect&) const override {
        for (int y = sheet.area.top; y < sheet.area.bottom(); ++y)
            kernels::light_by(at_, sheet.row(y), std::size_t(sheet.area.width), sheet.channels);
    }

  private:
    std::array<std::vector<float>, 3> roots_;
    std::array<const float*, 3> at_{};
};

}  // namespace

std::shared_ptr<const FinishTool> curve_tool(const Curves& curves) {
    return std::make_shared<const CurveTool>(curves);
}

}  // namespace bp
