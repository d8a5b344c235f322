// A watched folder: whole frames join, half ones wait, broken ones are told once.
#include "io/arrivals.h"

#include <catch2/catch.hpp>
#include <fstream>

#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;

namespace {

void put(const fs::path& file, const std::string& bytes, bool add = false) {
    std::ofstream out(file, std::ios::binary | (add ? std::ios::app : std::ios::trunc));
    out << bytes;
}

std::string jpeg_bytes(unsigned seed) {
    const Folder folder;
    test::write(folder / "a.jpg", test::speckle_8({160, 120}, 3, seed), 8);
    return test::bytes_of(folder / "a.jpg");
}

std::vector<std::string> names(const std::vector<fs::path>& files) {
    std::vector<std::string> out;
    for (const fs::path& file : files) out.push_back(file.filename().string());
    return out;
}
using Names = std::vector<std::string>;

}  // namespace

TEST_CASE("a frame arrives when it has come to rest, each once, in the order of names") {
    const Folder folder;
    put(folder / "f10.jpg", jpeg_bytes(1));
    put(folder / "f9.jpg", jpeg_bytes(2));
    put(folder / "notes.txt", "no frame");
    put(folder / ".f1.jpg", jpeg_bytes(3));
    Arrivals arrivals(folder.path(), {});
    CHECK(arrivals.look().arrived.empty());
    CHECK(names(arrivals.look().arrived) == Names{"f9.jpg", "f10.jpg"});
    CHECK(arrivals.look().arrived.empty());
    put(folder / "f11.jpg", jpeg_bytes(4));
    arrivals.look();
    CHECK(names(arrivals.look().arrived) == Names{"f11.jpg"});
}

TEST_CASE("frames that are known do not arrive") {
    const Folder folder;
    put(folder / "f1.jpg", jpeg_bytes(1));
    put(folder / "f2.jpg", jpeg_bytes(2));
    Arrivals arrivals(folder.path(), {folder / "f1.jpg"});
    arrivals.look();
    CHECK(names(arrivals.look().arrived) == Names{"f2.jpg"});
}

TEST_CASE("a slow copy waits until it is whole, however long it pauses") {
    const Folder folder;
    const std::string bytes = jpeg_bytes(1);
    put(folder / "slow.jpg", bytes.substr(0, bytes.size() / 3));
    Arrivals arrivals(folder.path(), {});
    for (int i = 0; i < 5; ++i) CHECK(arrivals.look().arrived.empty());
    put(folder / "slow.jpg", bytes.substr(bytes.size() / 3, bytes.size() / 3), true);
    for (int i = 0; i < 5; ++i) CHECK(arrivals.look().arrived.empty());
    put(folder / "slow.jpg", bytes.substr(2 * (bytes.size() / 3)), true);
    CHECK(arrivals.look().arrived.empty());
    CHECK(names(arrivals.look().arrived) == Names{"slow.jpg"});
}

TEST_CASE("a file that stays broken is told once, and may still be mended") {
    const Folder folder;
    const std::string bytes = jpeg_bytes(1);
    put(folder / "half.jpg", bytes.substr(0, bytes.size() / 2));
    Arrivals arrivals(folder.path(), {});
    std::vector<Failure> told;
    for (int i = 0; i < 3 * Arrivals::patience; ++i) {
        const Arrivals::Look look = arrivals.look();
        CHECK(look.arrived.empty());
        told.insert(told.end(), look.broken.begin(), look.broken.end());
    }
    REQUIRE(told.size() == 1);
    CHECK(told[0].english().find("half.jpg") == 0);
    put(folder / "half.jpg", bytes);
    arrivals.look();
    CHECK(names(arrivals.look().arrived) == Names{"half.jpg"});
}

TEST_CASE("a file that vanishes is forgotten, a folder that vanishes is told") {
    const Folder folder;
    put(folder / "f1.jpg", jpeg_bytes(1));
    Arrivals arrivals(folder.path(), {});
    arrivals.look();
    fs::remove(folder / "f1.jpg");
    CHECK(arrivals.look().arrived.empty());
    put(folder / "f1.jpg", jpeg_bytes(2));
    CHECK(arrivals.look().arrived.empty());
    CHECK(names(arrivals.look().arrived) == Names{"f1.jpg"});
    Arrivals nowhere(folder / "none", {});
    CHECK(nowhere.look().folder_gone);
}
