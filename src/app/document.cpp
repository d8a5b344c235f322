#include "app/document.h"

#include <QFileInfo>

#include "pile/edits.h"

namespace bp::app {

QString Document::name() const {
    return path_.isEmpty() ? name_ : QFileInfo(path_).fileName();
}

void Document::start(Pile pile, const QString& path, const QString& name) {
    history_ = History(std::move(pile));
    open_ = true;
    path_ = path;
    name_ = name;
    emit opened();
    emit changed();
}

void Document::start_unsaved(Pile pile, const QString& name) {
    start(std::move(pile), {}, name);
    history_.mark_unsaved();
    emit changed();
}

void Document::close() {
    history_ = History();
    open_ = false;
    path_.clear();
    emit opened();
    emit changed();
}

void Document::edit(Pile pile, const QString& what) {
    if (pile == history_.now()) return;
    history_.push(std::move(pile), what.toStdString());
    emit changed();
}

void Document::correct(Pile pile) {
    history_.replace(std::move(pile));
    emit changed();
}

void Document::take_in(std::vector<Frame> frames) {
    int id = history_.highest_frame_id();
    for (Frame& frame : frames) frame.id = ++id;
    history_.each([&](Pile pile) { return with_numbered_frames(std::move(pile), frames); });
    history_.mark_unsaved();
    emit changed();
}

void Document::undo() {
    if (!history_.can_undo()) return;
    history_.undo();
    emit changed();
}

void Document::redo() {
    if (!history_.can_redo()) return;
    history_.redo();
    emit changed();
}

void Document::mark_saved(const QString& path) {
    path_ = path;
    history_.mark_saved();
    emit changed();
}

}  // namespace bp::app
