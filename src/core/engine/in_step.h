// Bringing the frames of a pile through a region in step, whatever is then done with their rows.
#pragma once

#include "base/job.h"
#include "engine/plan.h"
#include "engine/store.h"
#include "pile/pile.h"

namespace bp {

// Where a take lies that shows little of its frame: in some pixels, or in a box.
struct Elsewhere {
    Placement place;                      // of level 0
    std::shared_ptr<const RunMask> only;  // in pixels of level 1 of the canvas; null for
    Rect box = {};                        // canvas pixels of the level
};

// A frame placed somewhere. A frame may be taken several times, and is decoded once. Its rows are asked for between
// canvas rows `first` and `last` of the level alone; outside it covers nothing.
struct Take {
    int frame = 0;
    Zone zone = Zone::sky;
    Band rows = every_row;
    Softening softening = {};
    Look look = {};  // on top of the frame's own
    // Pixels of the frame, level 0, that do not vote where what is merged asks for votes: those at half and more. Null:
    // all vote.
    std::shared_ptr<const Mask> left_out;
    // Somewhere else than where the pile has the frame, and only there: what lies beside it is not made.
    std::optional<Elsewhere> elsewhere;
};
std::vector<Take> takes_of(const std::vector<int>& frames, Zone zone = Zone::sky);

struct InStep {
    const Pile& pile;
    FrameStore& store;
    std::vector<Take> takes;  // in the order in which their rows are handed over
    Rect region;              // canvas pixels of `level`
    int level = 0;
    std::size_t beside_bytes = 0;  // of memory that the work itself takes
};

// Where the time went, in seconds of all threads together.
struct StepTimes {
    double read_s = 0;    // decoding
    double place_s = 0;   // resampling
    double merge_s = 0;   // in StepWork::row
    double finish_s = 0;  // in StepWork::finish
};

// What is done with the rows.
class StepWork {
  public:
    virtual ~StepWork() = default;
    // Once, before any row.
    virtual void begin([[maybe_unused]] const StripPlan& plan) {}
    // Columns of canvas row y of every take; rows begin at the first column. The columns of a row come in one piece or
    // in several. Called from several threads at once, in any order within two bands that follow.
    virtual void row(int y, kernels::Span columns, const std::vector<FrameRow>& rows) = 0;
    // All rows of a band are done. Called in order, one call at a time, while rows of the next band are made.
    virtual Status finish([[maybe_unused]] const Band& band) { return Done{}; }
    // Once, after all.
    virtual void end([[maybe_unused]] const StepTimes& spent) {}
};

// Decoding of a band, merging of the one before it and finishing of the one before that share the cores. The job stands
// at one step a band when done.
Status bring_in_step(const InStep& what, Job& job, StepWork& work);

}  // namespace bp
