#include "practice/practice.h"

#include <cstdio>

#include "cli/commands.h"

namespace bp::cli {
namespace {

struct Options {
    std::string scene;
    std::string out;
    int frames = 0;
    std::string size = "1600x1067";
    std::string format = "jpeg";
    std::uint64_t seed = 1;
    double live = 0;
};

bool parse_size(const std::string& text, Size& size) {
    char rest = 0;
    return std::sscanf(text.c_str(), "%dx%d%c", &size.width, &size.height, &rest) == 2 && size.width >= 64 &&
           size.height >= 64 && size.width <= 20000 && size.height <= 20000;
}

Exit run(const Options& options, Context& context) {
    const practice::SceneEntry* scene = practice::scene_named(options.scene);
    practice::PracticeOptions to;
    if (!parse_size(options.size, to.size))
        return fail({Fault::wrong_call, "", "--size takes width x height, e.g. 1600x1067, each from 64 to 20000."});
    to.frames = options.frames;
    to.seed = options.seed;
    to.ending = options.format == "tiff"  ? ".tif"
                : options.format == "png" ? ".png"
                : options.format == "dng" ? ".dng"
                                          : ".jpg";
    to.live_s = options.live;
    const auto done = practice::practise(*scene, options.out, to, context.job);
    if (!done.ok()) return fail(done.failure());
    return Exit::done;
}

}  // namespace

Run add_practice(CLI::App& app) {
    auto options = std::make_shared<Options>();
    std::vector<std::string> names;
    for (const practice::SceneEntry& entry : practice::scenes()) names.emplace_back(entry.name);
    app.add_option("SCENE", options->scene, "The scene to photograph")->required()->check(CLI::IsMember(names));
    app.add_option("-o,--out", options->out, "The folder for the frames and truth/")->required();
    app.add_option("--frames", options->frames, "How many; default as the scene has")->check(CLI::Range(1, 10000));
    app.add_option("--size", options->size, "Width x height in pixels");
    app.add_option("--format", options->format, "jpeg, png, tiff (16 bit) or dng (raw)")
        ->check(CLI::IsMember({"jpeg", "png", "tiff", "dng"}));
    app.add_option("--seed", options->seed, "The same seed gives the same bytes");
    app.add_option("--live", options->live, "Write the frames one by one, so many seconds from one to the next")
        ->check(CLI::Range(0.01, 86400.0));
    return [options](Context& context) { return run(*options, context); };
}

}  // namespace bp::cli
