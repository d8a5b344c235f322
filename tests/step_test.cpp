// Frames that go through a region in step.
#include <atomic>
#include <catch2/catch.hpp>
#include <cmath>
#include <fstream>
#include <map>
#include <mutex>
#include <set>

#include "engine/in_step.h"
#include "engine/open.h"
#include "engine/render.h"
#include "kernels/warp.h"
#include "pile/edits.h"
#include "pile/part_edits.h"
#include "support/fixtures.h"

using namespace bp;
using test::Folder;

namespace {

constexpr std::size_t plenty = std::size_t(1) << 30;

std::vector<int> ids_of(const Pile& pile) {
    std::vector<int> out;
    for (const Frame& frame : pile.frames) out.push_back(frame.id);
    return out;
}

Matrix turned(double degrees, double dx, double dy) {
    const double a = degrees * 3.14159265358979 / 180;
    return Matrix{{std::cos(a), -std::sin(a), dx, std::sin(a), std::cos(a), dy, 0, 0, 1}};
}

// Notes what it is given.
struct Notes : StepWork {
    StripPlan plan;
    std::mutex mutex;
    std::map<std::pair<int, int>, int> pixels;  // how often each came, by row and column
    std::set<int> narrow, wide;                 // places of frames in the row
    std::vector<Band> finished;
    std::function<Status(const Band&)> on_finish = [](const Band&) { return Done{}; };

    void begin(const StripPlan& given) override { plan = given; }
    void row(int y, kernels::Span columns, const std::vector<FrameRow>& given) override {
        const std::lock_guard lock(mutex);
        for (int x = columns.begin; x < columns.end; ++x) ++pixels[{y, x}];
        for (int k = 0; k < int(given.size()); ++k) {
            if (given[std::size_t(k)].narrow) narrow.insert(k);
            if (given[std::size_t(k)].wide) wide.insert(k);
        }
    }
    Status finish(const Band& band) override {
        finished.push_back(band);
        return on_finish(band);
    }
};

}  // namespace

TEST_CASE("every pixel is worked on once, and bands finish in their order") {
    const Folder folder;
    Pile pile = test::speckle_pile(folder, 4, {2100, 300}, 8);
    for (const bool moved : {false, true}) {
        if (moved) {
            Alignment alignment;
            alignment.to_reference = turned(0.1, 0.5, 0.25);
            pile = with_alignments(pile, Model::rigid, pile.frames[0].id, {{pile.frames[2].id, alignment}});
        }
        FrameStore store(working_space(pile), {0, plenty});
        Notes notes;
        Job job;
        const Rect region{3, 5, 2090, 290};
        REQUIRE(bring_in_step({pile, store, takes_of(ids_of(pile)), region, 0}, job, notes).ok());
        CHECK(notes.pixels.size() == std::size_t(2090 * 290));
        CHECK(std::all_of(notes.pixels.begin(), notes.pixels.end(), [&](const auto& pixel) {
            const auto [y, x] = pixel.first;
            return pixel.second == 1 && y >= 5 && y < 295 && x >= 3 && x < 2093;
        }));
        CHECK(notes.finished == notes.plan.bands);
        CHECK(notes.finished.size() > 1);
        CHECK(job.progress().fraction == Approx(1));
    }
}

TEST_CASE("frames of 8 bits stay in 8 until they are moved or converted") {
    const Folder folder;
    test::write(folder / "a.png", test::speckle_8({40, 60}, 3, 1), 8);
    test::write(folder / "b.jpg", test::speckle_8({40, 60}, 3, 2), 8);
    test::write(folder / "c.tif", test::speckle({40, 60}, 3, 3), 16);
    test::write(folder / "d.png", test::speckle_8({40, 60}, 1, 4), 8);
    test::write(folder / "e.png", test::speckle_8({40, 60}, 3, 5), 8);
    Job job;
    std::vector<NamedFile> files;
    for (const char* name : {"a.png", "b.jpg", "c.tif", "d.png", "e.png"}) files.push_back({folder / name});
    Pile pile = open_frames(files, Outcome::trails, Order::given, job).value();
    Alignment moved;
    moved.to_reference = turned(1, 0.5, 0.25);
    pile = with_alignments(pile, Model::rigid, pile.frames[0].id, {{pile.frames[4].id, moved}});
    for (const std::size_t keep : {std::size_t(0), plenty}) {
        FrameStore store(working_space(pile), {keep, plenty});
        Notes notes;
        REQUIRE(bring_in_step({pile, store, takes_of(ids_of(pile)), {0, 0, 40, 60}, 0}, job, notes).ok());
        CHECK(notes.narrow == std::set<int>{0, 1});
        CHECK(notes.wide == std::set<int>{2, 3, 4});
    }
}

TEST_CASE("a frame that breaks on its way stops all, with its name") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 3, {300, 900}, 8);
    const fs::path victim = pile.frames[1].file->path;
    const std::string bytes = test::bytes_of(victim);
    std::ofstream(victim, std::ios::binary) << bytes.substr(0, bytes.size() / 2);
    FrameStore store(working_space(pile), {0, plenty});
    Notes notes;
    Job job;
    const Status done = bring_in_step({pile, store, takes_of(ids_of(pile)), {0, 0, 300, 900}, 0}, job, notes);
    REQUIRE_FALSE(done.ok());
    CHECK(done.failure().fault == Fault::input);
    CHECK(done.failure().file == victim.string());
}

TEST_CASE("a band that cannot be finished, and a stop, end the work") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 3, {30, 2000}, 8);
    FrameStore store(working_space(pile), {0, plenty});
    {
        Notes notes;
        Job job;
        notes.on_finish = [](const Band&) -> Status { return Failure{Fault::output, "", "the disk is full"}; };
        const Status done = bring_in_step({pile, store, takes_of(ids_of(pile)), {0, 0, 30, 2000}, 0}, job, notes);
        REQUIRE_FALSE(done.ok());
        CHECK(done.failure().english() == "the disk is full");
        CHECK(notes.finished.size() == 1);
    }
    {
        Notes notes;
        Job job;
        notes.on_finish = [&](const Band&) -> Status {
            job.stop();
            return Done{};
        };
        const Status done = bring_in_step({pile, store, takes_of(ids_of(pile)), {0, 0, 30, 2000}, 0}, job, notes);
        REQUIRE_FALSE(done.ok());
        CHECK(done.failure().fault == Fault::stopped);
        CHECK(notes.finished.size() == 1);
    }
}

TEST_CASE("placed rows are the warped frame, whatever the bands and wherever the rows come from") {
    const Folder folder;
    const Raster16 picture = test::speckle_8({120, 90}, 3, 6);
    test::write(folder / "a.png", picture, 8);
    test::write(folder / "b.tif", picture, 16);
    const Rect region{8, 4, 100, 80};
    for (const char* name : {"a.png", "b.tif"})
        for (const Matrix& placed :
             {turned(0, 3, -2), turned(0.4, -1.25, 2.5), turned(-20, 10, 30), turned(90, 95, 0)}) {
            FrameFile file;
            file.path = folder / name;
            file.facts = probe_picture(file.path).value();
            std::vector<const std::uint16_t*> whole_rows;
            for (int y = 0; y < 90; ++y) whole_rows.push_back(picture.row(y));
            for (const int height : {1, 7, 33, 80}) {
                std::vector<Band> bands;
                for (int y = region.top; y < region.bottom(); y += height)
                    bands.emplace_back(y, std::min(y + height, region.bottom()));
                const RowReaches reaches(placed, 0, {120, 90}, region);
                kernels::RowPlaces places(reaches.map(), {8, 108});
                auto open = std::move(open_frame(file, 0, {Profile::srgb(), 3, {}})).value();
                RowNeeds needs;
                needs.add(reaches);
                const std::shared_ptr<FrameRows> read = open->window(needs.window(bands), 2);
                const PlacedRows rows(read, reaches, 3);
                for (std::size_t b = 0; b < bands.size(); ++b) {
                    const auto by_band = needs.of(bands);
                    REQUIRE(read->require(by_band[b == 0 ? b : b - 1].first, by_band[b].second).ok());
                    for (const Rect& piece : pieces_of(bands[b], region, {64, 8})) {
                        std::vector<std::uint16_t> samples(std::size_t(piece.width * piece.height) * 3);
                        std::vector<FrameRow> taken(std::size_t(piece.height));
                        rows.take(piece, samples.data(), taken.data());
                        for (int y = piece.top; y < piece.bottom(); ++y) {
                            const FrameRow& row = taken[std::size_t(y - piece.top)];
                            places.go_to(y);
                            const kernels::Span whole = places.covered({8, 108});
                            const kernels::Span span{std::max(whole.begin, piece.left),
                                                     std::min(whole.end, piece.right())};
                            REQUIRE(row.cover.empty() == span.empty());
                            if (span.empty()) continue;
                            REQUIRE(row.cover == kernels::Span{span.begin - piece.left, span.end - piece.left});
                            std::vector<std::uint16_t> expected(std::size_t(span.end - span.begin) * 3);
                            kernels::warp_rows({whole_rows.data(), {0, 0, 120, 90}}, 3, places, y, {&span, 1},
                                               {expected.data(), 0, span.begin});
                            // 8-bit samples are weighed first and brought to 16 bits after.
                            const std::uint16_t* got = row.wide + std::ptrdiff_t(row.cover.begin) * 3;
                            for (std::size_t k = 0; k < expected.size(); ++k)
                                REQUIRE(std::abs(int(got[k]) - int(expected[k])) <= 1);
                        }
                    }
                }
            }
        }
}

TEST_CASE("pieces of a band fill it and begin at their multiples") {
    const Rect region{70, 3, 300, 40};
    std::set<std::pair<int, int>> seen;
    for (const Rect& piece : pieces_of({5, 27}, region, {128, 8})) {
        CHECK((piece.left == 70 || piece.left % 128 == 0));
        CHECK((piece.top == 5 || piece.top % 8 == 0));
        for (int y = piece.top; y < piece.bottom(); ++y)
            for (int x = piece.left; x < piece.right(); ++x) REQUIRE(seen.insert({y, x}).second);
    }
    CHECK(seen.size() == 22 * 300);
    CHECK(*seen.begin() == std::pair{5, 70});
    CHECK(*seen.rbegin() == std::pair{26, 369});
}

TEST_CASE("a picture handed on in bands is the picture rendered whole") {
    struct Collect : RowSink {
        Raster16 out;
        std::vector<std::uint16_t> ring;
        int top, held = 0;
        Collect(const Rect& region, int channels) : out(region.size(), channels), top(region.top) {}
        void begin(const StripPlan& plan) override {
            held = 2 * plan.band_rows;
            ring.resize(std::size_t(held) * std::size_t(out.row_samples()));
        }
        std::uint16_t* row(int y) override {
            return ring.data() + std::size_t((y - top) % held) * std::size_t(out.row_samples());
        }
        Status finish(const Band& band) override {
            for (int y = band.first; y < band.second; ++y) std::copy_n(row(y), out.row_samples(), out.row(y - top));
            return Done{};
        }
    };
    const Folder folder;
    Pile pile = with_mode(test::speckle_pile(folder, 5, {90, 800}, 8), Mode::median);
    Mask mask(pile.size);
    mask.edit({20, 100, 40, 400}, [](int x, int, std::uint8_t) { return std::uint8_t(x * 4); });
    // A part of a frame that is set aside is read for the part alone.
    const auto [with, part] = with_new_part(pile, pile.frames[2].id);
    const int aside[] = {pile.frames[2].id};
    pile = with_aside(with_part_mask(with, part, mask), aside, true);
    const Rect region{3, 11, 80, 760};
    FrameStore store(working_space(pile), {0, plenty});
    Job job;
    Collect sink(region, 3);
    REQUIRE(render_to(pile, store, region, 0, job, sink).ok());
    CHECK(test::difference(sink.out, render(pile, store, region, 0, job).value()) == "");
    CHECK(test::difference(sink.out, render(test::base_of(pile), store, region, 0, job).value()) != "");
}
