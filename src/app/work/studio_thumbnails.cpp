// The small pictures of a pile: its frames', and how they would lie under every model.
#include <algorithm>
#include <mutex>

#include "app/looks/pictures.h"
#include "app/work/studio.h"
#include "base/parallel.h"
#include "engine/aligning.h"

namespace bp::app {
namespace {

constexpr int thumbnail_side = 256;
constexpr int preview_side = 256;

}  // namespace

QImage Studio::thumbnail(int id) const {
    const auto found = thumbnails_.find(id);
    return found == thumbnails_.end() ? QImage() : found->second;
}

int Studio::thumbnail_level() const {
    return level_within(pile().size, thumbnail_side);
}

void Studio::load_thumbnails() {
    thumbnails_done_ = false;
    const Pile now = pile();
    if (now.frames.empty()) {
        thumbnail_lane_.stop();
        return;
    }
    const int level = thumbnail_level();
    const std::shared_ptr<FrameStore> store = store_;
    // Nearest to what is looked at first.
    std::vector<int> order;
    for (std::size_t i = 0; i < now.frames.size(); ++i) {
        const auto known = pictured_.find(now.frames[i].id);
        if (known == pictured_.end() || known->second != now.frames[i].file) order.push_back(int(i));
    }
    const int middle = std::max(0, number_of(now, current()) - 1);
    std::stable_sort(order.begin(), order.end(),
                     [middle](int a, int b) { return std::abs(a - middle) < std::abs(b - middle); });
    thumbnail_lane_.run<std::vector<Failure>>(
        [this, now, level, store, order](Job& job) {
            std::vector<Failure> failures;
            std::mutex mutex;
            parallel_for(0, int(order.size()), [&](int n) {
                const Frame& frame = now.frames[std::size_t(order[std::size_t(n)])];
                if (job.stopped() || !usable(frame)) return;
                Result<SharedPixels> pixels = store->load(*frame.file, level, job);
                if (!pixels.ok()) {
                    const std::lock_guard lock(mutex);
                    failures.push_back(of_frame(pixels.failure(), frame.id));
                    return;
                }
                const QImage image = to_image(pixels.value()->widened(), now.profile);
                // The lane outlives its job and is a child of this studio: the call is dropped when both are gone.
                QMetaObject::invokeMethod(
                    this,
                    [this, store, id = frame.id, file = frame.file, image] {
                        if (store != store_) return;
                        thumbnails_[id] = image;
                        pictured_[id] = file;
                        emit thumbnail_arrived(id);
                    },
                    Qt::QueuedConnection);
            });
            return failures;
        },
        [this](const std::vector<Failure>& failures) {
            for (const Failure& failure : failures) report_broken(failure);
            thumbnails_done_ = true;
            emit thumbnails_finished();
        });
}

const std::map<int, Alignment>* Studio::model_preview(Model model) const {
    const auto found = previews_.find(model);
    return found == previews_.end() ? nullptr : &found->second;
}

// What the miniatures of the models depend on.
struct Studio::PreviewedFor {
    int reference = 0;
    Zone zone = Zone::sky;
    Mask trust, sky;
    std::vector<std::pair<int, bool>> frames;  // id, and whether it can be used
    friend bool operator==(const PreviewedFor&, const PreviewedFor&) = default;
};

void Studio::preview_models() {
    if (!document_.open()) return;
    PreviewedFor wanted{pile().reference, zone(), pile().trust, pile().zones ? pile().zones->sky : Mask(), {}};
    for (const Frame& frame : pile().frames)
        wanted.frames.emplace_back(frame.id, usable(frame) && frame.role != Role::dark);
    if (previewed_for_ && *previewed_for_ == wanted) return;
    previewed_for_ = std::make_shared<const PreviewedFor>(std::move(wanted));
    previews_.clear();
    const Pile whole_pile = pile();
    const std::shared_ptr<FrameStore> store = store_;
    using Found = std::map<Model, std::map<int, Alignment>>;
    preview_lane_.run<Found>(
        [whole_pile, of = zone()](Job& job) {
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
        [this, store](Found found) {
            if (store != store_) return;
            previews_ = std::move(found);
            emit models_previewed();
        });
}

}  // namespace bp::app
