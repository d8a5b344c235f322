#include "engine/hot_search.h"

#include "engine/render.h"
#include "pile/edits.h"

namespace bp {

void pack(Packer& to, const HotPixels& pixels) {
    to.number(std::uint64_t(pixels.size()));
    for (const HotPixel& pixel : pixels) to.number(pixel.x).number(pixel.y);
}

void unpack(Unpacker& from, HotPixels& pixels) {
    pixels.resize(from.count(2 * sizeof(int)));
    for (HotPixel& pixel : pixels) pixel = {from.number<int>(), from.number<int>()};
}

Result<HotPixels> search_hot_pixels(const Pile& pile, FrameStore& store, Job& job) {
    constexpr std::size_t fewest = 4;
    // The frames as they were recorded, in sensor place.
    Pile plain = with_mode(with_look(with_hot_pixels(pile, nullptr), {}), Mode::minimum);
    plain.methods.sky.model = Model::none;
    plain.levelling = Levelling::off;
    plain.zones.reset();
    plain.spots = nullptr;
    plain.parts.clear();
    for (Frame& frame : plain.frames) frame.look = {};
    if (merged_ids(plain).size() < fewest)
        return Failure{Fault::wrong_call, "", "Hot pixels are found in four frames or more of one run."};
    return solved<HotPixels>(store.derived(), base_key("hot pixels", plain), [&]() -> Result<HotPixels> {
        Result<Raster16> minimum = composed(plain, store, whole(pile.size), 0, job);
        if (!minimum.ok()) return minimum.failure();
        return find_hot_pixels(minimum.value(), LightCurve::of(pile.profile, pile.channels));
    });
}

}  // namespace bp
