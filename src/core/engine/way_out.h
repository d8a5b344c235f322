// The way of a picture's rows to whoever writes them: made smaller, sharpened for it, and brought to a profile, as the
// pile's export settings say.
#pragma once

#include <functional>
#include <optional>

#include "engine/finishing.h"
#include "engine/picture.h"
#include "io/writer.h"

namespace bp {

// The profile that a picture of the pile is written in.
Profile exported_profile(const Pile& pile);
// What stands in a file of it.
PictureHead exported_head(const Pile& pile);

class WayOut {
  public:
    // Of output_area() of the pile.
    static Result<WayOut> of(const Pile& pile);

    const Rect& area() const { return area_; }
    // That is written.
    Size size() const { return size_; }
    bool smaller() const { return size_ != area_.size(); }
    const std::optional<Conversion>& conversion() const { return conversion_; }
    // Memory that it takes beside the picture.
    std::size_t bytes() const { return bytes_; }

    // All of the picture, by render_to(). `between` may put something between the picture and the way out, which sees
    // rows of area(), and gives it back.
    Status write(const Pile& pile, FrameStore& store, Job& job, RowWriter& writer,
                 const std::function<RowSink&(RowSink&)>& between) const;

  private:
    WayOut() = default;

    Rect area_;
    Size size_;
    std::size_t bytes_ = 0;
    std::optional<Conversion> conversion_;
};

}  // namespace bp
