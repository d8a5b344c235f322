// What caches are keyed by: it changes with every field that makes a picture, and with nothing else.
#include "pile/fingerprint.h"

#include <catch2/catch.hpp>
#include <set>

#include "support/fixtures.h"

using namespace bp;
using pile::fingerprint;

namespace {

template <class T>
requires std::is_arithmetic_v<T>
void change(T& value) {
    value = T(!value);
}
template <class T>
requires std::is_enum_v<T>
void change(T& value) {
    value = T(1 - int(value));
}
void change(std::string& text) {
    text += 'x';
}
void change(std::filesystem::path& path) {
    path += "x";
}
void change(Point& p) {
    p.y += 1e-9;
}
template <std::size_t n>
void change(std::array<double, n>& values) {
    values[n - 1] += 1e-9;
}
void change(Rect& rect) {
    ++rect.height;
}
void change(Taper& taper) {
    taper.knot.y = 0.7;
}
void change(Look& look) {
    look.peak = 1;
}
void change(Curve& curve) {
    curve.points = {{0.5, 0.6}};
}
void change(Curves& curves) {
    curves.red.points = {{0.5, 0.6}};
}
void change(TwoTints& tints) {
    tints.middle = 1;
}
void change(Detail& detail) {
    detail.halo += 1e-9;
}
void change(EdgeShade& shade) {
    shade.round = 1;
}
void change(Mask& mask) {
    mask = Mask::full({5, 4});
}
template <class T>
void change(std::vector<T>& values) {
    values.emplace_back();
}
void change(Profile& profile) {
    profile = Profile::linear_srgb();
}
void change(Line& line) {
    line.width_px += 1e-9;
}
void change(Head& head) {
    head.softening.as_bright = !head.softening.as_bright;
}
void change(Matrix& matrix) {
    matrix = Matrix::shift(1e-9, 0);
}
void change(SharedFlex& flex) {
    flex = std::make_shared<const Flex>(Flex::Grid{{}, 8, 1, 1}, std::vector<float>{1}, std::vector<float>{0});
}
void change(std::shared_ptr<const Raster16>& raster) {
    Raster16 other({2, 2}, 1);
    other.at(1, 1, 0) = 7;
    raster = std::make_shared<const Raster16>(std::move(other));
}
template <class T>
void change(std::optional<T>& value) {
    value.emplace();
}

// Every field of a value changed by itself gives a fingerprint of its own.
template <class T>
void check_all_fields(const T& value) {
    std::set<Fingerprint> seen{fingerprint(value)};
    std::size_t changes = 0;
    T changed = value;
    pile::fields(changed, [&]<class Limits>(std::string_view name, auto& member, const Limits&) {
        if constexpr (!std::same_as<Limits, pile::FoundAnew>) {
            const auto before = member;
            change(member);
            INFO(name);
            CHECK(seen.insert(fingerprint(changed)).second);
            ++changes;
            member = before;
            CHECK(fingerprint(changed) == fingerprint(value));
        }
    });
    CHECK(changes > 0);
}

}  // namespace

TEST_CASE("every field in the table of a value changes its fingerprint") {
    check_all_fields(Look{});
    check_all_fields(Lens{});
    check_all_fields(Placement{});
    check_all_fields(Alignment{});
    check_all_fields(LightGains{});
    check_all_fields(FrameFile{});
    check_all_fields(Method{});
    check_all_fields(Taper{});
    check_all_fields(Knit{});
    check_all_fields(Line{});
    check_all_fields(FrameStreak{});
    check_all_fields(CanvasSettings{});
    check_all_fields(ExportSettings{});
    check_all_fields(Curve{});
    check_all_fields(Curves{});
    check_all_fields(ColourRange{});
    check_all_fields(TwoTints{});
    check_all_fields(Detail{});
    check_all_fields(EdgeShade{});
    check_all_fields(DrawnShape{});
    check_all_fields(FinishPlace{});
    check_all_fields(Mended{});
    check_all_fields(Finish{});
    check_all_fields(SensorSpot{{3, 4}, 5, {0, 0, 2, 2}, std::make_shared<const Raster16>(Size{2, 2}, 1)});
}

TEST_CASE("what is found out anew when a pile is opened does not change a fingerprint") {
    FrameFile file;
    const Fingerprint before = fingerprint(file);
    file.facts.bits = 16;
    file.capture.camera = "another";
    CHECK(fingerprint(file) == before);
    file.hash = "another";
    CHECK(fingerprint(file) != before);
}

TEST_CASE("values told one after the other are not taken for others") {
    CHECK(fingerprint(std::string("ab"), std::string("c")) != fingerprint(std::string("a"), std::string("bc")));
    CHECK(fingerprint(std::vector<int>{1}, std::vector<int>{}) != fingerprint(std::vector<int>{}, std::vector<int>{1}));
    CHECK(fingerprint(std::optional<int>{}, 0) != fingerprint(std::optional<int>{0}));
    CHECK(fingerprint(Mask({128, 256})) != fingerprint(Mask({256, 128})));
    const HotPixels one{{1, 2}};
    CHECK(fingerprint(SharedHotPixels()) != fingerprint(SharedHotPixels(std::make_shared<const HotPixels>())));
    CHECK(fingerprint(SharedHotPixels(std::make_shared<const HotPixels>(one))) ==
          fingerprint(SharedHotPixels(std::make_shared<const HotPixels>(one))));
}
