// How a picture is made, from the frames up: a base, merged from the frames of every zone; parts laid over it;
// finishing, done to the whole. What is asked of a picture goes through here (render.h): by window, export and all
// else.
#pragma once

#include "engine/base_tiles.h"
#include "engine/finishing.h"
#include "engine/in_step.h"
#include "engine/part_edges.h"

namespace bp {

// Where the rows of a picture go as they are made.
class RowSink {
  public:
    virtual ~RowSink() = default;
    // Once, before any row: rows of two of the plan's bands are in work at a time.
    virtual void begin([[maybe_unused]] const StripPlan& plan) {}
    // Memory for canvas row y, any thread.
    virtual std::uint16_t* row(int y) = 0;
    // The rows of a band are made. Called in order, one call at a time, while rows of the next band are made.
    virtual Status finish([[maybe_unused]] const Band& band) { return Done{}; }
    // Once, after all.
    virtual void end([[maybe_unused]] const StepTimes& spent) {}
};

// Of a pile at a level. It must live as long as the picture.
class Picture {
  public:
    // `finish`: what is done to the picture when it is composed.
    Picture(const Pile& pile, int level, FinishTools finish)
        : pile_(pile),
          level_(level),
          finish_(std::move(finish), pile.profile, pile.channels, at_level(canvas_of(pile), level)) {}

    // `region` of it. What `tiles` keep of the base is not merged again; null: nothing is kept.
    Result<Raster16> raster(FrameStore& store, const Rect& region, Job& job, BaseTiles* tiles) const;
    // The same row by row, in `sink`'s memory.
    Status rows(FrameStore& store, const Rect& region, Job& job, RowSink& sink) const;
    // Parts of the pile, from `first` to before `end`, laid over a picture of a region that has those below them.
    Result<Raster16> over(const Raster16& picture, const SolvedEdges& edges, std::size_t first, std::size_t end,
                          FrameStore& store, const Rect& region, Job& job) const {
        return composed(store, region, job, {&picture, edges, end, first});
    }
    // The picture of the base and the first `count` parts.
    Result<Raster16> first_parts(const SolvedEdges& edges, std::size_t count, FrameStore& store, const Rect& region,
                                 Job& job) const {
        return composed(store, region, job, {nullptr, edges, count});
    }
    // The edges of the parts that reach into a region, and of those that they lie on.
    Result<SolvedEdges> edges(FrameStore& store, const Rect& region, Job& job, BaseTiles* tiles) const;

  private:
    // The base, or one that is there already, and the first `parts` of the parts over it.
    struct Laying {
        const Raster16* base = nullptr;
        const SolvedEdges& edges;
        std::size_t parts;
        std::size_t first = 0;  // of those that are not laid yet
    };
    Result<Raster16> composed(FrameStore& store, const Rect& region, Job& job, const Laying& laying) const;
    Result<Raster16> merged(FrameStore& store, const Rect& region, Job& job, BaseTiles* tiles) const;

    const Pile& pile_;
    int level_;
    Finishing finish_;
};

}  // namespace bp
