#include "engine/placed_rows.h"

#include <algorithm>
#include <cmath>
#include <optional>

#include "kernels/warp.h"

namespace bp {

using kernels::Span;

void add_wanted(const RunMask& mask, int level, int y, Span limits, std::vector<Span>& out) {
    const auto add = [&](Span span) {
        span = {std::max(span.begin, limits.begin), std::min(span.end, limits.end)};
        if (!span.empty()) out.push_back(span);
    };
    if (level == 0) {
        for (const RunMask::Run& run : mask.row(floor_div(y, 2))) add({2 * run.begin, 2 * run.end});
        return;
    }
    const std::size_t from = out.size();
    const int unit = 1 << (level - 1);
    for (int v = y * unit; v < (y + 1) * unit; ++v)
        for (const RunMask::Run& run : mask.row(v)) add({run.begin / unit, (run.end - 1) / unit + 1});
    std::sort(out.begin() + std::ptrdiff_t(from), out.end(),
              [](const Span& a, const Span& b) { return a.begin < b.begin; });
    std::size_t kept = from;
    for (std::size_t i = from; i < out.size(); ++i) {
        if (kept > from && out[kept - 1].end >= out[i].begin)
            out[kept - 1].end = std::max(out[kept - 1].end, out[i].end);
        else
            out[kept++] = out[i];
    }
    out.resize(kept);
}

RowReaches::RowReaches(const Placement& placed, int level, Size frame, const Rect& region, const Band& wanted)
    : frame_(frame), region_(region), wanted_(wanted) {
    if (placed.is_identity()) return;
    map_.emplace(at_level(placed, level), frame);
    reach_out({region.left, region.right()});
}

RowReaches::RowReaches(const Placement& placed, int level, Size frame, const Rect& region, const Rect& box)
    : frame_(frame), region_(region), wanted_(box.top, box.bottom()) {
    map_.emplace(at_level(placed, level), frame);
    const Rect within = intersect(box, region);
    reach_out({within.left, within.right()});
}

void RowReaches::reach_out(const Span& limits) {
    spans_.reserve(std::size_t(region_.height));
    rows_.reserve(std::size_t(region_.height));
    kernels::RowPlaces places(*map_, limits);
    for (int y = region_.top; y < region_.bottom(); ++y) {
        spans_.emplace_back();
        if (wanted(y) && !limits.empty()) {
            places.go_to(y);
            spans_.back() = places.covered(limits);
        }
        if (spans_.back().empty()) {
            rows_.emplace_back(frame_.height, 0);
            continue;
        }
        const kernels::Reach r = places.rows(spans_.back());
        rows_.emplace_back(std::clamp(r.first, 0, frame_.height - 1), std::clamp(r.last, 0, frame_.height - 1) + 1);
    }
}

namespace {

// The lowest and highest place in a frame, down, of canvas rows every `step` pixels of a region, by points along them.
// Motions are smooth: what lies between is off by less than a pixel.
struct RowsReached {
    static constexpr int step = 32;

    RowsReached(const Placement& placed, const Rect& region) {
        constexpr int points_apart = 256;
        for (int y = region.top; y < region.bottom() + step; y += step) {
            std::pair<double, double> reach{1e9, -1e9};
            for (int x = region.left;; x += points_apart) {
                const Point p = placed.to_frame({double(std::min(x, region.right() - 1)), double(y)});
                if (std::isfinite(p.y)) reach = {std::min(reach.first, p.y), std::max(reach.second, p.y)};
                if (x >= region.right() - 1) break;
            }
            reaches.push_back(reach);
        }
    }
    std::vector<std::pair<double, double>> reaches;
};

// A bit for each cell that some columns touch, which lie in 64 of them.
std::uint64_t cells_of(Span columns, int cell_width) {
    const int first = columns.begin / cell_width, last = (columns.end - 1) / cell_width;
    return (~std::uint64_t(0) << first) & (~std::uint64_t(0) >> (63 - last));
}

}  // namespace

RowReaches::RowReaches(const Placement& placed, int level, Size frame, const Rect& region, const RunMask& only)
    : frame_(frame), region_(region), only_(&only), level_(level) {
    constexpr int beside = 5;  // that resampling reads, and a pixel more
    constexpr double furthest = 1e6;
    const Placement at_this_level = at_level(placed, level);
    map_.emplace(at_this_level, frame, kernels::SourceMap::Knots::far);
    spans_.assign(std::size_t(region.height), {});
    rows_.assign(std::size_t(region.height), {frame.height, 0});
    const RowsReached reached(at_this_level, region);
    cell_width_ = region.width / 64 + 1;
    cells_.assign(std::size_t(region.height) / cell_rows + 1, 0);
    std::vector<Span> here;
    for (int i = 0; i < region.height; ++i) {
        here.clear();
        add_wanted(region.top + i, {region.left, region.right()}, here);
        if (here.empty()) continue;
        spans_[std::size_t(i)] = {here.front().begin, here.back().end};
        std::uint64_t& cells = cells_[std::size_t(i / cell_rows)];
        for (const Span& span : here)
            cells |= cells_of({span.begin - region.left, span.end - region.left}, cell_width_);
        const auto& above = reached.reaches[std::size_t(i / RowsReached::step)];
        const auto& below = reached.reaches[std::size_t(i / RowsReached::step) + 1];
        const auto row = [&](double y) { return int(std::floor(std::clamp(y, -furthest, furthest))); };
        const int first = std::max(0, row(std::min(above.first, below.first)) - beside);
        const int last = std::min(frame.height, row(std::max(above.second, below.second)) + beside + 2);
        if (first < last) rows_[std::size_t(i)] = {first, last};
    }
}

bool RowReaches::shows_in(const Rect& piece) const {
    if (!sparse()) return true;
    const std::uint64_t columns = cells_of({piece.left - region_.left, piece.right() - region_.left}, cell_width_);
    const int last = (piece.bottom() - 1 - region_.top) / cell_rows;
    for (int i = (piece.top - region_.top) / cell_rows; i <= last; ++i)
        if ((cells_[std::size_t(i)] & columns) != 0) return true;
    return false;
}

std::pair<int, int> RowReaches::of(const Band& band) const {
    if (!map_) {
        const int first = std::max({0, band.first, wanted_.first});
        const int last = std::min({band.second, wanted_.second, frame_.height});
        return first < last ? std::pair{first, last} : std::pair{frame_.height, 0};
    }
    std::pair<int, int> out{frame_.height, 0};
    for (int y = band.first; y < band.second; ++y) {
        const auto& row = rows_[std::size_t(y - region_.top)];
        out = {std::min(out.first, row.first), std::max(out.second, row.second)};
    }
    return out;
}

std::pair<int, int> RowNeeds::of(const Band& band) const {
    const int height = takes_.front().first->frame().height;
    std::pair<int, int> out{height, 0};
    for (const auto& [take, beside] : takes_) {
        const auto [first, last] = take->of(band);
        if (first >= last) continue;
        out = {std::min(out.first, std::max(0, first - beside)), std::max(out.second, std::min(height, last + beside))};
    }
    return out;
}

std::vector<std::pair<int, int>> RowNeeds::of(const std::vector<Band>& bands) const {
    const int height = takes_.front().first->frame().height;
    std::vector<std::pair<int, int>> out;
    out.reserve(bands.size());
    for (const Band& band : bands) out.push_back(of(band));
    for (std::size_t i = out.size(); i-- > 1;) out[i - 1].first = std::min(out[i - 1].first, out[i].first);
    // What no band reads any more is not decoded either.
    int reached = 0;
    for (auto& [first, last] : out) {
        if (last == 0 && first == height) first = reached;
        last = std::max(first, last);
        reached = last;
    }
    return out;
}

int RowNeeds::window(const std::vector<Band>& bands) const {
    const auto by_band = of(bands);
    int most = 1;
    for (std::size_t b = 0; b < by_band.size(); ++b) {
        most = std::max(most, by_band[b].second - by_band[b == 0 ? b : b - 1].first);
    }
    return most;
}

bool RowNeeds::lies_across() const {
    const int height = takes_.front().first->frame().height;
    const Rect& region = takes_.front().first->region();
    for (int y = region.top; y < region.bottom(); ++y) {
        const auto [first, last] = of(Band{y, y + 1});
        if (last - first > 1 && (last - first) * 10 > height) return true;
    }
    return false;
}

PlacedRows::PlacedRows(std::shared_ptr<const FrameRows> rows, const RowReaches& reaches, int channels)
    : rows_(std::move(rows)), reaches_(&reaches), channels_(channels) {}

PlacedRows::PlacedRows(SharedTiles tiles, Stages stages, const RowReaches& reaches, int channels)
    : tiles_(std::move(tiles)), stages_(std::move(stages)), reaches_(&reaches), channels_(channels) {}

void PlacedRows::take(const Rect& piece, std::uint16_t* samples, FrameRow* rows) const {
    if (!reaches_->resampled()) {
        for (int y = piece.top; y < piece.bottom(); ++y) rows[y - piece.top] = own_row(piece, y);
        return;
    }
    if (reaches_->sparse()) {
        take_sparse(piece, samples, rows);
        return;
    }
    static thread_local Workspace work;
    const std::size_t stride = std::size_t(piece.width) * std::size_t(channels_);
    work.spans.clear();
    bool any = false;
    for (int i = 0; i < piece.height; ++i) {
        const Span covered = reaches_->span_of(piece.top + i);
        Span span{std::max(covered.begin, piece.left), std::min(covered.end, piece.right())};
        if (span.empty()) span = {};
        any = any || !span.empty();
        rows[i] = {nullptr, samples + std::size_t(i) * stride,
                   span.empty() ? span : Span{span.begin - piece.left, span.end - piece.left}};
        work.spans.push_back(span);
    }
    if (!any) return;
    kernels::RowPlaces places(reaches_->map(), {piece.left, piece.right()});
    work.source.narrow.clear();
    work.source.wide.clear();
    if (rows_)
        rows_for(piece, work.source);
    else
        box_for(piece, places, work);
    warp(piece, work.source, places, work.spans, samples, false);
}

void PlacedRows::warp(const Rect& piece, const AtHand& source, kernels::RowPlaces& places, std::span<const Span> spans,
                      std::uint16_t* samples, bool held) const {
    const kernels::WarpTarget out{samples, std::size_t(piece.width) * std::size_t(channels_), piece.left};
    const auto from = [&](const auto& rows) {
        kernels::warp_rows({rows.data(), source.area}, channels_, places, piece.top, spans, out);
        if (held) kernels::hold_to_source({rows.data(), source.area}, channels_, places, piece.top, spans, out);
    };
    if (source.wide.empty())
        from(source.narrow);
    else
        from(source.wide);
}

// Rows are made in blocks, and of each only where something is wanted.
void PlacedRows::take_sparse(const Rect& piece, std::uint16_t* samples, FrameRow* rows) const {
    constexpr int block = 64;
    static thread_local Workspace work;
    const std::size_t stride = std::size_t(piece.width) * std::size_t(channels_);
    // Of every row what is wanted, and how far of it is done.
    work.wanted.clear();
    work.row_ends.clear();
    work.next.clear();
    for (int i = 0; i < piece.height; ++i) {
        work.next.push_back(work.wanted.size());
        if (!reaches_->span_of(piece.top + i).empty())
            reaches_->add_wanted(piece.top + i, {piece.left, piece.right()}, work.wanted);
        work.row_ends.push_back(work.wanted.size());
        rows[i] = {nullptr, samples + std::size_t(i) * stride, {}};
        if (work.next.back() == work.row_ends.back()) continue;
        rows[i].cover = {work.wanted[work.next.back()].begin - piece.left, work.wanted.back().end - piece.left};
    }
    if (work.wanted.empty()) return;
    work.source.narrow.clear();
    work.source.wide.clear();
    if (rows_) rows_for(piece, work.source);
    while (true) {
        // The leftmost block in which something is left to do.
        int left = piece.right();
        for (std::size_t i = 0; i < work.next.size(); ++i)
            if (work.next[i] < work.row_ends[i])
                left = std::min(left, floor_div(work.wanted[work.next[i]].begin, block) * block);
        if (left == piece.right()) return;
        kernels::RowPlaces places(reaches_->map(), Span{left, left + block});
        work.spans.clear();
        for (std::size_t i = 0; i < work.next.size(); ++i) {
            Span span;
            std::size_t& next = work.next[i];
            while (next < work.row_ends[i] && work.wanted[next].begin < left + block) {
                Span& wanted = work.wanted[next];
                span = {span.empty() ? wanted.begin : span.begin, std::min(wanted.end, left + block)};
                if (wanted.end > left + block) {
                    wanted.begin = left + block;
                    break;
                }
                ++next;
            }
            if (!span.empty()) {
                places.go_to(piece.top + int(i));
                // Beyond the frame there is no light.
                std::fill_n(samples + i * stride + std::ptrdiff_t(span.begin - piece.left) * channels_,
                            (span.end - span.begin) * channels_, std::uint16_t{0});
                span = places.covered(span);
            }
            work.spans.push_back(span);
        }
        if (std::all_of(work.spans.begin(), work.spans.end(), [](const Span& s) { return s.empty(); })) continue;
        if (!rows_) {
            work.source.narrow.clear();
            work.source.wide.clear();
            box_for(piece, places, work);
        }
        // What shows in few places is light that is moved: it is nowhere brighter than it was.
        warp(piece, work.source, places, work.spans, samples, true);
    }
}

FrameRow PlacedRows::own_row(const Rect& piece, int y) const {
    const Size size = rows_->size();
    if (y < 0 || y >= size.height || !reaches_->wanted(y)) return {};
    const SourceRow row = rows_->row(y);
    const std::ptrdiff_t left = std::ptrdiff_t(piece.left - rows_->left()) * channels_;
    return {row.narrow ? row.narrow + left : nullptr,
            row.wide ? row.wide + left : nullptr,
            {std::max(0, -piece.left), std::min(piece.width, size.width - piece.left)}};
}

void PlacedRows::rows_for(const Rect& piece, AtHand& out) const {
    const auto [first, last] = reaches_->of(Band{piece.top, piece.bottom()});
    out.area = {0, first, rows_->size().width, last - first};
    for (int y = first; y < last; ++y) {
        const SourceRow row = rows_->row(y);
        if (row.narrow)
            out.narrow.push_back(row.narrow);
        else
            out.wide.push_back(row.wide);
    }
}

// However far the frame is turned, the box that a piece reaches is small.
void PlacedRows::box_for(const Rect& piece, kernels::RowPlaces& places, Workspace& work) const {
    const Size size = tiles_->size();
    int low_x = size.width, high_x = -1, low_y = size.height, high_y = -1;
    for (int i = 0; i < piece.height; ++i) {
        const Span span = work.spans[std::size_t(i)];
        if (span.empty()) continue;
        places.go_to(piece.top + i);
        const kernels::Reach across = places.columns(span);
        const kernels::Reach down = places.rows(span);
        low_x = std::min(low_x, std::clamp(across.first, 0, size.width - 1));
        high_x = std::max(high_x, std::clamp(across.last, 0, size.width - 1));
        low_y = std::min(low_y, std::clamp(down.first, 0, size.height - 1));
        high_y = std::max(high_y, std::clamp(down.last, 0, size.height - 1));
    }
    const Rect box{low_x, low_y, high_x - low_x + 1, high_y - low_y + 1};
    const Samples from = samples_of(tiles_->bits());
    const void* made = work.box.make(stages_, from, channels_, size, box, [&](const Rect& area, void* out) {
        tiles_->read(area, static_cast<std::uint8_t*>(out), std::size_t(area.width) * tiles_->pixel_bytes());
    });
    const std::size_t stride = std::size_t(box.width) * std::size_t(channels_);
    AtHand& out = work.source;
    out.area = box;
    for (int y = 0; y < box.height; ++y) {
        const std::size_t at = std::size_t(y) * stride;
        if (made_by(stages_, from) == Samples::narrow)
            out.narrow.push_back(static_cast<const std::uint8_t*>(made) + at);
        else
            out.wide.push_back(static_cast<const std::uint16_t*>(made) + at);
    }
}

}  // namespace bp
