#include "engine/relink.h"

#include <algorithm>

#include "io/gather.h"
#include "pile/edits.h"
#include "pile/file.h"

namespace bp {

Result<Relinked> relink(const Pile& pile, const std::filesystem::path& folder, Job& job) {
    Result<std::vector<std::filesystem::path>> files = gather_files({folder.string()});
    if (!files.ok()) return files.failure();
    std::vector<std::shared_ptr<const FrameFile>> offered;
    job.begin("Looking for frames", long(files.value().size()));
    for (const auto& path : files.value()) {
        if (job.stopped()) return stopped_failure();
        Result<FrameFile> file = read_frame_file(path);
        if (file.ok() && file.value().facts.size == pile.size)
            offered.push_back(std::make_shared<const FrameFile>(std::move(file).value()));
        job.advance();
    }
    Relinked out{pile, 0, 0};
    for (const Frame& frame : pile.frames) {
        if (usable(frame)) continue;
        const auto pick = [&](auto same) {
            const auto found = std::find_if(offered.begin(), offered.end(), same);
            return found == offered.end() ? nullptr : *found;
        };
        auto file = pick([&](const auto& f) { return f->hash == frame.file->hash; });
        if (!file) file = pick([&](const auto& f) { return f->path.filename() == frame.file->path.filename(); });
        if (file) {
            out.pile = with_file(std::move(out.pile), frame.id, file);
            ++out.found;
        } else {
            ++out.still_missing;
        }
    }
    return out;
}

}  // namespace bp
