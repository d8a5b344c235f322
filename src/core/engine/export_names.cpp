#include "engine/export_names.h"

#include <algorithm>
#include <functional>
#include <map>
#include <set>

#include "base/text.h"
#include "engine/cover.h"
#include "engine/resizing.h"
#include "pile/outcomes.h"

namespace bp {
namespace {

struct Named {
    const Pile& pile;
    const ExportSettings& settings;
    const std::string& pile_name;

    Size size() const { return reduced_size(output_area(pile).size(), settings.long_edge_px); }
};

const std::map<std::string, std::function<std::string(const Named&)>>& table() {
    static const std::map<std::string, std::function<std::string(const Named&)>> words{
        {"pile", [](const Named& n) { return n.pile_name; }},
        {"outcome", [](const Named& n) { return std::string(entry_of(n.pile.outcome).name); }},
        {"mode", [](const Named& n) { return std::string(entry_of(method_of(n.pile, Zone::sky).mode).name); }},
        {"frames", [](const Named& n) { return std::to_string(std::max(merged_capture(n.pile).frames, 0)); }},
        {"width", [](const Named& n) { return std::to_string(n.size().width); }},
        {"height", [](const Named& n) { return std::to_string(n.size().height); }},
        {"date",
         [](const Named& n) {
             const auto captured = merged_capture(n.pile).captured;
             return captured ? time_text(*captured).substr(0, 10) : std::string("undated");
         }},
    };
    return words;
}

std::string filled(const std::string& pattern, const Named& named) {
    std::string out;
    for (std::size_t i = 0; i < pattern.size();) {
        const std::size_t end = pattern[i] == '{' ? pattern.find('}', i) : std::string::npos;
        const auto word = end == std::string::npos ? table().end() : table().find(pattern.substr(i + 1, end - i - 1));
        if (word == table().end()) {
            out += pattern[i++];
            continue;
        }
        out += word->second(named);
        i = end + 1;
    }
    return out;
}

std::string fit_for_a_file(std::string name) {
    for (char& c : name)
        if (c == '/' || static_cast<unsigned char>(c) < 0x20) c = '-';
    // Names that begin with a dot are not seen.
    while (!name.empty() && name.front() == '.') name.erase(name.begin());
    constexpr std::size_t longest = 200;
    return std::string(cut_to(name, longest));
}

}  // namespace

std::vector<std::string> name_words() {
    std::vector<std::string> out;
    for (const auto& [word, makes] : table()) out.push_back("{" + word + "}");
    return out;
}

std::vector<std::string> export_names(const Pile& pile, const std::string& pile_name) {
    std::vector<const ExportSettings*> all{&pile.exporting};
    for (const ExportSettings& one : pile.also) all.push_back(&one);
    std::vector<std::string> out;
    std::set<std::string> taken;
    for (const ExportSettings* one : all) {
        std::string base = fit_for_a_file(filled(one->name.empty() ? "{pile}" : one->name, {pile, *one, pile_name}));
        if (base.empty()) base = "picture";
        std::string name = base + one->ending;
        for (int n = 2; !taken.insert(name).second; ++n) name = base + "-" + std::to_string(n) + one->ending;
        out.push_back(std::move(name));
    }
    return out;
}

}  // namespace bp
