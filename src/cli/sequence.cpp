#include <cstdio>
#include <iostream>
#include <nlohmann/json.hpp>

#include "cli/commands.h"
#include "cli/report.h"
#include "engine/render.h"
#include "engine/subjects.h"
#include "pile/edits.h"
#include "pile/limits.h"
#include "pile/outcomes.h"
#include "pile/part_edits.h"

namespace bp::cli {
namespace {

using nlohmann::json;

struct SequenceOptions {
    FrameChoice frames;
    PartsOut out;
    double spacing_percent = 100 * SequenceSettings{}.spacing;
    std::string on_top = "late";
};

Exit run_sequence(const SequenceOptions& options, Context& context) {
    Result<Chosen> opened = open_choice(options.frames, context.job);
    if (!opened.ok()) return fail(opened.failure());
    Pile pile = with_outcome(opened.value().pile, Outcome::sequence);
    const Model model = entry_of(Outcome::sequence).model;
    const std::size_t memory = MemoryBudget::of_machine().work_bytes;
    FrameStore store(working_space(pile), {0, memory});
    Result<std::map<int, Alignment>> placed = align_for_subjects(pile, model, store, context.job);
    if (!placed.ok()) return fail(placed.failure());
    pile = with_alignments(pile, model, pile.reference, placed.value());
    pile.sequence = {options.spacing_percent / 100, options.on_top == "early" ? OnTop::early : OnTop::late};
    const Result<std::vector<FoundSubject>> found = find_subjects(pile, store, context.job);
    if (!found.ok()) return fail(found.failure());
    store.set_budget({0, memory});
    if (found.value().empty())
        tell({"Nothing was found that moves through the frames. The picture is the cleared scene."});
    pile = with_subjects(std::move(pile), found.value());
    const Result<Pile> written = write_parts(std::move(pile), options.out, store, context.job);
    if (!written.ok()) return fail(written.failure());
    const Pile& made = written.value();
    json frames = json::array(), overlaps = json::array();
    for (const Part& part : made.parts) {
        if (!part.on) continue;
        const Frame& frame = *find_frame(made, part.frame);
        const Rect box = part.mask.bounds();
        const int number = number_of(made, part.frame);
        if (options.out.as_json)
            frames.push_back({{"file", opened.value().paths.of(frame)},
                              {"frame", number},
                              {"subject", part.subject},
                              {"box", {box.left, box.top, box.right(), box.bottom()}}});
        else
            std::printf("%4d  subject %d  %5d %5d  %5d %5d  %s\n", number, part.subject, box.left, box.top, box.right(),
                        box.bottom(), opened.value().paths.of(frame).c_str());
    }
    for (const auto& [below, above] : Sequence(made).overlaps(made))
        overlaps.push_back(
            {{"frames",
              {number_of(made, find_part(made, below)->frame), number_of(made, find_part(made, above)->frame)}}});
    if (options.out.as_json) std::cout << json_text({{"frames", frames}, {"overlaps", overlaps}}) << '\n';
    return tell_problems(made) ? Exit::some_frames_unused : Exit::done;
}

}  // namespace

Run add_sequence(CLI::App& app) {
    auto options = std::make_shared<SequenceOptions>();
    options->frames.add_to(app, true);
    options->out.add_to(app, "frames used, boxes, overlaps");
    app.add_option("--spacing", options->spacing_percent,
                   "How far apart the places of a subject lie, in per cent of its length; default 10")
        ->check(CLI::Range(0.0, 100 * pile::widest_spacing));
    app.add_option("--on-top", options->on_top, "Which places lie over others; default late")
        ->check(CLI::IsMember({"early", "late"}));
    return [options](Context& context) { return run_sequence(*options, context); };
}

}  // namespace bp::cli
