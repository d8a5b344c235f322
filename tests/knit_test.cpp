// Breaks in trails: where lights move, how, and what closes the pauses between exposures.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <set>

#include "engine/base_tiles.h"
#include "engine/export.h"
#include "engine/knitting.h"
#include "engine/open.h"
#include "engine/render.h"
#include "engine/zone_rows.h"
#include "lights/excess.h"
#include "lights/traces.h"
#include "pile/edits.h"
#include "practice/practice.h"
#include "practice/texture.h"
#include "support/fixtures.h"

namespace bp {
namespace {

using test::Folder;

struct Dice : practice::Dice {
    using practice::Dice::Dice;
    int below(int end) { return int(unit() * end); }
};

std::vector<std::vector<bool>> as_grid(const RunMask& mask) {
    std::vector<std::vector<bool>> out(std::size_t(mask.size().height),
                                       std::vector<bool>(std::size_t(mask.size().width)));
    for (int y = 0; y < mask.size().height; ++y)
        for (const RunMask::Run& run : mask.row(y))
            for (int x = run.begin; x < run.end; ++x) out[std::size_t(y)][std::size_t(x)] = true;
    return out;
}

// A run of the lighthouse at a size at which pauses are breaks, with its truth.
struct Night {
    explicit Night(int frames, Size size = {1200, 800}) {
        practice::PracticeOptions options;
        options.frames = frames;
        options.size = size;
        Job job;
        REQUIRE(practice::practise(*practice::scene_named("lighthouse"), folder.path(), options, job).ok());
        std::vector<NamedFile> named;
        for (int i = 1; i <= frames; ++i) {
            const std::string number = std::to_string(i);
            named.push_back(
                {folder / ("lighthouse-" + std::string(4 - number.size(), '0') + number + ".jpg"), Role::scene});
        }
        pile =
            with_mode(open_frames(named, Outcome::trails, Order::captured, job, KnownBy::path).value(), Mode::maximum);
        pile.cover = Cover::any;
    }
    Raster16 truth(const char* name) const {
        FrameFile file;
        file.path = folder / ("truth/" + std::string(name) + ".tif");
        file.facts = probe_picture(file.path).value();
        Job job;
        return read_frame(file, 0, working_space(pile), job).value();
    }
    Folder folder;
    Pile pile;
};

Pile knitted(Pile pile, double longest_s = 60) {
    return with_knit(std::move(pile), {true, longest_s});
}

// Linear light of a pixel, its channels together.
double light(const Raster16& picture, int x, int y) {
    double out = 0;
    for (int c = 0; c < 3; ++c) {
        const double v = picture.at(x, y, c) / 65535.0;
        out += v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
    }
    return out;
}

}  // namespace

TEST_CASE("a mask of runs is what its stretches cover, whatever their order") {
    Dice dice(7);
    for (int round = 0; round < 40; ++round) {
        const Size size{1 + dice.below(40), 1 + dice.below(20)};
        std::vector<RunMask::Stretch> stretches;
        std::vector<std::vector<bool>> expected(std::size_t(size.height), std::vector<bool>(std::size_t(size.width)));
        for (int i = dice.below(60); i > 0; --i) {
            const int y = dice.below(24) - 2, begin = dice.below(50) - 5, end = begin + dice.below(9);
            stretches.push_back({y, {begin, end}});
            for (int x = std::max(0, begin); x < std::min(size.width, end); ++x)
                if (y >= 0 && y < size.height) expected[std::size_t(y)][std::size_t(x)] = true;
        }
        const RunMask mask(size, stretches);
        REQUIRE(as_grid(mask) == expected);
        std::size_t count = 0;
        const RunMask grown = mask.grown(2);
        for (int y = 0; y < size.height; ++y) {
            const auto runs = mask.row(y);
            for (std::size_t i = 1; i < runs.size(); ++i) REQUIRE(runs[i - 1].end < runs[i].begin);
            for (int x = 0; x < size.width; ++x) {
                count += expected[std::size_t(y)][std::size_t(x)];
                REQUIRE(mask.at(x, y) == expected[std::size_t(y)][std::size_t(x)]);
                bool near = false;
                for (int v = y - 2; v <= y + 2; ++v)
                    for (int u = x - 2; u <= x + 2; ++u) near = near || mask.at(u, v);
                REQUIRE(grown.at(x, y) == near);
            }
        }
        REQUIRE(mask.count() == count);
        Packer to;
        pack(to, mask);
        const PackedBytes bytes = to.done();
        Unpacker from(bytes);
        RunMask back;
        unpack(from, back);
        REQUIRE(from.whole());
        REQUIRE(back == mask);
    }
    CHECK(RunMask().empty());
}

TEST_CASE("what one frame has more than the run stands out; lamps, noise and changes of the whole do not") {
    constexpr int width = 300, frames = 20;
    Dice dice(11);
    std::vector<std::vector<std::uint16_t>> rows(frames, std::vector<std::uint16_t>(width));
    for (int k = 0; k < frames; ++k)
        for (int x = 0; x < width; ++x) {
            const double lamp = x >= 50 && x < 54 ? 30000 : 0;
            const double veil = k * 150;  // the sky pales
            rows[std::size_t(k)][std::size_t(x)] =
                std::uint16_t(6000 + lamp + veil + 400 * (dice.unit() + dice.unit() + dice.unit() - 1.5));
        }
    rows[7][200] = std::uint16_t(rows[7][200] + 9000);
    rows[8][203] = std::uint16_t(rows[8][203] + 2500);
    std::vector<const std::uint16_t*> pointers;
    for (const auto& row : rows) pointers.push_back(row.data());
    std::vector<Excess> found;
    const UsualRow usual = usual_row(pointers, width);
    Comparing comparing(usual, 5);
    for (std::size_t k = 0; k < pointers.size(); ++k) comparing.add_excess(pointers[k], std::uint16_t(k), found);
    std::set<std::pair<int, int>> places;
    for (const Excess& e : found) places.emplace(e.frame, e.x);
    for (const Excess& e : found)
        UNSCOPED_INFO("frame " << e.frame << ", x " << e.x << ", by " << e.by << ", " << e.deviations / 4);
    CHECK(places == std::set<std::pair<int, int>>{{7, 200}, {8, 203}});
    for (const Excess& e : found)
        if (e.frame == 7) CHECK(std::abs(e.by - 9000) < 900);
}

TEST_CASE("touching pixels are one trace, single ones noise, and wide light is no thin one") {
    std::vector<Bright> pixels;
    for (int y = 0; y < 40; ++y)
        for (int x = 0; x < 90; ++x) {
            const bool slanted = x == y + 2;       // a trail, pixels touch by their corners
            const bool cloud = y >= 5 && x >= 50;  // wide
            const bool arc = (y == 2 && x > 10 && x < 20) || (x == 20 && y > 2 && y < 6);
            if (slanted || cloud || arc || (x == 0 && y == 39)) pixels.push_back({x, y, 900, 20});
        }
    const std::vector<Trace> traces = traces_of(pixels);
    std::multiset<std::size_t> sizes;
    for (const Trace& t : traces) sizes.insert(t.pixels.size());
    CHECK(sizes == std::multiset<std::size_t>{12, 40, 35 * 40});
    const RunMask thin = thin_lights({90, 40}, traces);
    CHECK(thin.count() == 52);
    CHECK(thin.at(12, 10));
    CHECK_FALSE(thin.at(60, 20));
    CHECK(traces_of({}).empty());
    // One that stands out far is light, alone as it may be.
    CHECK(traces_of(std::vector<Bright>{{3, 3, 9000, 40}}).size() == 1);
}

TEST_CASE("the motion of the sky is found from frames that the stars placed, but for a knocked one") {
    const Size size{3000, 2000};
    const SkyMotion truth{Lens{{1499.5, 999.5}, 1800, -0.05, 0.01}, {1.1e-5, -3.3e-5, 6.4e-5}};
    std::vector<PlacedInTime> frames;
    for (int k = 0; k < 9; ++k) {
        const double time = 90.0 * k;
        Alignment place;
        const Placement to_reference = truth.over(-(time - 360));
        place.to_reference = to_reference.matrix;
        place.lens = to_reference.lens;
        if (k == 6) place.to_reference = Matrix::shift(4, -3) * place.to_reference;
        if (k == 7) place.by_clock = true;
        frames.push_back({place, time});
    }
    const auto found = sky_motion(frames, 4, size);
    REQUIRE(found);
    CHECK(found->fits == std::vector<bool>{true, true, true, true, true, true, false, false, true});
    for (std::size_t axis = 0; axis < 3; ++axis)
        CHECK(found->motion.spin[axis] == Approx(truth.spin[axis]).epsilon(1e-6));
    // Moving on and back again leads nowhere.
    const Point p{2700, 300};
    const Point q = found->motion.over(-75).to_canvas(found->motion.over(75).to_canvas(p));
    CHECK(std::hypot(q.x - p.x, q.y - p.y) < 1e-6);
    CHECK_FALSE(sky_motion(std::span(frames).first(2), 0, size));
    for (PlacedInTime& frame : frames) frame.place.to_reference = {};
    CHECK_FALSE(sky_motion(frames, 4, size));  // nothing turned
}

TEST_CASE("as many moments are thought in a pause as keep the trail even") {
    CHECK(steps_between(10, 12, 0) == 0);
    CHECK(steps_between(10, 10.5, 0.01) == 0);
    int before = 0;
    for (const double pause : {1.0, 5.0, 20.0, 30.0}) {
        const int steps = steps_between(30, 30 + pause, 0.3);
        CHECK(steps >= std::max(1, before));
        before = steps;
        // The maximum of all exposures along the way of a star, by brute sums over its light.
        const double speed = 0.3, length = 30 * speed, apart = speed * (30 + pause) / (steps + 1);
        const auto trail = [&](double middle, double at) {
            double sum = 0;
            for (int i = 0; i < 400; ++i) {
                const double d = (middle - length / 2 + length * (i + 0.5) / 400 - at) / 1.1;
                sum += std::exp(-d * d / 2);
            }
            return sum;
        };
        double least = 1e9;
        for (int i = 0; i <= 100; ++i) {
            const double at = apart * i / 100;
            least = std::min(least, std::max(trail(0, at), trail(apart, at)));
        }
        CHECK(least > 0.94 * trail(0, 0));
    }
}

TEST_CASE("pauses are knitted along the trails and nowhere else, never darker, and no land is touched") {
    const Night night(10);
    const Raster16 plain = test::render_all(night.pile).value();
    const Raster16 closed = test::render_all(knitted(night.pile)).value();
    const Raster16 broken_truth = night.truth("trails"), whole_truth = night.truth("knitted");
    std::size_t changed = 0, darker = 0, on_land = 0, beside = 0, beside_changed = 0;
    double truth_added = 0, added = 0;
    const Size size = night.pile.size;
    std::vector<std::vector<bool>> lit(std::size_t(size.height), std::vector<bool>(std::size_t(size.width)));
    // A place is lit where the truth is brighter than the darkest around: sky changes slowly.
    for (int y = 4; y < size.height - 4; ++y)
        for (int x = 4; x < size.width - 4; ++x) {
            double darkest = 9;
            for (int v = -4; v <= 4; v += 2)
                for (int u = -4; u <= 4; u += 2) darkest = std::min(darkest, light(whole_truth, x + u, y + v));
            lit[std::size_t(y)][std::size_t(x)] = light(whole_truth, x, y) > 1.02 * darkest + 0.0004;
        }
    for (int y = 4; y < size.height - 4; ++y)
        for (int x = 4; x < size.width - 4; ++x) {
            bool differs = false;
            for (int c = 0; c < 3; ++c) {
                differs = differs || closed.at(x, y, c) != plain.at(x, y, c);
                darker += closed.at(x, y, c) < plain.at(x, y, c);
            }
            changed += differs;
            on_land += differs && y > size.height * 0.76;
            // Where breaks are deep, most of the missing light is there again.
            const double missing = light(whole_truth, x, y) - light(broken_truth, x, y);
            if (missing < 0.02) continue;
            truth_added += missing;
            added += light(closed, x, y) - light(plain, x, y);
        }
    for (int y = 4; y < size.height - 4; ++y)
        for (int x = 4; x < size.width - 4; ++x) {
            bool near = false;
            for (int v = -4; v <= 4 && !near; ++v)
                for (int u = -4; u <= 4 && !near; ++u) near = lit[std::size_t(y + v)][std::size_t(x + u)];
            if (near) continue;
            ++beside;
            for (int c = 0; c < 3; ++c) beside_changed += closed.at(x, y, c) != plain.at(x, y, c);
        }
    CHECK(changed > 2000);
    CHECK(darker == 0);
    CHECK(on_land == 0);
    CHECK(beside > std::size_t(size.width) * std::size_t(size.height) / 4);
    CHECK(beside_changed == 0);
    CHECK(truth_added > 1);
    CHECK(added > 0.6 * truth_added);
    // A limit below the pauses closes nothing.
    CHECK(test::difference(test::render_all(knitted(night.pile, 10)).value(), plain).empty());
}

TEST_CASE("a knitted picture is the frames moved along the sky's motion, to the last bit, in any region") {
    const Night night(6, {640, 427});
    for (const Mode mode : {Mode::lighten, Mode::maximum}) {
        Pile pile = knitted(with_mode(night.pile, mode));
        const int weak[] = {pile.frames[2].id};
        pile = with_strength(std::move(pile), weak, 0.5);
        FrameStore store(working_space(pile), {std::size_t(1) << 28, std::size_t(1) << 30});
        Job job;
        const Rect all = whole(pile.size);
        const Raster16 closed = render(pile, store, all, 0, job).value();
        // The same by hand: whole frames moved, one after the other.
        Raster16 expected = render(with_knit(pile, {}), store, all, 0, job).value();
        const auto lights = moving_lights(pile, store, job).value();
        const Knitting knitting = knitting_of(pile, *lights);
        REQUIRE(knitting.seams.size() == 4);  // the last frame was knocked
        const LightCurve curve = LightCurve::of(pile.profile, 3);
        struct Whole final : StepWork {
            explicit Whole(Size size) : out(size, 3) {}
            void row(int y, kernels::Span columns, const std::vector<FrameRow>& rows) override {
                for (int x = rows[0].cover.begin; x < rows[0].cover.end; ++x)
                    for (int c = 0; c < 3; ++c)
                        out.at(columns.begin + x, y, c) = rows[0].wide[std::ptrdiff_t(x) * 3 + c];
            }
            Raster16 out;
        };
        const auto frame_of = [&](int id) {
            return read_frame(*find_frame(pile, id)->file, 0, working_space(pile), job).value();
        };
        const auto brightest = [](const Raster16& frame, Point at, int c) {
            std::uint16_t out = 0;
            for (int v = int(std::floor(at.y)) - 1; v <= int(std::floor(at.y)) + 2; ++v)
                for (int u = int(std::floor(at.x)) - 1; u <= int(std::floor(at.x)) + 2; ++u)
                    out = std::max(
                        out, frame.at(std::clamp(u, 0, frame.width() - 1), std::clamp(v, 0, frame.height() - 1), c));
            return out;
        };
        std::size_t steps = 0;
        for (const Seam& seam : knitting.seams)
            for (const KnitStep& step : seam.steps) {
                ++steps;
                std::vector<RunMask::Stretch> everywhere;
                for (int y = 0; y < step.where->size().height; ++y)
                    everywhere.push_back({y, {0, step.where->size().width}});
                const auto full = std::make_shared<const RunMask>(step.where->size(), everywhere);
                std::vector<Raster16> moved;
                const Raster16 own[] = {frame_of(seam.before), frame_of(seam.after)};
                for (const bool before : {true, false}) {
                    Take take;
                    take.frame = before ? seam.before : seam.after;
                    take.elsewhere = Elsewhere{before ? step.before : step.after, full};
                    Whole work(pile.size);
                    REQUIRE(bring_in_step({pile, store, {take}, all, 0, 0}, job, work).ok());
                    moved.push_back(std::move(work.out));
                }
                const bool strong = mode == Mode::lighten && (seam.before == weak[0] || seam.after == weak[0]);
                for (int y = 0; y < pile.size.height; ++y)
                    for (int x = 0; x < pile.size.width; ++x)
                        for (int c = 0; c < 3 && step.where->at(x / 2, y / 2); ++c) {
                            std::uint16_t between = std::min(moved[0].at(x, y, c), moved[1].at(x, y, c));
                            // Nowhere brighter than either frame is around there.
                            for (std::size_t of = 0; of < 2; ++of)
                                REQUIRE(moved[of].at(x, y, c) <=
                                        brightest(own[of],
                                                  (of == 0 ? step.before : step.after).to_frame({double(x), double(y)}),
                                                  c));
                            if (strong) between = curve.sample(0.5 * curve.light(between));
                            expected.at(x, y, c) = std::max(expected.at(x, y, c), between);
                        }
            }
        CHECK(steps >= 4);
        CHECK(test::difference(closed, expected) == "");
        const Rect piece{131, 57, 301, 203};
        const Raster16 part = render(pile, store, piece, 0, job).value();
        for (int y = 0; y < piece.height; ++y)
            REQUIRE(std::equal(part.row(y), part.row(y) + piece.width * 3,
                               closed.row(piece.top + y) + std::ptrdiff_t(piece.left) * 3));
        // Written to a file, with lights that are known and with such that are not.
        Pile whole_canvas = pile;
        whole_canvas.cover = Cover::any;
        ExportOptions options;
        const Folder out;
        REQUIRE(export_picture(whole_canvas, out / "found.tif", options, job).ok());
        options.known = &store;
        REQUIRE(export_picture(whole_canvas, out / "known.tif", options, job).ok());
        CHECK(test::bytes_of(out / "found.tif") == test::bytes_of(out / "known.tif"));
        // Streamed, and seen from afar.
        FrameStore streams(working_space(pile), {0, std::size_t(1) << 30});
        CHECK(test::difference(render(pile, streams, all, 0, job).value(), closed) == "");
        const Rect small = whole(at_level(pile.size, 2));
        CHECK(test::difference(render(pile, streams, small, 2, job).value(),
                               render(pile, store, small, 2, job).value()) == "");
    }
}

TEST_CASE("knitting leaves alone what it cannot: other modes, aligned frames, land, frames that were knocked") {
    const Night night(8, {640, 427});
    const auto same = [&](const Pile& pile) {
        CHECK(test::difference(test::render_all(knitted(pile)).value(), test::render_all(pile).value()).empty());
    };
    same(with_mode(night.pile, Mode::median));
    same(with_mode(night.pile, Mode::mean));
    Job job;
    FrameStore store(working_space(night.pile), {0, std::size_t(1) << 30});
    const auto lights = moving_lights(night.pile, store, job).value();
    REQUIRE(lights->sky);
    // The seventh is the knocked one of a run of eight: trails go from the frame before it to the one after.
    Pile pile = knitted(night.pile, 300);
    const Knitting all = knitting_of(pile, *lights);
    for (const Seam& seam : all.seams) CHECK(seam.before < seam.after);
    std::size_t knocked = 0;
    for (const auto& [id, of] : lights->frames) knocked += !of.fits_sky;
    CHECK(knocked >= 1);
    for (const auto& [id, of] : lights->frames)
        for (const Seam& seam : all.seams)
            if (!of.fits_sky) CHECK((seam.before != id && seam.after != id));
    // A frame that is set aside makes a longer pause.
    const int aside[] = {pile.frames[2].id};
    pile = with_aside(std::move(pile), aside, true);
    double longest = 0;
    for (const Seam& seam : knitting_of(pile, *lights).seams)
        if (seam.before == pile.frames[1].id) longest = seam.pause_s;
    CHECK(longest == Approx(105));
    // Under a mask of the sky, its pixels alone change.
    Mask sky(pile.size);
    sky.edit({0, 0, 300, 427}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
    Pile zoned = with_feather(with_zones(night.pile, sky), 0);
    zoned.methods.land.mode = Mode::maximum;
    const Raster16 plain = test::render_all(zoned).value(), closed = test::render_all(knitted(zoned)).value();
    std::size_t left = 0, right = 0;
    for (int y = 0; y < 427; ++y)
        for (int x = 0; x < 640; ++x) (x < 300 ? left : right) += plain.at(x, y, 1) != closed.at(x, y, 1);
    CHECK(left > 50);
    CHECK(right == 0);
}

TEST_CASE("tiles that the window keeps are those of the lights as they are, and of the reference that shows") {
    const Folder folder;
    Pile pile = with_mode(test::speckle_pile(folder, 5, {60, 40}, 8), Mode::maximum);
    const Fingerprint plain = base_recipe(pile);
    const Pile aside = with_aside(pile, std::vector{pile.frames[4].id}, true);
    const auto without_last = [](const Pile& of) { return without_frames(of, std::vector{of.frames[4].id}); };
    // A frame that is set aside is none of the base, but its lights tell which of the others' are some.
    CHECK(base_recipe(aside) == base_recipe(without_last(aside)));
    CHECK(base_recipe(knitted(aside)) != base_recipe(knitted(without_last(aside))));
    CHECK(base_recipe(knitted(pile)) != plain);
    // The reference shows where nobody votes, and there alone.
    pile.reference = pile.frames[1].id;
    CHECK(base_recipe(pile) == plain);
    Mask area(pile.size);
    area.edit({3, 3, 9, 9}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
    std::vector<int> ids;
    for (const Frame& frame : pile.frames) ids.push_back(frame.id);
    pile = with_left_out(std::move(pile), ids, area);
    const Fingerprint shows_second = base_recipe(pile);
    pile.reference = pile.frames[2].id;
    CHECK(base_recipe(pile) != shows_second);
}

TEST_CASE("frames without stars or times have no motion, and few frames no lights") {
    const Folder folder;
    Job job;
    const Pile pile = knitted(with_mode(test::speckle_pile(folder, 5, {60, 40}, 8), Mode::maximum));
    FrameStore store(working_space(pile), {0, std::size_t(1) << 28});
    const auto lights = moving_lights(pile, store, job);
    REQUIRE(lights.ok());
    CHECK_FALSE(lights.value()->sky);
    CHECK(test::difference(test::render_all(pile).value(), test::render_all(with_knit(pile, {})).value()).empty());
}

}  // namespace bp
