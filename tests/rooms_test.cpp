// The architecture, held by a test: arrows run downward, and only the window knows Qt.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cctype>
#include <filesystem>
#include <fstream>
#include <map>
#include <sstream>
#include <string>
#include <vector>

namespace fs = std::filesystem;

namespace {

// Every room with its height: a file includes only from its own room or from lower ones.
const std::map<std::string, int> heights{{"base", 0},  {"image", 1},  {"kernels", 2}, {"io", 3},     {"align", 4},
                                         {"even", 4},  {"finish", 4}, {"frames", 4},  {"lights", 4}, {"merge", 4},
                                         {"parts", 4}, {"zones", 4},  {"pile", 5},    {"engine", 6}, {"practice", 7},
                                         {"cli", 8},   {"app", 8}};
const std::vector<std::string> steps{"align", "even", "finish", "frames", "lights", "merge", "parts", "zones"};

struct Include {
    std::string file, room, from;
    bool ours = true;
};

std::string room_of(const fs::path& file) {
    const fs::path inside = fs::relative(file, SOURCE_DIR "/src");
    auto part = inside.begin();
    return *part == "core" ? (++part)->string() : part->string();
}

// Every include of the sources in a folder: `from` is the first part of what is named, e.g. "engine" or "QImage".
std::vector<Include> includes_below(const std::string& folder) {
    std::vector<Include> out;
    for (const auto& entry : fs::recursive_directory_iterator(folder)) {
        if (entry.path().extension() != ".h" && entry.path().extension() != ".cpp") continue;
        std::ifstream in(entry.path());
        std::string word;
        std::string line;
        while (std::getline(in, line)) {
            std::istringstream words(line);
            if (!(words >> word) || word != "#include" || !(words >> word)) continue;
            const bool ours = word.front() == '"';
            out.push_back({entry.path().string(), room_of(entry.path()),
                           word.substr(1, word.find_first_of("/\">", 1) - 1), ours});
        }
    }
    return out;
}

bool is_qt(const Include& i) {
    return !i.ours &&
           (i.from.rfind("Qt", 0) == 0 || (i.from.size() > 1 && i.from[0] == 'Q' && std::isupper(i.from[1])));
}

}  // namespace

TEST_CASE("nothing below the window includes Qt") {
    for (const char* room : {"core", "practice", "cli"})
        for (const Include& i : includes_below(std::string(SOURCE_DIR "/src/") + room))
            if (is_qt(i)) FAIL(i.file << " includes " << i.from);
    const std::vector<Include> window = includes_below(SOURCE_DIR "/src/app");
    CHECK(std::count_if(window.begin(), window.end(), is_qt) > 20);
}

TEST_CASE("arrows run downward and steps do not know their neighbours") {
    std::vector<Include> all = includes_below(SOURCE_DIR "/src");
    std::erase_if(all, [](const Include& i) { return !i.ours; });
    REQUIRE(all.size() > 100);
    for (const Include& i : all) {
        if (i.from == "steps" || i.from.find('.') != std::string::npos) continue;
        INFO(i.file << " includes from " << i.from);
        REQUIRE(heights.contains(i.room));
        REQUIRE(heights.contains(i.from));
        CHECK(heights.at(i.from) <= heights.at(i.room));
        const bool both_steps =
            std::count(steps.begin(), steps.end(), i.room) && std::count(steps.begin(), steps.end(), i.from);
        if (both_steps) CHECK(i.room == i.from);
    }
}

TEST_CASE("arrows run downward between the rooms of the window") {
    const std::map<std::string, int> storeys{{"looks", 0},  {"work", 1},  {"canvas", 2}, {"rail", 3},
                                             {"panels", 4}, {"steps", 5}, {"window", 6}};
    const fs::path app = SOURCE_DIR "/src/app";
    std::size_t seen = 0;
    for (const auto& entry : fs::recursive_directory_iterator(app)) {
        if (entry.path().extension() != ".h" && entry.path().extension() != ".cpp") continue;
        const std::string room = fs::relative(entry.path(), app).begin()->string();
        if (room == "main.cpp") continue;
        INFO(entry.path());
        REQUIRE(storeys.contains(room));
        std::ifstream in(entry.path());
        for (std::string line; std::getline(in, line);) {
            const std::string start = "#include \"app/";
            if (line.compare(0, start.size(), start) != 0) continue;
            const std::string from = line.substr(start.size(), line.find('/', start.size()) - start.size());
            INFO(line);
            REQUIRE(storeys.contains(from));
            CHECK(storeys.at(from) <= storeys.at(room));
            ++seen;
        }
    }
    CHECK(seen > 100);
}
