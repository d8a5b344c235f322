// What a pile does to its picture as a whole: which tools, in which order, and how rows go through them. The only place
// that says so.
#pragma once

#include <cstdint>
#include <functional>

#include "engine/light_there.h"
#include "engine/store.h"
#include "finish/sheet.h"
#include "pile/pile.h"

namespace bp {

// None where the pile's finish changes nothing. What a tool must know of the picture is measured by way of the store.
// The pile need not live on.
Result<FinishTools> finish_tools(const Pile& pile, int level, FrameStore& store, Job& job);

// Pixels of level 0 around a place that a change of the composed picture there shows in, at most.
int finish_reach(const Pile& pile);

// Brings boxes of a composed picture through tools, a tile of them a task.
class Finishing {
  public:
    // `canvas`: beyond it nothing is read; in pixels of the level.
    Finishing(FinishTools tools, const Profile& profile, int channels, const Rect& canvas);

    bool empty() const { return tools_.empty(); }
    int reach() const { return reach_; }
    // What a box is made from.
    Rect around(const Rect& box) const { return bp::around(box, reach_, canvas_); }
    // row_in(y): samples of row y of around(box), from its first column on; row_out(y) the same of the box.
    void make(const Rect& box, const std::function<const std::uint16_t*(int y)>& row_in,
              const std::function<std::uint16_t*(int y)>& row_out) const;
    // Rows that are best made together.
    int rows_at_once() const;
    // Memory that make() takes, at most, for boxes of this width.
    std::size_t bytes(int width) const;

  private:
    FinishTools tools_;
    std::shared_ptr<const LightThere> light_;
    int channels_;
    Rect canvas_;
    int reach_;
};

}  // namespace bp
