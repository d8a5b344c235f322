// The command line in another language: what people read changes, what programs read does not.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cstring>
#include <fstream>
#include <nlohmann/json.hpp>
#include <sstream>

#include "support/program.h"

using namespace bp;
using bp::test::Folder;
using bp::test::run_program;

namespace {

const std::string german = "de_DE.UTF-8";

// What a help says of every option and command, without their names and kinds.
std::vector<std::string> explained(const std::string& help) {
    std::vector<std::string> out;
    std::istringstream lines(help);
    for (std::string line; std::getline(lines, line);) {
        const std::size_t begin = line.find_first_not_of(' ');
        if (begin == std::string::npos || begin < 2) continue;
        // An entry begins at the third column and its words after two spaces; further lines are words alone.
        const std::size_t gap = begin == 2 ? line.find("  ", begin) : begin;
        if (gap != std::string::npos) out.push_back(line.substr(line.find_first_not_of(' ', gap)));
    }
    return out;
}

}  // namespace

TEST_CASE("help, sentences and progress are in the language of the environment") {
    const Folder folder, out;
    test::speckle_pile(folder, 3, {80, 60}, 8);
    std::ofstream(folder / "cut.jpg") << "no picture";
    const std::string call = "merge " + folder.path().string() + " -o " + (out / "o.png").string();
    const test::Ran english = run_program(call), spoken = run_program(call, "", german);
    CHECK(english.code == 1);
    CHECK(spoken.code == english.code);
    CHECK(english.error.find("Set aside: cut.jpg") != std::string::npos);
    CHECK(spoken.error.find("Beiseite gelegt: cut.jpg") != std::string::npos);
    // What is said of a wrong call, with what was given in it.
    CHECK(run_program(call + " --reference 9", "", german).error ==
          "--reference 9 ist keine der Aufnahmen: eine Nummer von 1 bis 4 oder eine der Dateien angeben.\n");
    // LANGUAGE goes before, as everywhere; where there are no words for it, English is spoken.
    CHECK(run_program(call + " --reference 9", "", "C.UTF-8 LANGUAGE=de").error.rfind("--reference 9 ist", 0) == 0);
    CHECK(run_program(call + " --reference 9", "", "xy_ZZ.UTF-8").error.rfind("--reference 9 is none", 0) == 0);
}

TEST_CASE("what is wrong with a call is said in sentences, in English and in German") {
    struct Wrong {
        std::string call, english, spoken;
    };
    for (const Wrong& wrong : {
             Wrong{"", "It is not said what is to be done: name one of the commands.",
                   "Es ist nicht gesagt, was zu tun ist: einen der Befehle nennen."},
             Wrong{"sequence a.jpg", "--out is missing.", "--out fehlt."},
             Wrong{"merge a.jpg -o", "Something is missing after --out.", "Nach --out fehlt etwas."},
             Wrong{"merge a.jpg -o b.tif --frob", "--frob is not known here.", "--frob ist hier nicht bekannt."},
             Wrong{"merge a.jpg -o b.tif --frob --nix", "--nix --frob are not known here.",
                   "--nix --frob sind hier nicht bekannt."},
             Wrong{"merge a.jpg -o b.tif --progress soon", "--progress is one of bar,json, not soon.",
                   "--progress ist eines von bar,json, nicht soon."},
             Wrong{"sequence a.jpg -o b.tif --spacing 900", "--spacing is from 0 to 500, not 900.",
                   "--spacing geht von 0 bis 500, nicht 900."},
             Wrong{"sequence a.jpg -o b.tif --spacing far", "--spacing is from 0 to 500, not far.",
                   "--spacing geht von 0 bis 500, nicht far."},
         }) {
        INFO(wrong.call);
        const test::Ran english = run_program(wrong.call), spoken = run_program(wrong.call, "", german);
        CHECK(english.code == 2);
        CHECK(spoken.code == 2);
        CHECK(english.error == wrong.english + "\nWith --help all that can be said is listed.\n");
        CHECK(spoken.error == wrong.spoken + "\nMit --help wird alles aufgezählt, was gesagt werden kann.\n");
        CHECK(english.out.empty());
    }
}

TEST_CASE("every option and command of the help is explained in German") {
    for (const std::string command :
         {"", "merge", "inspect", "align", "streaks", "sequence", "shower", "growth", "render", "practice"}) {
        const std::vector<std::string> english = explained(run_program(command + " --help").out);
        const std::vector<std::string> spoken = explained(run_program(command + " --help", "", german).out);
        INFO(command);
        CHECK(english.size() >= 4);
        CHECK(spoken.size() == english.size());
        for (const std::string& words : english) {
            INFO(words);
            CHECK(std::find(spoken.begin(), spoken.end(), words) == spoken.end());
        }
    }
    const std::string help = run_program("render --help", "", german).out;
    CHECK(help.find("Aufruf:") != std::string::npos);
    for (const char* english : {"Usage", "Options", "Positionals", "REQUIRED"})
        CHECK(help.find(english) == std::string::npos);
}

TEST_CASE("what programs read is the same in every language") {
    const Folder folder;
    test::speckle_pile(folder, 3, {80, 60}, 8);
    std::ofstream(folder / "cut.jpg") << "no picture";
    const auto told = [&](const std::string& arguments, const std::string& language) {
        return run_program(arguments, "", language);
    };
    const std::string frames = folder.path().string();
    const auto same = [&](const std::string& arguments) {
        const test::Ran english = told(arguments, "C.UTF-8"), spoken = told(arguments, german);
        CHECK_FALSE(english.out.empty());
        CHECK(spoken.out == english.out);
    };
    same("inspect --json " + frames);
    same("align --model shift --json " + frames);
    // Progress for programs, and reports.
    const std::string report = (folder / "report.json").string();
    const auto merge = [&](const std::string& language) {
        const test::Ran ran = told("merge --progress json --report " + report + " -o " + (folder / "o.png").string() +
                                       " " + frames + "/frame*",
                                   language);
        std::vector<std::string> steps;
        std::istringstream lines(ran.error);
        for (std::string line; std::getline(lines, line);)
            if (line.rfind('{', 0) == 0) steps.push_back(nlohmann::json::parse(line)["what"]);
        steps.erase(std::unique(steps.begin(), steps.end()), steps.end());
        nlohmann::json made = nlohmann::json::parse(test::bytes_of(report));
        made.erase("time_s");
        made.erase("memory_bytes");
        made.erase("threads_s");
        return std::pair(steps, made);
    };
    const auto english = merge("C.UTF-8"), spoken = merge(german);
    CHECK(english.first.size() >= 2);
    CHECK(spoken.first == english.first);
    CHECK(spoken.second["frames"] == english.second["frames"]);
}
