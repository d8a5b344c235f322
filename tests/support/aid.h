// The program as people have it who do not see it: through the desktop's bus for aids (AT-SPI 2) alone.
#pragma once

#include <atspi/atspi.h>
#include <sys/types.h>

#include <functional>
#include <memory>
#include <string>
#include <vector>

#include "support/fixtures.h"

namespace bp::test {

struct Unreferenced {
    void operator()(void* object) const { g_object_unref(object); }
};
using Node = std::unique_ptr<AtspiAccessible, Unreferenced>;

class Aid {
  public:
    // Starts the program, in a home of its own, and waits for its window. A session bus and a display must be there.
    Aid();
    ~Aid();
    Aid(const Aid&) = delete;
    Aid& operator=(const Aid&) = delete;

    // What is shown with this role and name, or, with * at the end, a name that begins so; waited for. Null when it
    // does not come. `dialog`: in the dialog of that name.
    Node find(const std::string& role, const std::string& name, double seconds = 20, const std::string& dialog = "");
    bool shows(const std::string& role, const std::string& name) { return find(role, name, 0) != nullptr; }
    // Does what the thing does when it is pressed; false when it is not there or cannot be pressed.
    bool press(const std::string& role, const std::string& name, const std::string& dialog = "");
    bool focus(const std::string& role, const std::string& name);
    // Puts words into a field.
    bool write(const std::string& role, const std::string& name, const std::string& words);
    // Keys for what has the focus, in the words of xdotool.
    bool keys(const std::string& names) const;
    // Waits until nothing is going on.
    bool quiet(double seconds = 60);
    bool wait_for(const std::function<bool()>& ready, double seconds = 20);
    // What was announced: sentences that came, and new names of what has the focus, the oldest first.
    const std::vector<std::string>& heard() const { return heard_; }
    bool runs() const;
    // The roles and names of all that is shown.
    std::string all();

  private:
    using Seen = std::function<bool(AtspiAccessible*, const std::string& role, const std::string& name)>;
    Node application() const;
    static bool walk(AtspiAccessible* from, bool always, const Seen& seen);
    bool act(const std::string& role, const std::string& name, const std::vector<std::string>& actions,
             const std::string& dialog = "");
    void listen(AtspiEvent* event);

    Folder home_;
    pid_t program_ = -1;
    AtspiEventListener* listener_ = nullptr;
    std::vector<std::string> heard_;
};

}  // namespace bp::test
