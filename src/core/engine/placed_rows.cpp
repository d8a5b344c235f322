#include "engine/placed_rows.h"

#include <algorithm>

#include "kernels/warp.h"

namespace bp {

using kernels::Span;

RowReaches::RowReaches(const Matrix& placed, int level, Size frame, const Rect& region)
    : frame_(frame), region_(region) {
    if (placed.is_identity()) return;
    to_source_ = inverse(at_level(placed, level));
    rows_.reserve(std::size_t(region.height));
    for (int y = region.top; y < region.bottom(); ++y) {
        const Span span = span_of(y);
        if (span.empty()) {
            rows_.emplace_back(frame.height, 0);
            continue;
        }
        const kernels::RowReach r = kernels::rows_reached(*to_source_, y, span);
        rows_.emplace_back(std::clamp(r.first, 0, frame.height - 1), std::clamp(r.last, 0, frame.height - 1) + 1);
    }
}

Span RowReaches::span_of(int y) const {
    return kernels::covered_span(*to_source_, frame_, y, {region_.left, region_.right()});
}

std::pair<int, int> RowReaches::of(const Band& band) const {
    if (!to_source_) return {std::min(band.first, frame_.height), std::min(band.second, frame_.height)};
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
    for (auto& [first, last] : out) last = std::max(first, last);
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

PlacedRows::PlacedRows(std::unique_ptr<FrameRows> rows, RowReaches reaches, const Rect& region, int channels,
                       const std::vector<Band>& bands)
    : rows_(std::move(rows)),
      reaches_(std::move(reaches)),
      region_(region),
      channels_(channels),
      by_band_(reaches_.of(bands)) {}

Status PlacedRows::read(std::size_t index, const Band& band) {
    const std::size_t held_from = reaches_.resampled() || index == 0 ? index : index - 1;
    Status got = rows_->require(by_band_[held_from].first, by_band_[index].second);
    if (got.ok() && reaches_.resampled()) resample(index, band);
    return got;
}

void PlacedRows::resample(std::size_t index, const Band& band) {
    const auto [first, last] = by_band_[index];
    std::vector<const std::uint8_t*> narrow;
    std::vector<const std::uint16_t*> wide;
    for (int y = first; y < last; ++y) {
        const SourceRow row = rows_->row(y);
        if (row.narrow)
            narrow.push_back(row.narrow);
        else
            wide.push_back(row.wide);
    }
    Resampled& to = resampled_[index % 2];
    to.samples.resize(std::size_t(band.second - band.first) * stride());
    to.spans.assign(std::size_t(band.second - band.first), Span{});
    const Matrix& to_source = *reaches_.to_source();
    for (int y = band.first; y < band.second; ++y) {
        const Span span = reaches_.span_of(y);
        if (span.empty()) continue;
        std::uint16_t* out = to.samples.data() + std::size_t(y - band.first) * stride() +
                             std::size_t(span.begin - region_.left) * std::size_t(channels_);
        if (wide.empty())
            kernels::warp_row(narrow.data(), first, rows_->size(), channels_, to_source, y, span, out);
        else
            kernels::warp_row(wide.data(), first, rows_->size(), channels_, to_source, y, span, out);
        to.spans[std::size_t(y - band.first)] = {span.begin - region_.left, span.end - region_.left};
    }
}

FrameRow PlacedRows::row(std::size_t index, const Band& band, int y) const {
    if (reaches_.resampled()) {
        const Resampled& from = resampled_[index % 2];
        const auto at = std::size_t(y - band.first);
        return {nullptr, from.samples.data() + at * stride(), from.spans[at]};
    }
    const Size size = rows_->size();
    if (y >= size.height) return {};
    const SourceRow row = rows_->row(y);
    const std::ptrdiff_t left = std::ptrdiff_t(region_.left) * channels_;
    return {row.narrow ? row.narrow + left : nullptr,
            row.wide ? row.wide + left : nullptr,
            {0, std::min(region_.width, size.width - region_.left)}};
}

}  // namespace bp
