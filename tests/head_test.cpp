#include "merge/head.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "engine/frame_stages.h"
#include "engine/render.h"
#include "io/writer.h"
#include "kernels/stand_out.h"
#include "pile/edits.h"
#include "pile/part_edits.h"
#include "support/fixtures.h"
#include "support/plain.h"
#include "support/targets.h"

using namespace bp;

namespace {

// A frame after its softening alone.
Raster16 softened(const Pile& pile, const Raster16& frame, const Softening& softening, int level = 0) {
    StagedBox box;
    const void* made =
        box.make(FrameStages(pile, level).softened(softening), Samples::wide, frame.channels(), frame.size(),
                 whole(frame.size()), [&](const Rect& area, void* out) {
                     for (int y = area.top; y < area.bottom(); ++y)
                         std::copy_n(frame.row(y) + area.left * frame.channels(), area.width * frame.channels(),
                                     static_cast<std::uint16_t*>(out) + (y - area.top) * area.width * frame.channels());
                 });
    Raster16 out(frame.size(), frame.channels());
    std::copy_n(static_cast<const std::uint16_t*>(made), out.data().size(), out.data().begin());
    return out;
}

// In grey light.
template <class Light>
Raster16 drawn(const LightCurve& curve, Size size, const Light& light) {
    Raster16 out(size, 3);
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x)
            for (int c = 0; c < 3; ++c) out.at(x, y, c) = curve.sample(curve.light(65535) * light(x, y));
    return out;
}

}  // namespace

TEST_CASE("standing out of a ring equals its scalar twin to the bit, on every instruction set") {
    constexpr std::size_t most = 150;
    std::vector<std::vector<float>> rows;
    for (unsigned k = 0; k < 17; ++k) {
        rows.emplace_back();
        const Raster16 noise = test::speckle({int(most), 1}, 1, k + 3);
        for (const std::uint16_t v : noise.data()) rows.back().push_back(float(v) / 65535.0F);
    }
    kernels::Ring ring{};
    for (std::size_t k = 0; k < ring.size(); ++k) ring[k] = rows[k + 1].data();
    test::on_every_target([&] {
        for (const std::size_t n : {std::size_t(1), std::size_t(15), std::size_t(64), most}) {
            std::vector<float> out(n + 1, -1.0F);
            kernels::stand_out(rows[0].data(), ring, 2.7F, n, out.data());
            std::size_t wrong = out[n] != -1.0F, raised = 0;
            for (std::size_t i = 0; i < n; ++i) {
                std::vector<float> around;
                for (const float* at : ring) around.push_back(at[i]);
                std::sort(around.begin(), around.end());
                volatile float more = 2.7F * std::max(0.0F, rows[0][i] - around[14]);
                volatile float expected = rows[0][i] + more;
                wrong += out[i] != expected;
                raised += out[i] != rows[0][i];
            }
            CHECK(wrong == 0);
            CHECK((raised > 0 || n == 1));
        }
    });
}

TEST_CASE("the head is the end that does not fade, whole before the gap") {
    const Head head{true, 2, 3, {}};
    const auto parts = [&](const Head& of, TaperEnd fades, std::size_t count) {
        std::string out;
        for (std::size_t i = 0; i < count; ++i) {
            const OfTrail part = part_of_trail(of, fades, i, count);
            out += part == OfTrail::head ? 'H' : part == OfTrail::apart ? '.' : 't';
        }
        return out;
    };
    CHECK(parts(head, TaperEnd::old_one, 8) == "ttt...HH");
    CHECK(parts(head, TaperEnd::none, 8) == "ttt...HH");
    CHECK(parts(head, TaperEnd::both, 8) == "ttt...HH");
    CHECK(parts(head, TaperEnd::new_one, 8) == "HH...ttt");
    CHECK(parts(head, TaperEnd::old_one, 4) == "..HH");
    CHECK(parts(head, TaperEnd::old_one, 1) == "H");
    CHECK(parts({false, 2, 3, {}}, TaperEnd::old_one, 4) == "tttt");
}

TEST_CASE("a head is at full strength, what lies between it and the tail has none, and other modes know no head") {
    const test::Folder folder;
    Pile pile = with_taper(test::speckle_pile(folder, 6, {8, 8}, 8), {TaperEnd::both, 0.5, {0.5, 0.5}});
    pile = with_head(pile, {true, 1, 2, {5, true}});
    const int last[] = {pile.frames[5].id};
    CHECK(strengths_of(pile, Zone::sky) == std::vector<double>{0, 0.4, 0.8, 0, 0, 1});
    CHECK(strengths_of(with_strength(pile, last, 0.5), Zone::sky).back() == 0.5);
    const std::vector<Softening> soft = softenings_of(pile, Zone::sky);
    CHECK(soft.back() == Softening{5, true});
    CHECK(std::count(soft.begin(), soft.end(), Softening()) == 5);
    const Pile median = with_mode(pile, Mode::median);
    CHECK(softenings_of(median, Zone::sky) == std::vector<Softening>(6));
    CHECK(strengths_of(median, Zone::sky) == std::vector<double>(6, 1.0));
    const Pile odd = with_head(pile, {true, 0, 99, {NAN, false}});
    CHECK(odd.methods.sky.head == Head{true, 1, Head::most_apart, {0, false}});
}

TEST_CASE("lights of a head grow and stay as bright, edges, lines and noise stay what they were") {
    const test::Folder folder;
    const Pile pile = test::speckle_pile(folder, 1, {8, 8}, 16);
    const LightCurve curve = LightCurve::of(pile.profile, pile.channels);
    const Size size{160, 120};
    const double star = FrameStages::typical_star_px;
    const Raster16 stars = drawn(curve, size, [&](int x, int y) {
        const auto spot = [&](double u, double v) {
            return std::exp(-0.5 * ((x - u) * (x - u) + (y - v) * (y - v)) / (star * star));
        };
        return 0.01 + 0.3 * (spot(40, 60) + spot(110, 60));
    });
    const auto light = [&](const Raster16& of, int x, int y) {
        return double(curve.light(of.at(x, y, 1))) / double(curve.light(65535));
    };
    for (const double radius : {2.0, 4.0, 7.0}) {
        INFO("radius " << radius);
        const Raster16 bright = softened(pile, stars, {radius, true});
        const Raster16 plain = softened(pile, stars, {radius, false});
        CHECK(light(bright, 40, 60) == Approx(0.31).epsilon(0.03));
        const double wide = star * star + radius * radius / 4;
        CHECK(light(plain, 40, 60) == Approx(0.01 + 0.3 * star * star / wide).epsilon(0.03));
        // As far from the middle as its new width: e to the power of -1/2 is left of what it was.
        CHECK(light(bright, 40 + int(std::lround(std::sqrt(wide))), 60) > 0.3 * 0.4);
        CHECK(light(bright, 75, 20) == Approx(0.01).epsilon(0.01));
    }
    // A horizon and a wire aslant: nothing of them is brighter than it was, and far from both nothing is raised.
    for (const double slope : {0.0, 0.3, 0.5, 1.0}) {
        const Raster16 land = drawn(curve, size, [slope](int x, int y) {
            return y > 80 ? 0.002 : std::abs(x - y * slope - 40) < 1.5 ? 0.2 : 0.05;
        });
        const Raster16 raised = softened(pile, land, {5, true});
        double wire = 0, sky = 0, ground = 0;
        for (int y = 20; y < 60; ++y)
            for (int x = 0; x < 100; ++x) wire = std::max(wire, light(raised, x, y));
        for (int y = 0; y < 70; ++y) sky = std::max(sky, light(raised, 140, y));
        for (int y = 90; y < 120; ++y) ground = std::max(ground, light(raised, 20, y));
        INFO("slope " << slope);
        CHECK(wire < 0.2);
        CHECK(sky == Approx(0.05).epsilon(0.02));
        CHECK(ground == Approx(0.002).epsilon(0.05));
    }
    const Raster16 grain = test::speckle({200, 200}, 3, 5);
    const auto spread = [&](const Raster16& of) {
        double sum = 0, squares = 0;
        for (int y = 20; y < 180; ++y)
            for (int x = 20; x < 180; ++x) {
                const double v = light(of, x, y);
                sum += v;
                squares += v * v;
            }
        const double count = 160 * 160;
        return std::pair(sum / count, std::sqrt(squares / count - sum * sum / count / count));
    };
    const auto before = spread(grain), after = spread(softened(pile, grain, {4, true}));
    CHECK(after.first < 1.1 * before.first);
    CHECK(after.second < before.second);
}

TEST_CASE("a pile with a head is what the plain engine makes of it, in every mode, for every region") {
    const test::Folder folder;
    for (const int bits : {8, 16}) {
        Pile pile = test::speckle_pile(folder, 7, {70, 50}, bits);
        pile = with_taper(std::move(pile), {TaperEnd::old_one, 1, {0.5, 0.5}});
        pile = with_head(std::move(pile), {true, 2, 2, {3, true}});
        pile = with_soft_white(std::move(pile), true);
        FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
        for (const ModeEntry& entry : modes()) {
            const Pile of = with_mode(pile, entry.mode);
            INFO(entry.name << ", " << bits << " bits");
            for (const Rect& region : {whole(pile.size), Rect{13, 7, 30, 21}}) {
                Job job;
                const Raster16 streamed = render(of, store, region, 0, job).value();
                CHECK(test::difference(streamed, render_plain(of, region).value()).empty());
            }
        }
    }
}

TEST_CASE("a part shows its frame as it is, though the frame is softened in the base") {
    const test::Folder folder;
    Pile pile = test::speckle_pile(folder, 3, {60, 40}, 16);
    pile = with_head(std::move(pile), {true, 1, 0, {6, false}});
    Mask all(pile.size);
    all.edit(whole(pile.size), [](int, int, std::uint8_t) { return std::uint8_t{255}; });
    const int last = pile.frames[2].id;
    const auto [with, part] = with_new_part(pile, last);
    pile = with_part_mask(with, part, all);
    FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
    Job job;
    const Raster16 picture = render(pile, store, whole(pile.size), 0, job).value();
    const Raster16 frame = read_frame(*pile.frames[2].file, 0, working_space(pile), job).value();
    CHECK(test::difference(picture, frame).empty());
}
