#include "engine/finish_known.h"

#include <algorithm>
#include <cmath>

#include "engine/light_there.h"
#include "engine/render.h"
#include "engine/turning.h"
#include "engine/zone_rows.h"
#include "pile/edits.h"
#include "pile/fingerprint.h"

namespace bp {
namespace {

constexpr int small_side = 512;

int small_level(const Pile& pile) {
    return level_within(canvas_of(pile).size(), small_side);
}

// All that makes the picture as it is composed.
Fingerprint composed_recipe(const Pile& pile) {
    Pile bare = pile;
    bare.finish = {};
    bare.exporting = {};
    bare.also.clear();
    bare.growth = {};
    bare.crop.reset();
    bare.turn_deg = 0;
    return pile::fingerprint(bare);
}

Pile base_alone(Pile pile) {
    pile.parts.clear();
    return pile;
}

constexpr std::size_t looked_at = 4, in_median = 15;

Result<Sheet> light_of(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job, int frame = 0) {
    const Result<Raster16> picture =
        frame == 0 ? composed(pile, store, region, level, job) : render_frame(pile, store, frame, region, level, job);
    if (!picture.ok()) return picture.failure();
    Sheet out(region, pile.channels);
    kernels::light_of(picture.value().data().data(), out.light.size(),
                      light_there(pile.profile, pile.channels)->tables(), out.light.data());
    return out;
}

// In memory.
struct KeptSheet {
    Sheet sheet;
    std::size_t bytes() const { return sheet.light.size() * sizeof(float); }
};

// All of the canvas, scaled down.
Result<std::shared_ptr<const KeptSheet>> small_picture(const Pile& pile, FrameStore& store, Job& job) {
    const Fingerprint key = derived_key("small picture", composed_recipe(pile));
    if (auto known = store.kept<KeptSheet>(key)) return known;
    const int level = small_level(pile);
    Result<Sheet> light = light_of(pile, store, at_level(canvas_of(pile), level), level, job);
    if (!light.ok()) return light.failure();
    auto out = std::make_shared<const KeptSheet>(KeptSheet{std::move(light).value()});
    store.keep(key, out);
    return out;
}

// One cell's light, where enough of it is sky.
std::optional<std::array<double, 3>> light_of_cell(const Sheet& sheet, const Rect& cell,
                                                   const std::vector<std::uint8_t>& sky) {
    constexpr int counts = 230;  // of 255, as sky
    constexpr double least_sky = 0.6, darker = 0.3;
    std::array<std::vector<float>, 3> values;
    for (int y = cell.top; y < cell.bottom(); ++y)
        for (int x = cell.left; x < cell.right(); ++x) {
            const std::size_t at =
                std::size_t(y - sheet.area.top) * std::size_t(sheet.area.width) + std::size_t(x - sheet.area.left);
            if (sky[at] < counts) continue;
            const float* p = sheet.row(y) + std::ptrdiff_t(x - sheet.area.left) * sheet.channels;
            for (int c = 0; c < sheet.channels; ++c) values[std::size_t(c)].push_back(p[c]);
        }
    if (double(values[0].size()) < least_sky * cell.width * cell.height || values[0].empty()) return std::nullopt;
    std::array<double, 3> out{};
    for (int c = 0; c < sheet.channels; ++c) {
        auto& of = values[std::size_t(c)];
        const auto at = of.begin() + std::ptrdiff_t(darker * double(of.size()));
        std::nth_element(of.begin(), at, of.end());
        out[std::size_t(c)] = *at;
    }
    return out;
}

}  // namespace

Result<std::shared_ptr<const GlowSurface>> glow_known(const Pile& pile, FrameStore& store, Job& job) {
    const Pile base = with_spread(base_alone(pile), looked_at);
    const Fingerprint key = derived_key("glow", composed_recipe(base));
    if (auto known = store.kept<GlowSurface>(key)) return known;
    const int level = small_level(pile);
    const Rect canvas = at_level(canvas_of(pile), level);
    const Result<std::shared_ptr<const KeptSheet>> kept = small_picture(base, store, job);
    if (!kept.ok()) return kept.failure();
    const Sheet& light = kept.value()->sheet;
    std::vector<std::uint8_t> sky(std::size_t(canvas.width) * std::size_t(canvas.height), 255);
    if (pile.zones)
        for (int y = 0; y < canvas.height; ++y)
            read_sky(*pile.zones, level, canvas.top + y, canvas.left, canvas.width,
                     sky.data() + std::size_t(y) * std::size_t(canvas.width));
    constexpr int side = 8;
    std::vector<SkySample> samples;
    for (int top = canvas.top; top < canvas.bottom(); top += side)
        for (int left = canvas.left; left < canvas.right(); left += side) {
            const Rect cell = intersect({left, top, side, side}, canvas);
            if (const auto of = light_of_cell(light, cell, sky))
                samples.push_back({(left + cell.width / 2.0 - canvas.left) / canvas.width,
                                   (top + cell.height / 2.0 - canvas.top) / canvas.height, *of});
        }
    auto out = std::make_shared<const GlowSurface>(fit_glow(samples, pile.channels));
    store.keep(key, out);
    return out;
}

Result<std::shared_ptr<const WideTones>> wide_known(const Pile& pile, FrameStore& store, Job& job) {
    const Pile few = with_spread(pile, looked_at);
    const Fingerprint key = derived_key("wide tones", composed_recipe(few));
    if (auto known = store.kept<WideTones>(key)) return known;
    const Result<std::shared_ptr<const KeptSheet>> kept = small_picture(few, store, job);
    if (!kept.ok()) return kept.failure();
    const auto luminance = pile.channels == 3 ? luminance_weights(pile.profile) : std::array<double, 3>{0, 1, 0};
    auto out = std::make_shared<const WideTones>(wide_tones(kept.value()->sheet, luminance));
    store.keep(key, out);
    return out;
}

Result<MendSources> mend_sources(const Pile& pile, int level, FrameStore& store, Job& job) {
    MendSources out;
    Pile median = with_spread(base_alone(pile), in_median);
    for (const Zone zone : both_zones) median = with_mode(std::move(median), Mode::median, zone);
    for (const Mended& one : pile.finish.mended) {
        if (!one.on || one.source == MendFrom::around || one.way.empty()) continue;
        const Frame* frame = find_frame(pile, one.frame);
        if (one.source == MendFrom::frame && (!frame || !usable(*frame))) continue;
        const Rect area = intersect(mending_area(one, level), at_level(canvas_of(pile), level));
        if (area.empty()) continue;
        const Fingerprint key = derived_key(
            "mended from", pile::fingerprint(composed_recipe(median), int(one.source), one.frame, area, level));
        std::shared_ptr<const KeptSheet> kept = store.kept<KeptSheet>(key);
        if (!kept) {
            Result<Sheet> light = light_of(one.source == MendFrom::median ? median : pile, store, area, level, job,
                                           one.source == MendFrom::frame ? one.frame : 0);
            if (!light.ok()) return light.failure();
            kept = std::make_shared<const KeptSheet>(KeptSheet{std::move(light).value()});
            store.keep(key, kept);
        }
        out[one.id] = std::shared_ptr<const Sheet>(kept, &kept->sheet);
    }
    return out;
}

Result<Raster16> render_glow(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job) {
    const Result<std::shared_ptr<const GlowSurface>> glow = glow_known(pile, store, job);
    if (!glow.ok()) return glow.failure();
    return turned(pile, region, level, [&](const Rect& area) -> Result<Raster16> {
        const Rect canvas = at_level(canvas_of(pile), level);
        Raster16 out(area.size(), pile.channels);
        const auto light = light_there(pile.profile, pile.channels);
        std::vector<std::uint8_t> sky(std::size_t(area.width), 255);
        std::vector<float> row(out.row_samples());
        for (int y = 0; y < area.height; ++y) {
            if (pile.zones) read_sky(*pile.zones, level, area.top + y, area.left, area.width, sky.data());
            float* to = row.data();
            for (int x = 0; x < area.width; ++x)
                for (int c = 0; c < pile.channels; ++c)
                    *to++ = float(glow.value()->at(c, (area.left + x + 0.5 - canvas.left) / canvas.width,
                                                   (area.top + y + 0.5 - canvas.top) / canvas.height) *
                                  sky[std::size_t(x)] / 255);
            kernels::samples_of_light(row.data(), row.size(), light->tables(), out.row(y));
        }
        return out;
    });
}

}  // namespace bp
