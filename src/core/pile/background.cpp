#include "pile/background.h"

#include <algorithm>
#include <cmath>

#include "pile/edits.h"

namespace bp {
namespace {

std::array<double, 3> changed(const std::array<double, 3>& colour, const Profile& from, int from_channels,
                              const Profile& to, int to_channels) {
    std::array<std::uint16_t, 3> in{}, out{};
    std::transform(colour.begin(), colour.end(), in.begin(),
                   [](double v) { return std::uint16_t(std::lround(std::clamp(v, 0.0, 1.0) * 65535)); });
    const Result<Conversion> conversion = Conversion::make(from, from_channels, to, to_channels);
    if (!conversion.ok()) return colour;
    conversion.value().run(in.data(), out.data(), 1);
    if (to_channels == 1) out.fill(out[0]);
    std::array<double, 3> shares{};
    std::transform(out.begin(), out.end(), shares.begin(), [](std::uint16_t v) { return v / 65535.0; });
    return shares;
}

}  // namespace

std::array<double, 3> background_in_srgb(const Pile& pile) {
    return changed(pile.canvas.background, pile.profile, pile.channels, Profile::srgb(), 3);
}

Pile with_background_of_srgb(Pile pile, const std::array<double, 3>& colour) {
    CanvasSettings canvas = pile.canvas;
    canvas.background = changed(colour, Profile::srgb(), 3, pile.profile, pile.channels);
    return with_canvas(std::move(pile), canvas);
}

}  // namespace bp
