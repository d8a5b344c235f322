// The long jobs that bring frames to agree.
#include <algorithm>

#include "app/studio.h"
#include "app/words.h"
#include "engine/aligning.h"
#include "engine/cover.h"
#include "engine/hot_search.h"
#include "engine/levelling.h"
#include "pile/edits.h"

namespace bp::app {

void Studio::align(Model model, int reference) {
    if (!document_.open()) return;
    if (model == Model::none) {
        work_.stop();
        document_.edit(with_alignments(pile(), Model::none, reference, {}), tr("Align: none"));
        return;
    }
    const Pile now = pile();
    work_.run<Result<std::map<int, Alignment>>>(
        [now, model, reference](Job& job) {
            auto found = align_frames(now, model, reference, job);
            // Reckoned here, so that the window finds it done.
            if (found.ok()) (void)full_cover(with_alignments(now, model, reference, found.value()));
            return found;
        },
        [this, model, reference](Result<std::map<int, Alignment>> done) {
            if (!done.ok()) {
                tell(done.failure());
                return;
            }
            const auto& found = done.value();
            document_.edit(with_alignments(pile(), model, reference, found),
                           tr("Align: %1").arg(word(model).toLower()));
            const auto lost =
                std::count_if(found.begin(), found.end(), [](const auto& f) { return !f.second.aligned; });
            if (lost > 0) say(tr("%n frame(s) could not be aligned and are not merged.", nullptr, int(lost)), true);
        });
}

void Studio::mend_hot_pixels(bool on) {
    if (!document_.open()) return;
    if (!on) {
        document_.edit(with_hot_pixels(pile(), nullptr), tr("Leave hot pixels"));
        return;
    }
    work_.run<Result<HotPixels>>(
        [now = pile(), store = store_](Job& job) { return search_hot_pixels(now, *store, job); },
        [this](Result<HotPixels> done) {
            if (!done.ok()) {
                tell(done.failure());
                return;
            }
            const auto count = int(done.value().size());
            document_.edit(with_hot_pixels(pile(), std::make_shared<const HotPixels>(std::move(done).value())),
                           tr("Mend hot pixels"));
            say(tr("%n hot pixel(s) are mended in all frames.", nullptr, count));
        });
}

void Studio::refine(int id) {
    if (!document_.open()) return;
    work_.run<Result<Alignment>>([now = pile(), id](Job& job) { return refine_frame(now, id, job); },
                                 [this, id](Result<Alignment> done) {
                                     if (!done.ok()) {
                                         tell(done.failure());
                                         return;
                                     }
                                     Pile next = with_alignment(pile(), id, done.value());
                                     if (next.model == Model::none) next.model = Model::rigid;
                                     document_.edit(std::move(next), tr("Refine frame %1").arg(number_of(pile(), id)));
                                 });
}

void Studio::level(Levelling kind) {
    if (!document_.open()) return;
    if (kind == Levelling::off) {
        work_.stop();
        Pile next = pile();
        next.levelling = kind;
        document_.edit(std::move(next), tr("Level: off"));
        return;
    }
    work_.run<Result<std::map<int, Level>>>(
        [now = pile(), kind, store = store_](Job& job) { return level_frames(now, kind, *store, job); },
        [this, kind](Result<std::map<int, Level>> done) {
            if (!done.ok()) {
                tell(done.failure());
                return;
            }
            document_.edit(with_levels(pile(), kind, done.value()),
                           kind == Levelling::light ? tr("Level light") : tr("Level light and colour"));
            const auto left = std::count_if(pile().frames.begin(), pile().frames.end(), [](const Frame& f) {
                return usable(f) && f.role == Role::scene && !f.level;
            });
            if (left > 0) say(tr("%n frame(s) could not be levelled: too dark, or clipped.", nullptr, int(left)), true);
        });
}

}  // namespace bp::app
