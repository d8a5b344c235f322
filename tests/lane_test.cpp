#include <atomic>
#include <catch2/catch.hpp>
#include <memory>
#include <thread>

#include "app/work/jobs.h"
#include "support/window.h"

using namespace bp;
using namespace bp::app;
using bp::test::has_ended;
using bp::test::let_pass;
using bp::test::wait_for;

namespace {

// Work that goes on until it is stopped.
int endless(Job& job) {
    while (!job.stopped()) std::this_thread::sleep_for(std::chrono::milliseconds(1));
    return -1;
}

}  // namespace

TEST_CASE("a lane hands the result back on the window's thread", "[window]") {
    Lane lane(nullptr);
    const auto here = std::this_thread::get_id();
    std::thread::id worked, handed;
    int result = 0;
    lane.run<int>(
        [&](Job&) {
            worked = std::this_thread::get_id();
            return 42;
        },
        [&](int value) {
            handed = std::this_thread::get_id();
            result = value;
        });
    CHECK(lane.busy());
    REQUIRE(wait_for([&] { return result == 42; }));
    CHECK(worked != here);
    CHECK(handed == here);
    CHECK_FALSE(lane.busy());
}

TEST_CASE("only the latest of several jobs is heard, and the earlier ones are stopped", "[window]") {
    Lane lane(nullptr);
    std::vector<int> heard;
    lane.run<int>(endless, [&](int) { heard.push_back(1); });
    lane.run<int>(endless, [&](int) { heard.push_back(2); });
    lane.run<int>([](Job&) { return 3; }, [&](int value) { heard.push_back(value); });
    REQUIRE(wait_for([&] { return !lane.busy(); }));
    let_pass();
    CHECK(heard == std::vector<int>{3});
}

TEST_CASE("a stopped job is stopped at once and never heard", "[window]") {
    Lane lane(nullptr);
    bool heard = false;
    lane.run<int>(endless, [&](int) { heard = true; });
    lane.stop();
    CHECK_FALSE(lane.busy());
    REQUIRE(has_ended(lane));
    CHECK_FALSE(heard);
    lane.stop();
}

TEST_CASE("a lane that goes away stops its work and waits for it", "[window]") {
    std::atomic<bool> begun{false};
    std::atomic<bool> ended{false};
    {
        Lane lane(nullptr);
        lane.run<int>(
            [&](Job& job) {
                begun = true;
                endless(job);
                ended = true;
                return 0;
            },
            [](int) {});
        REQUIRE(wait_for([&] { return begun.load(); }));
    }
    CHECK(ended);
}

TEST_CASE("results may be things that cannot be copied, and progress can be seen meanwhile", "[window]") {
    Lane lane(nullptr);
    std::atomic<bool> go{false};
    std::unique_ptr<int> result;
    lane.run<std::unique_ptr<int>>(
        [&](Job& job) {
            job.begin("Counting", 4);
            job.advance();
            while (!go) std::this_thread::sleep_for(std::chrono::milliseconds(1));
            return std::make_unique<int>(7);
        },
        [&](std::unique_ptr<int> value) { result = std::move(value); });
    REQUIRE(wait_for([&] { return lane.progress().fraction == 0.25; }));
    CHECK(lane.progress().what == Saying("Counting"));
    go = true;
    REQUIRE(wait_for([&] { return result != nullptr; }));
    CHECK(*result == 7);
    CHECK(lane.progress().what.empty());
}
