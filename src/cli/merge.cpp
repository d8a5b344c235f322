#include "base/gate.h"
#include "base/parallel.h"
#include "cli/merge_options.h"
#include "engine/export.h"
#include "engine/merge_noise.h"
#include "pile/file.h"

namespace bp::cli {
namespace {

struct OutOptions {
    MergeOptions merge;
    std::string out;
    std::string pile;
    std::string report;
};

Exit run_merge(const OutOptions& options, Context& context) {
    if (options.out.empty() && options.pile.empty())
        return fail({Fault::wrong_call, "", "Say where to write: -o for the picture, --pile for the pile, or both."});
    if (options.out.empty() && !options.report.empty())
        return fail({Fault::wrong_call, "", "--report tells of the picture that -o names, and none is written."});
    const auto place = [](const std::string& name) { return fs::weakly_canonical(fs::absolute(name)); };
    for (const std::string& other : {options.out, options.pile})
        if (!options.report.empty() && !other.empty() && place(other) == place(options.report))
            return fail({Fault::wrong_call,
                         options.report,
                         {"--report would write over %1, which is written, too. Choose another name.", {other}}});
    const ThreadLimit limit(options.merge.threads);
    MemoryGate::of_process().set_limit(options.merge.memory);
    Result<Asked> asked = pile_asked_for(options.merge, options.out, context.job);
    if (!asked.ok()) return fail(asked.failure());
    const Pile& pile = asked.value().pile;
    Stages& stages = asked.value().stages;
    FrameStore& store = *asked.value().store;
    // Before the work, not after it.
    for (const std::string& file : {options.report, options.pile})
        if (const Status kept = file.empty() ? Status(Done{}) : keeps_originals(pile, file); !kept.ok())
            return fail(kept.failure());
    if (options.out.empty()) {
        Status written = write_pile(pile, options.pile);
        if (!written.ok()) return fail(written.failure());
        return tell_problems(pile) ? Exit::some_frames_unused : Exit::done;
    }
    Result<Exported> exported = export_picture(pile, options.out,
                                               {{pile.exporting.bits, pile.exporting.quality},
                                                options.merge.memory,
                                                Scratch::in_cache(),
                                                &store,
                                                options.report.empty() ? Size{} : noise_looked_at},
                                               context.job);
    if (!exported.ok()) return fail(exported.failure());
    if (!options.pile.empty()) {
        // Without the frames that turned out to be broken, as the picture is.
        Status written = write_pile(exported.value().pile, options.pile);
        if (!written.ok()) return fail(written.failure());
    }
    if (!options.report.empty()) {
        const Pile& merged = exported.value().pile;
        if (merged_ids(merged, Zone::sky).size() > 1) {
            Result<Noise> noise = noise_of_merge(merged, store, Zone::sky, exported.value().kept_area,
                                                 exported.value().kept, context.job);
            if (noise.ok()) stages.noise = std::move(noise).value();
        }
        Status reported = write_report(options.report, exported.value(), asked.value().paths, stages);
        if (!reported.ok()) return fail(reported.failure());
    }
    return tell_problems(exported.value().pile) ? Exit::some_frames_unused : Exit::done;
}

}  // namespace

Run add_merge(CLI::App& app) {
    auto options = std::make_shared<OutOptions>();
    app.add_option("-o,--out", options->out, "The picture to write: .tif, .png, .exr, .jxl, .webp, .jpg or .ora");
    app.add_option("--pile", options->pile,
                   "Also (or, without -o, only) write the pile; render of it gives the picture");
    app.add_option("--report", options->report, "Write what was done as JSON");
    options->merge.add_to(app);
    return [options](Context& context) { return run_merge(*options, context); };
}

}  // namespace bp::cli
