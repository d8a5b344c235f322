// What must hold of any merge, whatever the samples.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "engine/open.h"
#include "engine/render.h"
#include "engine/source.h"
#include "io/writer.h"
#include "pile/edits.h"
#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;

namespace {

// Whether rel(a, b) holds for every sample; says where it does not.
template <class Relation>
std::string all_samples(const Raster16& a, const Raster16& b, Relation rel) {
    for (std::size_t i = 0; i < a.data().size(); ++i)
        if (!rel(a.data()[i], b.data()[i]))
            return "sample " + std::to_string(i) + ": " + std::to_string(a.data()[i]) + " and " +
                   std::to_string(b.data()[i]);
    return {};
}

Raster16 merged_by(const Pile& pile, Mode mode) {
    return test::render_all(with_mode(pile, mode)).value();
}

}  // namespace

TEST_CASE("minimum, median, mean and maximum stand in this order around every frame") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 5, {47, 31}, 16);
    const Raster16 low = merged_by(pile, Mode::minimum);
    const Raster16 middle = merged_by(pile, Mode::median);
    const Raster16 mean = merged_by(pile, Mode::mean);
    const Raster16 high = merged_by(pile, Mode::maximum);
    const auto not_above = [](int a, int b) { return a <= b; };
    CHECK(all_samples(low, middle, not_above) == "");
    CHECK(all_samples(low, mean, not_above) == "");
    CHECK(all_samples(middle, high, not_above) == "");
    CHECK(all_samples(mean, high, not_above) == "");
    for (unsigned i = 0; i < 5; ++i) {
        const Raster16 frame = test::speckle({47, 31}, 3, i * 31 + 7);
        CHECK(all_samples(low, frame, not_above) == "");
        CHECK(all_samples(frame, high, not_above) == "");
    }
}

TEST_CASE("frames that are all alike merge to themselves in every mode") {
    const Folder folder;
    const Raster16 picture = test::speckle({47, 31}, 3, 3);
    std::vector<NamedFile> files;
    for (int i = 0; i < 4; ++i) {
        const auto file = folder / ("f" + std::to_string(i) + ".tif");
        test::write(file, picture);
        files.push_back({file, Role::scene});
    }
    Job job;
    const Pile pile = open_frames(files, Outcome::trails, Order::name, job).value();
    for (const ModeEntry& entry : modes()) {
        INFO(entry.name);
        CHECK(test::difference(merged_by(pile, entry.mode), picture) == "");
    }
}

TEST_CASE("the order of the frames changes no bit of the order-free modes") {
    const Folder folder;
    Pile pile = test::speckle_pile(folder, 6, {47, 31}, 16);
    Pile turned = pile;
    std::reverse(turned.frames.begin(), turned.frames.end());
    std::swap(turned.frames[1], turned.frames[4]);
    for (const Mode mode : {Mode::lighten, Mode::maximum, Mode::minimum, Mode::median, Mode::mean})
        CHECK(test::difference(merged_by(pile, mode), merged_by(turned, mode)) == "");
}

TEST_CASE("setting aside and taking back gives the very same picture") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 5, {47, 31}, 16);
    const int some[] = {2, 4};
    for (const Mode mode : {Mode::lighten, Mode::median, Mode::mean}) {
        const Raster16 before = merged_by(pile, mode);
        const Pile without = with_aside(pile, some, true);
        CHECK(test::difference(merged_by(without, mode), before) != "");
        CHECK(test::difference(merged_by(with_aside(without, some, false), mode), before) == "");
    }
}

TEST_CASE("a lighten of full strengths is a maximum, and of none is black but for the rest") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 3, {47, 31}, 16);
    CHECK(test::difference(merged_by(pile, Mode::lighten), merged_by(pile, Mode::maximum)) == "");
    const int all[] = {1, 2, 3};
    const int two[] = {1, 2};
    const Raster16 black = merged_by(with_strength(pile, all, 0), Mode::lighten);
    CHECK(std::all_of(black.data().begin(), black.data().end(), [](auto v) { return v == 0; }));
    CHECK(test::difference(merged_by(with_strength(pile, two, 0), Mode::lighten), test::speckle({47, 31}, 3, 69)) ==
          "");
}

TEST_CASE("a whole shift of a frame by its alignment is a shift of its samples") {
    const Folder folder;
    Pile pile = test::speckle_pile(folder, 2, {40, 30}, 16);
    Alignment a;
    a.to_reference = Matrix::shift(3, -2);
    pile = with_base(with_alignments(with_mode(std::move(pile), Mode::one), Model::shift, 1, {{1, {}}, {2, a}}), 2);
    const Raster16 placed = test::render_all(pile).value();
    const Raster16 frame = test::speckle({40, 30}, 3, 38);
    int wrong = 0;
    for (int y = 0; y < 28; ++y)
        for (int x = 3; x < 40; ++x) wrong += placed.at(x, y, 1) != frame.at(x - 3, y + 2, 1);
    CHECK(wrong == 0);
    CHECK(placed.at(1, 10, 0) == 0);
    CHECK(placed.at(10, 29, 0) == 0);
}

TEST_CASE("noise falls with the root of the number of frames in a mean") {
    const Folder folder;
    std::vector<NamedFile> files;
    const Raster16 clean = test::landscape({120, 80}, {});
    for (unsigned i = 0; i < 16; ++i) {
        const auto file = folder / ("f" + std::to_string(i) + ".tif");
        test::write(file, test::landscape({120, 80}, {}, i, 0.04));
        files.push_back({file, Role::scene});
    }
    Job job;
    const Pile pile = open_frames(files, Outcome::quiet, Order::name, job).value();
    const auto noise = [&](const Raster16& r) {
        double sum = 0;
        for (std::size_t i = 0; i < r.data().size(); ++i) {
            const double d = double(r.data()[i]) - double(clean.data()[i]);
            sum += d * d;
        }
        return std::sqrt(sum / double(r.data().size()));
    };
    Pile encoded = pile;
    encoded.light = Light::encoded;
    const double one = noise(merged_by(pile, Mode::one));
    CHECK(noise(merged_by(encoded, Mode::mean)) == Approx(one / 4).epsilon(0.08));
    CHECK(noise(merged_by(pile, Mode::median)) < one / 2.8);
}

TEST_CASE("rows that stream are the rows of the whole frame, whatever is asked for and let go") {
    const Folder folder;
    const Raster16 picture = test::speckle({33, 90}, 3, 4);
    test::write(folder / "a.tif", picture);
    FrameFile file;
    file.path = folder / "a.tif";
    file.facts = probe_picture(file.path).value();
    const auto equal_row = [&](const std::uint16_t* row, int y) { return std::equal(row, row + 99, picture.row(y)); };
    for (const int step : {1, 5, 17, 40}) {
        auto rows = std::move(open_frame(file, 0, {Profile::srgb(), 3, {}})).value()->window(step + 5, 3);
        for (int y = 0; y < 90; y += step) {
            const int first = std::max(0, y - 2);
            const int last = std::min(90, y + step + 3);
            REQUIRE(rows->require(first, last).ok());
            for (int r = first; r < last; ++r) REQUIRE(equal_row(rows->row(r).wide, r));
        }
    }
    auto skipping = std::move(open_frame(file, 0, {Profile::srgb(), 3, {}})).value()->window(10, 0);
    REQUIRE(skipping->require(70, 80).ok());
    CHECK(equal_row(skipping->row(75).wide, 75));
    REQUIRE(skipping->require(89, 90).ok());
    CHECK(equal_row(skipping->row(89).wide, 89));
}

TEST_CASE("a frame of another profile is brought to the working one; one that shares it is not touched") {
    const Folder folder;
    const Raster16 picture = test::speckle({30, 20}, 3, 4);
    // Any profile but sRGB: sRGB's own bytes with another name are another profile of the same colours.
    std::vector<std::uint8_t> bytes = Profile::srgb().bytes();
    bytes[4] = 'x';
    const Profile other(bytes);
    test::write(folder / "a.tif", picture, 16, other);
    test::write(folder / "b.tif", picture, 16, other);
    Job job;
    const Pile same = open_frames({{folder / "a.tif"}, {folder / "b.tif"}}, Outcome::trails, Order::name, job).value();
    CHECK(same.profile == other);
    CHECK(test::difference(merged_by(same, Mode::maximum), picture) == "");
    test::write(folder / "c.tif", picture, 16);
    const Pile mixed =
        open_frames({{folder / "c.tif"}, {folder / "a.tif"}}, Outcome::trails, Order::given, job).value();
    CHECK(mixed.profile.is_srgb());
    // The colours are the same, so the conversion changes next to nothing.
    CHECK(test::difference(merged_by(with_base(mixed, 2), Mode::one), picture, 300) == "");
}

TEST_CASE("a colour frame that joins a grey pile becomes grey by its brightness, not by one of its channels") {
    const Folder folder;
    const Size size{20, 10};
    Raster16 grey(size, 1), colour(size, 3);
    for (std::uint16_t& v : grey.data()) v = 257 * 50;
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x) {
            colour.at(x, y, 0) = 257 * 20;
            colour.at(x, y, 1) = 257 * 200;
            colour.at(x, y, 2) = 257 * 40;
        }
    test::write(folder / "a.tif", grey);
    test::write(folder / "b.tif", colour);
    Job job;
    const Pile pile = open_frames({{folder / "a.tif"}}, Outcome::trails, Order::given, job).value();
    REQUIRE(pile.channels == 1);
    const Pile more = add_frames(pile, {{folder / "b.tif"}}, job).value();
    const Raster16 merged = test::render_all(with_mode(more, Mode::maximum)).value();
    CHECK(merged.channels() == 1);
    CHECK(merged.at(5, 5, 0) > 257 * 140);
    CHECK(merged.at(5, 5, 0) < 257 * 200);
}

TEST_CASE("turned frames merge upright beside upright ones") {
    const Folder folder;
    const Raster16 upright = test::speckle_8({20, 30}, 1, 5);
    Raster16 lying({30, 20}, 1);
    // What the camera wrote: a quarter turn clockwise makes it upright.
    for (int y = 0; y < 30; ++y)
        for (int x = 0; x < 20; ++x) lying.at(y, 19 - x, 0) = upright.at(x, y, 0);
    test::write(folder / "a.tif", upright, 8);
    test::write(folder / "raw.tif", lying, 8);
    std::string bytes = test::bytes_of(folder / "raw.tif");
    const auto at = bytes.find(std::string{"\x12\x01\x03\x00\x01\x00\x00\x00", 8});
    REQUIRE(at != std::string::npos);
    bytes[at + 8] = 6;
    REQUIRE(write_whole(folder / "b.tif", [&](const fs::path& p) -> Status {
                std::FILE* out = std::fopen(p.c_str(), "wb");
                std::fwrite(bytes.data(), 1, bytes.size(), out);
                std::fclose(out);
                return Done{};
            }).ok());
    Job job;
    const Pile pile = open_frames({{folder / "a.tif"}, {folder / "b.tif"}}, Outcome::trails, Order::given, job).value();
    REQUIRE(merged_ids(pile).size() == 2);
    CHECK(test::difference(merged_by(pile, Mode::minimum), upright) == "");
    CHECK(test::difference(merged_by(pile, Mode::maximum), upright) == "");
}
