// What happens when the disk does not do its part, and what files may be called.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "engine/open.h"
#include "pile/file.h"
#include "support/program.h"

using namespace bp;
using namespace bp::test;

namespace {

std::string at(const Folder& folder, const std::string& name) {
    return " '" + (folder / name).string() + "'";
}

// Runs the program with the n-th and every later read or write below `below` failing. False for `met` when it made
// fewer.
struct Faulted {
    Ran ran;
    bool met = false;
};
Faulted run_with_fault(const std::string& call, const char* kind, int n, const fs::path& below) {
    const Folder apart;
    const std::string before = "export FAULT_KIND=" + std::string(kind) + " FAULT_AT=" + std::to_string(n) +
                               " FAULT_BELOW=" + below.string() + " FAULT_MARK=" + (apart / "mark").string() +
                               " ASAN_OPTIONS=verify_asan_link_order=0:detect_leaks=0; LD_PRELOAD=" FAULTS_LIBRARY " ";
    return {run_program(call, before), fs::exists(apart / "mark")};
}

// Each of the first; later ones are much alike, and only all of them when that is asked for.
int next_fault(int n) {
    static const bool all = std::getenv("BRIGHT_PILE_ALL_FAULTS") != nullptr;
    return n < 16 || all ? n + 1 : n + 9;
}

}  // namespace

TEST_CASE("whichever read fails, the program ends with a sentence, and what was there is there") {
    const Folder folder, out;
    write_moving(folder, 2, {96, 64}, {2, 1});
    fs::create_directory(folder / "more");
    write(folder / "more" / "f3.png", landscape({96, 64}, Matrix::shift(4, 2)), 8);
    write(folder / "more" / "f4.jpg", landscape({96, 64}, Matrix::shift(6, 3)), 8);
    const std::string frames = at(folder, "f1.tif") + at(folder, "f2.tif") + at(folder, "more");
    REQUIRE(run_program("merge --quiet --align shift --pile" + at(folder, "p.pile") + frames).code == 0);
    const std::string render = "render --quiet" + at(folder, "p.pile") + " -o" + at(out, "o.tif");
    REQUIRE(run_program(render).code == 0);
    const std::string right = bytes_of(out / "o.tif");
    const std::string align = "align --quiet --model shift --pile" + at(out, "q.pile") + frames;
    REQUIRE(run_program(align).code == 0);
    const std::string aligned = bytes_of(out / "q.pile");
    for (const std::string& call : {render, align}) {
        int n = 1;
        for (;; n = next_fault(n)) {
            const Faulted faulted = run_with_fault(call, "read", n, folder.path());
            INFO(call << "\nread " << n << ", exit " << faulted.ran.code << "\n" << faulted.ran.error);
            REQUIRE((faulted.ran.code >= 0 && faulted.ran.code < 100));
            if (!faulted.met) break;
            const bool same = bytes_of(out / "o.tif") == right && bytes_of(out / "q.pile") == aligned;
            if (faulted.ran.code != 0) {
                CHECK(faulted.ran.error.find('.') != std::string::npos);
                REQUIRE(same);
            } else if (!same) {
                // A frame that cannot be read is left out, and named.
                CHECK(faulted.ran.error.find("f") != std::string::npos);
                CHECK(faulted.ran.error.find("left out") != std::string::npos);
                REQUIRE(run_program(render).code == 0);
                REQUIRE(run_program(align).code == 0);
            }
            REQUIRE(n < 400);
        }
        CHECK(n > 8);
    }
}

TEST_CASE("whichever write fails, the old picture and the old pile stay whole, and nothing is left beside them") {
    for (const char* ending : {".tif", ".png", ".jpg", ".webp", ".jxl", ".exr"}) {
        const Folder folder, out;
        write_moving(folder, 2, {96, 64}, {2, 1});
        const std::string picture = "o" + std::string(ending);
        const auto call = [&](const std::string& mode) {
            return "merge --quiet --mode " + mode + " --pile" + at(out, "p.pile") + " -o" + at(out, picture) +
                   at(folder, "f1.tif") + at(folder, "f2.tif");
        };
        REQUIRE(run_program(call("minimum")).code == 0);
        const std::array<std::string, 2> old{bytes_of(out / picture), bytes_of(out / "p.pile")};
        int n = 1;
        for (;; n = next_fault(n)) {
            const Faulted faulted = run_with_fault(call("maximum"), "write", n, out.path());
            INFO(ending << ", write " << n << ", exit " << faulted.ran.code << "\n" << faulted.ran.error);
            if (!faulted.met) break;
            CHECK(faulted.ran.code == 4);
            CHECK(faulted.ran.error.find("No space left on device") != std::string::npos);
            // The one that came first may have been written before the disk was full.
            const bool picture_stays = bytes_of(out / picture) == old[0];
            const bool pile_stays = bytes_of(out / "p.pile") == old[1];
            CHECK((picture_stays || pile_stays));
            CHECK(load_pile(out / "p.pile").ok());
            CHECK(read_picture(out / picture).ok());
            CHECK(out.names().size() == 2);
            if (!picture_stays || !pile_stays) REQUIRE(run_program(call("minimum")).code == 0);
            REQUIRE(n < 200);
        }
        CHECK(n > 2);
    }
}

TEST_CASE("whichever write of layers or of a growth fails, what was there stays whole and nothing is left beside it") {
    for (const char* ending : {".ora", ".mp4", ".webm", ""}) {
        const Folder folder, out;
        write_moving(folder, 2, {96, 64}, {2, 1});
        const bool numbered = *ending == 0;
        const std::string name = "o" + std::string(ending);
        const auto call = [&](const std::string& mode) {
            const std::string what = std::string(ending) == ".ora" ? "merge" : "growth --hold 0";
            return what + " --quiet --mode " + mode + " -o" + at(out, name) + at(folder, "f1.tif") +
                   at(folder, "f2.tif");
        };
        // Numbered pictures go into a folder that is not there yet.
        if (!numbered) REQUIRE(run_program(call("minimum")).code == 0);
        const std::string old = numbered ? std::string() : bytes_of(out / name);
        int n = 1;
        for (;; n = next_fault(n)) {
            const Faulted faulted = run_with_fault(call("maximum"), "write", n, out.path());
            INFO(ending << ", write " << n << ", exit " << faulted.ran.code << "\n" << faulted.ran.error);
            if (!faulted.met) break;
            CHECK(faulted.ran.code == 4);
            CHECK(faulted.ran.error.find("No space left on device") != std::string::npos);
            if (numbered) {
                CHECK_FALSE(fs::exists(out / name));
            } else {
                CHECK(bytes_of(out / name) == old);
                CHECK(out.names().size() == 1);
            }
            REQUIRE(n < 200);
        }
        CHECK(n > 1);
    }
}

TEST_CASE("names with a new line, with quotes, not in UTF-8 and as long as can be are read, written and found again") {
    const Folder folder, out;
    const std::string longest(251, 'l');
    const std::vector<std::string> names{"new\nline.tif", "quo\"te and $(no) `call`.tif", "m\xf6we.tif",
                                         longest + ".tif"};
    std::string frames;
    for (std::size_t i = 0; i < names.size(); ++i) {
        write(folder / names[i], landscape({80, 60}, Matrix::shift(double(i), 1)), 8);
        frames += at(folder, names[i]);
    }
    const std::vector<std::string> pile_names{"p\nq.pile", "q\xf6.pile", std::string(250, 'p') + ".pile"};
    for (const std::string& name : pile_names) {
        INFO(name);
        const auto merged =
            run_program("merge --quiet --align shift --pile" + at(out, name) + " -o" + at(out, "a.tif") + frames);
        INFO(merged.error);
        REQUIRE(merged.code == 0);
        const Result<LoadedPile> loaded = load_pile(out / name);
        REQUIRE(loaded.ok());
        CHECK(loaded.value().missing.empty());
        CHECK(loaded.value().pile.frames.size() == names.size());
        for (const std::string& picture : {longest + ".tif", std::string("new\nline.tif"), std::string("\xf6.png")}) {
            const auto rendered = run_program("render --quiet" + at(out, name) + " -o" + at(out, picture));
            INFO(rendered.error);
            REQUIRE(rendered.code == 0);
            CHECK(difference(read_picture(out / picture).value(), read_picture(out / "a.tif").value()) == "");
        }
    }
    // What cannot be found is told by a name that does not break the line.
    fs::remove(folder / names[0]);
    const auto without = run_program("render --quiet" + at(out, "q\xf6.pile") + " -o" + at(out, "b.tif"));
    INFO(without.error);
    CHECK(without.error.find("new line.tif") != std::string::npos);
}
