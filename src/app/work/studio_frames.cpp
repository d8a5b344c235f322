// The long jobs that bring frames to agree.
#include <algorithm>

#include "app/looks/words.h"
#include "app/work/studio.h"
#include "engine/aligning.h"
#include "engine/cover.h"
#include "engine/hot_search.h"
#include "engine/levelling.h"
#include "engine/moving_lights.h"
#include "engine/shower.h"
#include "engine/spots.h"
#include "engine/subjects.h"
#include "engine/taking.h"
#include "engine/zoning.h"
#include "pile/edits.h"
#include "pile/outcomes.h"
#include "pile/part_edits.h"
#include "pile/streak_edits.h"

namespace bp::app {

namespace {

Result<std::map<int, Alignment>> places_of(const Pile& pile, Model model, int reference, Zone zone, Job& job) {
    auto found = align_frames(only_zone(pile, zone), model, reference, job);
    // Reckoned here, so that the window finds it done.
    if (found.ok()) (void)full_cover(with_alignments(pile, model, reference, found.value(), zone));
    return found;
}

}  // namespace

void Studio::align(Model model, int reference) {
    if (!document_.open()) return;
    placing_.stop();
    align(model, reference, zone());
}

void Studio::align(Model model, int reference, Zone of) {
    if (model == Model::none) {
        document_.edit(with_alignments(pile(), Model::none, reference, {}, of), tr("Align: none"));
        return;
    }
    const Pile now = pile();
    find_on<std::map<int, Alignment>>(
        finding_, tr("aligning"),
        [now, model, reference, of](Job& job) { return places_of(now, model, reference, of, job); },
        [this, model, reference, of, now](const std::map<int, Alignment>& found) {
            // Another was chosen meanwhile, or this one removed.
            if (pile().reference != now.reference || !find_frame(pile(), reference)) {
                align(model, pile().reference, of);
                return;
            }
            document_.edit(with_alignments(pile(), model, reference, found, of),
                           tr("Align: %1").arg(within_sentence(word(model))));
            say_unaligned(found);
            align_what_came(now);
        });
}

void Studio::say_unaligned(const std::map<int, Alignment>& found) {
    const auto lost = std::count_if(found.begin(), found.end(), [](const auto& f) { return !f.second.aligned; });
    if (lost > 0) say(tr("%n frame(s) could not be aligned, and will not be merged.", nullptr, int(lost)), true);
}

void Studio::say_moved(double px) {
    say(tr("With another reference the picture lies %1 px elsewhere. What is painted, cropped and mended stays where "
           "it "
           "was: look at it, or undo.")
            .arg(number_in_words(px, px < 10 ? 1 : 0)),
        true);
}

bool Studio::placed() {
    if (!placing_.busy()) return true;
    say(tr("The frames are still being aligned. Wait until they are, or stop it."));
    return false;
}

void Studio::place_what_was_opened() {
    const Pile now = pile();
    const Model model = entry_of(now.outcome).model;
    if (model == Model::none) return;
    find_on<std::map<int, Alignment>>(
        placing_, tr("aligning"),
        [now, model](Job& job) { return places_of(now, model, now.reference, Zone::sky, job); },
        [this, now, model](const std::map<int, Alignment>& found) {
            // It belongs to opening: in every pile of the history, for which it is right.
            document_.find_out([&](Pile pile) {
                const bool as_opened =
                    method_of(pile, Zone::sky).model == Model::none && pile.reference == now.reference;
                return as_opened ? with_alignments(std::move(pile), model, now.reference, found) : pile;
            });
            if (pile().methods.sky.model == Model::none) {
                align(model, pile().reference);
                return;
            }
            say_unaligned(found);
            align_what_came(now);
        });
}

void Studio::align_what_came(const Pile& before) {
    const auto came = [&before](const Frame& f) {
        return usable(f) && f.role != Role::dark && !find_frame(before, f.id);
    };
    for (const Zone zone : both_zones) {
        const Model model = method_of(pile(), zone).model;
        if (model == Model::none || (zone == Zone::land && !pile().zones)) continue;
        const bool any = std::any_of(pile().frames.begin(), pile().frames.end(),
                                     [&](const Frame& f) { return came(f) && !f.places[zone]; });
        if (!any) continue;
        const Pile now = pile();
        find_on<std::map<int, Alignment>>(
            finding_, tr("aligning"),
            [now, model, zone](Job& job) { return align_frames(only_zone(now, zone), model, now.reference, job); },
            [this, model, zone, now](const std::map<int, Alignment>& found) {
                if (pile().reference != now.reference || method_of(pile(), zone).model != model) return;
                Pile next = pile();
                for (const auto& [id, place] : found)
                    if (const Frame* frame = find_frame(next, id); frame && !frame->places[zone])
                        next = with_alignment(std::move(next), id, place, zone);
                // They joined the pile as they lie: not a step of its own.
                document_.complete(std::move(next));
                align_what_came(now);
            });
        return;
    }
}

void Studio::take_zones(std::function<Result<Mask>(Job&)> find, const QString& what) {
    find_on<Mask>(finding_, within_sentence(what), std::move(find),
                  [this, what](const Mask& found) { document_.edit(with_zones(pile(), found), what); });
}

void Studio::suggest_zones() {
    if (!document_.open()) return;
    take_zones([now = pile(), store = stores_.frames()](Job& job) { return bp::suggest_sky(now, *store, job); },
               tr("Suggest sky and land"));
}

void Studio::snap_zones(double reach_px) {
    if (!document_.open()) return;
    take_zones([now = pile(), store = stores_.frames(),
                reach_px](Job& job) { return bp::snap_zones(now, reach_px, *store, job); },
               tr("Snap sky and land to edges"));
}

void Studio::mend_hot_pixels(bool on) {
    if (!document_.open()) return;
    if (!on) {
        document_.edit(with_hot_pixels(pile(), nullptr), tr("Leave hot pixels"));
        return;
    }
    find_on<HotPixels>(
        finding_, tr("looking for hot pixels"),
        [now = pile(), store = stores_.frames()](Job& job) { return search_hot_pixels(now, *store, job); },
        [this](HotPixels found) {
            const auto count = int(found.size());
            document_.edit(with_hot_pixels(pile(), std::make_shared<const HotPixels>(std::move(found))),
                           tr("Mend hot pixels"));
            say(tr("%n hot pixel(s) mended in all frames.", nullptr, count));
        });
}

void Studio::knit(bool on) {
    if (!document_.open()) return;
    const auto set = [this](bool to) {
        Knit knit = pile().knit;
        knit.on = to;
        document_.edit(with_knit(pile(), knit), to ? tr("Knit the breaks") : tr("Leave breaks open"));
    };
    if (!on) return set(false);
    find_on<std::shared_ptr<const MovingLights>>(
        finding_, tr("looking how the lights moved"),
        [now = pile(), store = stores_.frames()](Job& job) { return moving_lights(now, *store, job); },
        [this, set](const std::shared_ptr<const MovingLights>& lights) {
            if (!lights->sky && lights->own.empty()) {
                say(tr("How the stars moved could not be found: that needs four frames or more with their times, and "
                       "stars in the reference. Nor is there any other light that goes on through three frames."),
                    true);
                return;
            }
            set(true);
        });
}

void Studio::find_streaks() {
    if (!document_.open()) return;
    find_on<std::shared_ptr<const MovingLights>>(
        finding_, tr("looking for streaks"),
        [now = pile(), store = stores_.frames()](Job& job) { return moving_lights(now, *store, job); },
        [this](const std::shared_ptr<const MovingLights>& lights) {
            if (!lights->sky) {
                say(tr("Streaks are looked for among moving stars: that needs four frames or more with their times, "
                       "and stars in the reference. You can draw them by hand."),
                    true);
                return;
            }
            const auto count = int(lights->streaks.size());
            document_.edit(with_found_streaks(pile(), lights->streaks), tr("Find streaks"));
            say(count == 0 ? tr("No streaks were found.") : tr("%n streak(s) found.", nullptr, count));
        });
}

void Studio::find_subjects() {
    if (!document_.open()) return;
    find_on<std::vector<FoundSubject>>(
        finding_, tr("looking for what moves"),
        [now = pile(), store = stores_.frames()](Job& job) { return bp::find_subjects(now, *store, job); },
        [this](const std::vector<FoundSubject>& found) {
            if (found.empty()) {
                say(tr("Nothing was found that moves through the frames."));
                return;
            }
            document_.edit(with_subjects(pile(), found), tr("Find what moves"));
            say(tr("%n subject(s) found.", nullptr, int(found.size())));
        });
}

void Studio::find_shower() {
    if (!document_.open()) return;
    struct Shower {
        std::optional<std::map<int, Alignment>> places;
        int reference = 0;
        std::vector<Part> meteors;
    };
    find_on<Shower>(
        finding_, tr("looking for meteors"),
        [now = pile(), store = stores_.frames()](Job& job) -> Result<Shower> {
            Shower out;
            out.reference = now.reference;
            Pile placed = now;
            if (method_of(now, Zone::sky).model != Model::stars) {
                Result<std::map<int, Alignment>> places = align_frames(now, Model::stars, now.reference, job);
                if (!places.ok()) return places.failure();
                placed = with_alignments(std::move(placed), Model::stars, now.reference, places.value());
                out.places = std::move(places).value();
            }
            Result<std::vector<Part>> meteors = bp::find_shower(placed, *store, job);
            if (!meteors.ok()) return meteors.failure();
            out.meteors = std::move(meteors).value();
            return out;
        },
        [this](Shower found) {
            // The frames lie against another one by now.
            if (pile().reference != found.reference) return find_shower();
            const auto count = int(found.meteors.size());
            if (count == 0) {
                say(tr("No meteors were found."));
                return;
            }
            Pile next = pile();
            if (found.places) next = with_alignments(std::move(next), Model::stars, found.reference, *found.places);
            document_.edit(with_found_parts(std::move(next), PartOf::meteor, std::move(found.meteors)),
                           tr("Find meteors"));
            say(tr("%n meteor(s) laid over the picture.", nullptr, count));
        });
}

void Studio::take_place(int frame, Point at, int more, bool take) {
    if (!document_.open()) return;
    // What is already taken of it is what the picture shows: it is looked at without.
    Pile without = pile();
    if (!take || more > 0)
        std::erase_if(without.parts,
                      [frame](const Part& p) { return p.of == PartOf::painted && p.frame == frame && !p.place; });
    find_on<Mask>(
        finding_, tr("looking what belongs to the place"),
        [without = std::move(without), store = stores_.frames(), frame, at, more](Job& job) {
            return thing_at(without, frame, at, more, *store, job);
        },
        [this, frame, take](const Mask& place) {
            const int number = number_of(pile(), frame);
            if (place.empty()) {
                say(tr("There frame %1 shows what the picture shows.").arg(number));
                return;
            }
            auto [next, part] = with_taken(pile(), frame, place, take);
            document_.edit(std::move(next),
                           take ? tr("Take from frame %1").arg(number) : tr("Give back to what lies below"));
            emit place_taken(part);
        });
}

void Studio::find_alike(int frame, Point at, double reach, bool everywhere, std::function<void(const Mask&)> then) {
    if (!document_.open()) return;
    find_on<Mask>(
        finding_, tr("looking what is alike"),
        [now = pile(), store = stores_.frames(), frame, at, reach, everywhere](Job& job) {
            return like_at(now, frame, at, reach, everywhere, *store, job);
        },
        [then = std::move(then)](const Mask& alike) { then(alike); });
}

void Studio::check(std::function<void(const std::vector<Flawed>&)> then) {
    if (!document_.open()) return;
    find_on<std::vector<Flawed>>(
        finding_, tr("checking the picture"),
        [now = pile(), store = stores_.frames()](Job& job) { return flaws_of(now, *store, job); },
        [then = std::move(then)](const std::vector<Flawed>& flaws) { then(flaws); });
}

void Studio::mend_spots(std::vector<SpotPlace> places) {
    if (!document_.open() || places.empty()) return;
    const QString what = tr("measuring %n spot(s)", nullptr, int(places.size()));
    find_on<std::vector<SensorSpot>>(
        measuring_, what,
        [now = pile(), store = stores_.frames(),
         places = std::move(places)](Job& job) -> Result<std::vector<SensorSpot>> {
            std::vector<SensorSpot> out;
            for (const SpotPlace& place : places) {
                Result<SensorSpot> spot = measure_spot(now, place.at, place.radius_px, *store, job);
                if (!spot.ok()) return spot.failure();
                out.push_back(std::move(spot).value());
            }
            return out;
        },
        [this](const std::vector<SensorSpot>& found) {
            Pile next = pile();
            for (const SensorSpot& spot : found) next = with_spot(std::move(next), spot);
            document_.edit(std::move(next), tr("Mend %n sensor spot(s)", nullptr, int(found.size())));
        });
}

void Studio::guess_spots() {
    if (!document_.open()) return;
    find_on<std::vector<SpotGuess>>(
        finding_, tr("looking for sensor spots"),
        [now = pile(), store = stores_.frames()](Job& job) { return bp::guess_spots(now, *store, job); },
        [this](std::vector<SpotGuess> found) {
            spot_guesses_ = std::move(found);
            say(spot_guesses_.empty() ? tr("No sensor spots were found.")
                                      : tr("%n suspected sensor spot(s). Tick those that are dust, or click on them.",
                                           nullptr, int(spot_guesses_.size())));
            emit spots_guessed();
        });
}

void Studio::refine(int id) {
    if (!document_.open()) return;
    const Zone of = zone();
    find_on<Alignment>(
        finding_, tr("refining"),
        [now = pile(), id, of](Job& job) { return refine_frame(only_zone(now, of), id, job); },
        [this, id, of, reference = pile().reference](const Alignment& found) {
            if (!find_frame(pile(), id) || pile().reference != reference) {
                say(tr("The frame or the reference is another one now: refine again."));
                return;
            }
            // Where nothing is aligned yet, the others count as aligned where they are.
            Pile next = with_moved_by_hand(pile(), id, {}, of);
            document_.edit(with_alignment(std::move(next), id, found, of),
                           tr("Refine frame %1").arg(number_of(pile(), id)));
        });
}

void Studio::level(Levelling kind) {
    if (!document_.open()) return;
    if (kind == Levelling::off) {
        Pile next = pile();
        next.levelling = kind;
        document_.edit(std::move(next), tr("Level: off"));
        return;
    }
    find_on<std::map<int, LightGains>>(
        finding_, tr("levelling"),
        [now = pile(), kind, store = stores_.frames()](Job& job) { return measure_gains(now, kind, *store, job); },
        [this, kind, reference = pile().reference](const std::map<int, LightGains>& found) {
            if (pile().reference != reference) {
                level(kind);
                return;
            }
            document_.edit(with_gains(pile(), kind, found),
                           kind == Levelling::light ? tr("Level light") : tr("Level light and colour"));
            const auto left = std::count_if(pile().frames.begin(), pile().frames.end(), [](const Frame& f) {
                return usable(f) && f.role == Role::scene && !f.gains;
            });
            if (left > 0) say(tr("%n frame(s) could not be levelled: too dark, or clipped.", nullptr, int(left)), true);
        });
}

}  // namespace bp::app
