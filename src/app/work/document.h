// The open pile with its history, its place on disk, and which of its frames are chosen.
#pragma once

#include <QElapsedTimer>
#include <QObject>
#include <QStringList>
#include <functional>

#include "app/work/selection.h"
#include "pile/history.h"

namespace bp::app {

class Document : public QObject {
    Q_OBJECT

  public:
    using QObject::QObject;

    const Pile& pile() const { return history_.now(); }
    const Selection& selection() const { return selection_; }
    bool open() const { return open_; }
    // Another number for every pile that is opened or begun: what was made for one must not get into another.
    long identity() const { return identity_; }
    const QString& path() const { return path_; }  // of the .pile file; empty when never saved
    QString name() const;
    bool edited() const { return history_.edited(); }
    // Tells the present state from all others of this document.
    long serial() const { return history_.serial(); }

    void start(Pile pile, const QString& path, const QString& name);
    // The same for work that was not saved and would be lost.
    void start_unsaved(Pile pile, const QString& path, const QString& name);
    void close();
    // One step of the history. `what` completes "Undo ...". Edits of the same `repeats` that follow each other quickly
    // are one step; an empty one is always a step of its own.
    void edit(Pile pile, const QString& what, const QString& repeats = {});
    // What was found out, not done by the person: no step of its own.
    void correct(Pile pile);
    // What work adds to an edit that is done already: no step of its own either, but what was saved before lacks it.
    void complete(Pile pile);
    // Ids that no frame of this document ever had: what was noted of one must not be taken for another's.
    std::vector<Frame> numbered(std::vector<Frame> frames);
    // What was found out, for every pile of the history. Who saved meanwhile has it still to save; to be asked about a
    // pile that was never saved, a person must have done something.
    void find_out(const std::function<Pile(Pile)>& of);
    // What came from outside: in every pile of the history, so that no undo takes it away. Unsaved from then on.
    void take_in(const std::vector<Frame>& frames);
    void undo();
    void redo();
    QString undo_text() const { return QString::fromStdString(history_.undo_text()); }
    QString redo_text() const { return QString::fromStdString(history_.redo_text()); }
    // What was done, the first one being the earliest that is remembered; and which of them is the present one.
    QStringList steps() const;
    int step() const { return int(history_.at()); }
    void go_to_step(int step);
    bool can_undo() const { return history_.can_undo(); }
    bool can_redo() const { return history_.can_redo(); }
    // The state of this serial is on disk there.
    void mark_saved(const QString& path, long serial);
    // Ids that are not in the pile are left out.
    void select(const Selection& selection);

  signals:
    void opened();             // another pile altogether
    void changed();            // any change of the pile, also after opened()
    void selection_changed();  // after changed(), when that took chosen frames away
    // After changed(): by an edit the picture lies so far off what is painted, cropped and mended on it.
    void moved_under_drawing(double px);

  private:
    // Changes the history, and holds the selection to what came of it before anybody hears.
    void change(const std::function<void()>& how);

    History history_;
    Selection selection_;
    bool open_ = false;
    long identity_ = 0;
    int highest_id_ = 0;
    QString path_;
    QString name_;
    QString last_repeats_;
    QElapsedTimer since_last_;
};

}  // namespace bp::app
