#include "engine/growth.h"

#include <set>

#include "base/gate.h"
#include "base/parallel.h"
#include "cli/merge_options.h"
#include "engine/render.h"
#include "pile/file.h"
#include "pile/limits.h"

namespace bp::cli {
namespace {

struct GrowthOptions {
    MergeOptions merge;
    GrowthSettings growth;
    std::string out;
};

bool is_pile(const std::vector<std::string>& names) {
    return names.size() == 1 && std::filesystem::path(names.front()).extension() == ".pile";
}

// Of the options that are given one that says how frames are merged, which a pile says itself; empty for none.
std::string told_by_pile(const CLI::App& app) {
    static const std::set<std::string> others{"FRAME",   "out",   "fps",    "seconds", "hold",  "lines",
                                              "quality", "depth", "memory", "threads", "quiet", "progress"};
    for (const CLI::Option* option : app.get_options())
        if (option->count() > 0 && !others.contains(option->get_single_name())) return option->get_single_name();
    return {};
}

// A saved pile grows as it is; frames are merged as the options say.
Result<Asked> pile_to_grow(const GrowthOptions& options, const CLI::App& app, Job& job) {
    const std::vector<std::string>& names = options.merge.frames.names;
    if (!is_pile(names)) return pile_asked_for(options.merge, options.out, job);
    if (const std::string told = told_by_pile(app); !told.empty())
        return Failure{
            Fault::wrong_call, names.front(), {"--%1 is for frames: a pile says itself how it is merged.", {told}}};
    Result<LoadedPile> loaded = load_pile(names.front());
    if (!loaded.ok()) return loaded.failure();
    for (const Saying& remark : loaded.value().remarks) tell(remark);
    Asked out{std::move(loaded).value().pile, {}, {}, nullptr};
    out.store = std::make_unique<FrameStore>(working_space(out.pile), MemoryBudget{0, options.merge.memory});
    return out;
}

Exit run_growth(const GrowthOptions& options, const CLI::App& app, Context& context) {
    const ThreadLimit limit(options.merge.threads);
    MemoryGate::of_process().set_limit(options.merge.memory);
    Result<Asked> asked = pile_to_grow(options, app, context.job);
    if (!asked.ok()) return fail(asked.failure());
    Pile pile = asked.value().pile;
    pile.growth = options.growth;
    pile.growth.quality = options.merge.quality;
    Result<GrownFile> grown = export_growth(pile, options.out,
                                            {{pile.exporting.bits, pile.exporting.quality},
                                             options.merge.memory,
                                             Scratch::in_cache(),
                                             asked.value().store.get()},
                                            context.job);
    if (!grown.ok()) return fail(grown.failure());
    return tell_problems(grown.value().pile) ? Exit::some_frames_unused : Exit::done;
}

}  // namespace

Run add_growth(CLI::App& app) {
    auto options = std::make_shared<GrowthOptions>();
    app.add_option("-o,--out", options->out,
                   "The clip to write, .mp4 or .webm, or a new or empty folder for numbered .png pictures")
        ->required();
    app.add_option("--fps", options->growth.rate, "Pictures a second; default 24")
        ->check(CLI::Range(pile::lowest_rate, pile::highest_rate));
    app.add_option("--seconds", options->growth.seconds, "Until the picture is whole; default one frame a picture")
        ->check(CLI::Range(0.0, pile::longest_growth_s));
    app.add_option("--hold", options->growth.hold_s, "Seconds that the whole picture stays; default 2")
        ->check(CLI::Range(0.0, pile::longest_hold_s));
    app.add_option("--lines", options->growth.lines, "Lines of pixels that the pictures are high at most; default 1080")
        ->check(CLI::Range(pile::fewest_lines, pile::most_lines));
    options->merge.add_to(app);
    return [options, &app](Context& context) { return run_growth(*options, app, context); };
}

}  // namespace bp::cli
