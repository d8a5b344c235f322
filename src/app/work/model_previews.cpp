#include "app/work/model_previews.h"

#include "app/work/studio.h"
#include "engine/aligning.h"

namespace bp::app {
namespace {

constexpr int preview_side = 256;

}  // namespace

ModelPreviews::ModelPreviews(Studio& studio) : studio_(studio), lane_(this) {}

void ModelPreviews::clear() {
    places_.clear();
    setting_.reset();
    lane_.stop();
}

const std::map<int, Alignment>* ModelPreviews::of(Model model) const {
    const auto found = places_.find(model);
    return found == places_.end() ? nullptr : &found->second;
}

// What the miniatures of the models depend on.
struct ModelPreviews::Setting {
    int reference = 0;
    Zone zone = Zone::sky;
    Mask trust, sky;
    std::vector<std::pair<int, bool>> frames;  // id, and whether it can be used
    friend bool operator==(const Setting&, const Setting&) = default;
};

void ModelPreviews::find() {
    if (!studio_.document().open()) return;
    const Pile whole_pile = studio_.pile();
    Setting wanted{
        whole_pile.reference, studio_.zone(), whole_pile.trust, whole_pile.zones ? whole_pile.zones->sky : Mask(), {}};
    for (const Frame& frame : whole_pile.frames)
        wanted.frames.emplace_back(frame.id, usable(frame) && frame.role != Role::dark);
    if (setting_ && *setting_ == wanted) return;
    setting_ = std::make_shared<const Setting>(std::move(wanted));
    places_.clear();
    const std::shared_ptr<FrameStore> store = studio_.stores().frames();
    using Found = std::map<Model, std::map<int, Alignment>>;
    lane_.run<Found>(
        [whole_pile, of = studio_.zone()](Job& job) {
            Found out;
            const Pile now = only_zone(whole_pile, of);
            // Stars are looked for in larger pictures, which takes its time: only where there may be some.
            const bool night = now.outcome == Outcome::trails || now.outcome == Outcome::shower;
            for (const ModelEntry& entry : models()) {
                if (entry.model == Model::stars && !night) continue;
                auto found = align_frames(now, entry.model, now.reference, job, preview_side);
                if (found.ok()) out[entry.model] = std::move(found).value();
            }
            return out;
        },
        [this, store](Found all) {
            if (store != studio_.stores().frames()) return;
            places_ = std::move(all);
            emit found();
        });
}

void ModelPreviews::give_up() {
    if (!lane_.busy()) return;
    lane_.stop();
    setting_.reset();
}

}  // namespace bp::app
