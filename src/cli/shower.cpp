#include "engine/shower.h"

#include <cstdio>
#include <iostream>
#include <nlohmann/json.hpp>

#include "cli/commands.h"
#include "cli/report.h"
#include "engine/aligning.h"
#include "engine/render.h"
#include "pile/edits.h"

namespace bp::cli {
namespace {

using nlohmann::json;

struct ShowerOptions {
    FrameChoice frames;
    PartsOut out;
};

Exit run_shower(const ShowerOptions& options, Context& context) {
    Result<Chosen> opened = open_choice(options.frames, context.job);
    if (!opened.ok()) return fail(opened.failure());
    Pile pile = with_base(with_outcome(opened.value().pile, Outcome::shower), opened.value().pile.reference);
    Result<std::map<int, Alignment>> placed = align_frames(pile, Model::stars, pile.reference, context.job);
    if (!placed.ok()) return fail(placed.failure());
    pile = with_alignments(pile, Model::stars, pile.reference, placed.value());
    FrameStore store(working_space(pile), {0, MemoryBudget::of_machine().work_bytes});
    Result<std::vector<Part>> found = find_shower(pile, store, context.job);
    if (!found.ok()) return fail(found.failure());
    if (found.value().empty()) tell({"No meteors were found. The picture is the one frame."});
    pile = with_found_parts(std::move(pile), PartOf::meteor, std::move(found).value());
    const Result<Pile> written = write_parts(std::move(pile), options.out, store, context.job);
    if (!written.ok()) return fail(written.failure());
    const Pile& made = written.value();
    json meteors = json::array();
    for (const Part& part : made.parts) {
        const Frame& frame = *find_frame(made, part.frame);
        const Rect box = part.mask.bounds();
        const int number = number_of(made, part.frame);
        if (options.out.as_json)
            meteors.push_back({{"file", opened.value().paths.of(frame)},
                               {"frame", number},
                               {"box", {box.left, box.top, box.right(), box.bottom()}}});
        else
            std::printf("%4d  %5d %5d  %5d %5d  %s\n", number, box.left, box.top, box.right(), box.bottom(),
                        opened.value().paths.of(frame).c_str());
    }
    if (options.out.as_json) std::cout << json_text({{"meteors", meteors}}) << '\n';
    return tell_problems(made) ? Exit::some_frames_unused : Exit::done;
}

}  // namespace

Run add_shower(CLI::App& app) {
    auto options = std::make_shared<ShowerOptions>();
    options->frames.add_to(app, true);
    options->out.add_to(app, "the meteors that were laid over the frame");
    return [options](Context& context) { return run_shower(*options, context); };
}

}  // namespace bp::cli
