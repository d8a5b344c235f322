// What can be done by a key: one table, from which shortcuts, tooltips and the sheet of keys are made.
#pragma once

#include <QKeySequence>
#include <QList>
#include <QObject>
#include <QString>
#include <functional>
#include <map>
#include <span>

class QShortcut;
class QWidget;

namespace bp::app {

// Where a key is heard.
enum class Heard {
    everywhere,    // whatever has the focus, except while text is typed that the key belongs to
    unless_taken,  // only when what has the focus makes nothing of it: sliders and lists need the arrows themselves
    held,          // the same, for as long as it is down
    on_picture,    // only while the picture has the focus
    on_rail,       // only while the time rail has it
    by_hand        // only while a frame is placed by hand
};

enum class Topic { pile, frames, views, picture, brush, hand, window };

struct Command {
    const char* id;
    Topic topic;
    Heard heard;
    QList<QKeySequence> keys;
    const char* words;  // what it is called
    const char* tip;    // what it does
    QString name() const;
    QString what_it_does() const;
    QString keys_in_words() const;
};

std::span<const Command> commands();
const Command& command(const char* id);
QString word(Topic topic);
// What a control that does the same says: its words, and the keys in brackets.
QString tip_of(const char* id);

// Ties the commands of one window to what they do.
class Keys : public QObject {
    Q_OBJECT

  public:
    explicit Keys(QWidget* window);
    // `on`: the widget whose focus counts, for commands that are heard there alone; else the window. `when` says
    // whether it can be done now; without it always.
    void tie(const char* id, std::function<void()> what, std::function<bool()> when = {}, QWidget* on = nullptr);
    // Whether it can be done now.
    bool can(const char* id) const;
    // Does it, as its key would.
    void act(const char* id) { go(id); }
    // Commands that are heard unless taken: true when this key was one of theirs and something was done.
    bool press(const QKeySequence& key);
    // True when every command that a key leads to is tied.
    bool complete() const;

  private:
    struct Tied {
        std::function<void()> what;
        std::function<bool()> when;
    };
    void go(const std::string& id);

    QWidget* window_;
    std::map<std::string, Tied> tied_;
};

}  // namespace bp::app
