// The picture turned so that its horizon is level.
#include "engine/turning.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "engine/cover.h"
#include "engine/export.h"
#include "engine/horizon.h"
#include "engine/open.h"
#include "engine/render.h"
#include "io/gather.h"
#include "io/reader.h"
#include "pile/edits.h"
#include "pile/finish_edits.h"
#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;

namespace {

constexpr std::size_t roomy = std::size_t(1) << 30;

Matrix turn_about_middle(Size size, double degrees) {
    return Matrix::rigid(degrees * std::numbers::pi / 180, {(size.width - 1) / 2.0, (size.height - 1) / 2.0}, 0, 0);
}

// A frame that was held askew: turned back it is the scene as it stands.
Pile askew(const Folder& folder, Size size, double degrees) {
    test::write(folder / "a.tif", test::landscape(size, turn_about_middle(size, degrees)));
    Job job;
    Pile pile =
        open_frames(gather_run({folder.path().string()}).value(), Outcome::trails, Order::captured, job).value();
    return with_turn(std::move(pile), degrees);
}

}  // namespace

TEST_CASE("a picture that was held askew stands as its scene when it is turned") {
    for (const double degrees : {3.0, -7.5, 30.0}) {
        const Folder folder;
        const Size size{240, 180};
        const Pile pile = askew(folder, size, degrees);
        const Rect area = output_area(pile);
        CHECK(area.width < size.width);
        CHECK(std::abs(double(area.width) / area.height - 240.0 / 180) < 0.03);
        FrameStore store(working_space(pile), {0, roomy});
        Job job;
        const Raster16 made = render(pile, store, area, 0, job).value();
        const Raster16 scene = test::landscape(size, Matrix());
        double squares = 0;
        for (int y = 4; y < area.height - 4; ++y)
            for (int x = 4; x < area.width - 4; ++x) {
                const double off = made.at(x, y, 1) - double(scene.at(area.left + x, area.top + y, 1));
                squares += off * off;
            }
        INFO(degrees);
        // In thousandths of white: what resampling leaves.
        CHECK(std::sqrt(squares / (area.width * area.height)) / 65.535 < 4);
    }
}

TEST_CASE("a turned picture is the same by regions, by rows and in a file, at every level, within any budget") {
    const Folder folder, out;
    Pile pile = test::speckle_pile(folder, 3, {211, 160}, 16);
    pile = with_turn(with_mode(std::move(pile), Mode::median), -11);
    Detail detail;
    detail.sharpen = 80;
    pile = with_detail(std::move(pile), detail);
    FrameStore store(working_space(pile), {0, roomy});
    Job job;
    for (const int level : {0, 1}) {
        const Rect all = at_level(Rect{-20, -15, 250, 190}, level);
        const Raster16 wanted = render(pile, store, all, level, job).value();
        for (const Rect& part : {Rect{all.left, all.top, 40, 30}, Rect{20, 33, 51, 44}, Rect{60, 40, 1, 1}}) {
            const Raster16 piece = render(pile, store, part, level, job).value();
            bool same = true;
            for (int y = 0; y < part.height; ++y)
                for (int x = 0; x < part.width; ++x)
                    for (int c = 0; c < 3; ++c)
                        same =
                            same && piece.at(x, y, c) == wanted.at(part.left + x - all.left, part.top + y - all.top, c);
            CHECK(same);
        }
    }
    const Raster16 whole_one = render(pile, store, output_area(pile), 0, job).value();
    for (const std::size_t budget : {roomy, std::size_t(120) << 20}) {
        ExportOptions options;
        options.memory_bytes = budget;
        REQUIRE(export_picture(pile, out / "turned.tif", options, job).ok());
        CHECK(test::difference(read_picture(out / "turned.tif").value(), whole_one).empty());
    }
    // Turned by nothing it is what it was, to the bit.
    const Pile still = with_turn(pile, 0);
    CHECK(output_area(still) == output_area(with_turn(with_turn(still, 5), 0)));
    CHECK(with_turn(still, NAN).turn_deg == 0);
    CHECK(with_turn(still, 90).turn_deg == 45);
}

TEST_CASE("edges are shaded in the shape of the turned crop, and beyond the canvas is its background") {
    const Folder folder;
    const Size size{200, 150};
    Raster16 flat(size, 3);
    std::fill(flat.data().begin(), flat.data().end(), std::uint16_t{30000});
    test::write(folder / "flat.tif", flat);
    Job job;
    Pile pile =
        open_frames(gather_run({folder.path().string()}).value(), Outcome::trails, Order::captured, job).value();
    pile = with_edge_shade(std::move(pile), {-2, 20, 100});
    const auto corners_of = [&](const Pile& of) {
        FrameStore store(working_space(of), {0, roomy});
        const Raster16 made = render(of, store, output_area(of), 0, job).value();
        return std::array<int, 5>{made.at(1, 1, 1), made.at(made.width() - 2, 1, 1), made.at(1, made.height() - 2, 1),
                                  made.at(made.width() - 2, made.height() - 2, 1),
                                  made.at(made.width() / 2, made.height() / 2, 1)};
    };
    const auto straight = corners_of(pile), turned_ones = corners_of(with_turn(pile, 12));
    for (std::size_t i = 0; i < straight.size(); ++i) CHECK(std::abs(straight[i] - turned_ones[i]) < 500);
    CHECK(straight[0] < straight[4] - 8000);
    Pile beyond = with_crop(with_turn(pile, 12), whole(size));
    beyond.canvas.background = {1, 0, 0};
    FrameStore store(working_space(beyond), {0, roomy});
    const Raster16 corner = render(beyond, store, {0, 0, 2, 2}, 0, job).value();
    CHECK(corner.at(0, 0, 0) == 65535);
    CHECK(corner.at(0, 0, 1) == 0);
}

TEST_CASE("a crop that lies in an empty corner of the turned picture is none, and one that touches it is written") {
    const Folder folder, out;
    const Pile pile = with_turn(test::speckle_pile(folder, 2, {200, 150}, 16), 44);
    const Pile outside = with_crop(pile, Rect{184, 0, 16, 16});
    CHECK(output_area(outside) == output_area(pile));
    const Pile touching = with_crop(pile, Rect{0, 0, 60, 60});
    CHECK(output_area(touching) == Rect{0, 0, 60, 60});
    Job job;
    for (const Pile* one : {&outside, &touching}) {
        REQUIRE(export_picture(*one, out / "corner.tif", {}, job).ok());
        FrameStore store(working_space(*one), {0, roomy});
        CHECK(test::difference(read_picture(out / "corner.tif").value(),
                               render(*one, store, output_area(*one), 0, job).value())
                  .empty());
    }
}

TEST_CASE("the lean of a horizon is found to a twentieth of a degree, and none is where there is none") {
    const Size size{480, 320};
    for (const double lean : {0.0, 1.3, -4.7, 12.0}) {
        const double slope = std::tan(lean * std::numbers::pi / 180);
        Raster16 sea = test::speckle(size, 3, 5);
        for (int y = 0; y < size.height; ++y)
            for (int x = 0; x < size.width; ++x) {
                const double border = 150 + slope * (x - 240);
                const double share = std::clamp(border - y + 0.5, 0.0, 1.0);  // of the sky
                for (int c = 0; c < 3; ++c) sea.at(x, y, c) = std::uint16_t(9000 + 3000 * share + sea.at(x, y, c) / 14);
            }
        const auto found = lean_of(sea);
        INFO(lean);
        REQUIRE(found.has_value());
        CHECK(std::abs(*found - lean) < 0.05);
    }
    CHECK_FALSE(lean_of(test::speckle(size, 3, 9)).has_value());
    CHECK_FALSE(lean_of(Raster16({20, 20}, 3)).has_value());
}
