#include "engine/export.h"

#include <algorithm>
#include <chrono>

#include "base/files.h"
#include "engine/cover.h"
#include "engine/render.h"
#include "pile/edits.h"

namespace bp {
namespace {

double seconds_since(std::chrono::steady_clock::time_point begin) {
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
}

// The frame whose file a failure names.
const Frame* broken_frame(const Pile& pile, const Failure& failure) {
    const auto found = std::find_if(pile.frames.begin(), pile.frames.end(),
                                    [&](const Frame& f) { return f.file->path.string() == failure.file; });
    return found == pile.frames.end() ? nullptr : &*found;
}

}  // namespace

Result<Exported> export_picture(const Pile& pile, const fs::path& file, const WriteOptions& options, Job& job) {
    for (const Frame& frame : pile.frames)
        if (same_file(frame.file->path, file))
            return Failure{Fault::output, file.string(),
                           file.filename().string() +
                               " is one of the frames. Originals are never written over: "
                               "choose another name."};
    if (!format_of(file))
        return Failure{
            Fault::wrong_call, file.string(),
            "The name " + file.filename().string() + " ends in no format that can be written: use .tif, .png or .jpg."};
    Exported out{pile, {}, 0, 0};
    // Nothing is read twice here, so nothing is kept.
    constexpr std::size_t keep_nothing = 0;
    FrameStore store(working_space(pile), keep_nothing);
    while (true) {
        if (merged_ids(out.pile).empty())
            return Failure{Fault::input, "", "No frame is left to merge: all are set aside, broken or not aligned."};
        out.area = output_area(out.pile);
        const auto begin = std::chrono::steady_clock::now();
        Result<Raster16> picture = render(out.pile, store, out.area, 0, job);
        out.render_s = seconds_since(begin);
        if (picture.ok()) {
            const auto rendered = std::chrono::steady_clock::now();
            job.begin("Writing " + file.filename().string(), 1);
            Status written = write_picture(file, picture.value(), out.pile.profile, options, merged_capture(out.pile));
            if (!written.ok()) return written.failure();
            job.advance();
            out.write_s = seconds_since(rendered);
            return out;
        }
        const Frame* broken = broken_frame(out.pile, picture.failure());
        if (picture.failure().fault != Fault::input || !broken || !usable(*broken)) return picture.failure();
        out.pile = with_problem(std::move(out.pile), broken->id, picture.failure().sentence);
    }
}

}  // namespace bp
