#include "cli/report.h"

#include <sys/resource.h>

#include <cmath>
#include <nlohmann/json.hpp>

#include "base/files.h"

namespace bp::cli {

std::string json_text(const nlohmann::json& json) {
    return json.dump(1, ' ', false, nlohmann::json::error_handler_t::replace);
}

nlohmann::json alignment_json(const Alignment& a) {
    nlohmann::json out{{"matrix", a.to_reference.m()},
                       {"residual_px", a.residual_px},
                       {"confidence", a.confidence},
                       {"aligned", a.aligned}};
    if (a.by_clock) out["by_clock"] = true;
    if (a.lens)
        out["lens"] = {{"middle_px", {a.lens->middle.x, a.lens->middle.y}},
                       {"unit_px", a.lens->unit},
                       {"k1", a.lens->k1},
                       {"k2", a.lens->k2}};
    if (a.flex) out["bent_px"] = a.flex->largest();
    if (a.sensor != Point{}) out["sensor_px"] = {a.sensor.x, a.sensor.y};
    return out;
}

Status write_report(const fs::path& file, const Exported& exported, const GivenPaths& paths, const Stages& stages) {
    using nlohmann::json;
    const Pile& pile = exported.pile;
    json out{{"mode", entry_of(pile.methods.sky.mode).name},
             {"align", name_of(pile.methods.sky.model)},
             {"even", name_of(pile.levelling)},
             {"frames", json::array()}};
    if (pile.zones)
        out["land"] = {{"mode", entry_of(pile.methods.land.mode).name}, {"align", name_of(pile.methods.land.model)}};
    if (pile.hot) out["hot_pixels"] = pile.hot->size();
    const auto useless = pile.darks == Darks::off ? std::map<int, Saying>() : useless_darks(pile);
    for (const Frame& frame : pile.frames) {
        json one{{"file", paths.of(frame)}, {"merged", merged(pile, frame)}};
        if (!frame.problem.empty()) one["reason"] = frame.problem.english();
        if (const auto found = useless.find(frame.id); found != useless.end()) one["reason"] = found->second.english();
        if (const DarkChoice darks = darks_of(pile, frame); !darks.ids.empty())
            one["less_darks"] = {{"count", darks.ids.size()}, {"scale", darks.scale}};
        if (pile.levelling != Levelling::off) one["level_gain"] = gains_of(pile, frame);
        if (pile.zones && frame.places.land && pile.methods.land.model != Model::none)
            one["land"] = alignment_json(*frame.places.land);
        if (frame.places.sky && pile.methods.sky.model != Model::none) {
            one.update(alignment_json(*frame.places.sky));
            if (lost(pile, frame)) one["reason"] = "could not be aligned to the reference";
        }
        out["frames"].push_back(std::move(one));
    }
    out["area_px"] = {exported.area.left, exported.area.top, exported.area.width, exported.area.height};
    out["time_s"] = {{"open", stages.open_s},     {"align", stages.align_s},   {"even", stages.even_s},
                     {"lights", stages.lights_s}, {"merge", exported.merge_s}, {"finish", exported.finish_s}};
    out["plan"] = {{"memory_bytes", stages.memory_bytes},
                   {"reckoned_bytes", exported.plan.peak_bytes},
                   {"band_rows", exported.plan.band_rows},
                   {"bands", exported.plan.bands.size()},
                   {"frames_in_scratch", exported.plan.frames_in_scratch}};
    out["thread_s"] = {{"decode", exported.spent.read_s},
                       {"place", exported.spent.place_s},
                       {"merge", exported.spent.merge_s},
                       {"write", exported.spent.finish_s}};
    if (stages.noise) {
        json levels = json::array();
        for (const NoiseLevel& level : stages.noise->levels)
            levels.push_back({{"brightness_percent", 100 * level.brightness},
                              {"frame_percent", 100 * level.frame},
                              {"result_percent", 100 * level.result}});
        out["noise"] = {{"gain_ev", stages.noise->gain_ev},
                        {"root_ev", std::log2(double(merged_ids(pile, Zone::sky).size())) / 2},
                        {"levels", levels}};
    }
    rusage usage{};
    ::getrusage(RUSAGE_SELF, &usage);
    out["peak_memory_bytes"] = std::int64_t(usage.ru_maxrss) * 1024;
    const std::string text = json_text(out) + '\n';
    return write_bytes(file, text);
}

}  // namespace bp::cli
