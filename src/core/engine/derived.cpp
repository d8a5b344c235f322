#include "engine/derived.h"

#include <algorithm>

#include "base/files.h"
#include "engine/base_tiles.h"
#include "pile/fingerprint.h"

namespace bp {

Derived::SharedBytes Derived::bytes_of(const Fingerprint& key) {
    {
        const std::lock_guard lock(mutex_);
        if (SharedBytes known = memory_.find(key)) return known;
    }
    std::optional<PackedBytes> read = files_->find(key);
    if (!read) return nullptr;
    auto out = std::make_shared<const Bytes>(Bytes{std::move(*read)});
    const std::lock_guard lock(mutex_);
    if (out->bytes() <= largest_in_memory) memory_.keep(key, out);
    return out;
}

void Derived::keep_bytes(const Fingerprint& key, PackedBytes bytes) {
    files_->keep(key, bytes);
    if (bytes.size() > largest_in_memory) return;
    const std::lock_guard lock(mutex_);
    memory_.replace(key, std::make_shared<const Bytes>(Bytes{std::move(bytes)}));
}

Fingerprint derived_key(std::string_view kind, const Fingerprint& of) {
    return Fingerprinter().text(kind).text(BRIGHT_PILE_VERSION).number(of[0]).number(of[1]).done();
}

std::optional<Fingerprint> content_of(const FrameFile& file) {
    if (file.hash.empty() || file.modified == 0 || modified_at(file.path) != file.modified) return std::nullopt;
    return pile::fingerprint(file.hash);
}

std::optional<Fingerprint> content_of(const Pile& pile) {
    std::vector<Fingerprint> out;
    for (const Frame& frame : pile.frames) {
        if (!usable(frame)) continue;
        const std::optional<Fingerprint> content = content_of(*frame.file);
        if (!content) return std::nullopt;
        out.push_back(*content);
    }
    return pile::fingerprint(out);
}

std::optional<Fingerprint> base_key(std::string_view kind, const Pile& pile) {
    if (!content_of(pile)) return std::nullopt;
    return derived_key(kind, base_recipe(pile));
}

void pack(Packer& to, const RunMask& mask) {
    to.number(mask.size().width).number(mask.size().height);
    for (int y = 0; y < mask.size().height; ++y) {
        const auto runs = mask.row(y);
        to.number(std::uint64_t(runs.size()));
        for (const RunMask::Run& run : runs) to.number(run.begin).number(run.end);
    }
}

void unpack(Unpacker& from, RunMask& mask) {
    constexpr int largest_side = 1 << 16;
    const Size size{from.number<int>(), from.number<int>()};
    if (size.width < 0 || size.height < 0 || size.width > largest_side || size.height > largest_side)
        return from.refuse();
    std::vector<RunMask::Stretch> all;
    for (int y = 0; y < size.height && from.ok(); ++y) {
        const std::size_t count = from.count(2 * sizeof(std::int32_t));
        for (std::size_t i = 0; i < count; ++i)
            all.push_back({y, {from.number<std::int32_t>(), from.number<std::int32_t>()}});
    }
    if (from.ok()) mask = RunMask(size, all);
}

// Runs of equal values, row by row: masks have few.
void pack(Packer& to, const Mask& mask) {
    const Size size = mask.size();
    to.number(size.width).number(size.height);
    std::vector<std::uint8_t> row(std::size_t(size.width));
    for (int y = 0; y < size.height; ++y) {
        mask.read_row(0, y, 0, size.width, row.data());
        for (auto at = row.begin(); at != row.end();) {
            const auto end = std::find_if(at, row.end(), [value = *at](std::uint8_t v) { return v != value; });
            to.number(*at).number(std::uint32_t(end - at));
            at = end;
        }
    }
}

void unpack(Unpacker& from, Mask& mask) {
    const Size size{from.number<int>(), from.number<int>()};
    constexpr int largest_side = 1 << 16;
    if (size.width < 0 || size.height < 0 || size.width > largest_side || size.height > largest_side)
        return from.refuse();
    Raster8 raster;
    if (size.width > 0 && size.height > 0) raster = Raster8(size, 1);
    for (int y = 0; y < size.height && from.ok(); ++y)
        for (int x = 0; x < size.width && from.ok();) {
            const auto value = from.number<std::uint8_t>();
            const auto count = from.number<std::uint32_t>();
            if (count == 0 || count > std::uint32_t(size.width - x)) return from.refuse();
            std::fill_n(raster.row(y) + x, count, value);
            x += int(count);
        }
    if (from.ok()) mask = Mask::from_raster(size, {0, 0}, raster);
}

}  // namespace bp
