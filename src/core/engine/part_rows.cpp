#include "engine/part_rows.h"

#include <algorithm>
#include <cmath>

namespace bp {
namespace {

// Pixels of the level that a place leads those of a rectangle to.
Rect led_to(const Rect& from, const Matrix& matrix) {
    double left = 1e9, top = 1e9, right = -1e9, bottom = -1e9;
    for (const double x : {from.left - 1.0, double(from.right())})
        for (const double y : {from.top - 1.0, double(from.bottom())}) {
            const Point p = matrix({x, y});
            left = std::min(left, p.x);
            right = std::max(right, p.x);
            top = std::min(top, p.y);
            bottom = std::max(bottom, p.y);
        }
    const auto whole_pixel = [](double v) {
        constexpr double furthest = 1e8;
        return int(std::clamp(v, -furthest, furthest));
    };
    const int x = whole_pixel(std::floor(left)), y = whole_pixel(std::floor(top));
    return {x, y, whole_pixel(std::ceil(right)) + 1 - x, whole_pixel(std::ceil(bottom)) + 1 - y};
}

// A frame that is made small is softened first, so that nothing falls through between the samples that are taken.
Softening softening_for(double scale) {
    if (scale >= 1) return {};
    return {std::min(Softening::widest_px, std::sqrt(1 / (scale * scale) - 1)), false};
}

// One part where it covers.
class OnePart final : public StepWork {
  public:
    OnePart(const Pile& pile, const Part& part, const Rect& region, int level, PartAlone& out)
        : pile_(pile),
          region_(region),
          level_(level),
          out_(out),
          gathering_(pile, region, level),
          rows_(pile, part, nullptr, gathering_, level) {}
    const std::vector<Take>& takes() const { return gathering_.takes(); }
    void row(int y, kernels::Span columns, const std::vector<FrameRow>& rows) override {
        const SkyRow share(pile_, level_, y, columns);
        std::vector<std::uint16_t> scratch;
        const FrameRow row = rows_.over(y, columns, rows, share, scratch);
        if (row.cover.empty()) return;
        const int from = columns.begin - region_.left + row.cover.begin, count = row.cover.end - row.cover.begin;
        const int channels = pile_.channels;
        std::copy_n(row.wide + std::ptrdiff_t(row.cover.begin) * channels, count * channels,
                    out_.samples.row(y - region_.top) + std::ptrdiff_t(from) * channels);
        std::fill_n(out_.covered.row(y - region_.top) + from, count, std::uint8_t{255});
    }

  private:
    const Pile& pile_;
    Rect region_;
    int level_;
    PartAlone& out_;
    Gathering gathering_;
    PartRows rows_;
};

}  // namespace

std::size_t SolvedEdge::bytes() const {
    return sizeof *this + mask.bytes_beside(Mask()) + (light ? light->bytes() : 0);
}

LaidMask::LaidMask(const Pile& pile, const Part& part, int level)
    : mask_(&part.mask), level_(level), bounds_(at_level(part.mask.bounds(), level)) {
    if (!part.place || bounds_.empty()) return;
    const Matrix placed = matrix_of(*part.place, pile.size);
    const int coarser = std::clamp(int(std::floor(std::log2(1 / part.place->scale))), 0, 6);
    const int read_at = level + coarser;
    window_area_ = at_level(part.mask.bounds(), read_at);
    window_ = Raster8(window_area_.size(), 1);
    for (int y = 0; y < window_area_.height; ++y)
        part.mask.read_row(read_at, window_area_.top + y, window_area_.left, window_area_.width, window_.row(y));
    bounds_ = led_to(bounds_, at_level(placed, level));
    const double scale = std::ldexp(1.0, -coarser), shift = scale / 2 - 0.5;
    to_window_ = Matrix::shift(-window_area_.left, -window_area_.top) *
                 Matrix({scale, 0, shift, 0, scale, shift, 0, 0, 1}) * inverse(at_level(placed, level));
}

void LaidMask::read_row(int y, int left, int width, std::uint8_t* out) const {
    if (window_.width() == 0) {
        mask_->read_row(level_, y, left, width, out);
        return;
    }
    const auto at = [&](int u, int v) {
        return u < 0 || v < 0 || u >= window_.width() || v >= window_.height() ? 0.0 : double(window_.at(u, v, 0));
    };
    for (int i = 0; i < width; ++i) {
        const Point p = to_window_({double(left + i), double(y)});
        const double u = std::floor(p.x), v = std::floor(p.y), across = p.x - u, down = p.y - v;
        out[i] = 0;
        if (u < -1 || v < -1 || u >= window_.width() || v >= window_.height()) continue;
        const double above = at(int(u), int(v)) * (1 - across) + at(int(u) + 1, int(v)) * across;
        const double below = at(int(u), int(v) + 1) * (1 - across) + at(int(u) + 1, int(v) + 1) * across;
        out[i] = std::uint8_t(above * (1 - down) + below * down + 0.5);
    }
}

Rect reach_of(const Pile& pile, const Part& part) {
    const Rect bounds = part.mask.bounds();
    if (bounds.empty()) return {};
    const Rect laid = part.place ? led_to(bounds, matrix_of(*part.place, pile.size)) : bounds;
    if (part.edge == Edge::painted) return laid;
    const int by = int(std::ceil(band_of(pile, part) / 2));
    return {laid.left - by, laid.top - by, laid.width + 2 * by, laid.height + 2 * by};
}

PartRows::PartRows(const Pile& pile, const Part& part, SharedEdge edge, Gathering& gathering, int level)
    : pile_(pile),
      part_(part),
      edge_(std::move(edge)),
      gathering_(gathering),
      level_(level),
      curve_(LightCurve::of(pile.profile, pile.channels)) {
    if (!edge_) own_.emplace(pile, part, level);
    if (!part.place) {
        at_ = gathering.add(part.frame, part.look);
        return;
    }
    const Frame& frame = *find_frame(pile, part.frame);
    Rect box = at_level(reach_of(pile, part), level);
    constexpr int beside = 2;
    box = {box.left - beside, box.top - beside, box.width + 2 * beside, box.height + 2 * beside};
    placed_ =
        gathering.add(Take{part.frame, zone_of(pile, part), every_row, softening_for(part.place->scale), part.look,
                           frame.silence.empty() ? nullptr : std::make_shared<const Mask>(frame.silence),
                           Elsewhere{placement(pile, part), nullptr, box}});
}

Rect PartRows::bounds() const {
    if (own_) return own_->bounds();
    const Rect bounds = edge_->mask.bounds();
    return at_level(Rect{bounds.left + edge_->left, bounds.top + edge_->top, bounds.width, bounds.height}, level_);
}

FrameRow PartRows::over(int y, kernels::Span columns, const std::vector<FrameRow>& rows, const SkyRow& share,
                        std::vector<std::uint16_t>& scratch) const {
    std::vector<std::uint16_t> together, wide;
    const int channels = pile_.channels;
    FrameRow row = placed_ ? rows[*placed_] : gathering_.row(rows, at_, share, channels, together);
    if (row.cover.empty()) return {};
    const auto pixels = std::size_t(row.cover.end - row.cover.begin);
    const std::size_t from = std::size_t(row.cover.begin) * std::size_t(channels);
    const std::uint16_t* samples = widened(row, channels, wide);
    scratch.resize(from + pixels * std::size_t(channels));
    std::copy_n(samples, pixels * std::size_t(channels), scratch.data() + from);
    if (part_.lowered != std::array<double, 3>{})
        lower_light(scratch.data() + from, part_.lowered, pixels, channels, curve_);
    if (edge_ && edge_->light)
        change_light(scratch.data() + from, *edge_->light, level_, y, columns.begin + row.cover.begin, pixels, channels,
                     curve_);
    return {nullptr, scratch.data(), row.cover};
}

void PartRows::read_mask(int y, int left, int width, std::uint8_t* out) const {
    if (own_)
        own_->read_row(y, left, width, out);
    else
        edge_->mask.read_row(level_, y - edge_->top / (1 << level_), left - edge_->left / (1 << level_), width, out);
}

void PartRows::lay(int y, kernels::Span columns, const std::vector<FrameRow>& rows, const SkyRow& share,
                   std::uint16_t* out) const {
    const int width = columns.end - columns.begin;
    std::vector<std::uint8_t> mask(std::size_t(width), 0);
    read_mask(y, columns.begin, width, mask.data());
    const auto shows = [](std::uint8_t v) { return v > 0; };
    const auto first = std::find_if(mask.begin(), mask.end(), shows);
    if (first == mask.end()) return;
    std::vector<std::uint16_t> scratch;
    const FrameRow row = over(y, columns, rows, share, scratch);
    if (row.cover.empty()) return;
    const std::ptrdiff_t from = std::ptrdiff_t(row.cover.begin) * pile_.channels;
    entry_of(part_.join)
        .lay(row.wide + from, mask.data() + row.cover.begin, int(std::lround(255 * part_.strength)),
             std::size_t(row.cover.end - row.cover.begin), pile_.channels, curve_, out + from);
}

Result<PartAlone> part_alone(const Pile& pile, const Part& part, FrameStore& store, const Rect& region, int level,
                             Job& job) {
    PartAlone out{Raster16(region.size(), pile.channels), Raster8(region.size(), 1)};
    OnePart one(pile, part, region, level, out);
    const Status done = bring_in_step({pile, store, one.takes(), region, level, 0}, job, one);
    if (!done.ok()) return done.failure();
    return out;
}

}  // namespace bp
