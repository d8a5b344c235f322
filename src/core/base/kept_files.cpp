#include "base/kept_files.h"

#include <algorithm>
#include <array>
#include <fstream>
#include <vector>

#include "base/files.h"

namespace bp {
namespace {

constexpr std::array<char, 8> mark{'B', 'P', 'k', 'e', 'p', 't', '0', '1'};
constexpr std::size_t head_bytes = mark.size() + 3 * sizeof(std::uint64_t);
// Several programs may fill the folder: it is counted anew from time to time.
constexpr int files_between_sweeps = 64;
// A sweep goes below the limit, so that not every file brings the next one.
constexpr double swept_to = 0.8;

}  // namespace

KeptFiles::KeptFiles(fs::path folder, std::uint64_t limit_bytes) : folder_(std::move(folder)), limit_(limit_bytes) {}

fs::path KeptFiles::file_of(const Fingerprint& key) const {
    return folder_ / in_hex(key);
}

std::optional<PackedBytes> KeptFiles::find(const Fingerprint& key) {
    const fs::path file = file_of(key);
    std::ifstream in(file, std::ios::binary);
    if (!in) return std::nullopt;
    // Of the file that is open: another program may put a new one in its place meanwhile.
    in.seekg(0, std::ios::end);
    const auto bytes = std::uint64_t(std::max<std::streamoff>(0, in.tellg()));
    in.seekg(0);
    PackedBytes head(head_bytes), out;
    bool whole = bytes >= head_bytes && in.read(reinterpret_cast<char*>(head.data()), head_bytes);
    Unpacker read(head);
    std::array<char, mark.size()> found{};
    read.bytes(found.data(), found.size());
    const auto length = read.number<std::uint64_t>();
    const auto low = read.number<std::uint64_t>(), high = read.number<std::uint64_t>();
    whole = whole && found == mark && length == bytes - head_bytes;
    if (whole) {
        out.resize(std::size_t(length));
        in.read(reinterpret_cast<char*>(out.data()), std::streamsize(out.size()));
        whole = in.gcount() == std::streamsize(out.size()) &&
                fingerprint_of_bytes(out.data(), out.size()) == Fingerprint{low, high};
    }
    std::error_code error;
    if (!whole) {
        fs::remove(file, error);
        return std::nullopt;
    }
    fs::last_write_time(file, fs::file_time_type::clock::now(), error);
    return out;
}

void KeptFiles::keep(const Fingerprint& key, std::span<const std::uint8_t> bytes) {
    const std::lock_guard lock(mutex_);
    if (unswept_ < 0) sweep_locked();
    if (bytes.size() + head_bytes > limit_) return;
    std::error_code error;
    fs::create_directories(folder_, error);
    const Fingerprint sum = fingerprint_of_bytes(bytes.data(), bytes.size());
    Packer file;
    file.bytes(mark.data(), mark.size()).number(std::uint64_t(bytes.size())).number(sum[0]).number(sum[1]);
    file.bytes(bytes.data(), bytes.size());
    const PackedBytes all = file.done();
    if (!write_bytes(file_of(key), {reinterpret_cast<const char*>(all.data()), all.size()}, Sync::no).ok()) return;
    used_ += all.size();
    if (used_ > limit_ || ++unswept_ >= files_between_sweeps) sweep_locked();
}

void KeptFiles::set_limit(std::uint64_t bytes) {
    const std::lock_guard lock(mutex_);
    limit_ = bytes;
    unswept_ = -1;
}

void KeptFiles::sweep() {
    const std::lock_guard lock(mutex_);
    sweep_locked();
}

std::uint64_t KeptFiles::used() {
    const std::lock_guard lock(mutex_);
    return used_;
}

void KeptFiles::sweep_locked() {
    struct Kept {
        fs::path file;
        std::uint64_t bytes;
        fs::file_time_type used;
    };
    std::vector<Kept> all;
    std::error_code error;
    used_ = 0;
    for (fs::directory_iterator at(folder_, error), end; !error && at != end; at.increment(error)) {
        std::error_code gone;
        const std::uintmax_t bytes = at->file_size(gone);
        const auto used = at->last_write_time(gone);
        if (gone) continue;
        all.push_back({at->path(), bytes, used});
        used_ += bytes;
    }
    unswept_ = 0;
    if (used_ <= limit_) return;
    std::sort(all.begin(), all.end(), [](const Kept& a, const Kept& b) { return a.used < b.used; });
    for (const Kept& kept : all) {
        if (double(used_) <= swept_to * double(limit_)) break;
        std::error_code failed;
        if (fs::remove(kept.file, failed)) used_ -= kept.bytes;
    }
}

}  // namespace bp
