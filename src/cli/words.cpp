#include "cli/words.h"

#include <libintl.h>

#include <array>
#include <clocale>
#include <cstdlib>
#include <filesystem>

namespace bp::cli {
namespace {

constexpr const char* domain = "bright-pile";

// Catalogs name the room that words come from before them (GNU gettext manual, 11.2.5).
std::string in_catalog(const std::string& words) {
    if (words.empty()) return words;
    for (const char* room : {"core|", "cli|"}) {
        const std::string key = room + std::string("\004") + words;
        const char* found = ::dgettext(domain, key.c_str());
        if (found != key.c_str()) return found;
    }
    return words;
}

std::filesystem::path catalogs() {
    std::error_code error;
    const std::filesystem::path here = std::filesystem::read_symlink("/proc/self/exe", error).parent_path();
    const std::filesystem::path built = here.parent_path() / "locale";
    return std::filesystem::is_directory(built, error) ? built : here.parent_path().parent_path() / "share/locale";
}

std::string first_set(std::initializer_list<const char*> names) {
    for (const char* name : names)
        if (const char* value = std::getenv(name); value && *value) return value;
    return {};
}

constexpr std::array labels{"Usage",    "OPTIONS", "SUBCOMMAND", "SUBCOMMANDS", "Options", "Subcommands", "Positionals",
                            "REQUIRED", "TEXT",    "INT",        "UINT",        "FLOAT",   "Excludes",    "Needs"};

}  // namespace

void speak() {
    // A language whose own locale is not installed can be spoken all the same.
    if (!std::setlocale(LC_MESSAGES, "") && std::setlocale(LC_MESSAGES, "C.UTF-8"))
        ::setenv("LANGUAGE", first_set({"LANGUAGE", "LC_ALL", "LC_MESSAGES", "LANG"}).c_str(), 1);
    ::bindtextdomain(domain, catalogs().c_str());
    ::bind_textdomain_codeset(domain, "UTF-8");
}

std::string said(const Saying& saying) {
    return saying.in(in_catalog);
}

void translate(CLI::App& app) {
    app.description(in_catalog(app.get_description()));
    for (CLI::Option* option : app.get_options()) {
        option->description(in_catalog(option->get_description()));
        option->group(in_catalog(option->get_group()));
    }
    for (const char* label : labels) app.get_formatter()->label(label, in_catalog(label));
    for (CLI::App* sub : app.get_subcommands({})) {
        sub->group(in_catalog(sub->get_group()));
        translate(*sub);
    }
}

}  // namespace bp::cli
