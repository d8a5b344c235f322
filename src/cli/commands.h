// The subcommands of bright-pile-cli: each adds itself to the parser and says what to run.
#pragma once

#include <CLI/CLI.hpp>
#include <filesystem>
#include <functional>
#include <map>
#include <memory>
#include <string>

#include "base/job.h"
#include "engine/open.h"
#include "engine/store.h"
#include "pile/pile.h"

namespace bp::cli {

// Exit codes, a contract: docs/cli.md.
enum class Exit {
    done = 0,
    some_frames_unused = 1,
    wrong_call = 2,
    unusable_input = 3,
    cannot_write = 4,
    stopped = 130
};

struct Context {
    Job& job;
};
using Run = std::function<Exit(Context&)>;

// Options that every subcommand takes.
struct Common {
    bool quiet = false;
    std::string progress = "bar";
};

Run add_merge(CLI::App& app);
Run add_inspect(CLI::App& app);
Run add_align(CLI::App& app);
Run add_practice(CLI::App& app);
Run add_render(CLI::App& app);
Run add_streaks(CLI::App& app);
Run add_sequence(CLI::App& app);
Run add_shower(CLI::App& app);
Run add_growth(CLI::App& app);

// A line on standard error, in the language of the environment.
void tell(const Saying& saying);
// Says the failure on standard error and gives its exit code.
Exit fail(const Failure& failure);
// Says on standard error which frames are not used, and why; true when there are any.
bool tell_problems(const Pile& pile);

// Saves a pile whose frames are known by their paths: they get their hashes first.
Status write_pile(Pile pile, const std::filesystem::path& file);

// A pile says in which format its picture was written.
void set_ending(Pile& pile, const std::filesystem::path& out);

// Frames as the command line names them.
struct FrameChoice {
    std::vector<std::string> names;
    std::string order = "captured";
    std::string reference;
    void add_to(CLI::App& app, bool with_reference);
};
// Paths of frames as the person gave them.
class GivenPaths {
  public:
    void add(const std::filesystem::path& given);
    std::string of(const Frame& frame) const;

  private:
    std::map<std::filesystem::path, std::string> given_;  // by absolute path
};

// Where a picture that is made of found parts goes, with its pile on request.
struct PartsOut {
    std::string picture;
    std::string pile;
    bool as_json = false;
    void add_to(CLI::App& app, const Saying& told);
};
// Writes both; gives the pile as it was exported.
Result<Pile> write_parts(Pile pile, const PartsOut& out, FrameStore& store, Job& job);

struct Chosen {
    Pile pile;  // with the reference and base set
    GivenPaths paths;
};
Result<Chosen> open_choice(const FrameChoice& choice, Job& job);

}  // namespace bp::cli
