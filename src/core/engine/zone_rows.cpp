#include "engine/zone_rows.h"

#include <algorithm>
#include <utility>

#include "kernels/blend.h"
#include "kernels/extremes.h"

namespace bp {
namespace {

// Canvas rows of a level in which a zone has a share, as first and last row; all of them in a pile without zones.
Band rows_of(const Pile& pile, Zone zone, const Rect& region, int level) {
    if (!pile.zones) return every_row;
    std::vector<std::uint8_t> mask(std::size_t(region.width), 0);
    Band out{0, 0};
    bool found = false;
    for (int y = region.top; y < region.bottom(); ++y) {
        read_sky(*pile.zones, level, y, region.left, region.width, mask.data());
        const auto shares = [zone](std::uint8_t m) { return zone == Zone::sky ? m > 0 : m < 255; };
        if (std::none_of(mask.begin(), mask.end(), shares)) continue;
        if (!std::exchange(found, true)) out.first = y;
        out.second = y + 1;
    }
    return out;
}

// One frame as its zones lie: rows of both come together in `out`. It covers what each zone with a share there covers:
// the longest stretch of it.
FrameRow zones_together(const FrameRow& sky, const FrameRow& land, const SkyRow& share, int channels,
                        std::vector<std::uint16_t>& out) {
    out.assign(std::size_t(share.width()) * std::size_t(channels), 0);
    std::vector<std::uint16_t> scratch;
    for (const FrameRow* row : {&land, &sky}) {
        if (row->cover.empty()) continue;
        const std::uint16_t* samples = widened(*row, channels, scratch);
        const std::ptrdiff_t from = std::ptrdiff_t(row->cover.begin) * channels;
        const int pixels = row->cover.end - row->cover.begin;
        if (row == &land)
            std::copy_n(samples, pixels * channels, out.data() + from);
        else
            kernels::lay_over(samples, share.from(row->cover.begin), 255, std::size_t(pixels), channels,
                              out.data() + from);
    }
    const auto holds = [](const kernels::Span& span, int x) { return x >= span.begin && x < span.end; };
    kernels::Span best, run;
    for (int x = 0; x < share.width(); ++x) {
        const int sky_here = *share.from(x);
        if ((sky_here > 0 && !holds(sky.cover, x)) || (sky_here < 255 && !holds(land.cover, x))) continue;
        run = !run.empty() && run.end == x ? kernels::Span{run.begin, x + 1} : kernels::Span{x, x + 1};
        if (run.end - run.begin > best.end - best.begin) best = run;
    }
    return {nullptr, out.data(), best};
}

}  // namespace

void read_beyond(const Mask& mask, int level, int y, int left, int width, std::uint8_t* out) {
    const Size size = at_level(mask.size(), level);
    if (size.width == 0) {
        std::fill_n(out, width, std::uint8_t{0});
        return;
    }
    const int row = std::clamp(y, 0, size.height - 1);
    const int begin = std::clamp(left, 0, size.width - 1);
    const int end = std::clamp(left + width, begin + 1, size.width);
    // What lies beside the reference has the value of its first or last pixel.
    const int before = std::clamp(begin - left, 0, width - 1);
    const int inside = std::min(end - begin, width - before);
    mask.read_row(level, row, begin, inside, out + before);
    std::fill_n(out, before, out[before]);
    std::fill(out + before + inside, out + width, out[before + inside - 1]);
}

void read_sky(const Zones& zones, int level, int y, int left, int width, std::uint8_t* out) {
    read_beyond(zones.soft, level, y, left, width, out);
}

SkyRow::SkyRow(const Pile& pile, int level, int y, kernels::Span columns) : width_(columns.end - columns.begin) {
    if (!pile.zones) return;
    mask_.resize(std::size_t(width_));
    read_sky(*pile.zones, level, y, columns.begin, width_, mask_.data());
}

bool SkyRow::any() const {
    return mask_.empty() || std::any_of(mask_.begin(), mask_.end(), [](std::uint8_t m) { return m > 0; });
}

bool SkyRow::all() const {
    return std::all_of(mask_.begin(), mask_.end(), [](std::uint8_t m) { return m == 255; });
}

Gathering::Gathering(const Pile& pile, const Rect& region, int level) : pile_(pile) {
    for (const Zone zone : both_zones) rows_[zone] = rows_of(pile, zone, region, level);
}

std::size_t Gathering::add(int frame, Zone zone, const Softening& softening, const Look& look) {
    const auto known = std::find_if(takes_.begin(), takes_.end(), [&](const Take& t) {
        return t.frame == frame && t.zone == zone && t.softening == softening && t.look == look && !t.elsewhere;
    });
    const auto at = std::size_t(known - takes_.begin());
    if (known != takes_.end()) return at;
    const Frame* of = find_frame(pile_, frame);
    const bool all_votes = !of || of->silence.empty();
    takes_.push_back({frame, zone, rows_[zone], softening, look,
                      all_votes ? nullptr : std::make_shared<const Mask>(of->silence), std::nullopt});
    return at;
}

std::size_t Gathering::add(int frame, Elsewhere elsewhere) {
    const Frame& of = *find_frame(pile_, frame);
    takes_.push_back({frame,
                      Zone::sky,
                      rows_[Zone::sky],
                      {},
                      {},
                      of.silence.empty() ? nullptr : std::make_shared<const Mask>(of.silence),
                      std::move(elsewhere)});
    return takes_.size() - 1;
}

std::size_t Gathering::add(Take take) {
    takes_.push_back(std::move(take));
    return takes_.size() - 1;
}

FrameRow Gathering::row(const std::vector<FrameRow>& rows, const Places& at, const SkyRow& share, int channels,
                        std::vector<std::uint16_t>& scratch) const {
    return pile_.zones ? zones_together(rows[at.sky], rows[at.land], share, channels, scratch) : rows[at.sky];
}

const std::uint16_t* widened(const FrameRow& row, int channels, std::vector<std::uint16_t>& scratch) {
    const std::ptrdiff_t from = std::ptrdiff_t(row.cover.begin) * channels;
    if (row.wide) return row.wide + from;
    scratch.resize(std::size_t(row.cover.end - row.cover.begin) * std::size_t(channels));
    kernels::widen(row.narrow + from, scratch.size(), scratch.data());
    return scratch.data();
}

}  // namespace bp
