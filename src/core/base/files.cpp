#include "base/files.h"

#include <fcntl.h>
#include <unistd.h>
#include <xxhash.h>

#include <array>
#include <cerrno>
#include <cstdio>
#include <cstring>
#include <memory>
#include <system_error>
#include <vector>

namespace bp {
namespace {

Failure cannot_write(const fs::path& target, const std::string& why) {
    return {Fault::output, target.string(),
            "Cannot write " + target.string() + ": " + why + ". Choose another place or free some space."};
}

bool sync_path(const fs::path& path, int flags) {
    const int fd = ::open(path.c_str(), flags | O_CLOEXEC);
    if (fd < 0) return false;
    const bool ok = ::fsync(fd) == 0;
    ::close(fd);
    return ok;
}

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

Status write_whole(const fs::path& target, const std::function<Status(const fs::path&)>& write, Sync sync) {
    const fs::path folder = target.has_parent_path() ? target.parent_path() : fs::path(".");
    std::error_code error;
    if (!fs::is_directory(folder, error)) return cannot_write(target, "the folder does not exist");
    // The ending stays last, because the writers choose their format by it.
    const fs::path beside = folder / ("." + target.stem().string() + ".partial-" + std::to_string(::getpid()) +
                                      target.extension().string());
    Status written = write(beside);
    if (!written.ok()) {
        fs::remove(beside, error);
        if (written.failure().fault != Fault::output) return written;
        return cannot_write(target, written.failure().sentence);
    }
    if (sync == Sync::yes && !sync_path(beside, O_RDONLY)) {
        const std::string why = std::strerror(errno);
        fs::remove(beside, error);
        return cannot_write(target, why);
    }
    fs::rename(beside, target, error);
    if (error) {
        const std::string why = error.message();
        fs::remove(beside, error);
        return cannot_write(target, why);
    }
    if (sync == Sync::yes) sync_path(folder, O_RDONLY | O_DIRECTORY);
    return Done{};
}

Result<std::string> content_hash(const fs::path& file) {
    const std::unique_ptr<std::FILE, int (*)(std::FILE*)> in(std::fopen(file.c_str(), "rb"), &std::fclose);
    if (!in)
        return Failure{Fault::input, file.string(), "Cannot open " + file.string() + ": " + std::strerror(errno) + "."};
    const std::unique_ptr<XXH3_state_t, XXH_errorcode (*)(XXH3_state_t*)> state(XXH3_createState(), &XXH3_freeState);
    XXH3_128bits_reset(state.get());
    std::vector<char> buffer(1 << 20);
    std::size_t got = 0;
    while ((got = std::fread(buffer.data(), 1, buffer.size(), in.get())) > 0)
        XXH3_128bits_update(state.get(), buffer.data(), got);
    if (std::ferror(in.get()))
        return Failure{Fault::input, file.string(), "Cannot read " + file.string() + " to its end."};
    const XXH128_hash_t hash = XXH3_128bits_digest(state.get());
    std::array<char, 33> text{};
    std::snprintf(text.data(), text.size(), "%016llx%016llx", static_cast<unsigned long long>(hash.high64),
                  static_cast<unsigned long long>(hash.low64));
    return std::string(text.data());
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
