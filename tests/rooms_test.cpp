// The architecture, held by a test: arrows run downward, and only the window knows Qt.
#include <algorithm>
#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>
#include <map>
#include <regex>
#include <string>
#include <vector>

namespace fs = std::filesystem;

namespace {

// Every room with its height: a file includes only from its own room or from lower ones.
const std::map<std::string, int> heights{{"base", 0},   {"image", 1},    {"kernels", 2}, {"io", 3},
                                         {"align", 4},  {"merge", 4},    {"parts", 4},   {"pile", 5},
                                         {"engine", 6}, {"practice", 7}, {"cli", 8},     {"app", 8}};
const std::vector<std::string> steps{"align", "merge", "parts"};

struct Include {
    std::string file, room, from;
};

std::string room_of(const fs::path& file) {
    const fs::path inside = fs::relative(file, SOURCE_DIR "/src");
    auto part = inside.begin();
    return *part == "core" ? (++part)->string() : part->string();
}

std::vector<Include> includes_below(const std::string& folder, const std::regex& pattern) {
    std::vector<Include> out;
    for (const auto& entry : fs::recursive_directory_iterator(folder)) {
        if (entry.path().extension() != ".h" && entry.path().extension() != ".cpp") continue;
        std::ifstream in(entry.path());
        std::string line;
        std::smatch match;
        while (std::getline(in, line))
            if (std::regex_search(line, match, pattern))
                out.push_back({entry.path().string(), room_of(entry.path()), match[1]});
    }
    return out;
}

}  // namespace

TEST_CASE("nothing below the window includes Qt") {
    const std::regex qt("#include *[<\"](Q[A-Za-z]|qt|q[a-z]+\\.h)");
    for (const char* room : {"core", "practice", "cli"})
        for (const Include& i : includes_below(std::string(SOURCE_DIR "/src/") + room, qt))
            FAIL(i.file << " includes Qt");
    CHECK_FALSE(includes_below(SOURCE_DIR "/src/app", qt).empty());
}

TEST_CASE("arrows run downward and steps do not know their neighbours") {
    const std::vector<Include> all = includes_below(SOURCE_DIR "/src", std::regex("#include \"([a-z]+)/"));
    REQUIRE(all.size() > 100);
    for (const Include& i : all) {
        if (i.from == "steps") continue;
        INFO(i.file << " includes from " << i.from);
        REQUIRE(heights.contains(i.room));
        REQUIRE(heights.contains(i.from));
        CHECK(heights.at(i.from) <= heights.at(i.room));
        const bool both_steps =
            std::count(steps.begin(), steps.end(), i.room) && std::count(steps.begin(), steps.end(), i.from);
        if (both_steps) CHECK(i.room == i.from);
    }
}
