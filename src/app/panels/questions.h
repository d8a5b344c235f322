// Asking a person: for files, and what is to be done.
#pragma once

#include <QStringList>
#include <QWidget>
#include <optional>
#include <vector>

namespace bp::app {

// Dialogs for files begin where the last one of their kind ended, the first time at `near` (a file or folder; may be
// empty). Nothing is chosen when the person leaves them.
enum class Places { frames, piles, finishes, profiles, pictures };

// Where the next dialog of a kind begins.
QString place_of(Places kind);
QStringList ask_for_files(QWidget* parent, Places kind, const QString& title, const QString& filter,
                          const QString& near = {});
QString ask_for_folder(QWidget* parent, Places kind, const QString& title, const QString& near = {});
// Where to write: a name without this ending gets it. When there is a file of that very name the person is asked
// whether it is to be replaced.
QString ask_where_to_write(QWidget* parent, Places kind, const QString& title, const QString& filter,
                           const QString& ending, const QString& name, const QString& near = {});

// A folder that is not there yet, or is empty: what is in another is not mixed with what is written.
QString ask_for_new_folder(QWidget* parent, Places kind, const QString& title, const QString& name);

// One of several answers, the first of which is the one that Enter gives; none for Escape.
struct Answer {
    QString words;
    QString tip;
};
std::optional<int> ask(QWidget* parent, const QString& question, const QString& more,
                       const std::vector<Answer>& answers);

}  // namespace bp::app
