// What is kept on the disk and used again.
#include <catch2/catch.hpp>
#include <chrono>
#include <fstream>
#include <thread>

#include "base/parallel.h"
#include "engine/hot_search.h"
#include "engine/open.h"
#include "engine/render.h"
#include "engine/survey.h"
#include "pile/edits.h"
#include "support/fixtures.h"

using namespace bp;
using test::Folder;

namespace {

constexpr std::size_t plenty = std::size_t(1) << 28;

Fingerprint numbered(std::uint64_t n) {
    return Fingerprinter().number(n).done();
}

PackedBytes some_bytes(std::size_t count, std::uint8_t from) {
    PackedBytes out(count);
    for (std::size_t i = 0; i < count; ++i) out[i] = std::uint8_t(from + i);
    return out;
}

// All of a folder's files, by their bytes.
std::vector<std::pair<fs::path, std::string>> files_in(const fs::path& folder) {
    std::vector<std::pair<fs::path, std::string>> out;
    std::error_code error;
    for (const auto& entry : fs::directory_iterator(folder, error))
        out.emplace_back(entry.path(), test::bytes_of(entry.path()));
    return out;
}

std::shared_ptr<Derived> derived_in(const fs::path& folder, std::uint64_t limit = plenty) {
    return std::make_shared<Derived>(std::make_shared<KeptFiles>(folder, limit));
}

std::unique_ptr<FrameStore> store_with(const Pile& pile, const std::shared_ptr<Derived>& derived) {
    return std::make_unique<FrameStore>(working_space(pile), MemoryBudget{plenty, plenty}, Scratch::in_cache(),
                                        derived);
}

// Puts other bytes of the same length in a file's place, and leaves its time as it was.
void spoil_keeping_time(const fs::path& file) {
    const auto time = fs::last_write_time(file);
    const std::string bytes = test::bytes_of(file);
    std::ofstream(file, std::ios::binary) << std::string(bytes.size(), 'x');
    fs::last_write_time(file, time);
}

}  // namespace

TEST_CASE("what is kept is found again, and what is not whole is not there") {
    const Folder folder;
    const fs::path place = folder / "kept";
    {
        KeptFiles files(place, plenty);
        CHECK_FALSE(files.find(numbered(1)));
        files.keep(numbered(1), some_bytes(1000, 3));
        files.keep(numbered(2), {});
    }
    KeptFiles files(place, plenty);
    CHECK(*files.find(numbered(1)) == some_bytes(1000, 3));
    CHECK(files.find(numbered(2))->empty());
    CHECK_FALSE(files.find(numbered(3)));
    files.keep(numbered(1), some_bytes(900, 7));
    CHECK(*files.find(numbered(1)) == some_bytes(900, 7));

    // Every length that a file may be cut to, and every byte that may be another.
    const Folder single;
    KeptFiles alone(single / "kept", plenty);
    alone.keep(numbered(4), some_bytes(30, 1));
    const auto [file, bytes] = files_in(single / "kept").front();
    for (std::size_t n = 0; n < bytes.size(); ++n) {
        std::ofstream(file, std::ios::binary) << bytes.substr(0, n);
        CHECK_FALSE(alone.find(numbered(4)));
        CHECK_FALSE(fs::exists(file));
        std::string other = bytes;
        other[n] = char(other[n] ^ 0x20);
        std::ofstream(file, std::ios::binary) << other;
        CHECK_FALSE(alone.find(numbered(4)));
    }
    std::ofstream(file, std::ios::binary) << bytes;
    CHECK(*alone.find(numbered(4)) == some_bytes(30, 1));
}

TEST_CASE("what is kept stays within its room, and what was used longest ago goes first") {
    const Folder folder;
    const fs::path place = folder / "kept";
    KeptFiles files(place, 10 * 1100);
    for (std::uint64_t n = 0; n < 9; ++n) {
        files.keep(numbered(n), some_bytes(1000, std::uint8_t(n)));
        std::this_thread::sleep_for(std::chrono::milliseconds(15));
    }
    CHECK(files.find(numbered(0)));  // used just now
    for (std::uint64_t n = 9; n < 14; ++n) files.keep(numbered(n), some_bytes(1000, std::uint8_t(n)));
    CHECK(files.find(numbered(0)));
    CHECK_FALSE(files.find(numbered(1)));
    CHECK(files.find(numbered(13)));
    CHECK(files_in(place).size() <= 10);
    files.set_limit(3000);
    files.sweep();
    CHECK(files_in(place).size() <= 2);
    files.keep(numbered(20), some_bytes(5000, 1));
    CHECK_FALSE(files.find(numbered(20)));
    // A place that cannot be had keeps nothing, and says nothing.
    test::write(folder / "file.png", test::speckle_8({4, 4}, 3, 1), 8);
    KeptFiles nowhere(folder / "file.png" / "kept", plenty);
    nowhere.keep(numbered(1), some_bytes(10, 1));
    CHECK_FALSE(nowhere.find(numbered(1)));
}

TEST_CASE("many threads and stores share a folder") {
    const Folder folder;
    KeptFiles one(folder / "kept", 40 * 500), other(folder / "kept", 40 * 500);
    std::atomic<int> wrong = 0, found = 0;
    parallel_for(0, 400, [&](int n) {
        KeptFiles& files = n % 2 ? one : other;
        const auto key = std::uint64_t(n % 23);
        const auto known = files.find(numbered(key));
        if (known && *known != some_bytes(400, std::uint8_t(key))) ++wrong;
        if (known) ++found;
        files.keep(numbered(key), some_bytes(400, std::uint8_t(key)));
    });
    CHECK(wrong == 0);
    CHECK(found > 0);
}

TEST_CASE("masks come back as they were, and nothing is taken from what is none") {
    Mask mask(Size{300, 170});
    mask.edit({20, 10, 200, 100}, [](int x, int y, std::uint8_t) { return std::uint8_t(x * y); });
    for (const Mask& kept : {mask, Mask(), Mask(Size{5, 3})}) {
        Packer to;
        pack(to, kept);
        const PackedBytes bytes = to.done();
        Mask out;
        Unpacker from(bytes);
        unpack(from, out);
        CHECK(from.whole());
        CHECK(out == kept);
        for (std::size_t n = 0; n < bytes.size(); n += 97) {
            Unpacker cut({bytes.data(), n});
            Mask none;
            unpack(cut, none);
            CHECK_FALSE(cut.whole());
        }
    }
}

TEST_CASE("a pile that was seen before is seen without its files being decoded") {
    const Folder folder;
    for (int n = 1; n <= 4; ++n)
        test::write(folder / ("f" + std::to_string(n) + ".jpg"),
                    test::landscape({1200, 900}, Matrix::shift(3.0 * n, 0), 1u, 0.02), 8);
    Job job;
    std::vector<NamedFile> files;
    for (const std::string& name : folder.names()) files.push_back({folder / name});
    const Pile pile = with_mode(open_frames(files, Outcome::quiet, Order::name, job).value(), Mode::median);
    const auto derived = derived_in(folder / "kept");
    constexpr int level = 3;
    const Rect area = at_level(whole(pile.size), level);
    const auto first = store_with(pile, derived);
    const Raster16 seen = render(pile, *first, area, level, job).value();
    Pile surveyed = pile;
    const std::vector<Findings> known = survey(surveyed, *first, job).value();
    const HotPixels hot = search_hot_pixels(pile, *first, job).value();

    // Their bytes are others, which nothing shows: so it is seen that nothing reads them.
    for (const Frame& frame : pile.frames) spoil_keeping_time(frame.file->path);
    const auto again = store_with(pile, derived_in(folder / "kept"));
    CHECK(test::difference(render(pile, *again, area, level, job).value(), seen).empty());
    CHECK(test::difference(render(pile, *again, at_level(area, 2), level + 2, job).value(),
                           render(pile, *first, at_level(area, 2), level + 2, job).value())
              .empty());
    const std::vector<Findings> known_again = survey(surveyed, *again, job).value();
    REQUIRE(known_again.size() == known.size());
    for (std::size_t i = 0; i < known.size(); ++i) {
        CHECK(known_again[i].measures == known[i].measures);
        CHECK(known_again[i].marks.size() == known[i].marks.size());
    }
    CHECK(search_hot_pixels(pile, *again, job).value() == hot);
    CHECK_FALSE(render(pile, *again, whole(pile.size), 0, job).ok());

    // A file that was written to since it was looked at is read, as is one of another pile's working space.
    test::write(pile.frames[0].file->path, test::landscape({1200, 900}, {}, 9u, 0.02), 8);
    const auto changed = store_with(pile, derived_in(folder / "kept"));
    const Result<SharedPixels> fresh = changed->load(*pile.frames[0].file, level, job);
    REQUIRE(fresh.ok());
    CHECK_FALSE(
        test::difference(fresh.value()->widened(), first->load(*pile.frames[0].file, level, job).value()->widened())
            .empty());
    Pile grey = pile;
    grey.channels = 1;
    CHECK_FALSE(store_with(grey, derived_in(folder / "kept"))->load(*pile.frames[1].file, level, job).ok());
}

TEST_CASE("frames that are known by their path alone leave nothing on the disk") {
    const Folder folder;
    test::write(folder / "a.jpg", test::landscape({600, 400}, {}), 8);
    Job job;
    const Pile pile = open_frames({{folder / "a.jpg"}}, Outcome::quiet, Order::name, job, KnownBy::path).value();
    const auto store = store_with(pile, derived_in(folder / "kept"));
    REQUIRE(store->load(*pile.frames[0].file, 1, job).ok());
    CHECK(files_in(folder / "kept").empty());
}
