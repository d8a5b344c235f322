// The same pixels at every zoom: what the window shows at 1:1, from whatever tiles, stores and threads, is the export.
#include <algorithm>
#include <catch2/catch.hpp>
#include <random>

#include "base/parallel.h"
#include "engine/base_tiles.h"
#include "engine/cover.h"
#include "engine/export.h"
#include "engine/render.h"
#include "engine/sources.h"
#include "pile/edits.h"
#include "pile/part_edits.h"
#include "support/fixtures.h"

using namespace bp;
using test::Folder;

namespace {

// Frames of odd size that have moved, in 8 and 16 bits, one at half strength, with parts painted over them.
Pile odd_pile(const Folder& folder) {
    const Size size{331, 217};
    Pile pile = test::speckle_pile(folder, 5, size, 8);
    std::map<int, Alignment> moved;
    for (std::size_t i = 0; i < pile.frames.size(); ++i) {
        Alignment a;
        const double n = double(i);
        // The second lies across, the third by whole pixels only.
        a.to_reference = i == 0   ? Matrix{}
                         : i == 1 ? Matrix::rigid(0.9, {165, 108}, 2.5, -1.25)
                         : i == 2 ? Matrix::shift(3, -2)
                                  : Matrix::rigid(0.004 * n, {165, 108}, 0.3 * n, -0.7);
        moved[pile.frames[i].id] = a;
    }
    const int reference = pile.frames[0].id;
    pile = with_alignments(std::move(pile), Model::rigid, reference, moved);
    const int half[] = {pile.frames[3].id};
    pile = with_strength(std::move(pile), half, 0.5);
    for (const std::size_t frame : {std::size_t(1), std::size_t(4)}) {
        Mask mask(size);
        mask.edit({20 + int(frame) * 15, 30, 150, 101},
                  [](int x, int y, std::uint8_t) { return std::uint8_t(x * 3 + y); });
        auto [next, part] = with_new_part(pile, pile.frames[frame].id);
        pile = with_part_mask(std::move(next), part, mask);
    }
    return pile;
}

std::vector<Rect> cut(const Rect& area, int side, unsigned seed) {
    std::vector<Rect> out;
    for (int y = area.top; y < area.bottom(); y += side)
        for (int x = area.left; x < area.right(); x += side) out.push_back(intersect({x, y, side, side}, area));
    std::shuffle(out.begin(), out.end(), std::mt19937(seed));
    return out;
}

void lay(const Raster16& tile, const Rect& place, const Rect& area, Raster16& out) {
    for (int y = 0; y < place.height; ++y)
        std::copy_n(tile.row(y), tile.row_samples(),
                    out.row(place.top - area.top + y) + (place.left - area.left) * out.channels());
}

}  // namespace

TEST_CASE("tiles of any size in any order, from memory, scratch or files, are the export in every mode") {
    const Folder folder;
    const Folder out;
    Job job;
    Pile pile = odd_pile(folder);
    const auto scratch = Scratch::in(out / "cache", std::uint64_t(1) << 30);
    constexpr std::size_t work = std::size_t(1) << 30;
    unsigned seed = 1;
    for (const Cover cover : {Cover::any, Cover::full})
        for (const ModeEntry& mode : modes()) {
            pile = with_mode(std::move(pile), mode.mode);
            pile.cover = cover;
            REQUIRE(export_picture(pile, out / "o.tif", {{}, work, scratch}, job).ok());
            const Raster16 exported = read_picture(out / "o.tif").value();
            const Rect area = output_area(pile);
            FrameStore memory(working_space(pile), {work, work}, scratch);
            FrameStore on_disk(working_space(pile), {1, work}, scratch);
            FrameStore files(working_space(pile), {0, work}, scratch);
            for (FrameStore* store : {&memory, &on_disk, &files}) {
                const int side = store == &files ? 150 : 64;
                const int threads = store == &on_disk ? 1 : 3;
                const ThreadLimit limit(threads);
                BaseTiles tiles;
                Raster16 shown(area.size(), pile.channels);
                std::mutex mutex;
                const std::vector<Rect> places = cut(area, side, seed++);
                parallel_for(0, int(places.size()), [&](int i) {
                    const Rect& place = places[std::size_t(i)];
                    Raster16 tile = render(pile, *store, place, 0, job, &tiles).value();
                    const std::lock_guard lock(mutex);
                    lay(tile, place, area, shown);
                });
                INFO(mode.name << " from " << (store == &memory ? "memory" : store == &files ? "files" : "scratch"));
                REQUIRE(test::difference(shown, exported) == "");
            }
            CHECK(memory.bytes() > 0);
            CHECK(on_disk.bytes() == 0);
            CHECK(on_disk.held_tiles(*pile.frames[0].file, 0) != nullptr);
            CHECK(files.held_tiles(*pile.frames[0].file, 0) == nullptr);
        }
    CHECK(scratch->used() == 0);
}

TEST_CASE("a glance keeps nothing, and shows the same from the rows that it needs") {
    const Folder folder;
    const Folder out;
    const Pile pile = odd_pile(folder);
    constexpr std::size_t work = std::size_t(1) << 30;
    FrameStore store(working_space(pile), {1, work}, Scratch::in(out / "cache", work));
    FrameStore memory(working_space(pile), {work, work}, nullptr);
    std::vector<int> ids = merged_ids(pile);
    for (const Rect& area : {Rect{10, 150, 64, 40}, Rect{0, 0, 331, 217}, Rect{200, 60, 100, 3}}) {
        Job glance;
        glance.set_glance(true);
        const Raster16 seen = render(pile, store, area, 0, glance).value();
        Job job;
        CHECK(test::difference(seen, render(pile, memory, area, 0, job).value()) == "");
    }
    // One lies across, and comes from scratch however it is looked at.
    CHECK(frames_away(pile, ids, 0, store) >= ids.size() - 1);
    Job job;
    REQUIRE(bring_frames(pile, ids, 0, store, job).ok());
    CHECK(frames_away(pile, ids, 0, store) == 0);
}

TEST_CASE("after a move along a diagonal no more is merged than is missing") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 2, {40, 30}, 8);
    constexpr int side = BaseTiles::side;
    long merged = 0, calls = 0;
    const auto merge = [&](const Rect& area) -> Result<Raster16> {
        merged += long(area.width) * area.height;
        ++calls;
        Raster16 out(area.size(), pile.channels);
        for (int y = 0; y < area.height; ++y)
            for (int x = 0; x < area.width; ++x)
                for (int c = 0; c < pile.channels; ++c)
                    out.at(x, y, c) = std::uint16_t((area.left + x) * 7 + (area.top + y) * 131 + c);
        return out;
    };
    for (const bool apart : {true, false}) {
        BaseTiles tiles;
        REQUIRE(tiles.base(pile, {0, 0, 4 * side, 3 * side}, 0, apart, merge).ok());
        merged = calls = 0;
        const Rect moved{side, side, 4 * side, 3 * side};
        const Raster16 seen = tiles.base(pile, moved, 0, apart, merge).value();
        // Of twelve tiles six are there: a column and a row are missing.
        CHECK(merged == (apart ? 6 : 12) * long(side) * side);
        CHECK(calls == (apart ? 2 : 1));
        CHECK(test::difference(seen, merge(moved).value()) == "");
    }
}

TEST_CASE("a window without scratch streams, and shows the same") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 3, {150, 90}, 8);
    test::write(folder / "no folder.png", test::speckle_8({4, 4}, 3, 1), 8);
    constexpr std::size_t much = std::size_t(1) << 30;
    FrameStore store(working_space(pile), {1, much}, Scratch::in(folder / "no folder.png" / "cache", much));
    FrameStore files(working_space(pile), {0, much});
    Job job;
    const auto shown = render(pile, store, whole(pile.size), 0, job);
    REQUIRE(shown.ok());
    CHECK(store.held_tiles(*pile.frames[0].file, 0) == nullptr);
    CHECK(test::difference(shown.value(), render(pile, files, whole(pile.size), 0, job).value()) == "");
}

TEST_CASE("levels beyond those that are decoded are the same from a file and from a picture at hand") {
    const Folder folder;
    test::write(folder / "a.jpg", test::landscape({1501, 1003}, {}), 8);
    test::write(folder / "b.tif", test::landscape({1501, 1003}, {}), 16);
    test::write(folder / "c.png", test::speckle_8({1501, 1003}, 1, 3), 8);
    Job job;
    for (const char* name : {"a.jpg", "b.tif", "c.png"}) {
        FrameFile file;
        file.path = folder / name;
        file.facts = probe_picture(file.path).value();
        const WorkingSpace space{Profile::srgb(), 3, {}};
        FrameStore store(space);
        REQUIRE(store.load(file, scaled_levels, job).ok());
        for (int level = scaled_levels; level <= 6; ++level) {
            const Raster16 near = store.load(file, level, job).value()->widened();
            CHECK(near.size() == at_level(file.facts.size, level));
            CHECK(test::difference(near, read_frame(file, level, space, job).value()) == "");
            const Raster16 read = read_picture(file.path, level).value();
            if (read.channels() == 3) CHECK(test::difference(near, read) == "");
        }
    }
}

TEST_CASE("a store that is given less room lets frames go, and gives the same again") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 4, {40, 30}, 8);
    const std::size_t each = 40 * 30 * 3;
    FrameStore store({pile.profile, 3, {}}, {each * 4, 0});
    Job job;
    for (const Frame& f : pile.frames) REQUIRE(store.load(*f.file, 0, job).ok());
    CHECK(store.bytes() == each * 4);
    store.set_budget({each, 0});
    CHECK(store.bytes() == each);
    CHECK(store.held(*pile.frames[3].file, 0) != nullptr);
    CHECK(test::difference(store.load(*pile.frames[0].file, 0, job).value()->widened(),
                           test::speckle_8({40, 30}, 3, 7)) == "");
}

TEST_CASE("reading frames hears a stop") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 3, {200, 400}, 8);
    Job job;
    job.stop();
    FrameStore store(working_space(pile));
    const auto loaded = store.load(*pile.frames[0].file, 0, job);
    REQUIRE_FALSE(loaded.ok());
    CHECK(loaded.failure().fault == Fault::stopped);
    const auto rendered = render(pile, store, whole(pile.size), 0, job);
    REQUIRE_FALSE(rendered.ok());
    CHECK(rendered.failure().fault == Fault::stopped);
}
