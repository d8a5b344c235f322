#include "engine/placed_rows.h"

#include <algorithm>

#include "kernels/warp.h"

namespace bp {

using kernels::Span;

RowReaches::RowReaches(const Placement& placed, int level, Size frame, const Rect& region, const Band& wanted)
    : frame_(frame), region_(region), wanted_(wanted) {
    if (placed.is_identity()) return;
    map_.emplace(at_level(placed, level), frame);
    spans_.reserve(std::size_t(region.height));
    rows_.reserve(std::size_t(region.height));
    const Span limits{region.left, region.right()};
    kernels::RowPlaces places(*map_, limits);
    for (int y = region.top; y < region.bottom(); ++y) {
        places.go_to(y);
        spans_.push_back(this->wanted(y) ? places.covered(limits) : Span{});
        if (spans_.back().empty()) {
            rows_.emplace_back(frame.height, 0);
            continue;
        }
        const kernels::Reach r = places.rows(spans_.back());
        rows_.emplace_back(std::clamp(r.first, 0, frame.height - 1), std::clamp(r.last, 0, frame.height - 1) + 1);
    }
}

std::pair<int, int> RowReaches::of(const Band& band) const {
    if (!map_) {
        const int first = std::max(band.first, wanted_.first);
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

std::vector<std::pair<int, int>> RowReaches::of(const std::vector<Band>& bands) const {
    std::vector<std::pair<int, int>> out;
    out.reserve(bands.size());
    for (const Band& band : bands) out.push_back(of(band));
    for (std::size_t i = out.size(); i-- > 1;) out[i - 1].first = std::min(out[i - 1].first, out[i].first);
    // What no band reads any more is not decoded either.
    int reached = 0;
    for (auto& [first, last] : out) {
        if (last == 0 && first == frame_.height) first = reached;
        last = std::max(first, last);
        reached = last;
    }
    return out;
}

int RowReaches::window(const std::vector<Band>& bands) const {
    const auto by_band = of(bands);
    int most = 1;
    for (std::size_t b = 0; b < by_band.size(); ++b) {
        const std::size_t held_from = resampled() || b == 0 ? b : b - 1;
        most = std::max(most, by_band[b].second - by_band[held_from].first);
    }
    return most;
}

bool RowReaches::lies_across() const {
    return std::any_of(rows_.begin(), rows_.end(),
                       [&](const auto& row) { return (row.second - row.first) * 10 > frame_.height; });
}

PlacedRows::PlacedRows(std::unique_ptr<FrameRows> rows, RowReaches reaches, const Rect& region, int channels,
                       const std::vector<Band>& bands)
    : rows_(std::move(rows)),
      reaches_(std::move(reaches)),
      region_(region),
      channels_(channels),
      by_band_(reaches_.of(bands)) {
    if (reaches_.resampled()) places_.emplace(reaches_.map(), Span{region.left, region.right()});
}

PlacedRows::PlacedRows(SharedTiles tiles, Care care, RowReaches reaches, const Rect& region, int channels,
                       const std::vector<Band>& bands)
    : tiles_(std::move(tiles)),
      care_(std::move(care)),
      reaches_(std::move(reaches)),
      region_(region),
      channels_(channels),
      by_band_(reaches_.of(bands)) {
    if (reaches_.resampled()) places_.emplace(reaches_.map(), Span{region.left, region.right()});
}

Status PlacedRows::read(std::size_t index, const Band& band) {
    if (tiles_) {
        resample_tiles(index, band);
        return Done{};
    }
    const std::size_t held_from = reaches_.resampled() || index == 0 ? index : index - 1;
    Status got = rows_->require(by_band_[held_from].first, by_band_[index].second);
    if (got.ok() && reaches_.resampled()) resample_rows(index, band);
    return got;
}

PlacedRows::Resampled& PlacedRows::spanned(std::size_t index, const Band& band) {
    Resampled& to = resampled_[index % 2];
    to.samples.resize(std::size_t(band.second - band.first) * stride());
    to.spans.assign(std::size_t(band.second - band.first), Span{});
    for (int y = band.first; y < band.second; ++y) {
        const Span span = reaches_.span_of(y);
        if (!span.empty()) to.spans[std::size_t(y - band.first)] = {span.begin - region_.left, span.end - region_.left};
    }
    return to;
}

void PlacedRows::warp(const AtHand& source, const Band& band, Span limits, Resampled& to) {
    for (int y = band.first; y < band.second; ++y) {
        const Span covered = to.spans[std::size_t(y - band.first)];
        const Span span{std::max(covered.begin + region_.left, limits.begin),
                        std::min(covered.end + region_.left, limits.end)};
        if (span.empty()) continue;
        std::uint16_t* out = to.samples.data() + std::size_t(y - band.first) * stride() +
                             std::size_t(span.begin - region_.left) * std::size_t(channels_);
        places_->go_to(y);
        if (source.wide.empty())
            kernels::warp_row(source.narrow.data(), source.from, channels_, *places_, span, out);
        else
            kernels::warp_row(source.wide.data(), source.from, channels_, *places_, span, out);
    }
}

void PlacedRows::resample_rows(std::size_t index, const Band& band) {
    const auto [first, last] = by_band_[index];
    AtHand source;
    source.from = {0, first};
    for (int y = first; y < last; ++y) {
        const SourceRow row = rows_->row(y);
        if (row.narrow)
            source.narrow.push_back(row.narrow);
        else
            source.wide.push_back(row.wide);
    }
    warp(source, band, {region_.left, region_.right()}, spanned(index, band));
}

// Piece by piece along the band, each with the box of the frame that it reaches: however far the frame is turned, the
// box is small.
void PlacedRows::resample_tiles(std::size_t index, const Band& band) {
    constexpr int piece = 256;
    Resampled& to = spanned(index, band);
    const Size size = tiles_->size();
    std::vector<std::uint16_t> memory;  // aligned for either kind of sample
    std::vector<std::uint16_t> undone, evened;
    for (int left = region_.left; left < region_.right(); left += piece) {
        const Span limits{left, std::min(left + piece, region_.right())};
        int low_x = size.width, high_x = -1, low_y = size.height, high_y = -1;
        for (int y = band.first; y < band.second; ++y) {
            const Span covered = to.spans[std::size_t(y - band.first)];
            const Span span{std::max(covered.begin + region_.left, limits.begin),
                            std::min(covered.end + region_.left, limits.end)};
            if (span.empty()) continue;
            places_->go_to(y);
            const kernels::Reach across = places_->columns(span);
            const kernels::Reach down = places_->rows(span);
            low_x = std::min(low_x, std::clamp(across.first, 0, size.width - 1));
            high_x = std::max(high_x, std::clamp(across.last, 0, size.width - 1));
            low_y = std::min(low_y, std::clamp(down.first, 0, size.height - 1));
            high_y = std::max(high_y, std::clamp(down.last, 0, size.height - 1));
        }
        if (high_x < low_x) continue;
        Rect box{low_x, low_y, high_x - low_x + 1, high_y - low_y + 1};
        // What mending looks at beside the box.
        if (care_.hot) box = intersect({box.left - 1, box.top - 1, box.width + 2, box.height + 2}, whole(size));
        const std::size_t samples = std::size_t(box.width) * std::size_t(channels_);
        const std::size_t box_stride = std::size_t(box.width) * tiles_->pixel_bytes();
        memory.resize(std::size_t(box.height) * box_stride / 2 + 1);
        auto* bytes = reinterpret_cast<std::uint8_t*>(memory.data());
        tiles_->read(box, bytes, box_stride);
        std::uint8_t* narrow = tiles_->bits() == 8 ? bytes : nullptr;
        std::uint16_t* wide = narrow ? nullptr : memory.data();
        if (care_.sensor.any()) {
            undone.resize(std::size_t(box.height) * samples);
            for (int y = 0; y < box.height; ++y) {
                const std::size_t at = std::size_t(y) * samples;
                if (narrow)
                    sensor_row(care_.sensor, box.top + y, box.left, box.width, channels_, narrow + at, &undone[at]);
                else
                    sensor_row(care_.sensor, box.top + y, box.left, box.width, channels_, wide + at, &undone[at]);
            }
            narrow = nullptr;
            wide = undone.data();
        }
        if (care_.hot && narrow) mend_box(*care_.hot, box, size.height, channels_, narrow, samples);
        if (care_.hot && wide) mend_box(*care_.hot, box, size.height, channels_, wide, samples);
        if (care_.evener) {
            evened.resize(std::size_t(box.height) * samples);
            const std::size_t pixels = std::size_t(box.height) * std::size_t(box.width);
            if (narrow)
                care_.evener->run(narrow, pixels, evened.data());
            else
                care_.evener->run(wide, pixels, evened.data());
            narrow = nullptr;
            wide = evened.data();
        }
        AtHand source;
        source.from = {box.left, box.top};
        for (int y = 0; y < box.height; ++y) {
            if (narrow)
                source.narrow.push_back(narrow + std::size_t(y) * samples);
            else
                source.wide.push_back(wide + std::size_t(y) * samples);
        }
        warp(source, band, limits, to);
    }
    const auto [first, last] = reaches_.of(band);
    if (first < last) tiles_->let_go(first, last);
}

FrameRow PlacedRows::row(std::size_t index, const Band& band, int y) const {
    if (reaches_.resampled()) {
        const Resampled& from = resampled_[index % 2];
        const auto at = std::size_t(y - band.first);
        return {nullptr, from.samples.data() + at * stride(), from.spans[at]};
    }
    const Size size = rows_->size();
    if (y >= size.height || !reaches_.wanted(y)) return {};
    const SourceRow row = rows_->row(y);
    const std::ptrdiff_t left = std::ptrdiff_t(region_.left - rows_->left()) * channels_;
    return {row.narrow ? row.narrow + left : nullptr,
            row.wide ? row.wide + left : nullptr,
            {0, std::min(region_.width, size.width - region_.left)}};
}

}  // namespace bp
