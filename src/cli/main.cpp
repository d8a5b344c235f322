#include <unistd.h>

#include <atomic>
#include <chrono>
#include <cmath>
#include <condition_variable>
#include <csignal>
#include <cstdio>
#include <iostream>
#include <map>
#include <mutex>
#include <nlohmann/json.hpp>
#include <thread>

#include "base/guarded.h"
#include "base/memory.h"
#include "cli/commands.h"
#include "cli/words.h"
#include "cli/wrong_call.h"

namespace bp::cli {
namespace {

// Written by a signal handler, which an atomic without a lock allows.
std::atomic<bool> interrupted{false};
static_assert(std::atomic<bool>::is_always_lock_free);

// Passes an interrupt on to the job, which a signal handler itself must not touch.
class StopWatch {
  public:
    explicit StopWatch(Job& job)
        : thread_([this, &job] {
              std::unique_lock lock(mutex_);
              while (!wakes_.wait_for(lock, std::chrono::milliseconds(20), [this] { return done_; }))
                  if (interrupted) job.stop();
          }) {}
    ~StopWatch() {
        {
            const std::lock_guard lock(mutex_);
            done_ = true;
        }
        wakes_.notify_one();
        thread_.join();
    }
    StopWatch(const StopWatch&) = delete;
    StopWatch& operator=(const StopWatch&) = delete;

  private:
    std::mutex mutex_;
    std::condition_variable wakes_;
    bool done_ = false;
    std::thread thread_;
};

void show_bar(const Progress& p) {
    static int last = -1;
    const int percent = int(p.fraction * 100);
    if (percent == last) return;
    last = percent;
    std::fprintf(stderr, "\r\033[K%s  %d%%", said(p.what).c_str(), percent);
    if (p.seconds_left > 1)
        std::fprintf(stderr, "  %s", said({"about %1 s left", {std::to_string(std::lround(p.seconds_left))}}).c_str());
    if (p.fraction >= 1) std::fprintf(stderr, "\r\033[K");
    std::fflush(stderr);
}

void show_json(const Progress& p) {
    const nlohmann::json line{{"what", p.what.english()}, {"fraction", p.fraction}, {"left_s", p.seconds_left}};
    std::cerr << line.dump(-1, ' ', false, nlohmann::json::error_handler_t::replace) << std::endl;
}

Job::Listener listener_for(const Common& common) {
    if (common.quiet) return {};
    if (common.progress == "json") return show_json;
    if (::isatty(STDERR_FILENO)) return show_bar;
    return {};
}

int run(int argc, char** argv) {
    CLI::App app{"Aligns and merges a run of frames of one scene. The originals are never written to."};
    app.set_version_flag("--version", std::string("Bright Pile ") + BRIGHT_PILE_VERSION);
    app.require_subcommand(1);
    Common common;
    std::map<CLI::App*, Run> runs;
    const auto add = [&](const char* name, const char* help, Run (*make)(CLI::App&)) {
        CLI::App* sub = app.add_subcommand(name, help);
        sub->add_flag("--quiet", common.quiet, "No progress");
        sub->add_option("--progress", common.progress, "bar, or json for one JSON line a step")
            ->check(CLI::IsMember({"bar", "json"}));
        runs[sub] = make(*sub);
    };
    add("merge", "Merge frames into one picture", add_merge);
    add("inspect", "Print what is known of each frame", add_inspect);
    add("align", "Print where each frame lies against the reference", add_align);
    add("streaks", "Find aircraft, satellites and meteors", add_streaks);
    add("sequence", "Show what moves in many places of one picture", add_sequence);
    add("shower", "Lay the meteors of all frames over one", add_shower);
    add("growth", "Write the picture as it comes into being, as a clip or numbered pictures", add_growth);
    add("render", "Write the picture of a saved pile", add_render);
    add("practice", "Photograph a scene of Skerrow harbour, with its truth", add_practice);
    translate(app);
    try {
        app.parse(argc, argv);
    } catch (const CLI::ParseError& error) {
        // Help and version are asked for by way of errors, too.
        if (error.get_exit_code() == 0) return app.exit(error, std::cout, std::cerr);
        std::cerr << said(wrong_call(error)) << '\n' << said("With --help all that can be said is listed.") << '\n';
        return int(Exit::wrong_call);
    }
    Job job(listener_for(common));
    const StopWatch watch(job);
    Context context{job};
    try {
        return int(runs.at(app.get_subcommands().front())(context));
    } catch (...) {
        return int(fail(caught_failure()));
    }
}

}  // namespace
}  // namespace bp::cli

int main(int argc, char** argv) {
    std::signal(SIGINT, [](int) { bp::cli::interrupted = true; });
    std::signal(SIGTERM, [](int) { bp::cli::interrupted = true; });
    bp::cli::speak();
    bp::keep_freed_memory();
    return bp::cli::run(argc, argv);
}
