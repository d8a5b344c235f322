#include <fcntl.h>
#include <sys/file.h>
#include <sys/xattr.h>
#include <unistd.h>

#include <catch2/catch.hpp>
#include <cstdint>
#include <fstream>
#include <thread>

#include "base/files.h"
#include "base/gate.h"
#include "base/job.h"
#include "base/line_vector.h"
#include "base/parallel.h"
#include "base/text.h"
#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;

namespace {

Status put(const fs::path& file, const std::string& text) {
    std::ofstream(file) << text;
    return Done{};
}

}  // namespace

TEST_CASE("names are ordered as people count") {
    CHECK(natural_less("frame2", "frame10"));
    CHECK_FALSE(natural_less("frame10", "frame2"));
    CHECK(natural_less("a9b2", "a10b1"));
    CHECK(natural_less("img007", "img8"));
    CHECK(natural_less("a", "a1"));
    CHECK(natural_less("img1", "img01") != natural_less("img01", "img1"));
    CHECK_FALSE(natural_less("same", "same"));
    CHECK(natural_less("99999999999999999998", "99999999999999999999"));
}

TEST_CASE("a file is written whole or not at all") {
    const Folder folder;
    const fs::path file = folder / "picture.txt";
    REQUIRE(write_whole(file, [](const fs::path& p) { return put(p, "first"); }).ok());
    CHECK(test::bytes_of(file) == "first");

    SECTION("a failed write leaves the old file and nothing beside it") {
        const Status failed = write_whole(file, [](const fs::path& p) -> Status {
            (void)put(p, "half");
            return Failure{Fault::output, p.string(), "the disk is full"};
        });
        REQUIRE_FALSE(failed.ok());
        CHECK(failed.failure().fault == Fault::output);
        CHECK(failed.failure().english().find("picture.txt") != std::string::npos);
        CHECK(failed.failure().english().find("the disk is full") != std::string::npos);
        CHECK(test::bytes_of(file) == "first");
        CHECK(folder.names() == std::vector<std::string>{"picture.txt"});
    }
    SECTION("a writer that writes nothing is a failure") {
        CHECK_FALSE(write_whole(file, [](const fs::path&) -> Status { return Done{}; }).ok());
        CHECK(test::bytes_of(file) == "first");
    }
    SECTION("a folder that is not there is said so") {
        const Status failed = write_whole(folder / "no/where.txt", [](const fs::path& p) { return put(p, "x"); });
        REQUIRE_FALSE(failed.ok());
        CHECK(failed.failure().english().find("folder does not exist") != std::string::npos);
    }
    SECTION("nothing lies beside it while it is written") {
        std::vector<std::string> meanwhile;
        REQUIRE(write_whole(file, [&](const fs::path& p) {
                    Status done = put(p, "second");
                    meanwhile = folder.names();
                    return done;
                }).ok());
        CHECK(meanwhile == std::vector<std::string>{"picture.txt"});
        CHECK(test::bytes_of(file) == "second");
    }
    SECTION("what a writer throws is a failure, and nothing is left of it") {
        const Status failed = write_whole(file, [](const fs::path& p) -> Status {
            (void)put(p, "half");
            throw std::bad_alloc();
        });
        REQUIRE_FALSE(failed.ok());
        CHECK(failed.failure().fault == Fault::memory);
        CHECK(test::bytes_of(file) == "first");
        CHECK(folder.names() == std::vector<std::string>{"picture.txt"});
    }
    SECTION("what a killed writer left is cleared away, what a living one holds is not") {
        REQUIRE(put(folder / ".bright-pile-0", "left").ok());
        REQUIRE(put(folder / ".bright-pile-1", "held").ok());
        const int held = ::open((folder / ".bright-pile-1").c_str(), O_RDWR | O_CLOEXEC);
        REQUIRE(::flock(held, LOCK_EX) == 0);
        REQUIRE(write_bytes(file, "second").ok());
        CHECK(folder.names() == std::vector<std::string>{".bright-pile-1", "picture.txt"});
        ::close(held);
        clear_unseen(folder.path());
        CHECK(folder.names() == std::vector<std::string>{"picture.txt"});
    }
    SECTION("a link stays, and what it leads to is written") {
        fs::create_directory(folder / "far");
        fs::create_symlink("far/real.txt", folder / "link.txt");
        REQUIRE(write_bytes(folder / "link.txt", "through").ok());
        CHECK(fs::is_symlink(folder / "link.txt"));
        CHECK(test::bytes_of(folder / "far/real.txt") == "through");
        REQUIRE(write_bytes(folder / "link.txt", "again").ok());
        CHECK(fs::is_symlink(folder / "link.txt"));
        CHECK(test::bytes_of(folder / "far/real.txt") == "again");
    }
    SECTION("its mode and what is noted on it stay") {
        fs::permissions(file, fs::perms(0640));
        const bool noted = ::setxattr(file.c_str(), "user.place", "mole", 4, 0) == 0;
        REQUIRE(write_bytes(file, "second").ok());
        CHECK(fs::status(file).permissions() == fs::perms(0640));
        std::array<char, 8> value{};
        if (noted) CHECK(::getxattr(file.c_str(), "user.place", value.data(), value.size()) == 4);
    }
    SECTION("a file that is protected from writing is refused with a sentence") {
        fs::permissions(file, fs::perms(0444));
        const Status failed = write_bytes(file, "second");
        REQUIRE_FALSE(failed.ok());
        CHECK(failed.failure().english().find("protected from writing") != std::string::npos);
        CHECK(test::bytes_of(file) == "first");
    }
    SECTION("the longest names can be written") {
        const fs::path longest = folder / (std::string(251, 'n') + ".txt");
        REQUIRE(write_bytes(longest, "x").ok());
        REQUIRE(write_bytes(longest, "y").ok());
        CHECK(test::bytes_of(longest) == "y");
    }
    SECTION("many who write the same file at once leave one of theirs, whole") {
        const std::string many(100000, 'a');
        parallel_for(0, 40, [&](int i) { CHECK_NOTHROW((void)write_bytes(file, many + char('a' + i % 20)).ok()); });
        CHECK(test::bytes_of(file).size() == many.size() + 1);
        CHECK(folder.names() == std::vector<std::string>{"picture.txt"});
    }
}

TEST_CASE("content hashes follow the bytes") {
    const Folder folder;
    (void)put(folder / "a", "same");
    (void)put(folder / "b", "same");
    (void)put(folder / "c", "other");
    const auto hash = [&](const char* name) { return content_hash(folder / name).value(); };
    CHECK(hash("a") == hash("b"));
    CHECK(hash("a") != hash("c"));
    CHECK(hash("a").size() == 32);
    CHECK_FALSE(content_hash(folder / "none").ok());
}

TEST_CASE("same_file sees through links") {
    const Folder folder;
    (void)put(folder / "a", "x");
    (void)put(folder / "b", "x");
    fs::create_symlink(folder / "a", folder / "link");
    CHECK(same_file(folder / "a", folder / "link"));
    CHECK_FALSE(same_file(folder / "a", folder / "b"));
    CHECK_FALSE(same_file(folder / "a", folder / "none"));
}

TEST_CASE("parallel_for visits every index once, also nested") {
    std::vector<std::atomic<int>> seen(500);
    parallel_for(0, 20,
                 [&](int i) { parallel_for(0, 25, [&](int j) { ++seen[std::size_t(i) * 25 + std::size_t(j)]; }); });
    CHECK(std::all_of(seen.begin(), seen.end(), [](const auto& n) { return n == 1; }));
    bool touched = false;
    parallel_for(3, 3, [&](int) { touched = true; });
    CHECK_FALSE(touched);
}

TEST_CASE("parallel_each visits every index once, from the first on") {
    std::vector<std::atomic<int>> seen(100);
    parallel_each(0, 100, [&](int i) { ++seen[std::size_t(i)]; });
    CHECK(std::all_of(seen.begin(), seen.end(), [](const auto& n) { return n == 1; }));
    const ThreadLimit one(1);
    CHECK(threads_at_work() == 1);
    std::vector<int> order;
    parallel_each(5, 25, [&](int i) { order.push_back(i); });
    CHECK(order.size() == 20);
    CHECK(std::is_sorted(order.begin(), order.end()));
    parallel_each(3, 3, [&](int i) { order.push_back(i); });
    CHECK(order.size() == 20);
}

TEST_CASE("a job tells how far it is and can be stopped") {
    std::vector<double> fractions;
    Job job([&](const Progress& p) { fractions.push_back(p.fraction); });
    job.begin("Counting", 4);
    for (int i = 0; i < 4; ++i) job.advance();
    CHECK(fractions == std::vector<double>{0, 0.25, 0.5, 0.75, 1});
    CHECK(job.progress().what == "Counting");
    CHECK_FALSE(job.stopped());
    job.stop();
    CHECK(job.stopped());
}

TEST_CASE("vectors of whole lines begin at a line, however they grow, and keep what they hold") {
    LineVector<std::uint16_t> values;
    for (std::uint16_t i = 0; i < 1000; ++i) {
        values.push_back(i);
        REQUIRE(reinterpret_cast<std::uintptr_t>(values.data()) % cache_line == 0);
    }
    const LineVector<std::uint16_t> copy = values;
    CHECK(reinterpret_cast<std::uintptr_t>(copy.data()) % cache_line == 0);
    for (std::size_t i = 0; i < copy.size(); ++i) REQUIRE(copy[i] == i);

    CHECK(in_whole_lines<std::uint8_t>(0) == 0);
    CHECK(in_whole_lines<std::uint8_t>(65) == 128);
    CHECK(in_whole_lines<std::uint16_t>(32) == 32);
    CHECK(in_whole_lines<float>(17) == 32);
}

TEST_CASE("tickets for memory keep to the limit, and one is always given") {
    MemoryGate gate(100);
    std::atomic<int> held{0}, most{0};
    std::vector<std::thread> threads;
    for (int i = 0; i < 12; ++i)
        threads.emplace_back([&] {
            for (int k = 0; k < 50; ++k) {
                const MemoryGate::Ticket ticket(gate, 30);
                most = std::max(most.load(), ++held);
                std::this_thread::yield();
                --held;
            }
        });
    for (std::thread& thread : threads) thread.join();
    CHECK(most <= 3);
    CHECK(gate.peak_bytes() <= 100);
    const MemoryGate::Ticket huge(gate, 1000);
    CHECK(gate.peak_bytes() == 1000);
}

TEST_CASE("a saying is English with its gaps filled, and keeps what a translator needs") {
    const Saying inner("%1 frames", {std::string("12")});
    const Saying saying("%2 holds %1, 100%", {inner, std::string("a%1b")});
    CHECK(saying.english() == "a%1b holds 12 frames, 100%");
    CHECK(saying.translated());
    CHECK_FALSE(Saying(std::string("gull.jpg")).translated());
    CHECK(frames_counted(1).english() == "1 frame");
    CHECK(Saying().empty());
    const Saying number("%1 s", {Saying::number(1.5)});
    CHECK(number.english() == "1.5 s");
    CHECK(Saying::number(6400).english() == "6400");
    CHECK(number.in([](const std::string& key) { return key; }, [](double) { return "1,5"; }) == "1,5 s");
}

TEST_CASE("paths of any bytes go through text and come back") {
    for (const std::string& path :
         {std::string("a/b c.jpg"), std::string("m\xf6we"), std::string("100%41"), std::string("two\nlines"),
          std::string("\xe2\x98\x83"), std::string("\xed\xa0\x80"), std::string("%")}) {
        const std::string text = path_to_text(path);
        CHECK(valid_utf8(text) == text);
        CHECK(path_from_text(text).string() == path);
    }
    CHECK(path_to_text("plain/name.jpg") == "plain/name.jpg");
    CHECK(cut_to("m\xc3\xb6we", 3) == "m\xc3\xb6");
    CHECK(cut_to("m\xc3\xb6we", 2) == "m");
    CHECK(cut_to("gull", 9) == "gull");
}
