// Laid under a program (LD_PRELOAD): one of its reads, or one of its writes, of files below a folder fails, as on a
// disk that is broken or full. Told by the environment:
//   FAULT_BELOW  the folder
//   FAULT_KIND   "read" or "write"
//   FAULT_AT     which one, counted from 1; every later one fails, too
//   FAULT_MARK   a file that is made when it happens
#include <dlfcn.h>
#include <fcntl.h>
#include <sys/stat.h>
#include <sys/uio.h>
#include <unistd.h>

#include <atomic>
#include <cerrno>
#include <climits>
#include <cstdio>
#include <cstdlib>
#include <cstring>

namespace {

std::atomic<long> calls{0};
// What ferror() looks at in the C library (_IO_ERR_SEEN).
constexpr int error_seen = 0x20;

template <class F>
F real(const char* name) {
    return reinterpret_cast<F>(dlsym(RTLD_NEXT, name));
}

bool below(int fd) {
    static const char* folder = std::getenv("FAULT_BELOW");
    if (!folder) return false;
    char link[64];
    char path[PATH_MAX];
    std::snprintf(link, sizeof link, "/proc/self/fd/%d", fd);
    const ssize_t length = ::readlink(link, path, sizeof path - 1);
    if (length <= 0) return false;
    path[length] = 0;
    return std::strncmp(path, folder, std::strlen(folder)) == 0;
}

// True when this call is to fail; errno is set.
bool fails(const char* kind, int fd) {
    static const char* wanted = std::getenv("FAULT_KIND");
    static const char* at = std::getenv("FAULT_AT");
    static const char* mark = std::getenv("FAULT_MARK");
    if (!wanted || !at || std::strcmp(wanted, kind) != 0 || !below(fd)) return false;
    if (++calls < std::atol(at)) return false;
    if (mark) {
        const int made = ::open(mark, O_CREAT | O_WRONLY | O_CLOEXEC, 0644);
        if (made >= 0) ::close(made);
    }
    errno = std::strcmp(kind, "read") == 0 ? EIO : ENOSPC;
    return true;
}

}  // namespace

extern "C" {

ssize_t read(int fd, void* to, size_t count) {
    static const auto next = real<ssize_t (*)(int, void*, size_t)>("read");
    return fails("read", fd) ? -1 : next(fd, to, count);
}
ssize_t pread(int fd, void* to, size_t count, off_t at) {
    static const auto next = real<ssize_t (*)(int, void*, size_t, off_t)>("pread");
    return fails("read", fd) ? -1 : next(fd, to, count, at);
}
ssize_t pread64(int fd, void* to, size_t count, off64_t at) {
    static const auto next = real<ssize_t (*)(int, void*, size_t, off64_t)>("pread64");
    return fails("read", fd) ? -1 : next(fd, to, count, at);
}
size_t fread(void* to, size_t size, size_t count, FILE* file) {
    static const auto next = real<size_t (*)(void*, size_t, size_t, FILE*)>("fread");
    if (!fails("read", ::fileno(file))) return next(to, size, count, file);
    file->_flags |= error_seen;
    return 0;
}
ssize_t write(int fd, const void* from, size_t count) {
    static const auto next = real<ssize_t (*)(int, const void*, size_t)>("write");
    return fails("write", fd) ? -1 : next(fd, from, count);
}
ssize_t pwrite(int fd, const void* from, size_t count, off_t at) {
    static const auto next = real<ssize_t (*)(int, const void*, size_t, off_t)>("pwrite");
    return fails("write", fd) ? -1 : next(fd, from, count, at);
}
ssize_t pwrite64(int fd, const void* from, size_t count, off64_t at) {
    static const auto next = real<ssize_t (*)(int, const void*, size_t, off64_t)>("pwrite64");
    return fails("write", fd) ? -1 : next(fd, from, count, at);
}
size_t fwrite(const void* from, size_t size, size_t count, FILE* file) {
    static const auto next = real<size_t (*)(const void*, size_t, size_t, FILE*)>("fwrite");
    if (!fails("write", ::fileno(file))) return next(from, size, count, file);
    file->_flags |= error_seen;
    return 0;
}
ssize_t writev(int fd, const struct iovec* from, int count) {
    static const auto next = real<ssize_t (*)(int, const struct iovec*, int)>("writev");
    return fails("write", fd) ? -1 : next(fd, from, count);
}
int fsync(int fd) {
    static const auto next = real<int (*)(int)>("fsync");
    struct stat facts {};
    // A folder that cannot be brought to the disk keeps what is in its files.
    const bool of_file = ::fstat(fd, &facts) == 0 && S_ISREG(facts.st_mode);
    return of_file && fails("write", fd) ? -1 : next(fd);
}

}  // extern "C"
