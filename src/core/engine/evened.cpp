#include "engine/evened.h"

#include <algorithm>

#include "engine/changed_rows.h"

namespace bp {

SharedEvener Eveners::of(const Frame& frame, int bits) {
    const Look look = look_of(pile_, frame);
    const std::array<double, 3> gains = gains_of(pile_, frame);
    if (look == Look{} && gains == std::array<double, 3>{1, 1, 1}) return nullptr;
    auto tone = std::find_if(tones_.begin(), tones_.end(), [&](const SharedTone& t) { return t.look() == look; });
    if (tone == tones_.end()) tone = tones_.insert(tones_.end(), SharedTone(look, pile_.profile, pile_.channels));
    return std::make_shared<const Evener>(*tone, gains, pile_.channels, bits);
}

std::unique_ptr<FrameRows> evened_rows(std::unique_ptr<FrameRows> rows, SharedEvener evener, int channels,
                                       kernels::Span columns, int height) {
    const auto pixels = std::size_t(std::max(0, columns.end - columns.begin));
    const auto change = [evener = std::move(evener), pixels](int, const SourceRow& from, std::uint16_t* out) {
        if (from.narrow)
            evener->run(from.narrow, pixels, out);
        else
            evener->run(from.wide, pixels, out);
    };
    return changed_rows(std::move(rows), change, channels, columns, height);
}

}  // namespace bp
