// A file that is written through the system alone, so that the reason of a failure is known: libraries that write
// keep it to themselves.
#pragma once

#include <fcntl.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>
#include <filesystem>

#include "base/result.h"

namespace bp {

struct Output {
    explicit Output(const std::filesystem::path& file)
        : fd(::open(file.c_str(), O_RDWR | O_CREAT | O_TRUNC | O_CLOEXEC, 0666)), error(fd < 0 ? errno : 0) {}
    ~Output() {
        if (fd >= 0) ::close(fd);
    }
    Output(const Output&) = delete;
    Output& operator=(const Output&) = delete;

    // All of it, or -1 with the reason kept.
    std::int64_t write(const void* bytes, std::int64_t count) {
        std::int64_t done = 0;
        while (done < count) {
            const ssize_t n = ::write(fd, static_cast<const char*>(bytes) + done, std::size_t(count - done));
            if (n < 0 && errno == EINTR) continue;
            if (n < 0) {
                error = errno;
                return -1;
            }
            done += n;
        }
        start_writing_back(std::size_t(count));
        return done;
    }
    // Why the picture could not be written; `otherwise` when the disk took everything.
    Failure failure(const std::filesystem::path& file, const Saying& otherwise) const {
        return {Fault::output, file.string(), error != 0 ? Saying(std::string(std::strerror(error))) : otherwise};
    }

    int fd;
    int error;

  private:
    // The disk begins while the rest is still being made: who waits for it in the end waits for little.
    void start_writing_back(std::size_t count) {
        constexpr std::size_t enough = std::size_t(8) << 20;
        waiting_ += count;
        if (waiting_ < enough) return;
        waiting_ = 0;
        (void)::sync_file_range(fd, 0, 0, SYNC_FILE_RANGE_WRITE);
    }

    std::size_t waiting_ = 0;  // bytes since the disk was last told to begin
};

}  // namespace bp
