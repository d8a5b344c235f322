// A folder into which frames come one by one.
#pragma once

#include <filesystem>
#include <map>
#include <set>
#include <vector>

#include "base/result.h"

namespace bp {

// Looks at a folder again and again. A file has arrived when it has not changed between two looks and can be decoded to
// its end: one that is still being copied stays out until then. One thread.
class Arrivals {
  public:
    // Files that are there already count as arrived when `known` holds them.
    Arrivals(std::filesystem::path folder, std::set<std::filesystem::path> known);

    struct Look {
        std::vector<std::filesystem::path> arrived;  // in natural order of their names
        std::vector<Failure> broken;                 // files that came to rest and still cannot be read, each once
        bool folder_gone = false;
    };
    // To be called a few times a second.
    Look look();

    static constexpr int patience = 15;  // looks without a change after which a file that cannot be read is broken

  private:
    struct Waiting {
        std::uintmax_t bytes = 0;
        std::filesystem::file_time_type changed;
        int unchanged = 0;  // looks
        bool tried = false;
        Failure why;
    };
    void consider(const std::filesystem::path& file, Look& out);

    std::filesystem::path folder_;
    std::set<std::filesystem::path> known_;
    std::map<std::filesystem::path, Waiting> waiting_;
};

}  // namespace bp
