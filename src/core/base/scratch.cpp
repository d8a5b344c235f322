#include "base/scratch.h"

#include <fcntl.h>
#include <sys/mman.h>
#include <unistd.h>

#include <cerrno>
#include <cstdlib>
#include <cstring>
#include <string>

namespace bp {
namespace {

namespace fs = std::filesystem;

// An open file that has no name, or -1 with errno set.
int nameless_file(const fs::path& folder) {
    const int file = ::open(folder.c_str(), O_TMPFILE | O_RDWR | O_CLOEXEC, 0600);
    if (file >= 0 || (errno != EOPNOTSUPP && errno != EISDIR && errno != ENOENT)) return file;
    // File systems that cannot make a nameless file: one that loses its name at once.
    std::string name = (folder / "scratch-XXXXXX").string();
    const int named = ::mkostemp(name.data(), O_CLOEXEC);
    if (named >= 0) ::unlink(name.c_str());
    return named;
}

}  // namespace

Scratch::Scratch(fs::path folder, std::uint64_t limit_bytes) : folder_(std::move(folder)), limit_(limit_bytes) {}

std::shared_ptr<Scratch> Scratch::in(fs::path folder, std::uint64_t limit_bytes) {
    return std::shared_ptr<Scratch>(new Scratch(std::move(folder), limit_bytes));
}

fs::path Scratch::cache_folder() {
    const char* cache = std::getenv("XDG_CACHE_HOME");
    const char* home = std::getenv("HOME");
    std::error_code none;  // without a place for temporary files there is still /tmp
    fs::path base = fs::temp_directory_path(none);
    if (none) base = "/tmp";
    if (cache && *cache)
        base = cache;
    else if (home && *home)
        base = fs::path(home) / ".cache";
    return base / "bright-pile";
}

std::shared_ptr<Scratch> Scratch::in_cache() {
    return in(cache_folder(), free_bytes() / 2);
}

std::uint64_t Scratch::free_bytes() {
    std::error_code trouble;
    fs::path there = cache_folder();
    while (!fs::exists(there, trouble) && there.has_relative_path()) there = there.parent_path();
    const fs::space_info space = fs::space(there, trouble);
    return trouble ? 0 : std::uint64_t(space.available);
}

std::uint64_t Scratch::room() const {
    const std::uint64_t used = used_;
    const std::uint64_t limit = limit_;
    return used < limit ? limit - used : 0;
}

Failure Scratch::refusal(std::size_t bytes, const Saying& why) const {
    return {Fault::output,
            folder_.string(),
            {"%1 are needed for working files in %2, and %3. Make room on that disk, or allow more.",
             {megabytes(bytes), folder_.string(), why}}};
}

Result<std::unique_ptr<Scratch::Piece>> Scratch::take(std::size_t bytes) {
    const std::uint64_t limit = limit_;
    std::uint64_t before = used_;
    do {
        if (before + bytes > limit)
            return refusal(bytes, {"only %1 are left there", {megabytes(before < limit ? limit - before : 0)}});
    } while (!used_.compare_exchange_weak(before, before + bytes));
    const auto fail = [&](int error) {
        used_ -= bytes;
        return refusal(bytes, {"they cannot be had (%1)", {std::string(std::strerror(error))}});
    };
    std::error_code trouble;
    fs::create_directories(folder_, trouble);
    const int file = nameless_file(folder_);
    if (file < 0) return fail(errno);
    if (const int error = ::posix_fallocate(file, 0, off_t(bytes)); error != 0) {
        ::close(file);
        return fail(error);
    }
    return std::unique_ptr<Piece>(new Piece(shared_from_this(), file, bytes));
}

Scratch::Piece::Piece(std::shared_ptr<Scratch> of, int file, std::size_t size)
    : of_(std::move(of)), file_(file), size_(size) {}

Scratch::Piece::~Piece() {
    if (file_ >= 0) ::close(file_);
    if (!memory_.empty()) ::munmap(const_cast<std::uint8_t*>(memory_.data()), memory_.size());
    of_->used_ -= size_;
}

Status Scratch::Piece::write(std::size_t offset, std::span<const std::uint8_t> bytes) {
    while (!bytes.empty()) {
        const ssize_t done = ::pwrite(file_, bytes.data(), bytes.size(), off_t(offset));
        if (done < 0 && errno == EINTR) continue;
        if (done <= 0) return of_->refusal(size_, {"they cannot be written (%1)", {std::string(std::strerror(errno))}});
        offset += std::size_t(done);
        bytes = bytes.subspan(std::size_t(done));
    }
    return Done{};
}

Status Scratch::Piece::seal() {
    void* memory = ::mmap(nullptr, size_, PROT_READ, MAP_SHARED, file_, 0);
    const int error = errno;
    ::close(file_);
    file_ = -1;
    if (memory == MAP_FAILED)
        return of_->refusal(size_, {"they cannot be mapped (%1)", {std::string(std::strerror(error))}});
    memory_ = {static_cast<const std::uint8_t*>(memory), size_};
    return Done{};
}

void Scratch::Piece::let_go(std::size_t first, std::size_t count) const {
    const auto page = std::size_t(::sysconf(_SC_PAGESIZE));
    const std::size_t begin = (first + page - 1) / page * page;
    const std::size_t end = (first + count) / page * page;
    if (end > begin) ::madvise(const_cast<std::uint8_t*>(memory_.data()) + begin, end - begin, MADV_DONTNEED);
}

}  // namespace bp
