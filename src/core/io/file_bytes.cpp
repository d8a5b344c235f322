#include "io/file_bytes.h"

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>
#include <mutex>

#include "io/readers.h"

namespace bp::io {
namespace {

class Descriptor {
  public:
    explicit Descriptor(const std::filesystem::path& file) : fd_(::open(file.c_str(), O_RDONLY | O_CLOEXEC)) {}
    ~Descriptor() {
        if (fd_ >= 0) ::close(fd_);
    }
    Descriptor(const Descriptor&) = delete;
    Descriptor& operator=(const Descriptor&) = delete;
    int get() const { return fd_; }

  private:
    int fd_;
};

Failure not_to_be_had(const std::filesystem::path& file) {
    if (errno == ENOENT) return refuse(file, "%1 is not there. Was it moved or renamed?");
    return refuse(file, "%1 cannot be read: %2. Copy it again, or allow it to be read.",
                  {std::string(std::strerror(errno))});
}

std::int64_t change_time(const struct stat& facts) {
    return std::int64_t(facts.st_mtim.tv_sec) * 1000000000 + facts.st_mtim.tv_nsec;
}

}  // namespace

struct FileBytes::Noted {
    std::mutex mutex;
    std::optional<Failure> trouble;
};

FileBytes::FileBytes() : noted_(std::make_shared<Noted>()) {}

Result<FileBytes> FileBytes::open(const std::filesystem::path& file) {
    const Descriptor descriptor(file);
    struct stat facts {};
    if (descriptor.get() < 0 || ::fstat(descriptor.get(), &facts) != 0) return not_to_be_had(file);
    FileBytes out;
    out.file_ = file;
    out.size_ = std::uint64_t(facts.st_size);
    out.device_ = facts.st_dev;
    out.inode_ = facts.st_ino;
    out.changed_ns_ = change_time(facts);
    return out;
}

std::optional<Failure> FileBytes::trouble() const {
    const std::lock_guard lock(noted_->mutex);
    return noted_->trouble;
}

Result<std::size_t> FileBytes::read(std::uint64_t offset, std::span<std::uint8_t> out) const {
    Result<std::size_t> got = try_read(offset, out);
    if (!got.ok()) {
        const std::lock_guard lock(noted_->mutex);
        noted_->trouble = got.failure();
    }
    return got;
}

Result<std::size_t> FileBytes::try_read(std::uint64_t offset, std::span<std::uint8_t> out) const {
    const Descriptor descriptor(file_);
    struct stat facts {};
    if (descriptor.get() < 0 || ::fstat(descriptor.get(), &facts) != 0) return not_to_be_had(file_);
    if (facts.st_dev != device_ || facts.st_ino != inode_ || std::uint64_t(facts.st_size) != size_ ||
        change_time(facts) != changed_ns_)
        return refuse(file_, "%1 changed while it was read. Open the frames again.");
    std::size_t got = 0;
    while (got < out.size()) {
        const ssize_t n = ::pread(descriptor.get(), out.data() + got, out.size() - got, off_t(offset + got));
        if (n < 0 && errno == EINTR) continue;
        if (n < 0) return not_to_be_had(file_);
        if (n == 0) break;
        got += std::size_t(n);
    }
    return got;
}

Failure unreadable(const FileBytes& bytes) {
    if (auto trouble = bytes.trouble()) return *std::move(trouble);
    return refuse(bytes.file(), "%1 is broken or cut short. Copy it again from the camera.");
}

}  // namespace bp::io
