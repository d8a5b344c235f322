#include "engine/subjects.h"

#include <algorithm>

#include "base/median.h"
#include "base/parallel.h"
#include "engine/aligning.h"
#include "engine/zone_rows.h"
#include "kernels/beyond_noise.h"
#include "kernels/level.h"
#include "kernels/median.h"
#include "parts/shapes.h"
#include "parts/subjects.h"
#include "pile/edits.h"

namespace bp {
namespace {

// Outlines are found in pictures no larger than this, and all of a run's together take no more memory than this.
constexpr int outline_side = 2000;
constexpr std::size_t most_bytes = std::size_t(400) << 20;
constexpr std::size_t fewest_frames = 3;
// A thing of less than one in so many pixels is none; nor is a subject so much smaller than the largest.
constexpr std::size_t least_share = 8000;
constexpr std::size_t least_of_largest = 12;
// What goes along with a thing, as a piece of its mirror between reeds, may be so many times smaller.
constexpr std::size_t of_companion = 5;

// Noise is not taken for less than half a step of 8 bits, in samples of 16.
constexpr float least_deviation = 128;

// Holds every frame against the middle of all, row by row.
class HeldAgainstMiddle final : public StepWork {
  public:
    HeldAgainstMiddle(const Pile& pile, const std::vector<int>& ids, const Rect& region, int level)
        : pile_(pile), region_(region), level_(level), gathering_(pile, region, level) {
        for (const int id : ids) {
            at_.push_back(gathering_.add(id));
            by.emplace_back(region.size(), 1);
        }
    }
    const std::vector<Take>& takes() const { return gathering_.takes(); }

    void row(int y, kernels::Span columns, const std::vector<FrameRow>& rows) override {
        const int width = columns.end - columns.begin, channels = pile_.channels;
        const auto samples = std::size_t(width) * std::size_t(channels);
        const SkyRow share(pile_, level_, y, columns);
        std::vector<std::uint16_t> all(at_.size() * samples), together, scratch;
        std::vector<kernels::Span> covers;
        std::vector<const std::uint16_t*> pointers;
        for (std::size_t k = 0; k < at_.size(); ++k) {
            std::uint16_t* out = all.data() + k * samples;
            pointers.push_back(out);
            const FrameRow row = gathering_.row(rows, at_[k], share, channels, together);
            covers.push_back(row.cover);
            if (row.cover.empty()) continue;
            const int begin = row.cover.begin, end = row.cover.end;
            std::copy_n(widened(row, channels, scratch), (end - begin) * channels,
                        out + std::ptrdiff_t(begin) * channels);
            // What is not covered is as the nearest that is.
            for (int x = 0; x < width; ++x)
                if (x < begin || x >= end)
                    std::copy_n(out + std::ptrdiff_t(x < begin ? begin : end - 1) * channels, channels,
                                out + std::ptrdiff_t(x) * channels);
        }
        std::vector<std::uint16_t> middle(samples), distance(samples), apart(at_.size() * samples);
        kernels::median(pointers, samples, middle.data());
        std::vector<const std::uint16_t*> distances;
        for (std::size_t k = 0; k < at_.size(); ++k) {
            std::uint16_t* out = apart.data() + k * samples;
            kernels::distances(pointers[k], middle.data(), samples, out);
            distances.push_back(out);
        }
        kernels::median(distances, samples, distance.data());
        const std::vector<float> deviation = deviations_of(distance, width, channels);
        for (std::size_t k = 0; k < at_.size(); ++k) {
            if (covers[k].empty()) continue;
            const std::ptrdiff_t x = covers[k].begin, i = x * channels;
            kernels::beyond_noise(pointers[k] + i, middle.data() + i, deviation.data() + i,
                                  std::size_t(covers[k].end - covers[k].begin), channels,
                                  by[k].row(y - region_.top) + (columns.begin - region_.left) + x);
        }
    }

    std::vector<Differing> by;  // by frame, of the region

  private:
    // Of every sample: what its own differences tell, and no less than what they tell around it.
    static std::vector<float> deviations_of(const std::vector<std::uint16_t>& distance, int width, int channels) {
        constexpr int block = 64;
        std::vector<float> out(distance.size());
        std::vector<std::uint16_t> sorted;
        for (int begin = 0; begin < width; begin += block) {
            const int end = std::min(width, begin + block);
            for (int c = 0; c < channels; ++c) {
                sorted.clear();
                for (int x = begin; x < end; ++x)
                    sorted.push_back(distance[std::size_t(x) * std::size_t(channels) + std::size_t(c)]);
                const float noise = std::max(least_deviation, float(deviation_of_median) * middle_of(sorted));
                for (int x = begin; x < end; ++x) {
                    const std::size_t i = std::size_t(x) * std::size_t(channels) + std::size_t(c);
                    out[i] = std::max(noise, float(deviation_of_median) * distance[i]);
                }
            }
        }
        return out;
    }

    const Pile& pile_;
    Rect region_;
    int level_;
    Gathering gathering_;
    std::vector<Gathering::Places> at_;
};

// An outline of a level as a mask of the pile, soft by about a pixel of the level.
Mask mask_of(const SubjectPlace& place, int level, Size size) {
    Mask out(size);
    add_outline(out, place.mask, place.box, level);
    return out.softened(2.0 * (1 << level) + 1);
}

// The level that outlines of so many frames are found at.
int outline_level(const Pile& pile, std::size_t frames) {
    int level = level_within(pile.size, outline_side);
    const auto bytes = [&](int at) {
        const Size size = at_level(pile.size, at);
        return frames * std::size_t(size.width) * std::size_t(size.height);
    };
    while (bytes(level) > most_bytes) ++level;
    return level;
}

}  // namespace

Result<std::map<int, Alignment>> align_for_subjects(const Pile& pile, Model model, FrameStore& store, Job& job) {
    const std::size_t frames = merged_ids(with_mode(pile, Mode::median), Zone::sky).size();
    const int level = outline_level(pile, frames);
    const Size size = at_level(pile.size, level);
    const auto aligned = std::count_if(pile.frames.begin(), pile.frames.end(),
                                       [](const Frame& f) { return usable(f) && f.role != Role::dark; });
    const std::size_t all =
        std::size_t(aligned) * std::size_t(size.width) * std::size_t(size.height) * std::size_t(pile.channels);
    const MemoryBudget budget = store.budget();
    if (level != level_within(pile.size, measured_side) || all > budget.work_bytes / 2)
        return align_frames(pile, model, pile.reference, job);
    store.set_budget({std::max(budget.keep_bytes, all), budget.work_bytes});
    Result<std::map<int, Alignment>> out = align_and_keep(pile, model, pile.reference, store, job);
    // Frames some of which are at hand and some are not come more slowly than all in step.
    if (store.bytes() < all) store.set_budget(budget);
    return out;
}

Result<std::vector<FoundSubject>> find_subjects(const Pile& pile, FrameStore& store, Job& job) {
    const Pile plain = with_mode(pile, Mode::median);
    const std::vector<int> ids = merged_ids(plain, Zone::sky);
    if (ids.size() < fewest_frames)
        return Failure{Fault::wrong_call, "", "Subjects are found in three frames or more that are in."};
    const int level = outline_level(pile, ids.size());
    const Rect region = at_level(whole(pile.size), level);
    HeldAgainstMiddle work(plain, ids, region, level);
    Status done =
        bring_in_step({plain, store, work.takes(), region, level, ids.size() * work.by.front().bytes()}, job, work);
    if (!done.ok()) return done.failure();
    const std::size_t least = std::size_t(region.width) * std::size_t(region.height) / least_share;
    std::vector<std::vector<Thing>> things(ids.size());
    parallel_for(0, int(ids.size()), [&](int k) {
        if (!job.stopped()) things[std::size_t(k)] = things_in(work.by[std::size_t(k)], least / of_companion);
        work.by[std::size_t(k)] = {};
    });
    if (job.stopped()) return stopped_failure();
    std::vector<Subject> subjects = subjects_in(things, least);
    const auto area_of = [](const Subject& subject) {
        std::size_t area = 0;
        for (const SubjectPlace& place : subject.places)
            area += std::size_t(std::count(place.mask.data().begin(), place.mask.data().end(), 255));
        return area;
    };
    std::size_t largest = 0;
    for (const Subject& subject : subjects) largest = std::max(largest, area_of(subject));
    std::erase_if(subjects, [&](const Subject& s) { return area_of(s) * least_of_largest < largest; });
    std::vector<FoundSubject> out(subjects.size());
    std::vector<std::pair<const SubjectPlace*, FoundPlace*>> places;
    for (std::size_t s = 0; s < subjects.size(); ++s) {
        out[s].resize(subjects[s].places.size());
        for (std::size_t i = 0; i < out[s].size(); ++i) places.emplace_back(&subjects[s].places[i], &out[s][i]);
    }
    parallel_for(0, int(places.size()), [&](int i) {
        const auto& [place, found] = places[std::size_t(i)];
        *found = {ids[place->frame], mask_of(*place, level, pile.size)};
    });
    return out;
}

}  // namespace bp
