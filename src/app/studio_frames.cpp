// The long jobs that bring frames to agree.
#include <algorithm>

#include "app/studio.h"
#include "app/words.h"
#include "engine/aligning.h"
#include "engine/cover.h"
#include "engine/hot_search.h"
#include "engine/levelling.h"
#include "engine/spots.h"
#include "engine/zoning.h"
#include "pile/edits.h"

namespace bp::app {

void Studio::align(Model model, int reference) {
    if (!document_.open()) return;
    const Zone of = zone();
    if (model == Model::none) {
        work_.stop();
        document_.edit(with_alignments(pile(), Model::none, reference, {}, of), tr("Align: none"));
        return;
    }
    const Pile now = pile();
    work_.run<Result<std::map<int, Alignment>>>(
        [now, model, reference, of](Job& job) {
            auto found = align_frames(only_zone(now, of), model, reference, job);
            // Reckoned here, so that the window finds it done.
            if (found.ok()) (void)full_cover(with_alignments(now, model, reference, found.value(), of));
            return found;
        },
        [this, model, reference, of](Result<std::map<int, Alignment>> done) {
            if (!done.ok()) {
                tell(done.failure());
                return;
            }
            const auto& found = done.value();
            document_.edit(with_alignments(pile(), model, reference, found, of),
                           tr("Align: %1").arg(word(model).toLower()));
            const auto lost =
                std::count_if(found.begin(), found.end(), [](const auto& f) { return !f.second.aligned; });
            if (lost > 0)
                say(tr("%n frame(s) could not be aligned, and will not be merged.", nullptr, int(lost)), true);
        });
}

void Studio::take_zones(std::function<Result<Mask>(Job&)> find, const QString& what) {
    work_.run<Result<Mask>>(std::move(find), [this, what](Result<Mask> found) {
        if (!found.ok())
            tell(found.failure());
        else
            document_.edit(with_zones(pile(), found.value()), what);
    });
}

void Studio::suggest_zones() {
    if (!document_.open()) return;
    take_zones([now = pile(), store = store_](Job& job) { return bp::suggest_sky(now, *store, job); },
               tr("Suggest sky and land"));
}

void Studio::snap_zones(double reach_px) {
    if (!document_.open()) return;
    take_zones(
        [now = pile(), store = store_, reach_px](Job& job) { return bp::snap_zones(now, reach_px, *store, job); },
        tr("Snap sky and land to edges"));
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
            say(tr("%n hot pixel(s) mended in all frames.", nullptr, count));
        });
}

void Studio::mend_spot(Point sensor, double radius_px) {
    if (!document_.open()) return;
    work_.run<Result<SensorSpot>>([now = pile(), store = store_, sensor,
                                   radius_px](Job& job) { return measure_spot(now, sensor, radius_px, *store, job); },
                                  [this](Result<SensorSpot> done) {
                                      if (!done.ok())
                                          tell(done.failure());
                                      else
                                          document_.edit(with_spot(pile(), done.value()), tr("Mend sensor spot"));
                                  });
}

void Studio::guess_spots() {
    if (!document_.open()) return;
    work_.run<Result<std::vector<SpotGuess>>>(
        [now = pile(), store = store_](Job& job) { return bp::guess_spots(now, *store, job); },
        [this](Result<std::vector<SpotGuess>> done) {
            if (!done.ok()) {
                tell(done.failure());
                return;
            }
            spot_guesses_ = std::move(done).value();
            say(spot_guesses_.empty()
                    ? tr("No sensor spots were found.")
                    : tr("%n suspected sensor spot(s). A click on one mends it.", nullptr, int(spot_guesses_.size())));
            emit spots_guessed();
        });
}

void Studio::refine(int id) {
    if (!document_.open()) return;
    const Zone of = zone();
    work_.run<Result<Alignment>>([now = pile(), id, of](Job& job) { return refine_frame(only_zone(now, of), id, job); },
                                 [this, id, of](Result<Alignment> done) {
                                     if (!done.ok()) {
                                         tell(done.failure());
                                         return;
                                     }
                                     // Where nothing is aligned yet, the others count as aligned where they are.
                                     Pile next = with_moved_by_hand(pile(), id, {}, of);
                                     document_.edit(with_alignment(std::move(next), id, done.value(), of),
                                                    tr("Refine frame %1").arg(number_of(pile(), id)));
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
