// Piles that were saved once open for ever: tests/piles has every feature at least once, and none of them changes.
#include <algorithm>
#include <catch2/catch.hpp>
#include <fstream>
#include <functional>
#include <nlohmann/json.hpp>
#include <set>

#include "pile/file.h"
#include "pile/zip.h"
#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;
using nlohmann::json;

namespace {

std::vector<fs::path> corpus() {
    std::vector<fs::path> out;
    for (const auto& entry : fs::directory_iterator(SOURCE_DIR "/tests/piles")) out.push_back(entry.path());
    std::sort(out.begin(), out.end());
    return out;
}

// The first place at which something of `before` is missing or otherwise in `after`; empty for none. Paths of frames
// are relative to where the pile lies.
std::string lost(const json& before, const json& after, const std::string& where = "") {
    if (before.is_object()) {
        if (!after.is_object()) return where;
        for (const auto& [name, value] : before.items()) {
            if (name == "path" || name == "from_root" || name == "version") continue;
            if (!after.contains(name)) return where + "." + name;
            if (const std::string found = lost(value, after[name], where + "." + name); !found.empty()) return found;
        }
        return {};
    }
    if (before.is_array()) {
        if (!after.is_array() || after.size() != before.size()) return where;
        for (std::size_t i = 0; i < before.size(); ++i)
            if (const std::string found = lost(before[i], after[i], where + "[" + std::to_string(i) + "]");
                !found.empty())
                return found;
        return {};
    }
    return before == after ? std::string() : where;
}

}  // namespace

TEST_CASE("every pile of the corpus opens, and is saved again without loss") {
    const std::vector<fs::path> files = corpus();
    REQUIRE(files.size() >= 13);
    std::set<std::string> fields;
    for (const fs::path& file : files) {
        INFO(file.filename().string());
        const Result<LoadedPile> loaded = load_pile(file);
        REQUIRE(loaded.ok());
        for (const Saying& remark : loaded.value().remarks) INFO(remark.english());
        CHECK(loaded.value().remarks.empty());
        // Its frames are not here, and wait for being looked for.
        CHECK(loaded.value().missing.size() == loaded.value().pile.frames.size());
        const Folder folder;
        REQUIRE(save_pile(loaded.value().pile, folder / "again.pile").ok());
        const Pieces old = read_zip(file, 1 << 30).value(), now = read_zip(folder / "again.pile", 1 << 30).value();
        const json before = json::parse(old.at("pile.json")), after = json::parse(now.at("pile.json"));
        CHECK(lost(before, after) == "");
        for (const auto& [name, bytes] : old) {
            if (name == "pile.json") continue;
            INFO(name);
            REQUIRE(now.contains(name));
            CHECK(now.at(name) == bytes);
        }
        const std::function<void(const json&, const std::string&)> note = [&](const json& value,
                                                                              const std::string& where) {
            fields.insert(where);
            if (value.is_object())
                for (const auto& [name, inner] : value.items()) note(inner, where + "." + name);
            if (value.is_array())
                for (const json& inner : value) note(inner, where);
        };
        note(before, "pile");
    }
    // Every field that a pile can have is in one of them.
    std::ifstream in(SOURCE_DIR "/docs/pile.schema.json", std::ios::binary);
    const json schema = json::parse(std::string((std::istreambuf_iterator<char>(in)), {}));
    const std::function<void(const json&, const std::string&)> look = [&](const json& rule, const std::string& where) {
        if (rule.contains("items")) return look(rule["items"], where);
        if (!rule.contains("properties")) return;
        for (const auto& [name, inner] : rule["properties"].items()) {
            INFO(where << "." << name);
            CHECK(fields.contains(where + "." + name));
            look(inner, where + "." + name);
        }
    };
    look(schema, "pile");
}
