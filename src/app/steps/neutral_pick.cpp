#include "app/steps/neutral_pick.h"

#include <cmath>

namespace bp::app {
namespace {

constexpr int around = 3;  // pixels to each side: noise goes

}  // namespace

NeutralPick::NeutralPick(Studio& studio, Canvas& canvas, QPushButton* button, std::function<Render()> order,
                         QObject* parent)
    : QObject(parent),
      studio_(studio),
      canvas_(canvas),
      button_(button),
      order_(std::move(order)),
      tool_(canvas, [this](Point at) { look(at); }),
      lane_(this) {
    connect(button, &QPushButton::toggled, this, [this](bool on) { canvas_.set_tool(on ? &tool_ : nullptr); });
    connect(&canvas, &Canvas::tool_left, this, [this] { button_->setChecked(false); });
}

void NeutralPick::look(Point at) {
    const Pile& pile = studio_.pile();
    if (pile.channels != 3) return;
    const Rect area{int(std::lround(at.x)) - around, int(std::lround(at.y)) - around, 2 * around + 1, 2 * around + 1};
    using Light = std::array<double, 3>;
    lane_.run<Result<Light>>(
        [render = order_(), store = studio_.stores().frames(), area,
         curve = LightCurve::of(pile.profile, pile.channels)](Job& job) -> Result<Light> {
            const Result<Raster16> piece = render(*store, area, job);
            if (!piece.ok()) return piece.failure();
            Light out{};
            for (std::size_t i = 0; i < piece.value().data().size(); ++i)
                out[i % 3] += curve.light(piece.value().data()[i]) / LightCurve::full;
            return out;
        },
        [this](const Result<Light>& light) {
            if (!light.ok()) return;
            button_->setChecked(false);
            emit picked(light.value());
        });
}

}  // namespace bp::app
