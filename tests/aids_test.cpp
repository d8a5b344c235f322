// The six outcomes from the start screen to the exported file through the bus for aids alone: names, roles, states and
// values that are told, what can be done with things, and what is announced.
#include <catch2/catch.hpp>
#include <fstream>

#include "io/reader.h"
#include "support/aid.h"
#include "support/night.h"

using namespace bp;
using namespace bp::test;

namespace {

std::string files_of(const Folder& folder) {
    std::string out;
    for (const std::string& name : folder.names())
        if (fs::is_regular_file(folder / name)) out += "\"" + (folder / name).string() + "\" ";
    return out;
}

void open(Aid& aid, const std::string& outcome, const Folder& folder) {
    REQUIRE(aid.press("push button", outcome));
    REQUIRE(aid.write("text", "File name:", files_of(folder)));
    REQUIRE(aid.press("push button", "Open", "Frames for " + outcome));
    const bool opened = aid.find("check box", "Step Frames") != nullptr;
    REQUIRE(aid.runs());
    INFO(aid.all());
    REQUIRE(opened);
    REQUIRE(aid.find("push button", "Outcome: " + outcome));
    REQUIRE(aid.quiet());
}

// Null when no file came.
std::optional<Raster16> exported(Aid& aid, const fs::path& file) {
    REQUIRE(aid.press("push button", "Export"));
    REQUIRE(aid.press("push button", "Export…"));
    REQUIRE(aid.find("dialog", "Export the picture"));
    REQUIRE(aid.write("text", "File name:", file.string()));
    const bool saved = aid.press("push button", "Save", "Export the picture");
    INFO(aid.all());
    REQUIRE(saved);
    if (!aid.wait_for([&] { return fs::exists(file); }) || !aid.quiet()) return std::nullopt;
    Result<Raster16> picture = read_picture(file);
    if (!picture.ok()) return std::nullopt;
    return std::move(picture).value();
}

int squares_in(const Raster16& picture) {
    int out = 0;
    for (int k = 0; k < 7; ++k) out += picture.at(24 + 36 * k, 118, 1) > 55000 ? 1 : 0;
    return out;
}

bool heard(const Aid& aid, const std::string& words) {
    return std::any_of(aid.heard().begin(), aid.heard().end(),
                       [&](const std::string& said) { return said.find(words) != std::string::npos; });
}

}  // namespace

TEST_CASE("trails, clear and quiet come about by what aids can do, and what was written is announced") {
    for (const auto& [outcome, squares] : {std::pair{"Trails", 7}, {"Clear", 0}, {"Quiet", 0}}) {
        const Folder folder, out;
        write_passing(folder, 7);
        Aid aid;
        open(aid, outcome, folder);
        INFO(outcome);
        CHECK(aid.shows("list item", "Frame 7: p16.png*"));
        const auto made = exported(aid, out / "made.tif");
        REQUIRE(made);
        CHECK(squares_in(*made) == squares);
        CHECK(aid.wait_for([&] { return heard(aid, "made.tif"); }));
    }
}

TEST_CASE("a sequence comes about by what aids can do") {
    const Folder folder, out;
    write_passing(folder, 7);
    Aid aid;
    open(aid, "Sequence", folder);
    REQUIRE(aid.press("check box", "Step Parts"));
    REQUIRE(aid.press("push button", "Find what moves"));
    const Node subject = aid.find("list item", "Subject 1: 7 of 7 places");
    INFO(aid.all());
    REQUIRE(subject);
    REQUIRE(aid.quiet());
    const auto made = exported(aid, out / "made.tif");
    REQUIRE(made);
    CHECK(squares_in(*made) == 7);
}

TEST_CASE("a shower comes about by what aids can do") {
    const Folder folder, out;
    REQUIRE(write_night(folder));
    Aid aid;
    open(aid, "Shower", folder);
    REQUIRE(aid.press("check box", "Step Parts"));
    REQUIRE(aid.press("push button", "Find meteors"));
    REQUIRE(aid.quiet());
    const auto made = exported(aid, out / "made.tif");
    REQUIRE(made);
    CHECK(made->size() == Size{960, 640});
}

TEST_CASE("the best of frames comes about by what aids can do, with keys for the mark on the picture") {
    const Folder folder, out;
    write_passing(folder, 7);
    Aid aid;
    open(aid, "Best of", folder);
    REQUIRE(aid.press("check box", "Step Parts"));
    // The mark begins in the middle of the picture, where the fifth frame has its square, and is told as it moves.
    REQUIRE(aid.focus("image", "Picture*"));
    REQUIRE(aid.keys("ctrl+Right ctrl+Left"));
    CHECK(aid.wait_for([&] { return heard(aid, "x 1"); }));
    REQUIRE(aid.press("check box", "Hold the place"));
    REQUIRE(aid.press("list item", "Frame 5: p14.png*"));
    REQUIRE(aid.quiet());
    const auto made = exported(aid, out / "made.tif");
    REQUIRE(made);
    CHECK(squares_in(*made) == 2);
}

TEST_CASE("what goes wrong is announced, and numbers are told and set") {
    const Folder folder;
    write_passing(folder, 3);
    std::ofstream(folder / "broken.png") << "no picture";
    Aid aid;
    open(aid, "Trails", folder);
    CHECK(aid.wait_for([&] { return heard(aid, "cannot be used"); }));
    REQUIRE(aid.press("check box", "Step Even"));
    const Node number = aid.find("spin button", "Deep");
    INFO(aid.all());
    REQUIRE(number);
    AtspiValue* value = atspi_accessible_get_value_iface(number.get());
    REQUIRE(value);
    const double before = atspi_value_get_current_value(value, nullptr);
    CHECK(atspi_value_set_current_value(value, before + 2, nullptr));
    CHECK(aid.wait_for([&] { return atspi_value_get_current_value(value, nullptr) == before + 2; }));
    CHECK(aid.press("push button", "Undo"));
    CHECK(aid.wait_for([&] { return atspi_value_get_current_value(value, nullptr) == before; }));
    g_object_unref(value);
}
