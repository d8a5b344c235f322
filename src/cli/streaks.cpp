#include <cstdio>
#include <iostream>
#include <nlohmann/json.hpp>

#include "cli/commands.h"
#include "cli/report.h"
#include "engine/moving_lights.h"
#include "engine/render.h"

namespace bp::cli {
namespace {

using nlohmann::json;

struct StreakOptions {
    FrameChoice frames;
    bool as_json = false;
};

Exit run_streaks(const StreakOptions& options, Context& context) {
    Result<Chosen> opened = open_choice(options.frames, context.job);
    if (!opened.ok()) return fail(opened.failure());
    const Pile& pile = opened.value().pile;
    FrameStore store(working_space(pile), {0, MemoryBudget::of_machine().work_bytes});
    const auto lights = moving_lights(pile, store, context.job);
    if (!lights.ok()) return fail(lights.failure());
    json list = json::array();
    for (const Streak& s : lights.value()->streaks) {
        const Frame& frame = *find_frame(pile, s.frame);
        const std::string kind(streak_kinds()[std::size_t(s.kind)].name);
        if (options.as_json)
            list.push_back({{"file", opened.value().paths.of(frame)},
                            {"frame", number_of(pile, s.frame)},
                            {"kind", kind},
                            {"thing", s.thing + 1},
                            {"confidence", s.line.confidence},
                            {"polyline", {{s.line.from.x, s.line.from.y}, {s.line.to.x, s.line.to.y}}},
                            {"width_px", s.line.width_px},
                            {"brightness_percent", s.line.brightness / 655.35}});
        else
            std::printf("%4d  %-9s  %7.1f %7.1f  %7.1f %7.1f  %5.1f px wide  %3.0f %% sure  %s\n",
                        number_of(pile, s.frame), kind.c_str(), s.line.from.x, s.line.from.y, s.line.to.x, s.line.to.y,
                        s.line.width_px, 100 * s.line.confidence, opened.value().paths.of(frame).c_str());
    }
    if (options.as_json) std::cout << json_text({{"streaks", list}}) << '\n';
    return tell_problems(pile) ? Exit::some_frames_unused : Exit::done;
}

}  // namespace

Run add_streaks(CLI::App& app) {
    auto options = std::make_shared<StreakOptions>();
    options->frames.add_to(app, true);
    app.add_flag("--json", options->as_json, "Print one JSON object");
    return [options](Context& context) { return run_streaks(*options, context); };
}

}  // namespace bp::cli
