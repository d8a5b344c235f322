// Derived data: what long work solves from a part of a pile, kept in memory and in the cache folder, and used again for
// as long as that part is the same.
//
// A kind of derived data is a type T with pack(Packer&, const T&) and unpack(Unpacker&, T&), beside the code that
// solves it, and a key: derived_key() of its name and of all that it depends on. Whether it is kept or solved never
// changes a pixel.
#pragma once

#include <memory>
#include <mutex>
#include <optional>
#include <string_view>

#include "base/kept_files.h"
#include "base/latest.h"
#include "base/result.h"
#include "image/mask.h"
#include "image/run_mask.h"
#include "pile/pile.h"

namespace bp {

// Any thread.
class Derived {
  public:
    explicit Derived(std::shared_ptr<KeptFiles> files) : files_(std::move(files)) {}

    template <class T>
    std::optional<T> find(const Fingerprint& key) {
        const SharedBytes bytes = bytes_of(key);
        if (!bytes) return std::nullopt;
        Unpacker from(bytes->all);
        std::optional<T> out(std::in_place);
        unpack(from, *out);
        if (!from.whole()) out.reset();
        return out;
    }
    template <class T>
    void keep(const Fingerprint& key, const T& value) {
        Packer to;
        pack(to, value);
        keep_bytes(key, to.done());
    }
    void set_limit(std::uint64_t bytes) { files_->set_limit(bytes); }
    void sweep() { files_->sweep(); }
    std::uint64_t used() { return files_->used(); }

  private:
    struct Bytes {
        PackedBytes all;
        std::size_t bytes() const { return all.size(); }
    };
    using SharedBytes = std::shared_ptr<const Bytes>;
    SharedBytes bytes_of(const Fingerprint& key);
    void keep_bytes(const Fingerprint& key, PackedBytes bytes);

    static constexpr std::size_t memory_bytes = std::size_t(32) << 20;
    static constexpr std::size_t largest_in_memory = std::size_t(1) << 20;

    std::shared_ptr<KeptFiles> files_;
    std::mutex mutex_;
    Latest<Fingerprint, SharedBytes> memory_{memory_bytes};
};

// The key of a kind of derived data that depends on what `of` stands for, and on the program, which may come to solve
// it otherwise.
Fingerprint derived_key(std::string_view kind, const Fingerprint& of);

// What a frame's pixels depend on: its file's content. None for a file that is known by its path alone, or that was
// written to since it was looked at.
std::optional<Fingerprint> content_of(const FrameFile& file);
// The same of all frames of a pile that can be used; none when one has none.
std::optional<Fingerprint> content_of(const Pile& pile);

// The key of what depends on the base of a pile, whatever is merged there how; none when its files are not known.
std::optional<Fingerprint> base_key(std::string_view kind, const Pile& pile);

// What was solved before, or what solve() gives, a Result<T>; only kept where there is a key and a place.
template <class T, class Solve>
Result<T> solved(Derived* derived, const std::optional<Fingerprint>& key, const Solve& solve) {
    if (!derived || !key) return solve();
    if (std::optional<T> known = derived->find<T>(*key)) return std::move(*known);
    Result<T> fresh = solve();
    if (fresh.ok()) derived->keep(*key, fresh.value());
    return fresh;
}

void pack(Packer& to, const RunMask& mask);
void unpack(Unpacker& from, RunMask& mask);
void pack(Packer& to, const Mask& mask);
void unpack(Unpacker& from, Mask& mask);

}  // namespace bp
