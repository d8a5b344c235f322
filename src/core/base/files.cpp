#include "base/files.h"

#include <fcntl.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <sys/xattr.h>
#include <unistd.h>
#include <xxhash.h>

#include <algorithm>
#include <array>
#include <cerrno>
#include <cstdio>
#include <cstring>
#include <memory>
#include <system_error>
#include <utility>
#include <vector>

#include "base/fingerprint.h"
#include "base/guarded.h"
#include "base/output.h"

namespace bp {
namespace {

Failure cannot_write(const fs::path& target, const Saying& why) {
    return {Fault::output,
            target.string(),
            {"Cannot write %1: %2. Choose another place or free some space.", {target.string(), why}}};
}

Saying words_of(int error) {
    return std::string(std::strerror(error));
}

bool sync_folder(const fs::path& folder) {
    const int fd = ::open(folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC);
    if (fd < 0) return false;
    const bool ok = ::fsync(fd) == 0;
    ::close(fd);
    return ok;
}

// Who may do what with a file, and what is noted on it, for one that takes its place. As far as the system allows.
void take_over(const struct stat& old, const fs::path& from, int to) {
    if (::fchown(to, old.st_uid, old.st_gid) != 0) (void)::fchown(to, uid_t(-1), old.st_gid);
    (void)::fchmod(to, old.st_mode & 07777U);
    std::vector<char> names(std::size_t(std::max<ssize_t>(0, ::listxattr(from.c_str(), nullptr, 0))));
    const ssize_t length = ::listxattr(from.c_str(), names.data(), names.size());
    for (ssize_t at = 0; at < length; at += ssize_t(std::strlen(names.data() + at)) + 1) {
        const char* name = names.data() + at;
        std::vector<char> value(std::size_t(std::max<ssize_t>(0, ::getxattr(from.c_str(), name, nullptr, 0))));
        const ssize_t got = ::getxattr(from.c_str(), name, value.data(), value.size());
        if (got >= 0) (void)::fsetxattr(to, name, value.data(), std::size_t(got), 0);
    }
}

constexpr const char* unseen_prefix = ".bright-pile-";

// True when `fd` is what others find under `name`.
bool is_at(int fd, const fs::path& name) {
    struct stat mine {
    }, there{};
    return ::fstat(fd, &mine) == 0 && ::stat(name.c_str(), &there) == 0 && mine.st_ino == there.st_ino &&
           mine.st_dev == there.st_dev;
}

// A file that is not seen by others until it is whole. Where the system can, it has no name before but for the moment
// in which it takes its place; else it has a hidden one all along, the same for every try to write the same file. It is
// locked for as long as its writer lives, so that clear_unseen() knows what a killed one left.
class Unseen {
  public:
    explicit Unseen(const fs::path& target) : folder_(target.parent_path()) {
        const std::string name = target.filename().string();
        std::array<char, 40> text{};
        std::snprintf(text.data(), text.size(), "%s%016llx", unseen_prefix,
                      static_cast<unsigned long long>(XXH3_64bits(name.data(), name.size())));
        name_ = folder_ / text.data();
        constexpr mode_t as_usual = 0666;  // less what the person's own mask takes
        fd_ = ::open(folder_.c_str(), O_TMPFILE | O_RDWR | O_CLOEXEC, as_usual);
        if (fd_ >= 0) (void)::flock(fd_, LOCK_EX | LOCK_NB);
        if (fd_ >= 0 || (errno != EOPNOTSUPP && errno != EISDIR && errno != ENOENT)) return;
        for (int i = 0; i < tries && !named_; ++i) {
            ::unlink(name_.c_str());
            fd_ = ::open(name_.c_str(), O_CREAT | O_EXCL | O_RDWR | O_CLOEXEC, as_usual);
            if (fd_ < 0) return;
            (void)::flock(fd_, LOCK_EX | LOCK_NB);
            // Cleared away before it was locked?
            named_ = is_at(fd_, name_);
            if (!named_) ::close(std::exchange(fd_, -1));
        }
    }
    ~Unseen() {
        if (fd_ >= 0) ::close(fd_);
        if (named_) ::unlink(name_.c_str());
    }
    Unseen(const Unseen&) = delete;
    Unseen& operator=(const Unseen&) = delete;

    int fd() const { return fd_; }
    // By which writers that want a name open it.
    fs::path path() const { return named_ ? name_ : fs::path("/proc/self/fd") / std::to_string(fd_); }

    // Takes the place of `target`. False with errno set.
    bool become(const fs::path& target) {
        for (int i = 0; i < tries; ++i) {
            if (!named_ && ::linkat(AT_FDCWD, path().c_str(), AT_FDCWD, name_.c_str(), AT_SYMLINK_FOLLOW) != 0) {
                if (errno != EEXIST) return false;
                ::unlink(name_.c_str());
                continue;
            }
            named_ = true;
            if (::rename(name_.c_str(), target.c_str()) == 0) {
                named_ = false;
                return true;
            }
            if (errno != ENOENT) return false;
            named_ = false;
        }
        return false;
    }

  private:
    static constexpr int tries = 8;  // others may be writing the same file

    fs::path folder_, name_;
    int fd_ = -1;
    bool named_ = false;
};

bool is_digit(char c) {
    return c >= '0' && c <= '9';
}

std::size_t digits_end(const std::string& s, std::size_t from) {
    while (from < s.size() && is_digit(s[from])) ++from;
    return from;
}

std::string without_zeros(const std::string& digits) {
    const std::size_t first = digits.find_first_not_of('0');
    return first == std::string::npos ? std::string() : digits.substr(first);
}

}  // namespace

void clear_unseen(const fs::path& folder) {
    std::error_code error;
    for (fs::directory_iterator at(folder, error), end; !error && at != end; at.increment(error)) {
        const fs::path file = at->path();
        if (!file.filename().string().starts_with(unseen_prefix)) continue;
        const int fd = ::open(file.c_str(), O_RDWR | O_NOFOLLOW | O_CLOEXEC);
        if (fd < 0) continue;
        if (::flock(fd, LOCK_EX | LOCK_NB) == 0 && is_at(fd, file)) ::unlink(file.c_str());
        ::close(fd);
    }
}

Result<fs::path> place_to_write(const fs::path& target) {
    std::error_code error;
    // A link stays; what it leads to is written, also when that is not there yet.
    fs::path real = fs::absolute(target, error);
    constexpr int most_links = 40;
    for (int i = 0; fs::is_symlink(real, error) && i < most_links; ++i) {
        const fs::path to = fs::read_symlink(real, error);
        real = to.is_absolute() ? to : real.parent_path() / to;
    }
    if (!fs::is_directory(real.parent_path(), error)) return cannot_write(target, "the folder does not exist");
    if (fs::is_directory(real, error)) return cannot_write(target, "a folder has this name");
    struct stat old {};
    const bool there = ::stat(real.c_str(), &old) == 0;
    const bool closed = there && ((old.st_mode & 0222U) == 0 || ::access(real.c_str(), W_OK) != 0);
    if (closed)
        return Failure{Fault::output,
                       target.string(),
                       {"%1 is protected from writing, and stays as it is. Choose another name.", {target.string()}}};
    return real;
}

Status write_whole(const fs::path& target, const std::function<Status(const fs::path&)>& write, Sync sync) {
    const Result<fs::path> place = place_to_write(target);
    if (!place.ok()) return place.failure();
    const fs::path& real = place.value();
    if (sync == Sync::yes) clear_unseen(real.parent_path());
    Unseen unseen(real);
    if (unseen.fd() < 0) return cannot_write(target, words_of(errno));
    Status written = guarded([&] { return write(unseen.path()); });
    if (!written.ok()) {
        if (written.failure().fault != Fault::output) return written;
        return cannot_write(target, written.failure().sentence);
    }
    struct stat made {};
    if (::fstat(unseen.fd(), &made) != 0 || made.st_size == 0)
        return cannot_write(target, "nothing came to be written");
    struct stat old {};
    if (::stat(real.c_str(), &old) == 0) take_over(old, real, unseen.fd());
    if (sync == Sync::yes && ::fsync(unseen.fd()) != 0) return cannot_write(target, words_of(errno));
    if (!unseen.become(real)) return cannot_write(target, words_of(errno));
    if (sync == Sync::yes) sync_folder(real.parent_path());
    return Done{};
}

Status write_bytes(const fs::path& target, std::string_view bytes, Sync sync) {
    return write_whole(
        target,
        [&](const fs::path& beside) -> Status {
            Output out(beside);
            if (out.error == 0) (void)out.write(bytes.data(), std::int64_t(bytes.size()));
            return out.error == 0 ? Status(Done{}) : out.failure(beside, {});
        },
        sync);
}

Result<std::string> content_hash(const fs::path& file) {
    const std::unique_ptr<std::FILE, int (*)(std::FILE*)> in(std::fopen(file.c_str(), "rb"), &std::fclose);
    if (!in)
        return Failure{Fault::input,
                       file.string(),
                       {"%1 cannot be opened: %2. Was it moved, or may it not be read?",
                        {file.string(), std::string(std::strerror(errno))}}};
    const std::unique_ptr<XXH3_state_t, XXH_errorcode (*)(XXH3_state_t*)> state(XXH3_createState(), &XXH3_freeState);
    XXH3_128bits_reset(state.get());
    std::vector<char> buffer(1 << 20);
    std::size_t got = 0;
    while ((got = std::fread(buffer.data(), 1, buffer.size(), in.get())) > 0)
        XXH3_128bits_update(state.get(), buffer.data(), got);
    if (std::ferror(in.get()))
        return Failure{Fault::input, file.string(), {"%1 cannot be read to its end. Copy it again.", {file.string()}}};
    const XXH128_hash_t hash = XXH3_128bits_digest(state.get());
    return in_hex({hash.high64, hash.low64});
}

std::int64_t modified_at(const fs::path& file) {
    std::error_code error;
    const auto time = fs::last_write_time(file, error);
    return error ? 0 : std::int64_t(time.time_since_epoch().count());
}

bool same_file(const fs::path& a, const fs::path& b) {
    std::error_code error;
    return fs::equivalent(a, b, error) && !error;
}

bool natural_less(const std::string& a, const std::string& b) {
    std::size_t i = 0;
    std::size_t j = 0;
    while (i < a.size() && j < b.size()) {
        if (is_digit(a[i]) && is_digit(b[j])) {
            const std::size_t i_end = digits_end(a, i);
            const std::size_t j_end = digits_end(b, j);
            const std::string x = without_zeros(a.substr(i, i_end - i));
            const std::string y = without_zeros(b.substr(j, j_end - j));
            if (x.size() != y.size()) return x.size() < y.size();
            if (x != y) return x < y;
            i = i_end;
            j = j_end;
        } else {
            if (a[i] != b[j]) return a[i] < b[j];
            ++i;
            ++j;
        }
    }
    if (a.size() - i != b.size() - j) return a.size() - i < b.size() - j;
    return a < b;
}

}  // namespace bp
