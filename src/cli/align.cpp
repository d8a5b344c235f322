#include <cmath>
#include <cstdio>
#include <iostream>
#include <nlohmann/json.hpp>

#include "cli/commands.h"
#include "cli/report.h"
#include "cli/words.h"
#include "engine/aligning.h"
#include "pile/edits.h"

namespace bp::cli {
namespace {

using nlohmann::json;

struct AlignOptions {
    FrameChoice frames;
    std::string model;
    std::string grid;
    std::string pile;
    bool json = false;
};

struct Grid {
    int columns = 0;
    int rows = 0;
};

bool parse_grid(const std::string& text, Grid& grid) {
    char rest = 0;
    return std::sscanf(text.c_str(), "%dx%d%c", &grid.columns, &grid.rows, &rest) == 2 && grid.columns >= 2 &&
           grid.rows >= 2 && grid.columns <= 1000 && grid.rows <= 1000;
}

json grid_json(const Grid& grid, Size size, const Placement& placed) {
    json out = json::array();
    for (int j = 0; j < grid.rows; ++j)
        for (int i = 0; i < grid.columns; ++i) {
            const Point p{(size.width - 1.0) * i / (grid.columns - 1), (size.height - 1.0) * j / (grid.rows - 1)};
            const Point r = placed.to_canvas(p);
            out.push_back({p.x, p.y, r.x, r.y});
        }
    return out;
}

json frame_json(const Pile& pile, const Frame& frame, const std::string& path, const Grid& grid) {
    json out{{"file", path}};
    if (!usable(frame)) {
        out["problem"] = frame.problem.english();
        out["aligned"] = false;
        return out;
    }
    const Alignment a = frame.places.sky.value_or(Alignment{});
    out.update(alignment_json(a));
    if (grid.columns > 0) out["grid"] = grid_json(grid, pile.size, a.placement());
    return out;
}

void print_table(const Pile& pile, const GivenPaths& paths) {
    std::printf("%-32s %10s %10s %10s %12s %10s %s\n", "frame", "shift x", "shift y", "turn deg", "residual px",
                "confidence", "aligned");
    for (const Frame& frame : pile.frames) {
        if (!usable(frame)) {
            std::printf("%-32s %s\n", paths.of(frame).c_str(), said(frame.problem).c_str());
            continue;
        }
        const Alignment a = frame.places.sky.value_or(Alignment{});
        const Point middle{(pile.size.width - 1) / 2.0, (pile.size.height - 1) / 2.0};
        const Point moved = a.to_reference(middle);
        const double turn = std::atan2(a.to_reference.m()[3], a.to_reference.m()[0]) * 180 / 3.14159265358979;
        std::printf("%-32s %10.3f %10.3f %10.4f %12.3f %10.3f %s\n", paths.of(frame).c_str(), moved.x - middle.x,
                    moved.y - middle.y, turn, a.residual_px, a.confidence, a.aligned ? "yes" : "no");
    }
}

Exit run_align(const AlignOptions& options, Context& context) {
    Grid grid;
    if (!options.grid.empty() && !parse_grid(options.grid, grid))
        return fail({Fault::wrong_call, "", "--grid takes columns x rows, e.g. 9x7, each from 2 to 1000."});
    Result<Chosen> opened = open_choice(options.frames, context.job);
    if (!opened.ok()) return fail(opened.failure());
    Pile pile = opened.value().pile;
    const GivenPaths& paths = opened.value().paths;
    const Model model = *model_named(options.model);
    auto alignments = align_frames(pile, model, pile.reference, context.job);
    if (!alignments.ok()) return fail(alignments.failure());
    pile = with_alignments(pile, model, pile.reference, alignments.value());
    if (!options.pile.empty()) {
        Status written = write_pile(pile, options.pile);
        if (!written.ok()) return fail(written.failure());
    }
    if (options.json) {
        json out{{"frames", json::array()}};
        for (const Frame& frame : pile.frames) out["frames"].push_back(frame_json(pile, frame, paths.of(frame), grid));
        std::cout << json_text(out) << '\n';
    } else {
        print_table(pile, paths);
    }
    return tell_problems(pile) ? Exit::some_frames_unused : Exit::done;
}

}  // namespace

Run add_align(CLI::App& app) {
    auto options = std::make_shared<AlignOptions>();
    std::vector<std::string> names;
    for (const ModelEntry& entry : models()) names.emplace_back(entry.name);
    app.add_option("--model", options->model, "How frames may have moved")->required()->check(CLI::IsMember(names));
    options->frames.add_to(app, true);
    app.add_option("--grid", options->grid, "Also print where CxR points of the frame fall in the reference");
    app.add_option("--pile", options->pile, "Also write the pile, aligned");
    app.add_flag("--json", options->json, "Print JSON");
    return [options](Context& context) { return run_align(*options, context); };
}

}  // namespace bp::cli
