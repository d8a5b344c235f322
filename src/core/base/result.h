// Failures as values. Every call of the core that can fail returns a Result; nothing below the window throws for bad
// input.
#pragma once

#include <string>
#include <utility>
#include <variant>

namespace bp {

enum class Fault {
    wrong_call,  // the caller asked for something that does not exist
    input,       // a file that was to be read is broken, missing, or of no use here
    output,      // a file could not be written
    stopped,     // the person stopped the job
};

// `file` may be empty. `sentence` is what a photographer reads: which file, what is wrong, what to do.
struct Failure {
    Fault fault = Fault::input;
    std::string file;
    std::string sentence;
};

template <class T>
class [[nodiscard]] Result {
  public:
    Result(T value) : state_(std::move(value)) {}
    Result(Failure failure) : state_(std::move(failure)) {}

    bool ok() const { return state_.index() == 0; }
    explicit operator bool() const { return ok(); }
    // Only when ok(); std::get throws otherwise, so a forgotten check is loud.
    T& value() & { return std::get<0>(state_); }
    const T& value() const& { return std::get<0>(state_); }
    T&& value() && { return std::get<0>(std::move(state_)); }
    const Failure& failure() const { return std::get<1>(state_); }

  private:
    std::variant<T, Failure> state_;
};

struct Done {};
using Status = Result<Done>;

}  // namespace bp
