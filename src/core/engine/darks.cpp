#include "engine/darks.h"

#include <algorithm>

#include "engine/render.h"
#include "pile/edits.h"
#include "pile/fingerprint.h"

namespace bp {
namespace {

Fingerprint recipe_of(const Pile& pile, const std::vector<int>& ids, int level) {
    std::vector<SharedFrameFile> files;
    files.reserve(ids.size());
    for (const int id : ids) files.push_back(find_frame(pile, id)->file);
    return pile::fingerprint(files, level);
}

}  // namespace

bool dark_of_mosaic(const Frame& frame) {
    return frame.file->facts.balance.has_value();
}

Result<SharedRaster> mean_dark(const Pile& pile, const std::vector<int>& ids, int level, FrameStore& store, Job& job) {
    const Fingerprint recipe = recipe_of(pile, ids, level);
    if (SharedRaster known = store.mean_of(recipe)) return known;
    // A merge like any other, of these frames alone and as they were recorded.
    Pile darks;
    darks.size = pile.size;
    darks.channels = pile.channels;
    darks.profile = pile.profile;
    darks.balance = pile.balance;
    darks.methods.sky.mode = Mode::mean;
    darks.light = Light::linear;
    for (const int id : ids) {
        Frame frame;
        frame.id = id;
        frame.file = find_frame(pile, id)->file;
        darks.frames.push_back(std::move(frame));
    }
    Result<Raster16> mean = render(darks, store, whole(at_level(pile.size, level)), level, job);
    if (!mean.ok()) return mean.failure();
    SharedRaster made = std::make_shared<const Raster16>(std::move(mean).value());
    store.keep_mean(recipe, made);
    return made;
}

Result<Developing> raw_dark_for(const Pile& pile, const DarkChoice& choice, FrameStore& store) {
    const Fingerprint recipe = recipe_of(pile, choice.ids, 0);
    if (auto known = store.raw_dark(recipe)) return Developing{known, choice.scale};
    std::vector<std::filesystem::path> files;
    for (const int id : choice.ids) files.push_back(find_frame(pile, id)->file->path);
    auto mean = mean_raw_dark(files);
    if (!mean.ok()) return mean.failure();
    store.keep_raw_dark(recipe, mean.value());
    return Developing{mean.value(), choice.scale};
}

}  // namespace bp
