// The open pile with its history and its place on disk.
#pragma once

#include <QObject>
#include <QString>

#include "pile/history.h"

namespace bp::app {

class Document : public QObject {
    Q_OBJECT

  public:
    using QObject::QObject;

    const Pile& pile() const { return history_.now(); }
    bool open() const { return open_; }
    const QString& path() const { return path_; }  // of the .pile file; empty when never saved
    QString name() const;
    bool edited() const { return history_.edited(); }

    void start(Pile pile, const QString& path, const QString& name);
    // The same for work that was never saved and would be lost.
    void start_unsaved(Pile pile, const QString& name);
    void close();
    // One step of the history. `what` completes "Undo ...".
    void edit(Pile pile, const QString& what);
    // What was found out, not done by the person: no step of its own.
    void correct(Pile pile);
    // What came from outside: in every pile of the history, so that no undo takes it away. Unsaved from then on.
    void take_in(std::vector<Frame> frames);
    void undo();
    void redo();
    QString undo_text() const { return QString::fromStdString(history_.undo_text()); }
    QString redo_text() const { return QString::fromStdString(history_.redo_text()); }
    bool can_undo() const { return history_.can_undo(); }
    bool can_redo() const { return history_.can_redo(); }
    void mark_saved(const QString& path);

  signals:
    void opened();   // another pile altogether
    void changed();  // any change of the pile, also after opened()

  private:
    History history_;
    bool open_ = false;
    QString path_;
    QString name_;
};

}  // namespace bp::app
