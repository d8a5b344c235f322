#include "app/work/model_previews.h"

#include <algorithm>
#include <vector>

#include "app/work/studio.h"
#include "engine/aligning.h"

namespace bp::app {
namespace {

constexpr int preview_side = 256;
constexpr int rest_ms = 1500;  // without a change of the pile or of the chosen frame

}  // namespace

ModelPreviews::ModelPreviews(Studio& studio) : studio_(studio), lane_(this) {
    rest_.setSingleShot(true);
    rest_.setInterval(rest_ms);
    connect(&rest_, &QTimer::timeout, this, &ModelPreviews::go_on);
}

void ModelPreviews::clear() {
    places_.clear();
    setting_.reset();
    lane_.stop();
    rest_.stop();
}

const std::map<int, Alignment>* ModelPreviews::of(Model model) const {
    const auto found = places_.find(model);
    // Where nothing is aligned there are no places, and that is known.
    const bool known = found != places_.end() && (model == Model::none || !found->second.empty());
    return known ? &found->second : nullptr;
}

// What the places depend on.
struct ModelPreviews::Setting {
    int reference = 0;
    Zone zone = Zone::sky;
    bool night = false;
    Mask trust, sky;
    std::vector<std::pair<int, bool>> frames;  // id, and whether it can be used
    friend bool operator==(const Setting&, const Setting&) = default;
};

void ModelPreviews::find() {
    wanted_ = true;
    if (!rest_.isActive()) go_on();
}

void ModelPreviews::go_on() {
    if (!wanted_ || !studio_.document().open()) return;
    const Pile& pile = studio_.pile();
    Setting wanted{pile.reference,
                   studio_.zone(),
                   pile.outcome == Outcome::trails || pile.outcome == Outcome::shower,
                   pile.trust,
                   pile.zones ? pile.zones->sky : Mask(),
                   {}};
    for (const Frame& frame : pile.frames)
        wanted.frames.emplace_back(frame.id, usable(frame) && frame.role != Role::dark);
    if (!setting_ || *setting_ != wanted) {
        lane_.stop();
        places_.clear();
        setting_ = std::make_shared<const Setting>(std::move(wanted));
    }
    if (lane_.busy()) return;
    std::vector<Model> missing;
    // Stars are looked for in larger pictures, which takes its time: only where there may be some, and last.
    for (const ModelEntry& entry : models())
        if (places_.count(entry.model) == 0 && (entry.model != Model::stars || setting_->night))
            missing.push_back(entry.model);
    std::stable_partition(missing.begin(), missing.end(), [](Model model) { return model != Model::stars; });
    if (missing.empty()) return;
    lane_.run<bool>(
        [this, pile, of = studio_.zone(), missing, setting = setting_](Job& job) {
            const Pile now = only_zone(pile, of);
            for (const Model model : missing) {
                Result<std::map<int, Alignment>> found = align_frames(now, model, now.reference, job, preview_side);
                if (job.stopped()) return false;
                // What cannot be found will not be found the next time either.
                auto places = found.ok() ? std::move(found).value() : std::map<int, Alignment>();
                // The lane is a child of this object and outlives its job.
                QMetaObject::invokeMethod(
                    this,
                    [this, model, setting, places = std::move(places)] {
                        if (setting == setting_) places_[model] = places;
                    },
                    Qt::QueuedConnection);
            }
            return true;
        },
        [this](bool all) {
            if (all) emit found();
        });
}

void ModelPreviews::give_up() {
    wanted_ = false;
    lane_.stop();
    rest_.stop();
}

void ModelPreviews::make_way() {
    if (!lane_.busy() && !rest_.isActive()) return;
    lane_.stop();
    rest_.start();
}

}  // namespace bp::app
