// A folder of what was found out once and can be found out again: it may be emptied at any moment.
#pragma once

#include <cstdint>
#include <filesystem>
#include <memory>
#include <mutex>
#include <optional>
#include <span>

#include "base/fingerprint.h"
#include "base/packing.h"

namespace bp {

// Each value is a file of its own, named by the fingerprint of all that it depends on. A file that is not whole is
// none: length and checksum are looked at before it is believed. All together take no more than the room they are
// given; what was used longest ago goes first. Any thread; several programs may share a folder.
class KeptFiles {
  public:
    // The folder is made when it is first needed.
    KeptFiles(std::filesystem::path folder, std::uint64_t limit_bytes);

    std::optional<PackedBytes> find(const Fingerprint& key);
    // Where the disk or the room does not allow it nothing is kept, which is no failure.
    void keep(const Fingerprint& key, std::span<const std::uint8_t> bytes);
    // Holds at the next sweep, or when something is kept.
    void set_limit(std::uint64_t bytes);
    // Counts what is there, and removes what is beyond the room: looks at every file.
    void sweep();
    // Bytes that are kept, as far as is known.
    std::uint64_t used();
    const std::filesystem::path& folder() const { return folder_; }

  private:
    std::filesystem::path file_of(const Fingerprint& key) const;
    void sweep_locked();

    std::filesystem::path folder_;
    std::mutex mutex_;
    std::uint64_t limit_;
    std::uint64_t used_ = 0;  // as far as is known
    int unswept_ = -1;        // files kept since the folder was counted; -1: never
};

}  // namespace bp
