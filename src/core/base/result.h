// Failures as values. Every call of the core that can fail returns a Result; nothing is thrown across a thread, a job
// or a room (guarded.h).
#pragma once

#include <string>
#include <utility>
#include <variant>

#include "base/saying.h"

namespace bp {

enum class Fault {
    wrong_call,  // the caller asked for something that does not exist
    input,       // a file that was to be read is broken, missing, or of no use here
    output,      // a file could not be written
    memory,      // there was not enough of it
    stopped,     // the person stopped the job
};

// `file` may be empty. `sentence` is what a photographer reads: which file, what is wrong, what to do. `frame` is the
// id of the frame that it is about, where that is known; 0 otherwise.
struct Failure {
    Fault fault = Fault::input;
    std::string file;
    Saying sentence;
    int frame = 0;

    std::string english() const { return sentence.english(); }
};

// The same failure, of this frame unless it names one already.
inline Failure of_frame(Failure failure, int id) {
    if (failure.frame == 0) failure.frame = id;
    return failure;
}

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
