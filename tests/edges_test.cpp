// The edges of parts: seams, blends, and what they are made of.
#include <catch2/catch.hpp>
#include <cmath>
#include <numeric>
#include <random>

#include "engine/checking.h"
#include "engine/export.h"
#include "engine/open.h"
#include "engine/origins.h"
#include "engine/part_edges.h"
#include "engine/render.h"
#include "io/gather.h"
#include "io/reader.h"
#include "parts/membrane.h"
#include "parts/seam.h"
#include "parts/shapes.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "pile/part_edits.h"
#include "support/fixtures.h"

using namespace bp;

namespace {

// What a border between the pixels that are 255 and the others costs.
double cost_of(const RasterF& apart, const Raster8& over) {
    double out = 0;
    const auto between = [&](int x, int y, int u, int v, double weight) {
        if (u < 0 || u >= over.width() || v >= over.height() || over.at(x, y, 0) == over.at(u, v, 0)) return;
        out += weight * (double(apart.at(x, y, 0)) + apart.at(u, v, 0));
    };
    for (int y = 0; y < over.height(); ++y)
        for (int x = 0; x < over.width(); ++x) {
            between(x, y, x + 1, y, straight_seam);
            between(x, y, x, y + 1, straight_seam);
            between(x, y, x - 1, y + 1, diagonal_seam);
            between(x, y, x + 1, y + 1, diagonal_seam);
        }
    return out;
}

Mask ellipse(Size size, Point from, Point to) {
    return with_shape(Mask(size), {ShapeKind::ellipse, from, to, 1}, true);
}

// Two frames of a landscape in memory and on disk: the second as `second` has it, with a part of it in `mask` on top.
Pile two_frames(const test::Folder& folder, const Raster16& first, const Raster16& second, const Mask& mask) {
    fs::create_directories(folder / "two");
    test::write(folder / "two" / "a.tif", first);
    test::write(folder / "two" / "b.tif", second);
    Job job;
    Pile pile =
        open_frames(gather_run({(folder / "two").string()}).value(), Outcome::best_of, Order::name, job).value();
    int part = 0;
    std::tie(pile, part) = with_new_part(std::move(pile), pile.frames[1].id);
    return with_part_mask(std::move(pile), part, mask);
}

// A bright disc in a picture.
Raster16 with_disc(Raster16 picture, Point middle, double radius) {
    for (int y = 0; y < picture.height(); ++y)
        for (int x = 0; x < picture.width(); ++x)
            if (std::hypot(x - middle.x, y - middle.y) <= radius)
                for (int c = 0; c < 3; ++c) picture.at(x, y, c) = std::uint16_t(c == 0 ? 60000 : 9000);
    return picture;
}

// Of the disc's pixels, how many show it.
double share_of_disc(const Raster16& picture, Point middle, double radius) {
    int all = 0, shown = 0;
    for (int y = 0; y < picture.height(); ++y)
        for (int x = 0; x < picture.width(); ++x)
            if (std::hypot(x - middle.x, y - middle.y) <= radius - 1) {
                ++all;
                shown += picture.at(x, y, 0) > 58000 && picture.at(x, y, 1) < 11000;
            }
    return double(shown) / all;
}

}  // namespace

TEST_CASE("a seam is the cheapest of all borders that there are") {
    std::mt19937 dice(7);
    for (int round = 0; round < 40; ++round) {
        const Size size{4, 5};
        RasterF apart(size, 1);
        Raster8 sides(size, 1);
        std::vector<Point> open;
        for (int y = 0; y < size.height; ++y)
            for (int x = 0; x < size.width; ++x) {
                apart.at(x, y, 0) = float(dice() % 1000) / 1000;
                const bool free = dice() % 10 < 6 && open.size() < 12;
                if (free) open.push_back({double(x), double(y)});
                sides.at(x, y, 0) = std::uint8_t(free ? Side::open : dice() % 2 ? Side::over : Side::below);
            }
        Raster8 tried(size, 1);
        for (int y = 0; y < size.height; ++y)
            for (int x = 0; x < size.width; ++x) tried.at(x, y, 0) = Side(sides.at(x, y, 0)) == Side::over ? 255 : 0;
        double least = 1e9;
        for (unsigned choice = 0; choice < 1U << open.size(); ++choice) {
            for (std::size_t i = 0; i < open.size(); ++i)
                tried.at(int(open[i].x), int(open[i].y), 0) = choice >> i & 1 ? 255 : 0;
            least = std::min(least, cost_of(apart, tried));
        }
        const Raster8 found = least_seam(apart, sides);
        CHECK(cost_of(apart, found) == Approx(least).margin(1e-4));
        for (int y = 0; y < size.height; ++y)
            for (int x = 0; x < size.width; ++x)
                if (Side(sides.at(x, y, 0)) != Side::open)
                    CHECK((found.at(x, y, 0) == 255) == (Side(sides.at(x, y, 0)) == Side::over));
    }
}

TEST_CASE("a membrane is what all of its equations at once say") {
    std::mt19937 dice(11);
    for (int round = 0; round < 12; ++round) {
        const Size size{17, 14};
        RasterF values(size, 3);
        Raster8 kinds(size, 1);
        for (int y = 0; y < size.height; ++y)
            for (int x = 0; x < size.width; ++x) {
                const unsigned roll = dice() % 20;
                kinds.at(x, y, 0) = std::uint8_t(roll < 2   ? Stretch::given
                                                 : roll < 4 ? Stretch::none
                                                            : Stretch::sought);
                for (int c = 0; c < 3; ++c) values.at(x, y, c) = float(int(dice() % 2000) - 1000) / 1000;
            }
        RasterF solved = values.clone();
        solve_membrane(solved, kinds);
        // Relaxed until nothing moves, from what was given alone.
        RasterF plain = values.clone();
        const auto kind = [&](int x, int y) {
            return x < 0 || y < 0 || x >= size.width || y >= size.height ? Stretch::none : Stretch(kinds.at(x, y, 0));
        };
        for (int y = 0; y < size.height; ++y)
            for (int x = 0; x < size.width; ++x)
                if (kind(x, y) != Stretch::given)
                    for (int c = 0; c < 3; ++c) plain.at(x, y, c) = 0;
        for (int step = 0; step < 4000; ++step)
            for (int y = 0; y < size.height; ++y)
                for (int x = 0; x < size.width; ++x) {
                    if (kind(x, y) != Stretch::sought) continue;
                    for (int c = 0; c < 3; ++c) {
                        float sum = 0;
                        int count = 0;
                        for (const auto& [u, v] : {std::pair{x - 1, y}, {x + 1, y}, {x, y - 1}, {x, y + 1}})
                            if (kind(u, v) != Stretch::none) {
                                sum += plain.at(u, v, c);
                                ++count;
                            }
                        if (count) plain.at(x, y, c) = sum / float(count);
                    }
                }
        double worst = 0;
        for (int y = 0; y < size.height; ++y)
            for (int x = 0; x < size.width; ++x)
                for (int c = 0; c < 3; ++c)
                    if (kind(x, y) != Stretch::none)
                        worst = std::max(worst, std::abs(double(plain.at(x, y, c)) - solved.at(x, y, c)));
        CHECK(worst < 2e-3);
    }
}

TEST_CASE("a membrane of which nothing is given is none, and one of one value is that value") {
    RasterF values({30, 20}, 1);
    Raster8 kinds({30, 20}, 1);
    for (int y = 2; y < 18; ++y)
        for (int x = 2; x < 28; ++x) kinds.at(x, y, 0) = std::uint8_t(Stretch::sought);
    values.at(9, 9, 0) = 5;
    RasterF nothing = values.clone();
    solve_membrane(nothing, kinds);
    CHECK(nothing.at(9, 9, 0) == 0);
    for (int x = 2; x < 28; ++x) {
        kinds.at(x, 2, 0) = std::uint8_t(Stretch::given);
        values.at(x, 2, 0) = 0.25F;
    }
    solve_membrane(values, kinds);
    for (int x = 2; x < 28; ++x) CHECK(values.at(x, 17, 0) == Approx(0.25).margin(1e-4));
}

TEST_CASE("a seam goes around what moved, where the plain stroke cuts it") {
    const test::Folder folder;
    const Size size{400, 300};
    const Raster16 scene = test::landscape(size, {}, 3, 0.005);
    const Raster16 again = test::landscape(size, {}, 4, 0.005);
    // The stroke's border runs through the middle of a disc that only the second frame has, and of one that only the
    // first has.
    const Point in_second{200, 90}, in_first{200, 210};
    const double radius = 12;
    const Mask mask = ellipse(size, {120, 90}, {280, 210});
    Pile pile = two_frames(folder, with_disc(scene.clone(), in_first, radius),
                           with_disc(again.clone(), in_second, radius), mask);
    const Raster16 cut = test::render_all(pile).value();
    CHECK(share_of_disc(cut, in_second, radius) > 0.3);
    CHECK(share_of_disc(cut, in_second, radius) < 0.7);
    for (const Edge edge : {Edge::seam, Edge::blended}) {
        pile = with_part_band(with_part_edge(pile, pile.parts[0].id, edge), pile.parts[0].id, 90);
        const Raster16 seamed = test::render_all(pile).value();
        for (const Point& disc : {in_second, in_first}) {
            const double share = share_of_disc(seamed, disc, radius);
            INFO("share of the disc at " << disc.y << ": " << share);
            CHECK((share == 0 || share > 0.99));
        }
    }
}

TEST_CASE("where frames agree a seam leaves nothing to see, and what lies far from the stroke is as it was") {
    const test::Folder folder;
    const Size size{400, 300};
    const Raster16 scene = test::landscape(size, {});
    Pile pile = two_frames(folder, scene, scene, ellipse(size, {120, 90}, {280, 210}));
    for (const Edge edge : {Edge::seam, Edge::blended}) {
        pile = with_part_edge(pile, pile.parts[0].id, edge);
        CHECK(test::difference(test::render_all(pile).value(), scene, edge == Edge::seam ? 0 : 2) == "");
    }
}

TEST_CASE("a blended part of a brighter and warmer frame leaves no step at its border and no halo about it") {
    const test::Folder folder;
    const Size size{600, 450};
    const Raster16 scene = test::landscape(size, {}, 5, 0.004);
    Raster16 other = test::lit(test::landscape(size, {}, 6, 0.004), 1.1);
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x) {
            other.at(x, y, 0) = curve.sample(1.04 * curve.light(other.at(x, y, 0)));
            other.at(x, y, 2) = curve.sample(0.95 * curve.light(other.at(x, y, 2)));
        }
    Pile pile = two_frames(folder, scene, other, ellipse(size, {150, 110}, {450, 340}));
    const int part = pile.parts[0].id;
    // By how much the light of the result is off the first frame's, on average over pieces of picture; the noise of
    // neighbours evens out.
    const auto worst = [&](const Raster16& picture) {
        double out = 0;
        constexpr int piece = 25;
        for (int top = 0; top + piece <= size.height; top += piece)
            for (int left = 0; left + piece <= size.width; left += piece)
                for (int c = 0; c < 3; ++c) {
                    double a = 0, b = 0;
                    for (int y = top; y < top + piece; ++y)
                        for (int x = left; x < left + piece; ++x) {
                            a += curve.light(picture.at(x, y, c));
                            b += curve.light(scene.at(x, y, c));
                        }
                    out = std::max(out, std::abs(a / b - 1));
                }
        return out;
    };
    const double painted = worst(test::render_all(pile).value());
    const double blended = worst(test::render_all(with_part_edge(pile, part, Edge::blended)).value());
    INFO("off by " << painted << " as painted, " << blended << " blended");
    CHECK(painted > 0.1);
    CHECK(blended < 0.005);
}

TEST_CASE("in frames from the hand, noisy, brighter and shifted near by, no edge is worse than the plain stroke") {
    const Size size{480, 360};
    for (const unsigned seed : {11U, 12U, 13U}) {
        const test::Folder folder;
        constexpr double noise = 0.03;  // as of a high ISO
        const Raster16 first = test::landscape(size, {}, seed, noise);
        Raster16 second = test::landscape(size, {}, seed + 100, noise);
        // What is near has moved by parallax.
        const Raster16 near = test::landscape(size, Matrix::shift(4, -2), seed + 200, noise);
        for (int y = 180; y < size.height; ++y) std::copy_n(near.row(y), near.row_samples(), second.row(y));
        second = test::lit(std::move(second), 1.08);
        const Pile pile = two_frames(folder, first, second, ellipse(size, {120, 90}, {360, 270}));
        // How much more neighbours differ than they do in either frame: what is to be seen of a border.
        const auto seen = [&](const Raster16& picture) {
            const auto step = [](const Raster16& of, int x, int y, int u, int v) {
                double out = 0;
                for (int c = 0; c < 3; ++c) out += std::abs(double(of.at(x, y, c)) - of.at(u, v, c)) / 65535;
                return out;
            };
            double out = 0;
            for (int y = 0; y + 1 < size.height; ++y)
                for (int x = 0; x + 1 < size.width; ++x)
                    for (const auto& [u, v] : {std::pair(x + 1, y), std::pair(x, y + 1)})
                        out += std::max(0.0, step(picture, x, y, u, v) -
                                                 std::max(step(first, x, y, u, v), step(second, x, y, u, v)));
            return out;
        };
        const double painted = seen(test::render_all(pile).value());
        const int part = pile.parts[0].id;
        const double seam = seen(test::render_all(with_part_edge(pile, part, Edge::seam)).value());
        const double blended = seen(test::render_all(with_part_edge(pile, part, Edge::blended)).value());
        INFO("seen of the border: " << painted << " as painted, " << seam << " least seam, " << blended << " blended");
        CHECK(painted > 0);
        CHECK(seam < painted);
        CHECK(blended < painted);
    }
}

TEST_CASE("edges are the same at once, in pieces, from tiles, in an export and from the cache") {
    const test::Folder folder;
    const Size size{400, 300};
    Pile pile = two_frames(folder, test::landscape(size, {}, 1, 0.02),
                           test::lit(test::landscape(size, {}, 2, 0.02), 1.2), ellipse(size, {60, 50}, {280, 210}));
    pile = with_part_edge(pile, pile.parts[0].id, Edge::blended);
    int second = 0;
    std::tie(pile, second) = with_new_part(std::move(pile), pile.frames[0].id);
    pile = with_part_mask(std::move(pile), second, ellipse(size, {200, 100}, {360, 260}));
    pile = with_part_edge(std::move(pile), second, Edge::seam);
    Job job;
    const auto kept = std::make_shared<Derived>(std::make_shared<KeptFiles>(folder / "derived", 1U << 30));
    const MemoryBudget budget{0, std::size_t(1) << 30};
    FrameStore store(working_space(pile), budget, Scratch::in_cache(), kept);
    const Raster16 whole_picture = render(pile, store, whole(size), 0, job).value();
    CHECK(test::difference(test::render_all(pile).value(), whole_picture) == "");
    BaseTiles tiles(std::size_t(1) << 28);
    FrameStore fresh(working_space(pile), budget, Scratch::in_cache(), kept);
    const Rect piece{150, 90, 120, 110};
    for (BaseTiles* with : {static_cast<BaseTiles*>(nullptr), &tiles}) {
        const Raster16 made = render(pile, fresh, piece, 0, job, with).value();
        for (int y = 0; y < piece.height; ++y)
            REQUIRE(std::equal(made.row(y), made.row(y) + made.row_samples(),
                               whole_picture.row(piece.top + y) + piece.left * 3));
    }
    ExportOptions options;
    REQUIRE(export_picture(pile, folder / "out.tif", options, job).ok());
    // What the window has solved the export need not solve again.
    ExportOptions knowing;
    knowing.known = &store;
    REQUIRE(export_picture(pile, folder / "known.tif", knowing, job).ok());
    CHECK(test::bytes_of(folder / "known.tif") == test::bytes_of(folder / "out.tif"));
    FrameFile file;
    file.path = folder / "out.tif";
    file.facts = probe_picture(file.path).value();
    CHECK(test::difference(read_frame(file, 0, working_space(pile), job).value(), whole_picture) == "");
}

TEST_CASE("what is wrong with a solved edge in the cache is told, whatever byte it is") {
    const test::Folder folder;
    const Size size{200, 150};
    Pile pile = two_frames(folder, test::landscape(size, {}), test::lit(test::landscape(size, {}), 1.2),
                           ellipse(size, {40, 30}, {140, 110}));
    pile = with_part_edge(pile, pile.parts[0].id, Edge::blended);
    Job job;
    FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
    const int level = level_of_edges(pile);
    const Rect box = box_of_edge(pile, pile.parts[0]);
    const PartAlone own = part_alone(pile, pile.parts[0], store, box, level, job).value();
    Pile base = pile;
    base.parts.clear();
    const Raster16 below = render(base, store, box, level, job).value();
    const SolvedEdge edge = solved_edge(pile, pile.parts[0], own, below);
    REQUIRE(edge.light.has_value());
    Packer to;
    pack(to, edge);
    const PackedBytes bytes = to.done();
    const auto again = [](std::span<const std::uint8_t> from) {
        Unpacker unpacker(from);
        SolvedEdge out;
        unpack(unpacker, out);
        return std::pair{unpacker.whole(), std::move(out)};
    };
    auto [whole_again, read] = again(bytes);
    REQUIRE(whole_again);
    CHECK(read.mask == edge.mask);
    CHECK(read.light->left == edge.light->left);
    CHECK(read.light->unit == edge.light->unit);
    CHECK(std::equal(read.light->factors.data().begin(), read.light->factors.data().end(),
                     edge.light->factors.data().begin()));
    for (std::size_t cut = 0; cut < bytes.size(); cut += 1 + bytes.size() / 97)
        CHECK_FALSE(again(std::span(bytes).first(cut)).first);
}

TEST_CASE("a solved edge depends on what it is made of, and on nothing else") {
    const test::Folder folder;
    const Size size{200, 150};
    Pile pile = two_frames(folder, test::landscape(size, {}), test::lit(test::landscape(size, {}), 1.2),
                           ellipse(size, {40, 30}, {100, 90}));
    const int part = pile.parts[0].id;
    pile = with_part_edge(std::move(pile), part, Edge::seam);
    int far = 0;
    std::tie(pile, far) = with_new_part(std::move(pile), pile.frames[1].id);
    const Fingerprint before = recipe_of_edge(pile, pile.parts[0]);
    const auto after = [&](const Pile& changed) { return recipe_of_edge(changed, *find_part(changed, part)); };
    CHECK(after(with_part_name(pile, part, "boat")) == before);
    CHECK(after(with_part_strength(pile, part, 0.5)) == before);
    CHECK(after(with_part_join(pile, part, Join::lighter)) == before);
    CHECK(after(with_part_mask(pile, far, ellipse(size, {40, 30}, {100, 90}))) == before);  // it lies above
    CHECK(after(with_part_edge(pile, part, Edge::blended)) != before);
    CHECK(after(with_part_band(pile, part, 33)) != before);
    CHECK(after(with_part_mask(pile, part, ellipse(size, {41, 30}, {100, 90}))) != before);
    Look look;
    look.exposure_ev = 0.2;
    CHECK(after(with_part_look(pile, part, look)) != before);
    Pile below = with_part_moved(with_part_mask(pile, far, ellipse(size, {60, 30}, {120, 90})), far, -1);
    CHECK(after(below) != before);
    CHECK(after(with_part_mask(below, far, ellipse(size, {170, 130}, {190, 145}))) == before);
}

TEST_CASE("origins tell the frames of parts, and of a part that lightens only where it does") {
    const test::Folder folder;
    const Size size{200, 150};
    const Raster16 scene = test::landscape(size, {});
    Pile pile = two_frames(folder, scene, with_disc(scene.clone(), {70, 60}, 15), ellipse(size, {40, 30}, {100, 90}));
    const int first = pile.frames[0].id, second = pile.frames[1].id;
    Job job;
    FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
    const auto origin = [&](int x, int y) {
        return origins_of(pile, store, whole(size), 0, job).value().first_at(x, y);
    };
    CHECK(origin(70, 60) == second);
    CHECK(origin(45, 60) == second);
    CHECK(origin(20, 20) == first);
    pile = with_part_join(std::move(pile), pile.parts[0].id, Join::lighter);
    CHECK(origin(45, 60) == first);
    CHECK(origin(70, 60) == second);
    pile = with_part_on(std::move(pile), pile.parts[0].id, false);
    CHECK(origin(70, 60) == first);
    // Placed elsewhere it is told there.
    pile = with_part_on(with_part_join(std::move(pile), pile.parts[0].id, Join::replace), pile.parts[0].id, true);
    pile = with_part_place(std::move(pile), pile.parts[0].id, PartPlace{{90, 50}, 0, 1, false});
    CHECK(origin(70, 60) == first);
    CHECK(origin(160, 110) == second);
}

TEST_CASE("a border that cuts through something is found where it does, and a seam that goes around it is not") {
    const test::Folder folder;
    const Size size{400, 300};
    const Point disc{200, 90};
    const Raster16 scene = test::landscape(size, {}, 3, 0.005);
    Pile pile = two_frames(folder, scene, with_disc(test::landscape(size, {}, 4, 0.005), disc, 14),
                           ellipse(size, {120, 90}, {280, 210}));
    Job job;
    FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
    const auto flaws = [&] { return flaws_of(pile, store, job).value(); };
    const std::vector<Flawed> found = flaws();
    REQUIRE(found.size() == 1);
    CHECK(found[0].flaw == Flaw::ghost);
    CHECK(found[0].part == pile.parts[0].id);
    CHECK(std::abs(found[0].where.left + found[0].where.width / 2 - disc.x) < 10);
    CHECK(std::abs(found[0].where.top + found[0].where.height / 2 - disc.y) < 10);
    pile = with_part_band(with_part_edge(std::move(pile), pile.parts[0].id, Edge::seam), pile.parts[0].id, 90);
    CHECK(flaws().empty());
}

TEST_CASE("subjects that cover each other, and places that nothing reaches, are found before exporting") {
    const test::Folder folder;
    const Size size{200, 150};
    const Raster16 scene = test::landscape(size, {});
    Pile pile = two_frames(folder, scene, scene, Mask(size));
    pile.parts.clear();
    const std::vector<FoundSubject> subjects{{{pile.frames[0].id, ellipse(size, {20, 40}, {80, 100})},
                                              {pile.frames[1].id, ellipse(size, {60, 40}, {120, 100})}}};
    pile = with_every(with_subjects(std::move(pile), subjects), 1);
    Job job;
    FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
    const std::vector<Flawed> found = flaws_of(pile, store, job).value();
    REQUIRE(found.size() == 1);
    CHECK(found[0].flaw == Flaw::overlap);
    CHECK(intersect(found[0].where, {59, 39, 23, 63}) == found[0].where);
    CHECK(flaws_of(Sequence(pile).solved(pile), store, job).value().empty());
    // A frame alone that was moved leaves a strip.
    Pile moved = with_mode(pile, Mode::maximum);
    moved.parts.clear();
    moved.methods.sky.model = Model::shift;
    moved.cover = Cover::any;
    for (Frame& frame : moved.frames) {
        Alignment place;
        place.to_reference = Matrix::shift(30, 0);
        place.aligned = true;
        place.confidence = 1;
        frame.places.sky = place;
    }
    const std::vector<Flawed> holes = flaws_of(moved, store, job).value();
    REQUIRE(holes.size() == 1);
    CHECK(holes[0].flaw == Flaw::hole);
    CHECK(std::abs(holes[0].where.width - 30) <= 1);
    CHECK(holes[0].where.height == size.height);
}
