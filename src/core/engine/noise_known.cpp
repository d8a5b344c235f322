#include "engine/noise_known.h"

#include <algorithm>
#include <cmath>

#include "base/packing.h"
#include "engine/merge_noise.h"
#include "engine/render.h"
#include "pile/fingerprint.h"

namespace bp {
namespace {

struct NoiseOfFrame {
    double tones = 0;
};
void pack(Packer& to, const NoiseOfFrame& noise) {
    to.number(noise.tones);
}
void unpack(Unpacker& from, NoiseOfFrame& noise) {
    noise.tones = from.number<double>();
}

// In memory, too.
struct Kept {
    double tones;
    std::size_t bytes() const { return sizeof(Kept); }
};

}  // namespace

double noise_left(Mode mode, std::size_t frames) {
    const double n = double(std::max<std::size_t>(frames, 1));
    constexpr double of_median = 1.2533;  // over the mean's: the root of half of pi
    switch (mode) {
        case Mode::mean:
        case Mode::clipped_mean:
            return 1 / std::sqrt(n);
        case Mode::median:
            return n < 3 ? 1 / std::sqrt(n) : std::min(1.0, of_median / std::sqrt(n));
        // The spread of the largest of n is pi / sqrt(6) over the root of twice their logarithm, when they are many
        // (Gumbel); of few it is nearly one frame's.
        case Mode::lighten:
        case Mode::maximum:
        case Mode::minimum:
            return 1 / std::sqrt(1 + 1.2 * std::log(n));
        case Mode::add:
            return std::sqrt(n);
        case Mode::one:
            return 1;
    }
    return 1;
}

Result<double> noise_known(const Pile& pile, FrameStore& store, Job& job) {
    constexpr Size looked_at{1024, 768};
    const int id = frame_of_noise(pile, Zone::sky);
    const Frame* frame = find_frame(pile, id);
    if (!frame) return 0.0;
    const double left = noise_left(pile.methods.sky.mode, merged_ids(pile, Zone::sky).size());
    const Fingerprint of =
        pile::fingerprint(*frame->file, look_of(pile, *frame), gains_of(pile, *frame), pile.profile, pile.channels);
    const Fingerprint key = derived_key("noise of a frame", of);
    if (const auto known = store.kept<Kept>(key)) return known->tones * left;
    const auto measured = [&]() -> Result<NoiseOfFrame> {
        const Rect middle = intersect({(pile.size.width - looked_at.width) / 2,
                                       (pile.size.height - looked_at.height) / 2, looked_at.width, looked_at.height},
                                      whole(pile.size));
        // As it lies on the sensor: resampling takes noise away.
        Pile alone = pile;
        for (Frame& one : alone.frames)
            if (one.id == id) one.places = {};
        alone.methods.sky.model = alone.methods.land.model = Model::none;
        const Result<Raster16> picture = render_frame(alone, store, id, middle, 0, job);
        if (!picture.ok()) return picture.failure();
        return NoiseOfFrame{noise_of_tones(picture.value(), LightCurve::of(pile.profile, pile.channels))};
    };
    const bool can_keep = content_of(*frame->file).has_value();
    const Result<NoiseOfFrame> found =
        solved<NoiseOfFrame>(store.derived(), can_keep ? std::optional(key) : std::nullopt, measured);
    if (!found.ok()) return found.failure();
    store.keep(key, std::make_shared<const Kept>(Kept{found.value().tones}));
    return found.value().tones * left;
}

}  // namespace bp
