#include "image/profile.h"

#include <lcms2.h>

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

using namespace bp;

namespace {

Profile profile_of(const cmsCIExyY& white, const cmsCIExyYTRIPLE& primaries, double gamma) {
    cmsToneCurve* curve = cmsBuildGamma(nullptr, gamma);
    cmsToneCurve* curves[] = {curve, curve, curve};
    const cmsHPROFILE handle = cmsCreateRGBProfile(&white, &primaries, curves);
    cmsUInt32Number size = 0;
    cmsSaveProfileToMem(handle, nullptr, &size);
    std::vector<std::uint8_t> bytes(size);
    cmsSaveProfileToMem(handle, bytes.data(), &size);
    cmsCloseProfile(handle);
    cmsFreeToneCurve(curve);
    return Profile(bytes);
}

Profile gamma_profile(double gamma) {
    return profile_of({0.3127, 0.3290, 1}, {{0.64, 0.33, 1}, {0.21, 0.71, 1}, {0.15, 0.06, 1}}, gamma);
}

// The same colours as a profile of primaries has, held in tables: what the tables cannot hold is cut to their bounds.
Profile in_tables(const Profile& plain) {
    const std::vector<std::uint8_t> bytes = plain.bytes();
    const cmsHPROFILE of = cmsOpenProfileFromMem(bytes.data(), cmsUInt32Number(bytes.size()));
    const cmsHPROFILE lab = cmsCreateLab4Profile(nullptr);
    cmsHTRANSFORM there = cmsCreateTransform(of, TYPE_RGB_16, lab, TYPE_Lab_16, INTENT_RELATIVE_COLORIMETRIC, 0);
    cmsHTRANSFORM back = cmsCreateTransform(lab, TYPE_Lab_16, of, TYPE_RGB_16, INTENT_RELATIVE_COLORIMETRIC, 0);
    const auto sample = [](const cmsUInt16Number* in, cmsUInt16Number* out, void* transform) -> cmsInt32Number {
        cmsDoTransform(transform, in, out, 1);
        return TRUE;
    };
    const cmsHPROFILE out = cmsCreateProfilePlaceholder(nullptr);
    cmsSetProfileVersion(out, 4.3);
    cmsSetDeviceClass(out, cmsSigOutputClass);
    cmsSetColorSpace(out, cmsSigRgbData);
    cmsSetPCS(out, cmsSigLabData);
    cmsWriteTag(out, cmsSigMediaWhitePointTag, cmsD50_XYZ());
    constexpr int nodes = 33;
    for (const auto& [tag, transform] : {std::pair{cmsSigAToB0Tag, there}, std::pair{cmsSigBToA0Tag, back}}) {
        cmsPipeline* lut = cmsPipelineAlloc(nullptr, 3, 3);
        cmsStage* grid = cmsStageAllocCLut16bit(nullptr, nodes, 3, 3, nullptr);
        cmsStageSampleCLut16bit(grid, sample, transform, 0);
        cmsPipelineInsertStage(lut, cmsAT_BEGIN, cmsStageAllocToneCurves(nullptr, 3, nullptr));
        cmsPipelineInsertStage(lut, cmsAT_END, grid);
        cmsPipelineInsertStage(lut, cmsAT_END, cmsStageAllocToneCurves(nullptr, 3, nullptr));
        cmsWriteTag(out, tag, lut);
        cmsPipelineFree(lut);
    }
    cmsUInt32Number size = 0;
    cmsSaveProfileToMem(out, nullptr, &size);
    std::vector<std::uint8_t> made(size);
    cmsSaveProfileToMem(out, made.data(), &size);
    cmsDeleteTransform(there);
    cmsDeleteTransform(back);
    for (const cmsHPROFILE p : {of, lab, out}) cmsCloseProfile(p);
    return Profile(made);
}

}  // namespace

TEST_CASE("a profile of tables cannot hold what comes back from it as another colour") {
    const Profile narrow = in_tables(gamma_profile(2.2));
    const Profile wide = profile_of({0.3127, 0.3290, 1}, {{0.70, 0.30, 1}, {0.17, 0.79, 1}, {0.13, 0.05, 1}}, 2.2);
    REQUIRE(narrow.fits(3));
    const GamutCheck check = GamutCheck::make(wide, narrow).value();
    const std::vector<std::uint16_t> pixels{65535, 0,     0,     0,     65535, 0,     0,     0,
                                            65535, 65535, 65535, 65535, 30000, 30000, 30000, 42000,
                                            30000, 28000, 20000, 26000, 34000, 0,     0,     0};
    std::vector<std::uint8_t> outside(pixels.size() / 3);
    check.run(pixels.data(), outside.data(), int(outside.size()));
    CHECK(outside == std::vector<std::uint8_t>{255, 255, 255, 0, 0, 0, 0, 0});
}

TEST_CASE("sRGB light follows IEC 61966-2-1") {
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    for (const int v : {0, 1, 500, 2651, 2652, 9000, 32768, 60000, 65535}) {
        const double e = v / 65535.0;
        const double light = e <= 0.04045 ? e / 12.92 : std::pow((e + 0.055) / 1.055, 2.4);
        CHECK(curve.light(std::uint16_t(v)) / LightCurve::full == Approx(light).margin(1e-9));
    }
}

TEST_CASE("every sample comes back from its own light") {
    for (const LightCurve& curve :
         {LightCurve::of(Profile::srgb(), 3), LightCurve::encoded(), LightCurve::of(gamma_profile(1.8), 3)}) {
        int wrong = 0;
        for (int v = 0; v < 65536; ++v)
            if (curve.sample(curve.light(std::uint16_t(v))) != v) ++wrong;
        // A pure power has samples so dark that they share one light.
        CHECK(wrong <= 8);
    }
    int wrong = 0;
    const LightCurve srgb = LightCurve::of(Profile::srgb(), 3);
    for (int v = 0; v < 65536; ++v) wrong += srgb.sample(srgb.light(std::uint16_t(v))) != v;
    CHECK(wrong == 0);
}

TEST_CASE("light is rounded in the encoding, at the middle between samples") {
    const LightCurve curve = LightCurve::encoded();
    CHECK(curve.sample(100.49 * 65537) == 100);
    CHECK(curve.sample(100.51 * 65537) == 101);
    CHECK(curve.sample(-5) == 0);
    CHECK(curve.sample(1e12) == 65535);
}

TEST_CASE("a gamma profile has its own light") {
    const LightCurve curve = LightCurve::of(gamma_profile(2.2), 3);
    CHECK(curve.light(32768) / LightCurve::full == Approx(std::pow(32768 / 65535.0, 2.2)).epsilon(1e-3));
}

TEST_CASE("the sample of any light is the one whose interval holds it") {
    for (const LightCurve& curve :
         {LightCurve::of(Profile::srgb(), 3), LightCurve::encoded(), LightCurve::of(gamma_profile(2.2), 3)}) {
        std::mt19937_64 random(3);
        int wrong = 0;
        for (int i = 0; i < 40000; ++i) {
            // Every scale of light, the deepest shadows too.
            const double light = std::min(LightCurve::full, double(random() % 4294967296) / double(1U << (i % 28)));
            const int v = curve.sample(light);
            const double here = curve.light(std::uint16_t(v));
            const double below = v > 0 ? curve.light(std::uint16_t(v - 1)) : 0;
            const double above = v < 65535 ? curve.light(std::uint16_t(v + 1)) : LightCurve::full;
            // Between its neighbours' lights, and nearer to its own than a whole step.
            wrong += light < std::min(below, here) - 1 || light > std::max(above, here) + 1;
        }
        CHECK(wrong == 0);
        CHECK(curve.sample(-5) == 0);
        CHECK(curve.sample(2 * LightCurve::full) == 65535);
    }
}

TEST_CASE("profiles compare by their bytes, and our own sRGB is sRGB") {
    const Profile a = gamma_profile(1.8);
    CHECK(a == Profile(a.bytes()));
    CHECK_FALSE(a == Profile::srgb());
    CHECK(Profile(Profile::srgb().bytes()).is_srgb());
    CHECK(Profile::srgb().bytes() == Profile::srgb().bytes());
    CHECK(a.fits(3));
    CHECK_FALSE(a.fits(1));
}

TEST_CASE("conversion keeps neutrals neutral and white white") {
    const Result<Conversion> conversion = Conversion::make(gamma_profile(1.8), 3, Profile::srgb(), 3);
    REQUIRE(conversion.ok());
    const std::uint16_t in[] = {65535, 65535, 65535, 20000, 20000, 20000, 0, 0, 0};
    std::uint16_t out[9];
    conversion.value().run(in, out, 3);
    CHECK(out[0] > 65400);
    CHECK(std::abs(out[3] - out[4]) < 40);
    CHECK(std::abs(out[4] - out[5]) < 40);
    CHECK(out[3] != 20000);
    CHECK(out[8] < 40);
}

TEST_CASE("bytes that are no profile are refused") {
    const Profile nonsense(std::vector<std::uint8_t>(200, 7));
    CHECK_FALSE(nonsense.fits(3));
    CHECK_FALSE(Conversion::make(nonsense, 3, Profile::srgb(), 3).ok());
}

TEST_CASE("how much colours add to luminance adds up to one, also where a primary would take light away") {
    // ACES 2065-1 (SMPTE ST 2065-1), whose blue lies outside of what can be seen.
    const Profile aces = profile_of({0.32168, 0.33767, 1}, {{0.7347, 0.2653, 1}, {0, 1, 1}, {0.0001, -0.077, 1}}, 1);
    CHECK(luminance_weights(aces)[2] == 0);
    for (const Profile& profile : {aces, Profile::srgb(), Profile::linear_srgb()}) {
        const std::array<double, 3> weights = luminance_weights(profile);
        CHECK(weights[0] + weights[1] + weights[2] == Approx(1));
        for (const double weight : weights) CHECK(weight >= 0);
    }
}

TEST_CASE("what another profile cannot hold lies outside it, and nothing else") {
    const Profile narrow = Profile::srgb();
    const Profile wide = profile_of({0.3127, 0.3290, 1}, {{0.70, 0.30, 1}, {0.17, 0.79, 1}, {0.13, 0.05, 1}}, 2.2);
    const GamutCheck check = GamutCheck::make(wide, narrow).value();
    const GamutCheck back = GamutCheck::make(narrow, wide).value();
    std::mt19937 random(5);
    std::uniform_int_distribution<int> any(0, 65535);
    std::vector<std::uint16_t> pixels;
    std::vector<int> expected;
    // Its own primaries lie outside; greys and what came from the other profile do not.
    for (int c = 0; c < 3; ++c) {
        for (int k = 0; k < 3; ++k) pixels.push_back(k == c ? 65535 : 0);
        expected.push_back(255);
    }
    for (int v = 0; v <= 65535; v += 4369) {
        pixels.insert(pixels.end(), 3, std::uint16_t(v));
        expected.push_back(0);
    }
    const Conversion into = Conversion::make(narrow, 3, wide, 3).value();
    for (int i = 0; i < 200; ++i) {
        // Not at the very border, where a rounded sample may lie on either side.
        std::uint16_t from[3], to[3];
        for (std::uint16_t& v : from) v = std::uint16_t(2000 + any(random) * 0.93);
        into.run(from, to, 1);
        pixels.insert(pixels.end(), to, to + 3);
        expected.push_back(0);
    }
    std::vector<std::uint8_t> outside(expected.size());
    check.run(pixels.data(), outside.data(), int(outside.size()));
    for (std::size_t i = 0; i < outside.size(); ++i) {
        INFO(i);
        CHECK(int(outside[i]) == expected[i]);
    }
    // The wider one holds all of the narrower one.
    std::vector<std::uint16_t> all;
    for (int i = 0; i < 600; ++i) all.push_back(std::uint16_t(any(random)));
    std::vector<std::uint8_t> inside(200, 1);
    back.run(all.data(), inside.data(), 200);
    CHECK(std::count(inside.begin(), inside.end(), 0) == 200);
}
