// Bytes of a file without holding the file open, so that the number of files read in step has no limit.
#pragma once

#include <cstdint>
#include <filesystem>
#include <memory>
#include <optional>
#include <span>

#include "base/result.h"

namespace bp::io {

// A file as it was when it was first looked at. May be used from any thread.
class FileBytes {
  public:
    static Result<FileBytes> open(const std::filesystem::path& file);

    const std::filesystem::path& file() const { return file_; }
    std::uint64_t size() const { return size_; }
    // Fills `out` from `offset` on and returns how many bytes there were: fewer only at the end of the file. A file
    // that was replaced or changed since open() is a failure, so that two halves of different pictures never meet.
    Result<std::size_t> read(std::uint64_t offset, std::span<std::uint8_t> out) const;
    // What a read() of this or a copy of it failed of, for those who read by way of a library that does not pass it on.
    std::optional<Failure> trouble() const;

  private:
    struct Noted;

    FileBytes();
    Result<std::size_t> try_read(std::uint64_t offset, std::span<std::uint8_t> out) const;

    std::filesystem::path file_;
    std::uint64_t size_ = 0;
    std::uint64_t device_ = 0;
    std::uint64_t inode_ = 0;
    std::int64_t changed_ns_ = 0;
    std::shared_ptr<Noted> noted_;
};

}  // namespace bp::io
