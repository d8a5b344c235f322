#include "engine/finishing.h"

#include <algorithm>

#include "base/parallel.h"
#include "engine/cover.h"
#include "engine/finish_known.h"
#include "engine/noise_known.h"
#include "engine/placing_loss.h"
#include "engine/turning.h"
#include "engine/zone_rows.h"
#include "even/look_in_light.h"
#include "finish/curve_tool.h"
#include "finish/give_back.h"
#include "finish/stars.h"
#include "kernels/light_rows.h"
#include "pile/finish_edits.h"

namespace bp {
namespace {

// What is made at once: so many rows and columns that those around them, which are made for nothing else, are few
// beside them, and so few that what tools make of them stays in the caches.
constexpr int fewest_rows = 64;
constexpr int rows_of_reach = 6;
constexpr int tile_columns = 512;

class LookTool final : public FinishTool {
  public:
    LookTool(const Look& look, const Pile& pile) : look_(look, pile.profile, pile.channels) {}
    void run(Sheet& sheet, const Rect&) const override {
        for (int y = sheet.area.top; y < sheet.area.bottom(); ++y)
            look_.run(sheet.row(y), std::size_t(sheet.area.width));
    }

  private:
    LookInLight look_;
};

// Shares from 0 to 1, rounded; in floats, which the compiler makes vectors of.
std::uint8_t in_255(double share) {
    const float scaled = 255 * float(share) + 0.5F;
    return std::uint8_t(scaled);
}

// An area with tools of its own; without a shape and a mask all of its zone.
class PlaceTool final : public FinishTool {
  public:
    PlaceTool(const FinishPlace& place, FinishTools tools, const std::optional<Zones>& zones, int level)
        : tools_(std::move(tools)),
          mask_(place.mask),
          shape_(place.shape),
          soft_(place.soft),
          in_(zones ? place.in : PlaceIn::everywhere),
          strength_(float(place.strength)),
          level_(level) {
        if (in_ != PlaceIn::everywhere) sky_ = zones->soft;
    }
    int reach() const override { return reach_of(tools_); }
    void run(Sheet& sheet, const Rect& wanted) const override {
        if (reach() == 0) {
            for (int y = sheet.area.top; y < sheet.area.bottom(); ++y) change_row(sheet, y);
            return;
        }
        Sheet out = cut_out(sheet, wanted);
        const Rect canvas = sheet.area;
        run_tools(tools_, sheet, wanted, canvas);
        std::vector<std::uint8_t> share(std::size_t(wanted.width));
        for (int y = wanted.top; y < wanted.bottom(); ++y) {
            read_share(y, wanted.left, share);
            const float* made = sheet.row(y) + std::ptrdiff_t(wanted.left - sheet.area.left) * sheet.channels;
            kernels::mix_light(made, share.data(), strength_, share.size(), out.channels, out.row(y));
        }
        sheet = std::move(out);
    }

  private:
    // Only where the place is.
    void change_row(Sheet& sheet, int y) const {
        static thread_local std::vector<std::uint8_t> share;
        share.resize(std::size_t(sheet.area.width));
        read_share(y, sheet.area.left, share);
        const auto kept = [](std::uint8_t v) { return v != 0; };
        const auto first = std::find_if(share.begin(), share.end(), kept);
        if (first == share.end()) return;
        const auto end = std::find_if(share.rbegin(), share.rend(), kept).base();
        const auto from = int(first - share.begin()), pixels = int(end - first);
        const Rect there{sheet.area.left + from, y, pixels, 1};
        Sheet some = cut_out(sheet, there);
        for (const auto& tool : tools_) tool->run(some, there);
        kernels::mix_light(some.light.data(), &*first, strength_, std::size_t(pixels), sheet.channels,
                           sheet.row(y) + std::ptrdiff_t(from) * sheet.channels);
    }
    void read_share(int y, int left, std::vector<std::uint8_t>& share) const {
        read_place(y, left, share);
        if (in_ == PlaceIn::everywhere) return;
        static thread_local std::vector<std::uint8_t> sky;
        sky.resize(share.size());
        read_beyond(sky_, level_, y, left, int(sky.size()), sky.data());
        for (std::size_t x = 0; x < share.size(); ++x) {
            const int zone = in_ == PlaceIn::sky ? sky[x] : 255 - sky[x];
            share[x] = std::uint8_t((share[x] * zone + 127) / 255);
        }
    }
    // A pixel of the level stands in the middle of those that it is made of.
    void read_place(int y, int left, std::vector<std::uint8_t>& share) const {
        if (!shape_ && mask_.empty()) {
            std::fill(share.begin(), share.end(), std::uint8_t{255});
            return;
        }
        if (!shape_) {
            read_beyond(mask_, level_, y, left, int(share.size()), share.data());
            return;
        }
        const double unit = double(1 << level_), down = (y + 0.5) * unit - 0.5;
        const auto across = [&](int x) { return (x + 0.5) * unit - 0.5; };
        const Point way{shape_->to.x - shape_->from.x, shape_->to.y - shape_->from.y};
        const double square = way.x * way.x + way.y * way.y;
        if (shape_->kind == ShapeKind::ramp && square >= 1) {
            // Even along a row: share_at() by one multiplication.
            const double row = 1 - ((down - shape_->from.y) * way.y - shape_->from.x * way.x) / square;
            const double step = way.x / square;
            for (std::size_t x = 0; x < share.size(); ++x) {
                const double at = row - step * across(left + int(x));
                share[x] = in_255(std::min(std::max(at, 0.0), 1.0));
            }
            return;
        }
        std::fill(share.begin(), share.end(), std::uint8_t{0});
        const Rect inside = shape_->bounds();
        if (down < inside.top || down >= inside.bottom()) return;
        for (std::size_t x = 0; x < share.size(); ++x) {
            const double at = across(left + int(x));
            if (at >= inside.left && at < inside.right()) share[x] = in_255(share_at(*shape_, soft_, {at, down}));
        }
    }

    FinishTools tools_;
    Mask mask_, sky_;
    std::optional<DrawnShape> shape_;
    double soft_;
    PlaceIn in_;
    float strength_;
    int level_;
};

struct Making {
    const Pile& pile;
    int level;
    std::array<double, 3> luminance;
    double noise = 0;  // what is not asked for is not found
    std::shared_ptr<const GlowSurface> glow = nullptr;
    std::shared_ptr<const WideTones> wide = nullptr;
    MendSources mended_from = {};

    Rect canvas() const { return at_level(canvas_of(pile), level); }
};

void add(FinishTools& to, std::shared_ptr<const FinishTool> tool) {
    if (tool) to.push_back(std::move(tool));
}

bool smooths(const Detail& detail) {
    return detail.smooth > 0 || detail.smooth_colour > 0;
}

template <class Asks>
bool anywhere(const Finish& finish, const Asks& asks) {
    return asks(finish.detail) || std::any_of(finish.places.begin(), finish.places.end(),
                                              [&](const FinishPlace& p) { return p.on && asks(p.detail); });
}

// Whether anything asks how much noise there is.
bool smooths(const Finish& finish) {
    return anywhere(finish, [](const Detail& detail) { return smooths(detail); });
}

void add_wide(FinishTools& to, const Making& with, const Detail& detail) {
    if (detail.wide != 0 && with.wide) add(to, wide_tool(detail.wide / 100, with.luminance, with.wide, with.canvas()));
}

// In the sky alone, where there is one.
void add_stars(FinishTools& to, const Making& with) {
    const auto tool = stars_tool(with.pile.finish.detail.stars / 100, with.luminance, with.level);
    if (!tool) return;
    FinishPlace sky;
    sky.in = PlaceIn::sky;
    to.push_back(with.pile.zones
                     ? std::make_shared<const PlaceTool>(sky, FinishTools{tool}, with.pile.zones, with.level)
                     : tool);
}

void add_glow(FinishTools& to, const Making& with) {
    if (with.pile.finish.glow == 0 || !with.glow) return;
    ReadSky sky;
    if (with.pile.zones)
        sky = [zones = *with.pile.zones, level = with.level](int y, int left, int width, unsigned char* out) {
            read_sky(zones, level, y, left, width, out);
        };
    add(to, glow_tool(*with.glow, with.pile.finish.glow / 100, with.canvas(), std::move(sky)));
}

void add_place(FinishTools& to, const Making& with, const FinishPlace& place) {
    if (!place.on || place.strength == 0 || (!place.shape && place.mask.empty())) return;
    FinishTools tools;
    add(tools, smooth_tool(place.detail, with.noise, with.luminance, with.level));
    add(tools, stars_tool(place.detail.stars / 100, with.luminance, with.level));
    add_wide(tools, with, place.detail);
    if (place.look != Look{}) tools.push_back(std::make_shared<const LookTool>(place.look, with.pile));
    add(tools, local_tool(place.detail, with.luminance, with.level));
    add(tools, sharpen_tool(place.detail, with.luminance, with.level));
    if (!tools.empty())
        to.push_back(std::make_shared<const PlaceTool>(place, std::move(tools), with.pile.zones, with.level));
}

// What is mended is mended in the picture as it is; noise is taken away then, because all that follows would strengthen
// it; glow, stars and wide surroundings are of the light that was there; sharpness comes when tones are as they will
// be; the edges last, so that a place that is brightened there stays under them.
FinishTools tools_of(const Making& with) {
    const Pile& pile = with.pile;
    const Finish& finish = pile.finish;
    FinishTools out;
    // Smaller levels have none of what was taken.
    if (finish.give_back && with.level == 0) {
        const PlacedParts parts = placed_parts(pile);
        if (!parts.across.empty()) add(out, give_back_tool(parts.across, parts.down));
    }
    add(out, mend_tool(finish.mended, with.level, with.mended_from));
    add(out, smooth_tool(finish.detail, with.noise, with.luminance, with.level));
    add_glow(out, with);
    add_stars(out, with);
    add_wide(out, with, finish.detail);
    if (finish.look != Look{}) out.push_back(std::make_shared<const LookTool>(finish.look, pile));
    if (finish.curves != Curves{}) out.push_back(curve_tool(finish.curves));
    const bool coloured = pile.channels == 3;
    if (coloured && !finish.colours.empty()) out.push_back(range_tool(finish.colours, with.luminance));
    if (coloured && (finish.tints.dark_strength > 0 || finish.tints.bright_strength > 0))
        out.push_back(tint_tool(finish.tints, with.luminance));
    for (const FinishPlace& place : finish.places) add_place(out, with, place);
    add(out, local_tool(finish.detail, with.luminance, with.level));
    add(out, sharpen_tool(finish.detail, with.luminance, with.level));
    if (finish.edges.stops != 0)
        out.push_back(shade_tool(finish.edges, output_area(pile), Turn(pile).matrix(), with.level));
    return out;
}

}  // namespace

Result<FinishTools> finish_tools(const Pile& pile, int level, FrameStore& store, Job& job) {
    if (pile.finish == Finish{}) return FinishTools{};
    Making with{pile, level, pile.channels == 3 ? luminance_weights(pile.profile) : std::array<double, 3>{0, 1, 0}};
    if (smooths(pile.finish)) {
        const Result<double> noise = noise_known(pile, store, job);
        if (!noise.ok()) return noise.failure();
        with.noise = noise.value();
    }
    if (pile.finish.glow != 0) {
        const auto glow = glow_known(pile, store, job);
        if (!glow.ok()) return glow.failure();
        with.glow = glow.value();
    }
    if (anywhere(pile.finish, [](const Detail& detail) { return detail.wide != 0; })) {
        const auto wide = wide_known(pile, store, job);
        if (!wide.ok()) return wide.failure();
        with.wide = wide.value();
    }
    Result<MendSources> sources = mend_sources(pile, level, store, job);
    if (!sources.ok()) return sources.failure();
    with.mended_from = std::move(sources).value();
    return tools_of(with);
}

int finish_reach(const Pile& pile) {
    if (pile.finish == Finish{}) return 0;
    return reach_of(tools_of({pile, 0, {0, 1, 0}, 1}));
}

Finishing::Finishing(FinishTools tools, const Profile& profile, int channels, const Rect& canvas)
    : tools_(std::move(tools)),
      light_(tools_.empty() ? nullptr : light_there(profile, channels)),
      channels_(channels),
      canvas_(canvas),
      reach_(reach_of(tools_)) {}

int Finishing::rows_at_once() const {
    return std::max(fewest_rows, rows_of_reach * reach_);
}

void Finishing::make(const Rect& box, const std::function<const std::uint16_t*(int y)>& row_in,
                     const std::function<std::uint16_t*(int y)>& row_out) const {
    const Rect from = around(box);
    const int columns = (box.width + tile_columns - 1) / tile_columns;
    // All of one height: what a thin one reads around itself would be as much as it makes.
    const int rows = std::max(1, box.height / rows_at_once());
    parallel_each(0, columns * rows, [&](int i) {
        const int top = box.height * (i / columns) / rows, bottom = box.height * (i / columns + 1) / rows;
        const Rect tile =
            intersect({box.left + i % columns * tile_columns, box.top + top, tile_columns, bottom - top}, box);
        Sheet sheet(read_by(tools_, tile, canvas_), channels_);
        for (int y = sheet.area.top; y < sheet.area.bottom(); ++y)
            kernels::light_of(row_in(y) + std::ptrdiff_t(sheet.area.left - from.left) * channels_, sheet.row_samples(),
                              light_->tables(), sheet.row(y));
        run_tools(tools_, sheet, tile, canvas_);
        for (int y = tile.top; y < tile.bottom(); ++y)
            kernels::samples_of_light(sheet.row(y) + std::ptrdiff_t(tile.left - sheet.area.left) * channels_,
                                      std::size_t(tile.width) * std::size_t(channels_), light_->tables(),
                                      row_out(y) + std::ptrdiff_t(tile.left - box.left) * channels_);
    });
}

std::size_t Finishing::bytes(int width) const {
    // Of each tile in work a sheet, the one that a tool makes of it, and the planes beside them.
    constexpr std::size_t sheets = 4;
    const auto columns = std::size_t(std::min(width, tile_columns)) + 2 * std::size_t(reach_);
    const auto rows = std::size_t(rows_at_once()) + 2 * std::size_t(reach_);
    return tools_.empty()
               ? 0
               : std::size_t(threads_at_work()) * sheets * columns * rows * std::size_t(channels_) * sizeof(float);
}

}  // namespace bp
