#include "engine/relink.h"

#include <algorithm>

#include "io/gather.h"
#include "pile/edits.h"
#include "pile/file.h"

namespace bp {

Result<Relinked> take_changed(const Pile& pile, Job& job) {
    Relinked out;
    job.begin("Reading the changed frames", long(pile.frames.size()));
    for (const Frame& frame : pile.frames) {
        if (job.stopped()) return stopped_failure();
        job.advance();
        if (!frame.changed) continue;
        Result<FrameFile> file = read_frame_file(frame.file->path);
        if (file.ok() && file.value().facts.size == pile.size)
            out.files[frame.id] = std::make_shared<const FrameFile>(std::move(file).value());
        else
            ++out.still_missing;
    }
    return out;
}

Pile with_files(Pile pile, const std::map<int, SharedFrameFile>& files) {
    for (const auto& [id, file] : files)
        if (const Frame* frame = find_frame(pile, id); frame && !usable(*frame))
            pile = with_file(std::move(pile), id, file);
    return pile;
}

Result<Relinked> relink(const Pile& pile, const std::filesystem::path& folder, Job& job) {
    Result<std::vector<std::filesystem::path>> files = gather_files({folder.string()});
    if (!files.ok()) return files.failure();
    std::vector<SharedFrameFile> offered;
    job.begin("Looking for frames", long(files.value().size()));
    for (const auto& path : files.value()) {
        if (job.stopped()) return stopped_failure();
        Result<FrameFile> file = read_frame_file(path);
        if (file.ok() && file.value().facts.size == pile.size)
            offered.push_back(std::make_shared<const FrameFile>(std::move(file).value()));
        job.advance();
    }
    Relinked out;
    for (const Frame& frame : pile.frames) {
        if (usable(frame)) continue;
        const auto pick = [&](auto same) {
            const auto found = std::find_if(offered.begin(), offered.end(), same);
            return found == offered.end() ? SharedFrameFile() : *found;
        };
        auto file = pick([&](const auto& f) { return f->hash == frame.file->hash; });
        if (!file) file = pick([&](const auto& f) { return f->path.filename() == frame.file->path.filename(); });
        if (file)
            out.files[frame.id] = file;
        else
            ++out.still_missing;
    }
    return out;
}

}  // namespace bp
