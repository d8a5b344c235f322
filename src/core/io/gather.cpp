#include "io/gather.h"

#include <glob.h>

#include <algorithm>
#include <set>

#include "base/files.h"
#include "io/clip.h"
#include "io/kinds.h"

namespace bp {
namespace {

bool by_name(const fs::path& a, const fs::path& b) {
    return natural_less(a.filename().string(), b.filename().string());
}

std::vector<fs::path> pictures_in(const fs::path& folder, Inner inner) {
    std::vector<fs::path> out, folders;
    std::error_code error;
    for (const fs::directory_entry& entry : fs::directory_iterator(folder, error)) {
        const bool hidden = entry.path().filename().string().rfind('.', 0) == 0;
        if (hidden) continue;
        if (entry.is_regular_file(error) && is_frame_file(entry.path())) out.push_back(entry.path());
        // Not through links: they may lead in a circle.
        if (inner == Inner::yes && entry.is_directory(error) && !entry.is_symlink(error))
            folders.push_back(entry.path());
    }
    std::sort(out.begin(), out.end(), by_name);
    std::sort(folders.begin(), folders.end(), by_name);
    for (const fs::path& each : folders)
        for (fs::path& file : pictures_in(each, inner)) out.push_back(std::move(file));
    return out;
}

std::vector<fs::path> matches(const std::string& pattern) {
    std::vector<fs::path> out;
    glob_t found{};
    if (::glob(pattern.c_str(), GLOB_NOSORT, nullptr, &found) == 0)
        for (std::size_t i = 0; i < found.gl_pathc; ++i) out.emplace_back(found.gl_pathv[i]);
    ::globfree(&found);
    std::sort(out.begin(), out.end(), by_name);
    return out;
}

// A clip stands for all of its frames.
std::vector<fs::path> in_frames(const fs::path& file) {
    const Kind* kind = kind_of(file);
    const Result<ClipFacts> facts = kind && kind->way == ReadBy::clip ? probe_clip(file) : Result<ClipFacts>(Failure{});
    if (!facts.ok()) return {file};
    std::vector<fs::path> out;
    for (long n = 0; n < facts.value().frames; ++n) out.push_back(name_of_clip_frame({file, n}));
    return out;
}

}  // namespace

Result<std::vector<fs::path>> gather_files(const std::vector<std::string>& names, Inner inner) {
    std::vector<fs::path> out;
    std::set<fs::path> seen;
    for (const std::string& name : names) {
        std::error_code error;
        std::vector<fs::path> here;
        if (fs::is_directory(name, error))
            here = pictures_in(name, inner);
        else if (clip_frame_of(name))
            here = {fs::path(name)};
        else if (fs::exists(name, error))
            here = in_frames(name);
        else
            here = matches(name);
        if (here.empty()) {
            const bool folder = fs::is_directory(name, error);
            return Failure{Fault::input, name,
                           folder ? Saying("The folder %1 holds no pictures of a kind that can be read: %2.",
                                           {name, kinds_in_words()})
                                  : Saying("%1 is not there. Was it moved or renamed?", {name})};
        }
        for (fs::path& file : here)
            if (seen.insert(fs::weakly_canonical(file, error)).second) out.push_back(std::move(file));
    }
    return out;
}

}  // namespace bp
