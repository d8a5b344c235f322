#include "engine/turning.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "base/parallel.h"
#include "engine/base_rows.h"
#include "kernels/warp.h"
#include "pile/edits.h"

namespace bp {
namespace {

constexpr int kernel_reach = 4;  // rows and columns that resampling reads around a place, and a rounding

Rect around_of(const Rect& box, const Matrix& matrix) {
    double left = 1e18, top = 1e18, right = -1e18, bottom = -1e18;
    for (const Point corner :
         {Point{double(box.left), double(box.top)}, Point{box.right() - 1.0, double(box.top)},
          Point{double(box.left), box.bottom() - 1.0}, Point{box.right() - 1.0, box.bottom() - 1.0}}) {
        const Point p = matrix(corner);
        left = std::min(left, p.x);
        top = std::min(top, p.y);
        right = std::max(right, p.x);
        bottom = std::max(bottom, p.y);
    }
    const int x = int(std::floor(left)) - kernel_reach, y = int(std::floor(top)) - kernel_reach;
    return {x, y, int(std::ceil(right)) + kernel_reach + 1 - x, int(std::ceil(bottom)) + kernel_reach + 1 - y};
}

// Rows of the turned picture from pieces of the one before, which begins at the corner of the canvas.
class Resampling {
  public:
    Resampling(const Turn& turn, const Rect& region, int channels, const std::array<std::uint16_t, 3>& background)
        : region_(region),
          channels_(channels),
          background_(background),
          canvas_(turn.canvas()),
          map_(Placement(turn.matrix() * Matrix::shift(canvas_.left, canvas_.top)), canvas_.size()) {}

    // Rows from `first` to before `end`. rows_in[k]: row area.top + k of the canvas from column area.left on.
    void make(int first, int end, const std::vector<const std::uint16_t*>& rows_in, const Rect& area,
              const std::function<std::uint16_t*(int y)>& row_out) const {
        constexpr int together = 16;
        parallel_for(0, (end - first + together - 1) / together, [&](int i) {
            const kernels::Span limits{region_.left, region_.right()};
            kernels::RowPlaces places(map_, limits);
            const int begin = first + i * together;
            for (int y = begin; y < std::min(end, begin + together); ++y) {
                std::uint16_t* out = row_out(y);
                for (int x = 0; x < region_.width; ++x)
                    for (int c = 0; c < channels_; ++c) *out++ = background_[std::size_t(c)];
                out = row_out(y);
                places.go_to(y);
                const kernels::Span covered = places.covered(limits);
                if (covered.empty()) continue;
                const Rect at{area.left - canvas_.left, area.top - canvas_.top, area.width, area.height};
                kernels::warp_rows(kernels::RowsAtHand<std::uint16_t>{rows_in.data(), at}, channels_, places, y,
                                   std::span(&covered, 1),
                                   {out, std::size_t(region_.width) * std::size_t(channels_), region_.left});
            }
        });
    }
    // The last row of the canvas that a row of the turned picture is made from.
    int last_for(int y) const {
        kernels::RowPlaces places(map_, {region_.left, region_.right()});
        places.go_to(y);
        return canvas_.top + places.rows({region_.left, region_.right()}).last;
    }

  private:
    Rect region_;
    int channels_;
    std::array<std::uint16_t, 3> background_;
    Rect canvas_;
    kernels::SourceMap map_;
};

}  // namespace

Turn::Turn(const Pile& pile, int level) : canvas_(at_level(canvas_of(pile), level)) {
    if (pile.turn_deg == 0) return;
    const Point middle{(pile.size.width - 1) / 2.0, (pile.size.height - 1) / 2.0};
    there_ = at_level(Matrix::rigid(pile.turn_deg * std::numbers::pi / 180, middle, 0, 0), level);
    back_ = inverse(there_);
}

Rect Turn::made_from(const Rect& turned) const {
    return none() ? turned : intersect(around_of(turned, back_), canvas_);
}

Rect Turn::shown_in(const Rect& on_canvas) const {
    return none() || on_canvas.empty() ? on_canvas : around_of(on_canvas, there_);
}

Rect inside_turned(const Turn& turn, const Rect& on_canvas) {
    if (turn.none()) return on_canvas;
    const Point middle =
        turn.to_turned({on_canvas.left + (on_canvas.width - 1) / 2.0, on_canvas.top + (on_canvas.height - 1) / 2.0});
    const double c = std::abs(turn.matrix().m()[0]), s = std::abs(turn.matrix().m()[1]);
    const double w = on_canvas.width - 1, h = on_canvas.height - 1;
    const double scale = std::min(w / (w * c + h * s), h / (w * s + h * c));
    const double across = w * scale / 2, down = h * scale / 2;
    const int left = int(std::ceil(middle.x - across - 1e-6)), top = int(std::ceil(middle.y - down - 1e-6));
    return {left, top, std::max(1, int(std::floor(middle.x + across + 1e-6)) - left + 1),
            std::max(1, int(std::floor(middle.y + down + 1e-6)) - top + 1)};
}

Result<Raster16> turned(const Pile& pile, const Rect& region, int level,
                        const std::function<Result<Raster16>(const Rect& on_canvas)>& make) {
    const Turn turn(pile, level);
    if (turn.none()) return make(region);
    const Rect area = turn.made_from(region);
    const auto background = background_of(pile);
    if (area.empty()) {
        Raster16 out(region.size(), pile.channels);
        for (std::size_t i = 0; i < out.data().size(); ++i) out.data()[i] = background[i % std::size_t(pile.channels)];
        return out;
    }
    const Result<Raster16> made = make(area);
    if (!made.ok()) return made.failure();
    std::vector<const std::uint16_t*> rows;
    rows.reserve(std::size_t(area.height));
    for (int y = 0; y < made.value().height(); ++y) rows.push_back(made.value().row(y));
    Raster16 out(region.size(), made.value().channels());
    Resampling(turn, region, out.channels(), background).make(region.top, region.bottom(), rows, area, [&](int y) {
        return out.row(y - region.top);
    });
    return out;
}

Turner::Turner(const Pile& pile, const Rect& region, int level, RowSink& sink)
    : turn_(pile, level),
      region_(region),
      area_(turn_.made_from(region)),
      channels_(pile.channels),
      stride_(std::size_t(area_.width) * std::size_t(pile.channels)),
      background_(background_of(pile)),
      sink_(sink),
      next_(region.top) {
    const Resampling resampling(turn_, region_, channels_, background_);
    for (int y = region.top; y < region.bottom(); ++y)
        last_.push_back(std::clamp(resampling.last_for(y), area_.top, area_.bottom() - 1));
}

// Rows that one row of the turned picture runs across, those around them, and two bands in work.
int Turner::rows_held(const Turn& turn, const Rect& region, const Rect& area, int band_rows) {
    const int across = int(std::ceil(region.width * std::abs(turn.matrix().m()[1]))) + 4 * kernel_reach;
    return std::min(std::max(1, area.height), across + 2 * band_rows);
}

std::size_t Turner::bytes(const Pile& pile, const Rect& region, int level, int band_rows) {
    const Turn turn(pile, level);
    const Rect area = turn.made_from(region);
    return turn.none() ? 0
                       : std::size_t(rows_held(turn, region, area, band_rows)) * std::size_t(area.width) *
                             std::size_t(pile.channels) * sizeof(std::uint16_t);
}

void Turner::begin(const StripPlan& plan) {
    at_once_ = plan.band_rows;
    held_ = rows_held(turn_, region_, area_, plan.band_rows);
    rows_.resize(std::size_t(held_) * stride_);
    sink_.begin(plan);
}

Status Turner::finish(const Band& band) {
    while (next_ < region_.bottom()) {
        int end = next_;
        while (end < region_.bottom() && end - next_ < at_once_ &&
               (band.second == area_.bottom() || last_[std::size_t(end - region_.top)] < band.second))
            ++end;
        if (end == next_) break;
        std::vector<const std::uint16_t*> rows;
        for (int y = area_.top; y < area_.bottom(); ++y) rows.push_back(row(y));
        Resampling(turn_, region_, channels_, background_).make(next_, end, rows, area_, [&](int y) {
            return sink_.row(y);
        });
        const Band made{next_, end};
        next_ = end;
        if (Status done = sink_.finish(made); !done.ok()) return done;
    }
    return Done{};
}

}  // namespace bp
