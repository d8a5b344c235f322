
#include "cli/commands.h"
#include "engine/export.h"
#include "pile/file.h"

namespace bp::cli {

Run add_render(CLI::App& app) {
    struct Options {
        std::string pile;
        std::string out;
    };
    auto options = std::make_shared<Options>();
    app.add_option("PILE", options->pile, "A saved pile")->required();
    app.add_option("-o,--out", options->out, "The picture to write: .tif, .png, .exr, .jxl, .webp, .jpg or .ora")
        ->required();
    return [options](Context& context) {
        Result<LoadedPile> loaded = load_pile(options->pile);
        if (!loaded.ok()) return fail(loaded.failure());
        for (const Saying& remark : loaded.value().remarks) tell(remark);
        const Pile& pile = loaded.value().pile;
        Result<Exported> exported =
            export_picture(pile, options->out, {{pile.exporting.bits, pile.exporting.quality}}, context.job);
        if (!exported.ok()) return fail(exported.failure());
        return tell_problems(exported.value().pile) ? Exit::some_frames_unused : Exit::done;
    };
}

}  // namespace bp::cli
