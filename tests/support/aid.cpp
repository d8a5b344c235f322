#include "support/aid.h"

#include <signal.h>
#include <sys/wait.h>
#include <unistd.h>

#include <chrono>
#include <cstdlib>
#include <thread>

namespace bp::test {
namespace {

// What the bus gives is to be freed.
std::string taken(gchar* text) {
    std::string out = text ? text : "";
    g_free(text);
    return out;
}

std::string name_of(AtspiAccessible* node) {
    return taken(atspi_accessible_get_name(node, nullptr));
}
std::string role_of(AtspiAccessible* node) {
    return taken(atspi_accessible_get_role_name(node, nullptr));
}

bool has_state(AtspiAccessible* node, AtspiStateType state) {
    AtspiStateSet* states = atspi_accessible_get_state_set(node);
    if (!states) return false;
    const bool out = atspi_state_set_contains(states, state);
    g_object_unref(states);
    return out;
}

bool is_meant(const std::string& name, const std::string& wanted) {
    return wanted.ends_with('*') ? name.starts_with(wanted.substr(0, wanted.size() - 1)) : name == wanted;
}

void let_events_pass() {
    while (g_main_context_iteration(nullptr, FALSE)) {
    }
}

}  // namespace

Aid::Aid() {
    atspi_init();
    // What is told is asked for anew every time.
    AtspiAccessible* desktop = atspi_get_desktop(0);
    atspi_accessible_set_cache_mask(desktop, ATSPI_CACHE_NONE);
    g_object_unref(desktop);
    listener_ = atspi_event_listener_new(
        [](AtspiEvent* event, void* self) {
            static_cast<Aid*>(self)->listen(event);
            g_boxed_free(ATSPI_TYPE_EVENT, event);
        },
        this, nullptr);
    for (const char* kind : {"object:state-changed:showing", "object:property-change:accessible-name"})
        atspi_event_listener_register(listener_, kind, nullptr);
    program_ = ::fork();
    if (program_ == 0) {
        ::unsetenv("QT_QPA_PLATFORM");
        ::unsetenv("BRIGHT_PILE_DEMO");
        ::setenv("QT_LINUX_ACCESSIBILITY_ALWAYS_ON", "1", 1);
        ::setenv("LC_ALL", "C.UTF-8", 1);
        ::setenv("HOME", home_.path().c_str(), 1);
        for (const auto& [variable, folder] :
             {std::pair{"XDG_CACHE_HOME", "cache"}, {"XDG_CONFIG_HOME", "config"}, {"XDG_DATA_HOME", "data"}})
            ::setenv(variable, (home_ / folder).c_str(), 1);
        ::execl(WINDOW_PROGRAM, WINDOW_PROGRAM, static_cast<char*>(nullptr));
        ::_exit(127);
    }
    wait_for([this] { return application() != nullptr; });
}

Aid::~Aid() {
    if (program_ > 0) {
        ::kill(program_, SIGKILL);
        ::waitpid(program_, nullptr, 0);
    }
    for (const char* kind : {"object:state-changed:showing", "object:property-change:accessible-name"})
        atspi_event_listener_deregister(listener_, kind, nullptr);
    g_object_unref(listener_);
}

Node Aid::application() const {
    const Node desktop(atspi_get_desktop(0));
    for (int i = 0; i < atspi_accessible_get_child_count(desktop.get(), nullptr); ++i) {
        Node child(atspi_accessible_get_child_at_index(desktop.get(), i, nullptr));
        if (child && int(atspi_accessible_get_process_id(child.get(), nullptr)) == program_) return child;
    }
    return nullptr;
}

bool Aid::walk(AtspiAccessible* from, bool always, const Seen& seen) {
    if (!always && !has_state(from, ATSPI_STATE_SHOWING)) return false;
    if (seen(from, role_of(from), name_of(from))) return true;
    const int count = atspi_accessible_get_child_count(from, nullptr);
    for (int i = 0; i < count; ++i) {
        const Node child(atspi_accessible_get_child_at_index(from, i, nullptr));
        if (child && walk(child.get(), false, seen)) return true;
    }
    return false;
}

Node Aid::find(const std::string& role, const std::string& name, double seconds, const std::string& dialog) {
    Node out;
    wait_for(
        [&] {
            const Node from = dialog.empty() ? application() : find("dialog", dialog, 0);
            return from && walk(from.get(), true, [&](AtspiAccessible* node, const auto& r, const auto& n) {
                       if (r != role || !is_meant(n, name)) return false;
                       out.reset(static_cast<AtspiAccessible*>(g_object_ref(node)));
                       return true;
                   });
        },
        seconds);
    return out;
}

bool Aid::act(const std::string& role, const std::string& name, const std::vector<std::string>& actions,
              const std::string& dialog) {
    const Node node = find(role, name, 20, dialog);
    AtspiAction* action = node ? atspi_accessible_get_action_iface(node.get()) : nullptr;
    if (!action) return false;
    bool done = false;
    const int count = atspi_action_get_n_actions(action, nullptr);
    for (int i = 0; i < count && !done; ++i) {
        const std::string can = taken(atspi_action_get_action_name(action, i, nullptr));
        if (std::find(actions.begin(), actions.end(), can) != actions.end())
            done = atspi_action_do_action(action, i, nullptr);
    }
    g_object_unref(action);
    return done;
}

bool Aid::press(const std::string& role, const std::string& name, const std::string& dialog) {
    return act(role, name, {"Press", "Toggle"}, dialog);
}
bool Aid::focus(const std::string& role, const std::string& name) {
    return act(role, name, {"SetFocus"});
}

bool Aid::write(const std::string& role, const std::string& name, const std::string& words) {
    const Node node = find(role, name);
    AtspiEditableText* field = node ? atspi_accessible_get_editable_text_iface(node.get()) : nullptr;
    if (!field) return false;
    const bool done = atspi_editable_text_set_text_contents(field, words.c_str(), nullptr);
    g_object_unref(field);
    return done;
}

bool Aid::keys(const std::string& names) const {
    const std::string focus = "xdotool search --onlyvisible --pid " + std::to_string(program_) +
                              " 2>/dev/null | tail -1 | xargs xdotool windowfocus --sync";
    return std::system(focus.c_str()) == 0 && std::system(("xdotool key " + names).c_str()) == 0;
}

bool Aid::quiet(double seconds) {
    return wait_for([this] { return !shows("progress bar", "*"); }, seconds);
}

bool Aid::wait_for(const std::function<bool()>& ready, double seconds) {
    const auto until = std::chrono::steady_clock::now() + std::chrono::duration<double>(seconds);
    for (;;) {
        let_events_pass();
        if (ready()) return true;
        if (std::chrono::steady_clock::now() >= until) return false;
        std::this_thread::sleep_for(std::chrono::milliseconds(100));
    }
}

void Aid::listen(AtspiEvent* event) {
    if (!event->source) return;
    const bool comes = std::string(event->type).starts_with("object:state-changed:showing") && event->detail1 == 1;
    const bool renamed = std::string(event->type).starts_with("object:property-change:accessible-name");
    if ((comes && role_of(event->source) == "alert") || (renamed && has_state(event->source, ATSPI_STATE_FOCUSED)))
        heard_.push_back(name_of(event->source));
}

bool Aid::runs() const {
    return ::waitpid(program_, nullptr, WNOHANG) == 0;
}

std::string Aid::all() {
    std::string out;
    if (const Node program = application())
        walk(program.get(), true, [&](AtspiAccessible*, const std::string& role, const std::string& name) {
            out += role + ": " + name + "\n";
            return false;
        });
    return out;
}

}  // namespace bp::test
