#include "io/arrivals.h"

#include <algorithm>

#include "base/files.h"
#include "io/kinds.h"
#include "io/reader.h"

namespace bp {

Arrivals::Arrivals(fs::path folder, std::set<fs::path> known)
    : folder_(fs::absolute(folder).lexically_normal()), known_(std::move(known)) {}

Arrivals::Look Arrivals::look() {
    Look out;
    std::error_code error;
    std::vector<fs::path> here;
    fs::directory_iterator entries(folder_, error);
    if (error) {
        out.folder_gone = true;
        return out;
    }
    for (const fs::directory_iterator end; entries != end; entries.increment(error)) {
        if (error) break;
        const fs::path& file = entries->path();
        const bool hidden = file.filename().string().rfind('.', 0) == 0;
        std::error_code gone;
        if (!hidden && entries->is_regular_file(gone) && is_frame_file(file) && known_.count(file) == 0)
            here.push_back(file);
    }
    // What was there and is no more is forgotten: it may come again.
    std::erase_if(waiting_, [&](const auto& w) { return std::find(here.begin(), here.end(), w.first) == here.end(); });
    std::sort(here.begin(), here.end(), [](const fs::path& a, const fs::path& b) {
        return natural_less(a.filename().string(), b.filename().string());
    });
    for (const fs::path& file : here) consider(file, out);
    return out;
}

void Arrivals::consider(const fs::path& file, Look& out) {
    std::error_code error;
    const std::uintmax_t bytes = fs::file_size(file, error);
    if (error) return;
    const fs::file_time_type changed = fs::last_write_time(file, error);
    if (error) return;
    const auto [found, fresh] = waiting_.try_emplace(file, Waiting{bytes, changed, 0, false, {}});
    Waiting& w = found->second;
    if (fresh) return;
    if (w.bytes != bytes || w.changed != changed) {
        w = {bytes, changed, 0, false, {}};
        return;
    }
    ++w.unchanged;
    if (!w.tried) {
        w.tried = true;
        // Small, but all of the file's bytes are taken in.
        Result<Raster16> read = read_picture(file, scaled_levels);
        if (read.ok()) {
            known_.insert(file);
            waiting_.erase(file);
            out.arrived.push_back(file);
            return;
        }
        w.why = read.failure();
    }
    if (w.unchanged == patience) out.broken.push_back(w.why);
}

}  // namespace bp
