#include "io/gather.h"

#include <glob.h>

#include <algorithm>
#include <set>

#include "base/files.h"
#include "io/writer.h"

namespace bp {
namespace {

bool by_name(const fs::path& a, const fs::path& b) {
    return natural_less(a.filename().string(), b.filename().string());
}

std::vector<fs::path> pictures_in(const fs::path& folder) {
    std::vector<fs::path> out;
    std::error_code error;
    for (const fs::directory_entry& entry : fs::directory_iterator(folder, error)) {
        const bool hidden = entry.path().filename().string().rfind('.', 0) == 0;
        if (!hidden && entry.is_regular_file(error) && format_of(entry.path())) out.push_back(entry.path());
    }
    std::sort(out.begin(), out.end(), by_name);
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

}  // namespace

Result<std::vector<fs::path>> gather_files(const std::vector<std::string>& names) {
    std::vector<fs::path> out;
    std::set<fs::path> seen;
    for (const std::string& name : names) {
        std::error_code error;
        std::vector<fs::path> here;
        if (fs::is_directory(name, error))
            here = pictures_in(name);
        else if (fs::exists(name, error))
            here = {fs::path(name)};
        else
            here = matches(name);
        if (here.empty()) {
            const bool folder = fs::is_directory(name, error);
            return Failure{Fault::input, name,
                           folder ? "The folder " + name + " holds no JPEG, PNG or TIFF pictures."
                                  : name + " is not there. Was it moved or renamed?"};
        }
        for (fs::path& file : here)
            if (seen.insert(fs::weakly_canonical(file, error)).second) out.push_back(std::move(file));
    }
    return out;
}

}  // namespace bp
