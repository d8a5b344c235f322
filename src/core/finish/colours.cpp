#include "finish/colours.h"

#include <cmath>
#include <numbers>

#include "kernels/hue.h"
#include "kernels/light_rows.h"

namespace bp {
namespace {

constexpr double degree = std::numbers::pi / 180;

std::array<float, 3> as_floats(const std::array<double, 3>& v) {
    return {float(v[0]), float(v[1]), float(v[2])};
}

class RangeTool final : public FinishTool {
  public:
    RangeTool(const std::vector<ColourRange>& ranges, const std::array<double, 3>& luminance) {
        how_.luminance = as_floats(luminance);
        for (const ColourRange& range : ranges)
            changes_.push_back({{float(std::cos(range.hue_at * degree)), float(std::sin(range.hue_at * degree)),
                                 float(range.hue_turn * degree)},
                                float(range.strength / 100),
                                float(range.brightness / 100)});
        how_.hues = changes_;
    }
    RangeTool(const RangeTool&) = delete;
    RangeTool& operator=(const RangeTool&) = delete;

    void run(Sheet& sheet, const Rect&) const override {
        for (int y = sheet.area.top; y < sheet.area.bottom(); ++y)
            kernels::colour_light(how_, sheet.row(y), std::size_t(sheet.area.width));
    }

  private:
    std::vector<kernels::HueChange> changes_;
    kernels::LightColours how_;
};

class TintTool final : public FinishTool {
  public:
    TintTool(const TwoTints& tints, const std::array<double, 3>& luminance) {
        constexpr double of_strength = 0.01, of_middle = 0.004;
        how_.luminance = as_floats(luminance);
        how_.dark = tint(tints.dark_hue, tints.dark_strength * of_strength);
        how_.bright = tint(tints.bright_hue, tints.bright_strength * of_strength);
        how_.middle = float(0.5 + of_middle * tints.middle);
    }
    void run(Sheet& sheet, const Rect&) const override {
        for (int y = sheet.area.top; y < sheet.area.bottom(); ++y)
            kernels::tint_light(how_, sheet.row(y), std::size_t(sheet.area.width));
    }

  private:
    std::array<float, 3> tint(double hue, double strength) const {
        return kernels::colour_at({float(strength * std::cos(hue * degree)), float(strength * std::sin(hue * degree))},
                                  how_.luminance);
    }
    kernels::TwoColours how_;
};

}  // namespace

std::shared_ptr<const FinishTool> range_tool(const std::vector<ColourRange>& ranges,
                                             const std::array<double, 3>& luminance) {
    return std::make_shared<const RangeTool>(ranges, luminance);
}

std::shared_ptr<const FinishTool> tint_tool(const TwoTints& tints, const std::array<double, 3>& luminance) {
    return std::make_shared<const TintTool>(tints, luminance);
}

}  // namespace bp
