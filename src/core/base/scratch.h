// Room on the disk for what does not fit into memory and can be made again.
#pragma once

#include <atomic>
#include <cstdint>
#include <filesystem>
#include <memory>
#include <span>

#include "base/result.h"

namespace bp {

// Pieces of scratch are files without a name: the system removes them when the last that holds them lets go, and also
// when the program crashes or is killed, so that nothing has to be swept. A piece is written, then sealed, then read;
// only while it is written its file is open. Any thread; a piece is written by one at a time.
class Scratch : public std::enable_shared_from_this<Scratch> {
  public:
    // All pieces together take no more than `limit_bytes`. The folder is made when it is first needed.
    static std::shared_ptr<Scratch> in(std::filesystem::path folder, std::uint64_t limit_bytes);
    // In the person's cache folder, up to half of what is free on that disk.
    static std::shared_ptr<Scratch> in_cache();
    // The program's own folder in it.
    static std::filesystem::path cache_folder();
    // Of the disk that the cache folder is on.
    static std::uint64_t free_bytes();

    class Piece {
      public:
        ~Piece();
        Piece(const Piece&) = delete;
        Piece& operator=(const Piece&) = delete;
        // The space on the disk is already taken, so that a disk which fills up meanwhile does no harm.
        Status write(std::size_t offset, std::span<const std::uint8_t> bytes);
        Status seal();
        // Mapped once it is sealed, empty before; zero where nothing was written.
        std::span<const std::uint8_t> bytes() const { return memory_; }
        // The program is done with these bytes for now: they stay on the disk and leave its memory.
        void let_go(std::size_t first, std::size_t count) const;

      private:
        friend class Scratch;
        Piece(std::shared_ptr<Scratch> of, int file, std::size_t size);
        std::shared_ptr<Scratch> of_;
        int file_;
        std::size_t size_;
        std::span<const std::uint8_t> memory_;
    };

    // Fails, with a sentence, when the limit or the disk does not allow it.
    Result<std::unique_ptr<Piece>> take(std::size_t bytes);
    const std::filesystem::path& folder() const { return folder_; }
    std::uint64_t used() const { return used_; }
    // What is there already stays, also when it is more.
    void set_limit(std::uint64_t bytes) { limit_ = bytes; }
    std::uint64_t room() const;

  private:
    Scratch(std::filesystem::path folder, std::uint64_t limit_bytes);
    Failure refusal(std::size_t bytes, const Saying& why) const;

    std::filesystem::path folder_;
    std::atomic<std::uint64_t> limit_;
    std::atomic<std::uint64_t> used_{0};
};

}  // namespace bp
