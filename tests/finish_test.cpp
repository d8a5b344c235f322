// What is done to the picture as a whole, tool by tool, and how it is kept.
#include <catch2/catch.hpp>
#include <cmath>
#include <fstream>
#include <functional>
#include <numeric>
#include <random>

#include "engine/finishing.h"
#include "engine/noise_known.h"
#include "engine/open.h"
#include "engine/plumb.h"
#include "engine/render.h"
#include "even/evener.h"
#include "even/look_in_light.h"
#include "even/noise.h"
#include "finish/curve_tool.h"
#include "finish/give_back.h"
#include "finish/plane.h"
#include "io/gather.h"
#include "kernels/hue.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "pile/finish_edits.h"
#include "pile/finish_file.h"
#include "pile/part_edits.h"
#include "support/fixtures.h"

using namespace bp;
using test::Folder;

namespace {

constexpr std::size_t ample = std::size_t(1) << 28;
constexpr std::array<double, 3> rec709{0.2126, 0.7152, 0.0722};

Sheet sheet_of(Size size, int channels, const std::function<float(int x, int y, int c)>& light) {
    Sheet out(whole(size), channels);
    float* to = out.light.data();
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x)
            for (int c = 0; c < channels; ++c) *to++ = light(x, y, c);
    return out;
}

Sheet noisy(Size size, int channels, double deviation, const std::function<double(int x, int y)>& tone) {
    std::mt19937 random(7);
    std::normal_distribution<double> noise(0, deviation);
    return sheet_of(size, channels, [&](int x, int y, int) {
        const double root = std::max(0.0, tone(x, y) + noise(random));
        return float(root * root);
    });
}

Sheet done(const FinishTool& tool, Sheet sheet) {
    const Rect all = sheet.area;
    tool.run(sheet, all);
    return sheet;
}

double tone_at(const Sheet& sheet, int x, int y, int c = 0) {
    return std::sqrt(double(sheet.row(y)[x * sheet.channels + c]));
}

double deviation_of(const Sheet& sheet, const Rect& area, int c = 0) {
    double sum = 0, squares = 0;
    for (int y = area.top; y < area.bottom(); ++y)
        for (int x = area.left; x < area.right(); ++x) {
            const double v = tone_at(sheet, x, y, c);
            sum += v;
            squares += v * v;
        }
    const double n = double(area.width) * area.height;
    return std::sqrt(std::max(0.0, squares / n - sum / n * sum / n));
}

// Every tool at work.
Finish busy_finish(Size size) {
    Finish out;
    out.look.exposure_ev = 0.3;
    out.look.deep = 30;
    out.look.warmth = 20;
    out.look.colour_strength = 25;
    out.curves.brightness.points = {{0.25, 0.2}, {0.7, 0.78}};
    out.curves.blue.points = {{0.5, 0.53}};
    out.colours = {{210, 12, 30, -40}, {30, 0, -50, 20}};
    out.tints = {220, 30, 45, 20, 10};
    out.detail.sharpen = 90;
    out.detail.local = 40;
    out.detail.local_px = 5;
    out.detail.smooth = 40;
    out.detail.smooth_colour = 80;
    out.detail.wide = 30;
    out.detail.stars = -40;
    out.glow = 60;
    out.edges = {-1, 20, 70};
    Mended spot;
    spot.id = 1;
    spot.way = {{50, 40}};
    spot.width_px = 14;
    spot.from = {20, 8};
    Mended line = spot;
    line.id = 2;
    line.way = {{20, 20}, {90, 70}, {140, 60}};
    line.width_px = 5;
    Mended from_median = spot;
    from_median.id = 3;
    from_median.way = {{150, 200}};
    from_median.source = MendFrom::median;
    out.mended = {spot, line, from_median};
    FinishPlace place;
    place.id = 1;
    place.name = "corner";
    place.mask = Mask(size);
    place.mask.edit({10, 20, 60, 70}, [](int x, int, std::uint8_t) { return std::uint8_t(x * 3); });
    place.look.exposure_ev = -1;
    place.detail.local = -30;
    place.strength = 0.7;
    out.places.push_back(place);
    return out;
}

Pile finished_pile(const Folder& folder, Size size) {
    Pile pile = with_mode(test::speckle_pile(folder, 3, size, 16), Mode::median);
    Mask mask(size);
    mask.edit({20, 30, 90, 100}, [](int x, int, std::uint8_t) { return std::uint8_t(x * 2); });
    auto [with_part, part] = with_new_part(pile, pile.frames[1].id);
    return with_finish(with_part_mask(std::move(with_part), part, mask), busy_finish(size));
}

// By one sheet of all of it.
Raster16 finished_at_once(const Pile& pile, FrameStore& store, const Raster16& composed, const Rect& canvas) {
    Job job;
    const FinishTools tools = finish_tools(pile, 0, store, job).value();
    const auto light = light_there(pile.profile, pile.channels);
    Sheet sheet(canvas, pile.channels);
    kernels::light_of(composed.data().data(), composed.data().size(), light->tables(), sheet.light.data());
    run_tools(tools, sheet, canvas, canvas);
    Raster16 out(canvas.size(), pile.channels);
    kernels::samples_of_light(sheet.light.data(), sheet.light.size(), light->tables(), out.data().data());
    return out;
}

Raster16 cut(const Raster16& from, const Rect& canvas, const Rect& area) {
    Raster16 out(area.size(), from.channels());
    for (int y = 0; y < area.height; ++y)
        std::copy_n(from.row(area.top - canvas.top + y) + std::ptrdiff_t(area.left - canvas.left) * from.channels(),
                    out.row_samples(), out.row(y));
    return out;
}

}  // namespace

TEST_CASE("samples that go to light and come back are the same") {
    const auto light = light_there(Profile::srgb(), 3);
    std::vector<std::uint16_t> all(65536), back(65536);
    for (std::size_t v = 0; v < all.size(); ++v) all[v] = std::uint16_t(v);
    std::vector<float> there(all.size());
    kernels::light_of(all.data(), all.size(), light->tables(), there.data());
    kernels::samples_of_light(there.data(), there.size(), light->tables(), back.data());
    CHECK(all == back);
}

TEST_CASE("a curve goes through its points, falls nowhere, and is a line without any") {
    CHECK(curve_at({}, 0.3) == 0.3);
    const Curve curve{{{0.1, 0.02}, {0.4, 0.5}, {0.5, 0.5}, {0.9, 0.97}}};
    CHECK(tidied(curve) == curve);
    for (const Point& p : curve.points) CHECK(curve_at(curve, p.x) == Approx(p.y).margin(1e-12));
    CHECK(curve_at(curve, 0) == 0);
    CHECK(curve_at(curve, 1) == 1);
    CHECK(curve_at(curve, 1.5) == Approx(1.5));
    std::mt19937 random(3);
    std::uniform_real_distribution<double> any(0, 1);
    for (int round = 0; round < 200; ++round) {
        Curve made;
        for (int i = 0; i < 6; ++i) made.points.push_back({any(random), any(random)});
        made = tidied(made);
        CHECK(tidied(made) == made);
        double before = -1;
        for (int i = 0; i <= 1000; ++i) {
            const double now = curve_at(made, i / 1000.0);
            CHECK(now >= before - 1e-12);
            CHECK((now >= 0 && now <= 1 + 1e-12));
            before = now;
        }
    }
    CHECK(tidied({{{0.5, 0.8}, {0.502, 0.9}, {0.7, 0.3}, {NAN, 1}, {2, 2}}}).points ==
          std::vector<Point>{{0.5, 0.8}, {0.7, 0.8}, {1, 1}});
}

TEST_CASE("a look in light is the look of frames, to within a sample") {
    std::mt19937 random(11);
    std::vector<std::uint16_t> in(3 * 4000), evened(in.size()), made(in.size());
    for (auto& v : in) v = std::uint16_t(random());
    const auto light = light_there(Profile::srgb(), 3);
    for (int round = 0; round < 12; ++round) {
        Look look;
        for (const LookValue& v : look_values())
            if (random() % 2) look.*v.value = std::uniform_real_distribution<double>(v.least, v.most)(random) / 3;
        look = limited(look);
        Evener(SharedTone(look, Profile::srgb(), 3), {1, 1, 1}, 3, 16).run(in.data(), in.size() / 3, evened.data());
        std::vector<float> there(in.size());
        kernels::light_of(in.data(), in.size(), light->tables(), there.data());
        LookInLight(look, Profile::srgb(), 3).run(there.data(), in.size() / 3);
        kernels::samples_of_light(there.data(), there.size(), light->tables(), made.data());
        int worst = 0;
        for (std::size_t i = 0; i < in.size(); ++i) worst = std::max(worst, std::abs(int(made[i]) - int(evened[i])));
        INFO("round " << round);
        // Tables are read between their steps twice instead of once.
        CHECK(worst <= 4);
    }
}

TEST_CASE("a finished picture is the same by tiles, by rows and at once, to the canvas's edge") {
    const Folder folder;
    const Size size{230, 340};
    Pile pile = finished_pile(folder, size);
    FrameStore store(working_space(pile), {0, ample});
    Job job;
    CanvasSettings larger = pile.canvas;
    larger.area = Rect{-30, -10, 300, 380};
    for (const bool on_larger : {false, true}) {
        if (on_larger) pile = with_canvas(pile, larger);
        const Rect canvas = canvas_of(pile);
        const Raster16 plain = composed(pile, store, canvas, 0, job).value();
        const Raster16 expected = finished_at_once(pile, store, plain, canvas);
        CHECK_FALSE(test::difference(expected, plain, 500).empty());
        BaseTiles tiles;
        for (const Rect& region : {Rect{0, 0, 70, 60}, Rect{60, 50, 120, 250}, Rect{229, 339, 1, 1}, canvas}) {
            const Raster16 wanted = cut(expected, canvas, region);
            CHECK(test::difference(render(pile, store, region, 0, job, &tiles).value(), wanted).empty());
            // As an export asks for it, in a ring of as many rows as it is told.
            struct Ring final : RowSink {
                explicit Ring(const Rect& of) : region(of), out(of.size(), 3) {}
                void begin(const StripPlan& plan) override {
                    held = 2 * plan.band_rows;
                    rows.resize(std::size_t(held) * out.row_samples());
                }
                std::uint16_t* row(int y) override {
                    return &rows[std::size_t((y - region.top) % held) * out.row_samples()];
                }
                Status finish(const Band& band) override {
                    CHECK(band.first == next);
                    for (next = band.first; next < band.second; ++next)
                        std::copy_n(row(next), out.row_samples(), out.row(next - region.top));
                    return Done{};
                }
                Rect region;
                Raster16 out;
                int held = 0;
                int next = region.top;
                std::vector<std::uint16_t> rows;
            };
            for (const std::size_t budget : {ample, std::size_t(160) << 20}) {
                FrameStore tight(working_space(pile), {0, budget});
                Ring ring(region);
                REQUIRE(render_to(pile, tight, region, 0, job, ring).ok());
                CHECK(test::difference(ring.out, wanted).empty());
            }
        }
    }
}

TEST_CASE("a finish of nothing changes no bit, and what frames are held against is never finished") {
    const Folder folder;
    const Size size{120, 90};
    const Pile pile = finished_pile(folder, size);
    Pile plain = pile;
    plain.finish = {};
    FrameStore store(working_space(pile), {0, ample});
    Job job;
    const Raster16 unfinished = render(plain, store, whole(size), 0, job).value();
    CHECK(test::difference(composed(pile, store, whole(size), 0, job).value(), unfinished).empty());
    // Places that are off, of no strength, or of nothing, and ranges that do nothing.
    Pile idle = plain;
    idle.finish.places = busy_finish(size).places;
    idle.finish.places[0].on = false;
    idle.finish.detail.sharpen_px = 2;
    idle.finish.tints.dark_hue = 10;
    CHECK(test::difference(render(idle, store, whole(size), 0, job).value(), unfinished).empty());
    const Plumb a = plumb_at(pile, store, 40, 50, 0, 2, job).value(),
                b = plumb_at(plain, store, 40, 50, 0, 2, job).value();
    CHECK(a.result == b.result);
}

TEST_CASE("tools leave grey what is grey, and a ramp without a step") {
    const Size size{4096, 3};
    const Sheet ramp = sheet_of(size, 3, [&](int x, int, int) {
        const double root = x / 4095.0;
        return float(root * root);
    });
    Curves curves;
    curves.brightness.points = {{0.2, 0.1}, {0.6, 0.75}};
    Detail detail;
    detail.local = 60;
    detail.sharpen = 100;
    FinishTools tools{curve_tool(curves), range_tool({{120, 20, 50, 100}}, rec709), local_tool(detail, rec709, 0),
                      sharpen_tool(detail, rec709, 0)};
    for (const auto& tool : tools) {
        const Sheet out = done(*tool, ramp);
        double before = 0, widest = 0;
        bool grey = true, rises = true;
        for (int x = 0; x < size.width; ++x) {
            const float* p = out.row(1) + 3 * x;
            grey = grey && std::abs(p[0] - p[1]) < 1e-6 && std::abs(p[1] - p[2]) < 1e-6;
            const double tone = std::sqrt(double(p[1]));
            rises = rises && tone >= before - 1e-6;
            widest = std::max(widest, tone - before);
            before = tone;
        }
        CHECK(grey);
        CHECK(rises);
        CHECK(widest < 4.0 / 4095);
    }
}

TEST_CASE("colours of a range change as far as they are in it, and brightness is kept when only they turn") {
    const std::array<float, 3> blue{0.1F, 0.2F, 0.6F}, red{0.6F, 0.15F, 0.1F};
    const Sheet two = sheet_of({2, 1}, 3, [&](int x, int, int c) { return (x == 0 ? blue : red)[std::size_t(c)]; });
    const double at = std::atan2(kernels::hue_place({0.1F, 0.2F, 0.6F}).y, kernels::hue_place({0.1F, 0.2F, 0.6F}).x) *
                          180 / 3.14159265358979 +
                      360;
    const auto bright = [](const float* p) { return rec709[0] * p[0] + rec709[1] * p[1] + rec709[2] * p[2]; };
    const Sheet turned = done(*range_tool({{at, 40, 0, 0}}, rec709), two);
    CHECK(bright(turned.row(0)) == Approx(bright(two.row(0))).epsilon(1e-5));
    CHECK(std::abs(turned.row(0)[0] - blue[0]) > 0.02);
    for (int c = 0; c < 3; ++c) CHECK(turned.row(0)[3 + c] == Approx(red[std::size_t(c)]).margin(1e-6));
    const Sheet pale = done(*range_tool({{at, 0, -100, 0}}, rec709), two);
    CHECK(pale.row(0)[0] == Approx(pale.row(0)[2]).margin(1e-5));
    const Sheet darker = done(*range_tool({{at, 0, 0, -100}}, rec709), two);
    CHECK(bright(darker.row(0)) < 0.75 * bright(two.row(0)));
    CHECK(darker.row(0)[1] / darker.row(0)[2] == Approx(blue[1] / blue[2]).epsilon(1e-4));
    // Two colours: dark tones towards blue, bright ones towards orange, of the same brightness as before.
    const Sheet tones = sheet_of({2, 1}, 3, [](int x, int, int) { return x == 0 ? 0.02F : 0.8F; });
    const Sheet tinted = done(*tint_tool({230, 60, 40, 60, 0}, rec709), tones);
    CHECK(tinted.row(0)[2] > 1.2F * tinted.row(0)[0]);
    CHECK(tinted.row(0)[3] > 1.2F * tinted.row(0)[5]);
    for (const int x : {0, 3}) CHECK(bright(tinted.row(0) + x) == Approx(bright(tones.row(0) + x)).epsilon(1e-4));
}

TEST_CASE("edges are shaded in the shape of the crop") {
    const Rect crop{40, 20, 200, 100};
    const Sheet flat = sheet_of({300, 160}, 1, [](int, int, int) { return 0.25F; });
    EdgeShade shade;
    shade.stops = -2;
    shade.from = 40;
    const Sheet out = done(*shade_tool(shade, crop, {}, 0), flat);
    CHECK(out.row(70)[140] == 0.25F);
    CHECK(out.row(20)[40] == Approx(0.25 / 4).epsilon(0.02));
    CHECK(out.row(119)[239] == Approx(out.row(20)[40]).epsilon(1e-5));
    CHECK(out.row(20)[239] == Approx(out.row(119)[40]).epsilon(1e-5));
    // As dark at the middle of the long side as of the short one.
    CHECK(out.row(70)[40] == Approx(out.row(20)[140]).epsilon(0.02));
    for (const auto& [x, y] : {std::pair{60, 30}, {200, 110}, {41, 70}}) {
        const double u = (x + 0.5 - crop.left) / crop.width * 2 - 1, v = (y + 0.5 - crop.top) / crop.height * 2 - 1;
        CHECK(out.row(y)[x] == Approx(0.25 * std::exp2(shade.stops * shade_at(shade, u, v))).epsilon(1e-3));
    }
    // A level shows the same shape.
    const Sheet half =
        done(*shade_tool(shade, crop, {}, 1), sheet_of({150, 80}, 1, [](int, int, int) { return 0.25F; }));
    CHECK(half.row(10)[20] ==
          Approx((out.row(20)[40] + out.row(20)[41] + out.row(21)[40] + out.row(21)[41]) / 4).epsilon(1e-3));
}

TEST_CASE("sharpening is what its formula says, keeps to its limit, and leaves flat places calm") {
    Detail detail;
    detail.sharpen = 150;
    detail.sharpen_px = 1.1;
    detail.halo = 20;
    detail.flat = 15;
    const Size size{64, 48};
    const Sheet in = noisy(size, 3, 0.05, [](int x, int y) { return x > 30 ? 0.8 : 0.3 + 0.004 * y; });
    const Sheet out = done(*sharpen_tool(detail, rec709, 0), in);
    const auto tone = [&](int x, int y) {
        const float* p = in.row(std::clamp(y, 0, size.height - 1)) + 3 * std::clamp(x, 0, size.width - 1);
        return std::sqrt(rec709[0] * p[0] + rec709[1] * p[1] + rec709[2] * p[2]);
    };
    double worst = 0;
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x) {
            double soft = 0, weights = 0, least = 9, most = 0;
            for (int v = -4; v <= 4; ++v)
                for (int u = -4; u <= 4; ++u) {
                    const double w = std::exp(-0.5 * (u * u + v * v) / (1.1 * 1.1));
                    soft += w * tone(x + u, y + v);
                    weights += w;
                    if (std::abs(u) > 1 || std::abs(v) > 1) continue;
                    least = std::min(least, tone(x + u, y + v));
                    most = std::max(most, tone(x + u, y + v));
                }
            const double off = tone(x, y) - soft / weights;
            const double share = off * off / (off * off + 0.015 * 0.015);
            const double made = std::clamp(tone(x, y) + 1.5 * share * off, least - 0.02, most + 0.02);
            const double gain = made * made / (tone(x, y) * tone(x, y));
            for (int c = 0; c < 3; ++c)
                worst = std::max(worst, std::abs(in.row(y)[3 * x + c] * gain - out.row(y)[3 * x + c]));
        }
    CHECK(worst < 2e-4);

    // A clean edge: no brighter or darker beside it than the limit.
    const Sheet edge = sheet_of({40, 8}, 1, [](int x, int, int) {
        const double root = 0.3 + 0.5 / (1 + std::exp(-(x - 20) / 0.8));
        return float(root * root);
    });
    const Sheet sharp = done(*sharpen_tool(detail, {0, 1, 0}, 0), edge);
    double least = 1, most = 0;
    for (int x = 0; x < 40; ++x) {
        least = std::min(least, tone_at(sharp, x, 4));
        most = std::max(most, tone_at(sharp, x, 4));
    }
    CHECK(least >= 0.3 - 0.0201);
    CHECK(most <= 0.8 + 0.0201);
    CHECK(tone_at(sharp, 21, 4) - tone_at(sharp, 19, 4) > 1.2 * (tone_at(edge, 21, 4) - tone_at(edge, 19, 4)));
    // Noise well below the threshold is hardly strengthened.
    const Sheet calm = noisy({80, 80}, 1, 0.003, [](int, int) { return 0.5; });
    const double before = deviation_of(calm, calm.area);
    CHECK(deviation_of(done(*sharpen_tool(detail, {0, 1, 0}, 0), calm), calm.area) < 1.2 * before);
}

TEST_CASE("noise goes and edges stay") {
    constexpr double noise = 0.02;
    Detail detail;
    detail.smooth = 100;
    detail.smooth_colour = 100;
    const auto scene = [](int x, int) { return x < 64 ? 0.35 : 0.75; };
    const Sheet in = noisy({128, 96}, 3, noise, scene);
    const double of_tone = noise * std::sqrt(rec709[0] * rec709[0] + rec709[1] * rec709[1] + rec709[2] * rec709[2]);
    const Sheet out = done(*smooth_tool(detail, of_tone, rec709, 0), in);
    const Rect flat{8, 8, 44, 80};
    CHECK(deviation_of(out, flat, 1) < deviation_of(in, flat, 1) / 4);
    CHECK(deviation_of(out, flat, 0) < deviation_of(in, flat, 0) / 4);
    // The edge is as steep as it was: half of the way within a pixel.
    const auto mean_at = [](const Sheet& sheet, int x) {
        double sum = 0;
        for (int y = 8; y < 88; ++y) sum += tone_at(sheet, x, y, 1);
        return sum / 80;
    };
    CHECK(mean_at(out, 64) - mean_at(out, 63) > 0.95 * (mean_at(in, 64) - mean_at(in, 63)));
    // Colour alone leaves brightness as it is.
    detail.smooth = 0;
    const Sheet colour = done(*smooth_tool(detail, of_tone, rec709, 0), in);
    CHECK(deviation_of(colour, flat, 0) < 0.8 * deviation_of(in, flat, 0));
    CHECK(deviation_of(colour, flat, 1) > 0.5 * deviation_of(in, flat, 1));
}

TEST_CASE("what placing took is known, and given back") {
    // Half-way between pixels a sinc of three lobes loses this much at 0.37, 0.42 and 0.47 cycles a pixel.
    const std::vector<double> half(12, 0.5), still(12, 0.0);
    CHECK(contrast_left(still, 0.42) == 1);
    CHECK(contrast_left(half, 0.1) == Approx(1).margin(0.01));
    CHECK(contrast_left(half, 0.42) < 0.75);
    CHECK(give_back_tool(still, still) == nullptr);
    std::vector<double> parts;
    for (int i = 0; i < 12; ++i) parts.push_back(i / 12.0);
    const auto filter = giving_back(parts);
    for (const double frequency : {0.0, 0.2, 0.3, 0.37, 0.4, 0.42}) {
        double gain = filter[give_back_reach];
        for (int k = 1; k <= give_back_reach; ++k)
            gain +=
                2 * double(filter[std::size_t(give_back_reach + k)]) * std::cos(2 * 3.14159265358979 * frequency * k);
        INFO(frequency);
        CHECK(gain * contrast_left(parts, frequency) == Approx(1).margin(0.03));
    }

    // Real frames of a fine grating, each moved by a part of a pixel of its own, merged by the mean.
    const Size size{160, 96};
    const auto contrast = [&](const Raster16& picture, const LightCurve& curve, double frequency) {
        double in = 0, out = 0;
        int n = 0;
        for (int y = 30; y < 60; ++y)
            for (int x = 30; x < 130; ++x, ++n) {
                const double light = curve.light(picture.at(x, y, 0)) / LightCurve::full - 0.4;
                in += light * std::cos(2 * 3.14159265358979 * frequency * x);
                out += light * std::sin(2 * 3.14159265358979 * frequency * x);
            }
        return 2 * std::hypot(in, out) / n / 0.25;
    };
    for (const double frequency : {0.37, 0.42}) {
        const Folder folder;
        const LightCurve curve = LightCurve::of(Profile::srgb(), 1);
        std::map<int, Alignment> places;
        for (int i = 0; i < 12; ++i) {
            const double moved = i / 12.0;
            Raster16 frame(size, 1);
            for (int y = 0; y < size.height; ++y)
                for (int x = 0; x < size.width; ++x)
                    frame.at(x, y, 0) = curve.sample(
                        LightCurve::full * (0.4 + 0.25 * std::cos(2 * 3.14159265358979 * frequency * (x + moved))));
            test::write(folder / ("f" + std::to_string(10 + i) + ".tif"), frame, 16);
            places[i + 1].to_reference = Matrix::shift(moved, 0);
        }
        Job job;
        Pile pile = open_frames(gather_run({folder.path().string()}).value(), Outcome::quiet, Order::name, job).value();
        pile = with_mode(with_alignments(std::move(pile), Model::shift, 1, places), Mode::mean);
        FrameStore store(working_space(pile), {0, ample});
        const double before = contrast(render(pile, store, bp::whole(size), 0, job).value(), curve, frequency);
        const double after =
            contrast(render(with_given_back(pile, true), store, bp::whole(size), 0, job).value(), curve, frequency);
        INFO(frequency << ": " << before << " becomes " << after);
        CHECK(before < 0.95);
        CHECK(after > 0.95);
        CHECK(after < 1.04);
    }
}

TEST_CASE("giving back leaves the noise of a mean at the root of its frames") {
    const Size size{220, 160};
    const Folder folder;
    const LightCurve curve = LightCurve::of(Profile::srgb(), 1);
    const auto deviation = [&](const Raster16& picture) {
        double sum = 0, squares = 0;
        int n = 0;
        for (int y = 20; y < size.height - 20; ++y)
            for (int x = 20; x < size.width - 20; ++x, ++n) {
                const double light = curve.light(picture.at(x, y, 0)) / LightCurve::full;
                sum += light;
                squares += light * light;
            }
        return std::sqrt(squares / n - sum / n * sum / n);
    };
    std::mt19937 random(12);
    std::normal_distribution<double> noise(0.3, 0.02);
    std::map<int, Alignment> places;
    double single = 0;
    for (int i = 0; i < 12; ++i) {
        Raster16 frame(size, 1);
        for (std::uint16_t& sample : frame.data()) sample = curve.sample(LightCurve::full * noise(random));
        single += deviation(frame) / 12;
        test::write(folder / ("n" + std::to_string(10 + i) + ".tif"), frame, 16);
        places[i + 1].to_reference = Matrix::shift(i / 12.0, (5 * i % 12) / 12.0);
    }
    Job job;
    Pile pile = open_frames(gather_run({folder.path().string()}).value(), Outcome::quiet, Order::name, job).value();
    pile = with_mode(with_alignments(std::move(pile), Model::shift, 1, places), Mode::mean);
    FrameStore store(working_space(pile), {0, ample});
    const double plain = single / deviation(render(pile, store, bp::whole(size), 0, job).value());
    const double back = single / deviation(render(with_given_back(pile, true), store, bp::whole(size), 0, job).value());
    INFO("of a root of " << std::sqrt(12.0) << ": " << plain << " without, " << back << " with what was taken");
    CHECK(back < plain);
    CHECK(back > 0.97 * std::sqrt(12.0));
}

namespace {

// A surface with a grain along one direction, brighter to the right.
double grain(int x, int y) {
    return 0.35 + 0.0015 * x + 0.06 * std::sin(0.9 * x + 0.25 * y) * std::sin(0.31 * y) +
           0.03 * std::sin(1.7 * (x - 2 * y));
}

double decibels(const Sheet& made, const Rect& area) {
    double squares = 0;
    for (int y = area.top; y < area.bottom(); ++y)
        for (int x = area.left; x < area.right(); ++x) {
            const double off = tone_at(made, x, y) - grain(x, y);
            squares += off * off;
        }
    return -10 * std::log10(squares / (double(area.width) * area.height));
}

}  // namespace

TEST_CASE("a line is mended across texture better than by a blur, and a spot by what is like it") {
    const Size size{160, 120};
    const Rect along{70, 10, 20, 100};
    const auto wire = [](int x, int y) { return std::abs(x - 80 - 0.1 * (y - 60)) < 3; };
    const Sheet wired = sheet_of(size, 1, [&](int x, int y, int) {
        const double root = wire(x, y) ? 0.05 : grain(x, y);
        return float(root * root);
    });
    Mended line;
    line.way = {{80 - 6.5, -5}, {80 + 6.5, 125}};
    line.width_px = 8;
    const Sheet mended = done(*mend_tool({line}, 0), wired);
    // A plain blur: the mean of both sides of the wire, row by row.
    Sheet blurred = wired;
    for (int y = 0; y < size.height; ++y)
        for (int x = 60; x < 100; ++x) {
            if (!wire(x, y)) continue;
            const int middle = int(std::lround(80 + 0.1 * (y - 60)));
            const double t = (x - middle + 5) / 10.0;
            const double root = (1 - t) * tone_at(wired, middle - 5, y) + t * tone_at(wired, middle + 5, y);
            blurred.row(y)[x] = float(root * root);
        }
    CHECK(decibels(mended, along) > decibels(wired, along) + 6);
    CHECK(decibels(mended, along) > decibels(blurred, along) + 0.5);
    // What lies further off is the same to the bit.
    for (const auto& [x, y] : {std::pair{60, 60}, {100, 60}, {0, 0}}) CHECK(mended.row(y)[x] == wired.row(y)[x]);

    // A spot on a grain that repeats: mended from where it is the same.
    const auto waves = [](int x, int y) { return 0.4 + 0.1 * std::sin(0.5 * x) * std::sin(0.4 * y) + 0.001 * x; };
    const auto spotted = sheet_of(size, 1, [&](int x, int y, int) {
        const double root = std::hypot(x - 80, y - 60) < 7 ? 0.9 : waves(x, y);
        return float(root * root);
    });
    Mended spot;
    spot.way = {{80, 60}};
    spot.width_px = 17;
    spot.from = best_source(spotted, {80, 60}, spot.width_px);
    CHECK(std::hypot(spot.from.x, spot.from.y) > spot.width_px);
    const Sheet clean = done(*mend_tool({spot}, 0), spotted);
    double worst = 0, blur = 0;
    for (int y = 52; y <= 68; ++y)
        for (int x = 72; x <= 88; ++x) {
            worst = std::max(worst, std::abs(tone_at(clean, x, y) - waves(x, y)));
            blur = std::max(blur, std::abs(waves(80, 60) - waves(x, y)));
        }
    CHECK(worst < 0.75 * blur);
    CHECK(worst < 0.12);
    // On an even slope nothing of a spot is left, wherever it is mended from.
    const auto slope = [](int x, int y) { return 0.2 + 0.002 * x + 0.001 * y; };
    const auto sloped = sheet_of(
        size, 3, [&](int x, int y, int) { return std::hypot(x - 80, y - 60) < 7 ? 0.0F : float(slope(x, y)); });
    const Sheet even = done(*mend_tool({spot}, 0), sloped);
    for (int y = 50; y <= 70; ++y)
        for (int x = 70; x <= 90; ++x) CHECK(even.row(y)[3 * x + 1] == Approx(slope(x, y)).margin(2e-3));
    spot.on = false;
    CHECK(mend_tool({spot}, 0) == nullptr);
    CHECK(distance_to(line, {80, 60}) == Approx(-4));
    CHECK(distance_to(spot, {80 + 8.5, 60}) == Approx(0).margin(1e-9));
}

TEST_CASE("the noise of a picture and of a merge is known") {
    // What a mean, a median and a maximum of independent noise leave.
    std::mt19937 random(5);
    std::normal_distribution<double> normal;
    for (const std::size_t n : {1U, 5U, 25U, 100U})
        for (const Mode mode : {Mode::mean, Mode::median, Mode::maximum}) {
            double sum = 0, squares = 0;
            constexpr int rounds = 4000;
            std::vector<double> values(n);
            for (int i = 0; i < rounds; ++i) {
                for (double& v : values) v = normal(random);
                std::sort(values.begin(), values.end());
                const double made = mode == Mode::maximum ? values.back()
                                    : mode == Mode::median
                                        ? values[n / 2]
                                        : std::accumulate(values.begin(), values.end(), 0.0) / double(n);
                sum += made;
                squares += made * made;
            }
            const double left = std::sqrt(squares / rounds - sum / rounds * sum / rounds);
            INFO(n << " frames, mode " << int(mode));
            CHECK(noise_left(mode, n) == Approx(left).epsilon(0.13));
        }
    Raster16 picture({400, 300}, 1);
    for (auto& v : picture.data()) {
        const double root = 0.5 + 0.01 * normal(random);
        v = LightCurve::of(Profile::srgb(), 1).sample(root * root * LightCurve::full);
    }
    CHECK(noise_of_tones(picture, LightCurve::of(Profile::srgb(), 1)) == Approx(0.01).epsilon(0.1));
}

TEST_CASE("a place changes what it keeps, by as much, and nothing else") {
    const Folder folder;
    const Size size{160, 120};
    Pile pile = with_mode(test::speckle_pile(folder, 3, size, 16), Mode::median);
    FrameStore store(working_space(pile), {0, ample});
    Job job;
    const Raster16 before = render(pile, store, whole(size), 0, job).value();
    Look look;
    look.exposure_ev = -1.5;
    look.contrast = 40;
    const Raster16 all = render(with_finish_look(pile, look), store, whole(size), 0, job).value();
    Mask mask(size);
    mask.edit({30, 20, 60, 50}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
    auto [placed, id] = with_new_place(pile, PlaceIn::everywhere, mask);
    FinishPlace place = *find_place(placed, id);
    place.look = look;
    placed = with_place(placed, place);
    const Raster16 made = render(placed, store, whole(size), 0, job).value();
    CHECK(
        test::difference(cut(made, whole(size), {30, 20, 60, 50}), cut(all, whole(size), {30, 20, 60, 50}), 1).empty());
    CHECK(test::difference(cut(made, whole(size), {0, 0, 160, 20}), cut(before, whole(size), {0, 0, 160, 20})).empty());
    CHECK(
        test::difference(cut(made, whole(size), {90, 0, 70, 120}), cut(before, whole(size), {90, 0, 70, 120})).empty());
    // Half of it in linear light.
    place.strength = 0.5;
    const Raster16 half = render(with_place(placed, place), store, whole(size), 0, job).value();
    const LightCurve curve = LightCurve::of(pile.profile, 3);
    const double want = (curve.light(before.at(50, 40, 1)) + double(curve.light(all.at(50, 40, 1)))) / 2;
    CHECK(std::abs(int(half.at(50, 40, 1)) - int(curve.sample(want))) <= 2);
    // Sky and land share the picture between them.
    Mask sky(size);
    sky.edit({0, 0, 160, 60}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
    Pile zoned = with_feather(with_zones(pile, sky), 0);
    zoned.methods.land = zoned.methods.sky;
    for (const PlaceIn in : {PlaceIn::sky, PlaceIn::land}) {
        auto [in_zone, zone_id] = with_new_place(zoned, in, Mask::full(size));
        FinishPlace of_zone = *find_place(in_zone, zone_id);
        of_zone.look = look;
        const Raster16 zone = render(with_place(in_zone, of_zone), store, whole(size), 0, job).value();
        const Rect inside = in == PlaceIn::sky ? Rect{0, 0, 160, 58} : Rect{0, 62, 160, 58};
        const Rect outside = in == PlaceIn::sky ? Rect{0, 62, 160, 58} : Rect{0, 0, 160, 58};
        CHECK(test::difference(cut(zone, whole(size), inside), cut(all, whole(size), inside), 1).empty());
        CHECK(test::difference(cut(zone, whole(size), outside), cut(before, whole(size), outside)).empty());
    }
}

TEST_CASE("a place that is drawn keeps its shape until something is painted into it") {
    const Folder folder;
    const Size size{200, 100};
    const Pile pile = test::speckle_pile(folder, 2, size, 8);
    auto [ramp, ramp_id] = with_new_place(pile, {ShapeKind::ramp, {0, 20}, {0, 80}, 1});
    const Mask falls = mask_of(*find_place(ramp, ramp_id), size);
    CHECK(falls.at(50, 10) == 255);
    CHECK(falls.at(50, 50) == Approx(128).margin(2));
    CHECK(falls.at(150, 90) == 0);
    auto [both, ellipse_id] = with_new_place(ramp, {ShapeKind::ellipse, {40, 20}, {120, 80}, 1});
    const Mask soft = mask_of(*find_place(both, ellipse_id), size);
    CHECK(soft.at(80, 50) == 255);
    CHECK(soft.at(39, 50) == 0);
    CHECK((soft.at(50, 50) > 40 && soft.at(50, 50) < 220));
    const Pile hard = with_place_shape(both, ellipse_id, {ShapeKind::ellipse, {40, 20}, {120, 80}, 1}, 0);
    CHECK(mask_of(*find_place(hard, ellipse_id), size).at(43, 50) == 255);
    const Pile painted = with_place_mask(hard, ellipse_id, Mask::full(size));
    CHECK_FALSE(find_place(painted, ellipse_id)->shape.has_value());
    // A shape and its mask make the same picture.
    Pile shaped = both;
    for (FinishPlace& place : shaped.finish.places) place.look.exposure_ev = -1;
    Pile masked = shaped;
    for (FinishPlace& place : masked.finish.places) {
        place.mask = mask_of(place, size);
        place.shape.reset();
    }
    FrameStore store(working_space(pile), {0, ample});
    Job job;
    const Raster16 by_shape = render(shaped, store, whole(size), 0, job).value();
    CHECK(test::difference(by_shape, render(masked, store, whole(size), 0, job).value(), 260).empty());
    CHECK_FALSE(test::difference(by_shape, render(pile, store, whole(size), 0, job).value(), 2000).empty());
    // On a picture of another size a shape is drawn anew.
    const Finish large = fitted(both.finish, size, {400, 200});
    CHECK(mask_of(large.places[0], {400, 200}).at(100, 100) == Approx(128).margin(2));
    CHECK(mask_of(large.places[1], {400, 200}).at(160, 100) == 255);
    const Pile wild = with_place_shape(both, ramp_id, {ShapeKind::ramp, {NAN, 1e300}, {5, 5}, NAN}, 7);
    CHECK(find_place(wild, ramp_id)->soft == 1);
    CHECK(std::isfinite(find_place(wild, ramp_id)->shape->from.x));
}

TEST_CASE("places are copied, ordered, taken away, and values keep to their limits") {
    const Folder folder;
    Pile pile = test::speckle_pile(folder, 2, {60, 40}, 8);
    auto [one, first] = with_new_place(pile, PlaceIn::everywhere, Mask::full({60, 40}));
    auto [two, second] = with_new_place(one, PlaceIn::everywhere, Mask({60, 40}));
    CHECK(first != second);
    auto [three, copy] = with_copied_place(two, first);
    REQUIRE(three.finish.places.size() == 3);
    CHECK(three.finish.places[1].id == copy);
    CHECK(three.finish.places[1].mask == find_place(three, first)->mask);
    const Pile moved = with_place_moved(three, first, 5);
    CHECK(moved.finish.places.back().id == first);
    CHECK(with_place_moved(moved, first, -9).finish == three.finish);
    CHECK(without_place(three, copy).finish == two.finish);
    CHECK(with_place_moved(three, 77, 1) == three);
    FinishPlace wild = *find_place(three, first);
    wild.strength = 9;
    wild.detail.sharpen = -4;
    wild.look.exposure_ev = NAN;
    const Pile tame = with_place(three, wild);
    CHECK(find_place(tame, first)->strength == 1);
    CHECK(find_place(tame, first)->detail.sharpen == 0);
    CHECK(find_place(tame, first)->look == Look{});
    CHECK(with_detail(pile, {NAN, 99}).finish.detail == Detail{0, 3});
    CHECK(with_edge_shade(pile, {-99, 300, -1}).finish.edges == EdgeShade{-4, 95, 0});
}

TEST_CASE("a finish file holds a finish, for pictures of any size, and is refused when it is none") {
    const Folder folder;
    const Size size{200, 140};
    const Finish finish = busy_finish(size);
    const fs::path file = folder / "evening.finish";
    REQUIRE(save_finish(finish, size, file).ok());
    const Result<LoadedFinish> back = load_finish(file, size);
    REQUIRE(back.ok());
    CHECK(back.value().remarks.empty());
    CHECK(back.value().finish == finish);
    // Of a picture of half the size masks lie at the same places.
    const Finish small = load_finish(file, {100, 70}).value().finish;
    CHECK(small.places[0].mask.size() == Size{100, 70});
    CHECK(small.places[0].mask.at(20, 20) == Approx(int(finish.places[0].mask.at(40, 40))).margin(4));
    Finish same = small;
    same.places[0].mask = finish.places[0].mask;
    CHECK(same.mended[0].width_px == finish.mended[0].width_px / 2);
    CHECK(same.mended[0].way[0].x == Approx(24.75));
    same.mended = finish.mended;
    CHECK(same == finish);
    // A pile gives its finish.
    const Pile pile = finished_pile(folder, size);
    REQUIRE(save_pile(pile, folder / "run.pile").ok());
    CHECK(load_finish(folder / "run.pile", size).value().finish == pile.finish);
    CHECK(load_pile(folder / "run.pile").value().pile.finish == pile.finish);
    // What is none.
    std::ofstream(folder / "none.finish") << "tone: warm";
    for (const char* name : {"none.finish", "absent.finish"}) {
        const Result<LoadedFinish> refused = load_finish(folder / name, size);
        REQUIRE_FALSE(refused.ok());
        CHECK(refused.failure().english().find(std::string(name) + " is not a finish file") != std::string::npos);
    }
    // A broken one stays what it was.
    const std::string bytes = test::bytes_of(file);
    std::ofstream(folder / "cut.finish", std::ios::binary) << bytes.substr(0, bytes.size() / 2);
    CHECK_FALSE(load_finish(folder / "cut.finish", size).ok());
    CHECK(test::bytes_of(file) == bytes);
}

TEST_CASE("a line is mended where it is, however it winds, and a long one costs what its length does") {
    // A ring of many points: every pixel near it is mended, and none elsewhere.
    const Size size{400, 300};
    const Sheet flat =
        sheet_of(size, 1, [](int x, int y, int) { return std::hypot(x - 200, y - 150) < 2 ? 0.9F : 0.2F; });
    Mended ring;
    for (int i = 0; i <= 200; ++i) {
        const double angle = 2 * 3.14159265358979 * i / 200;
        ring.way.push_back({200 + 100 * std::cos(angle), 150 + 80 * std::sin(angle)});
    }
    ring.width_px = 6;
    Sheet marked = flat;
    const auto off = [&](int x, int y) { return distance_to(ring, {double(x), double(y)}); };
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x)
            if (off(x, y) <= 0) marked.row(y)[x] = 1;
    const Sheet made = done(*mend_tool({ring}, 0), marked);
    int left = 0, touched = 0;
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x) {
            left += made.row(y)[x] > 0.95F;
            touched += off(x, y) > 1.001 && made.row(y)[x] != marked.row(y)[x];
        }
    CHECK(left == 0);
    CHECK(touched == 0);
    // Points that lie on each other are no line, and do no harm.
    Mended still;
    still.way = {{50, 50}, {50, 50}};
    const Sheet same = done(*mend_tool({still}, 0), marked);
    CHECK(same.light == marked.light);
}

TEST_CASE("a wide softening by means of blocks is the Gaussian that it stands for, however it is divided") {
    const Rect canvas{-7, 5, 203, 157};
    Plane in(canvas);
    std::mt19937 random(4);
    std::uniform_real_distribution<float> any(0, 1);
    for (int y = canvas.top; y < canvas.bottom(); ++y)
        for (int x = 0; x < canvas.width; ++x)
            in.row(y)[x] = any(random) * 0.02F + (x > 90 ? 0.6F : 0.1F) + 0.001F * float(y);
    for (const double deviation : {1.0, 4.9, 5.0, 12.0, 20.0, 41.0}) {
        INFO(deviation);
        const BlockSoftening soft(deviation);
        const Plane made = soft.of(in, canvas);
        const Plane exact = weighed(in, gaussian_weights(deviation), 1, canvas);
        double worst = 0;
        for (std::size_t i = 0; i < made.values.size(); ++i)
            worst = std::max(worst, std::abs(double(made.values[i]) - double(exact.values[i])));
        CHECK(worst < 0.012);
        // From no more than what it says that it reads.
        for (const Rect& area : {Rect{0, 20, 31, 17}, Rect{-7, 5, 9, 9}, Rect{150, 120, 46, 42}, Rect{83, 61, 1, 1}}) {
            const Rect read = around(area, soft.reach(), canvas);
            Plane piece(read);
            for (int y = read.top; y < read.bottom(); ++y)
                std::copy_n(in.row(y) + (read.left - canvas.left), read.width, piece.row(y));
            const Plane there = soft.of(piece, area);
            for (int y = area.top; y < area.bottom(); ++y)
                for (int x = 0; x < area.width; ++x)
                    REQUIRE(there.row(y)[x] == made.row(y)[area.left - canvas.left + x]);
        }
    }
}
