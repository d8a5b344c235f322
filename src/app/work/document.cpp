#include "app/work/document.h"

#include <QFileInfo>
#include <algorithm>
#include <utility>

#include "pile/drawn.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

constexpr qint64 repeat_ms = 1200;  // from one edit of a kind to the next that is the same step

}  // namespace

QString Document::name() const {
    return path_.isEmpty() ? name_ : QFileInfo(path_).fileName();
}

void Document::start(Pile pile, const QString& path, const QString& name) {
    history_ = History(std::move(pile));
    open_ = true;
    ++identity_;
    highest_id_ = 0;
    path_ = path;
    name_ = name;
    last_repeats_.clear();
    selection_ = only(this->pile().frames.empty() ? 0 : this->pile().reference);
    emit opened();
    emit changed();
    emit selection_changed();
}

void Document::start_unsaved(Pile pile, const QString& path, const QString& name) {
    start(std::move(pile), path, name);
    history_.mark_unsaved();
    emit changed();
}

void Document::close() {
    history_ = History();
    selection_ = {};
    open_ = false;
    ++identity_;
    path_.clear();
    last_repeats_.clear();
    emit opened();
    emit changed();
    emit selection_changed();
}

void Document::change(const std::function<void()>& how) {
    const Pile before = pile();
    how();
    Selection held = held_to(selection_, before, pile());
    const bool moved = held != selection_;
    selection_ = std::move(held);
    emit changed();
    if (moved) emit selection_changed();
}

void Document::edit(Pile pile, const QString& what, const QString& repeats) {
    if (pile == history_.now()) return;
    const bool join = !repeats.isEmpty() && repeats == last_repeats_ && since_last_.isValid() &&
                      since_last_.elapsed() < repeat_ms && !history_.can_redo();
    last_repeats_ = repeats;
    since_last_.start();
    const double px = bp::moved_under_drawing(history_.now(), pile);
    change([&] { history_.push(std::move(pile), what.toStdString(), join); });
    constexpr double seen_px = 0.5;
    if (px >= seen_px) emit moved_under_drawing(px);
}

void Document::correct(Pile pile) {
    change([&] { history_.replace(std::move(pile)); });
}

void Document::complete(Pile pile) {
    change([&] { history_.complete(std::move(pile)); });
}

std::vector<Frame> Document::numbered(std::vector<Frame> frames) {
    highest_id_ = std::max(highest_id_, history_.highest_frame_id());
    for (Frame& frame : frames) frame.id = ++highest_id_;
    return frames;
}

void Document::take_in(const std::vector<Frame>& frames) {
    change([&] {
        const std::vector<Frame> fresh = numbered(frames);
        history_.each([&](Pile pile) { return with_numbered_frames(std::move(pile), fresh); });
    });
}

void Document::find_out(const std::function<Pile(Pile)>& of) {
    change([&] { path_.isEmpty() ? history_.replace_each(of) : history_.each(of); });
}

void Document::undo() {
    if (!history_.can_undo()) return;
    last_repeats_.clear();
    change([this] { history_.undo(); });
}

void Document::redo() {
    if (!history_.can_redo()) return;
    last_repeats_.clear();
    change([this] { history_.redo(); });
}

QStringList Document::steps() const {
    QStringList out;
    for (const std::string& what : history_.steps()) out << QString::fromStdString(what);
    out.first() = history_.goes_back_to_the_start() ? tr("As it was opened") : tr("The earliest that is remembered");
    return out;
}

void Document::go_to_step(int step) {
    if (step < 0 || step == this->step()) return;
    last_repeats_.clear();
    change([&] { history_.go_to(std::size_t(step)); });
}

void Document::mark_saved(const QString& path, long serial) {
    path_ = path;
    history_.mark_saved(serial);
    // A step that goes on would change what was saved.
    last_repeats_.clear();
    emit changed();
}

void Document::select(const Selection& selection) {
    Selection held = held_to(selection, pile(), pile());
    if (held == selection_) return;
    selection_ = std::move(held);
    emit selection_changed();
}

}  // namespace bp::app
