// What the window opens, takes in, saves and exports: the dialogs and questions of it.
#include <QDir>
#include <QFileInfo>
#include <algorithm>
#include <utility>

#include "app/looks/words.h"
#include "app/panels/clip_dialog.h"
#include "app/panels/growth_dialog.h"
#include "app/panels/questions.h"
#include "app/window/main_window.h"
#include "engine/export_names.h"
#include "io/clip.h"
#include "io/kinds.h"
#include "pile/finish_file.h"

namespace bp::app {
namespace {

bool is_clip(const QString& name) {
    const Kind* kind = kind_of(name.toStdString());
    return kind && kind->way == ReadBy::clip;
}

}  // namespace

QString MainWindow::near_frames() const {
    if (!studio_->document().open()) return {};
    const auto& frames = studio_->pile().frames;
    if (frames.empty()) return {};
    fs::path file = frames.front().file->path;
    if (const auto clip = clip_frame_of(file)) file = clip->clip;
    return QString::fromStdString(file.string());
}

void MainWindow::choose_folder() {
    const QString folder = ask_for_folder(this, Places::frames, tr("Open a folder"));
    if (!folder.isEmpty()) open_instead({folder}, std::nullopt);
}

void MainWindow::choose_and_open(std::optional<Outcome> outcome) {
    const QString filter = outcome ? pictures_filter() : pictures_filter(true);
    const QString title = outcome ? tr("Frames for %1").arg(word(*outcome)) : tr("Open");
    const QStringList names = ask_for_files(this, Places::frames, title, filter);
    if (!names.isEmpty()) open_instead(names, outcome);
}

void MainWindow::choose_like() {
    const QStringList piles =
        ask_for_files(this, Places::piles, tr("The pile whose settings are taken"), tr("Piles (*.pile)"));
    if (piles.isEmpty()) return;
    const QString& pattern = piles.first();
    const QStringList names = ask_for_files(
        this, Places::frames, tr("Frames like %1").arg(QFileInfo(pattern).completeBaseName()), pictures_filter());
    const QStringList wanted = with_frames_of_clips(names);
    if (!wanted.isEmpty()) leave([this, wanted, pattern] { studio_->open_like(wanted, pattern); });
}

void MainWindow::open_instead(const QStringList& names, std::optional<Outcome> outcome, std::function<void()> then) {
    const QStringList wanted = with_frames_of_clips(names);
    if (!wanted.isEmpty())
        leave([this, wanted, outcome, then = std::move(then)] { studio_->open(wanted, outcome, then); });
}

QStringList MainWindow::frames_of_clip(const QString& clip) {
    const Result<ClipFacts> facts = probe_clip(clip.toStdString());
    if (!facts.ok()) {
        studio_->say(said(facts.failure()), true);
        return {};
    }
    ClipDialog dialog(clip, facts.value(), this);
    return dialog.exec() == QDialog::Accepted ? dialog.names() : QStringList();
}

void MainWindow::save(std::function<void(bool)> done) {
    if (!studio_->document().open()) return;
    settle_typing();
    if (studio_->document().path().isEmpty())
        save_as(std::move(done));
    else
        studio_->save(studio_->document().path(), std::move(done));
}

void MainWindow::save_as(std::function<void(bool)> done) {
    if (!studio_->document().open()) return;
    settle_typing();
    const QString base = QFileInfo(studio_->document().name()).completeBaseName();
    const QString near = studio_->document().path().isEmpty() ? near_frames() : studio_->document().path();
    const QString ending = QStringLiteral(".pile");
    const QString path =
        ask_where_to_write(this, Places::piles, tr("Save the pile"), tr("Piles (*.pile)"), ending, base + ending, near);
    if (!path.isEmpty())
        studio_->save(path, std::move(done));
    else if (done)
        done(false);
}

void MainWindow::save_finish() {
    if (!studio_->document().open()) return;
    settle_typing();
    const QString ending = QLatin1String(finish_ending);
    const QString base = QFileInfo(studio_->document().name()).completeBaseName();
    const QString path = ask_where_to_write(this, Places::finishes, tr("Save the finish"),
                                            tr("Finish (*%1)").arg(ending), ending, base + ending);
    if (!path.isEmpty()) studio_->save_finish(path);
}

void MainWindow::take_finish() {
    if (!studio_->document().open()) return;
    const QStringList names = ask_for_files(this, Places::finishes, tr("Take a finish"),
                                            tr("Finish or pile (*%1 *.pile)").arg(QLatin1String(finish_ending)));
    if (!names.isEmpty()) studio_->take_finish(names.first());
}

void MainWindow::export_picture() {
    if (!studio_->document().open() || !studio_->placed()) return;
    settle_typing();
    const Pile& pile = studio_->pile();
    const std::vector<std::string> names =
        export_names(pile, QFileInfo(studio_->document().name()).completeBaseName().toStdString());
    if (!pile.also.empty()) {
        export_versions(names);
        return;
    }
    const QString ending = QString::fromStdString(pile.exporting.ending);
    const QString path =
        ask_where_to_write(this, Places::pictures, tr("Export the picture"), tr("Picture (*%1)").arg(ending), ending,
                           QString::fromStdString(names.front()));
    if (!path.isEmpty()) studio_->export_to(path, studio_->pile().exporting);
}

// All in one folder, under the names that they have.
void MainWindow::export_versions(const std::vector<std::string>& names) {
    QString folder;
    while (true) {
        folder =
            ask_for_folder(this, Places::pictures, tr("Export %n picture(s) to a folder", nullptr, int(names.size())));
        if (folder.isEmpty()) return;
        QStringList there;
        for (const std::string& name : names)
            if (QFileInfo::exists(QDir(folder).filePath(QString::fromStdString(name))))
                there << QString::fromStdString(name);
        if (there.isEmpty()) break;
        const auto answer = ask(this, tr("%1: there already.").arg(there.join(QStringLiteral(", "))),
                                tr("In %1. What is in them now would be lost.").arg(folder),
                                {{tr("Choose another folder"), tr("Goes back to the dialog")},
                                 {tr("Replace them"), tr("Writes over the files")}});
        if (!answer) return;
        if (*answer == 1) break;
    }
    const Pile pile = studio_->pile();
    for (std::size_t i = 0; i < names.size(); ++i)
        studio_->export_to(QDir(folder).filePath(QString::fromStdString(names[i])),
                           i == 0 ? pile.exporting : pile.also[i - 1]);
}

void MainWindow::export_growth() {
    if (!studio_->document().open() || !studio_->placed()) return;
    settle_typing();
    GrowthDialog dialog(studio_->pile(), this);
    if (dialog.exec() != QDialog::Accepted) return;
    const GrowthSettings settings = dialog.settings();
    if (settings != studio_->pile().growth) {
        Pile next = studio_->pile();
        next.growth = settings;
        studio_->document().edit(std::move(next), tr("Growth"));
    }
    const QString ending = QString::fromStdString(settings.ending);
    const QString name = QFileInfo(studio_->document().name()).completeBaseName() + tr(" growing") + ending;
    const QString path = ending.isEmpty()
                             ? ask_for_new_folder(this, Places::pictures, tr("Write the growth to a new folder"), name)
                             : ask_where_to_write(this, Places::pictures, tr("Write the growth"),
                                                  tr("Clip (*%1)").arg(ending), ending, name);
    if (!path.isEmpty()) studio_->grow_to(path);
}

// A pile replaces what is open; frames and clips join it; a finish is taken over. What is dropped together and can mean
// several things is asked for.
void MainWindow::take_drop(const QStringList& names) {
    QStringList piles, finishes, frames;
    for (const QString& name : names) {
        if (name.endsWith(QStringLiteral(".pile"), Qt::CaseInsensitive))
            piles << name;
        else if (name.endsWith(QLatin1String(finish_ending), Qt::CaseInsensitive))
            finishes << name;
        else
            frames << name;
    }
    if (!piles.isEmpty()) {
        take_piles(piles, frames);
        return;
    }
    if (!frames.isEmpty()) {
        const QStringList all = with_frames_of_clips(frames);
        if (all.isEmpty()) return;
        if (studio_->document().open())
            studio_->add(all);
        else
            open_instead(all, std::nullopt);
    }
    if (finishes.isEmpty()) return;
    if (finishes.size() > 1)
        studio_->say(tr("One finish is taken at a time: drop one of the %1.").arg(finishes.size()), true);
    else if (frames.isEmpty() && studio_->document().open())
        studio_->take_finish(finishes.first());
    else
        studio_->say(
            tr("%1 is a finish: open a pile first, then drop it again.").arg(QFileInfo(finishes.first()).fileName()));
}

void MainWindow::take_piles(const QStringList& piles, const QStringList& frames) {
    if (piles.size() > 1) {
        constexpr qsizetype most = 4;
        std::vector<Answer> which;
        for (const QString& pile : piles.first(std::min(most, piles.size())))
            which.push_back({QFileInfo(pile).completeBaseName(), pile});
        const auto answer = ask(this, tr("Which of the piles is to be opened?"), {}, which);
        if (answer) open_instead({piles[*answer]}, std::nullopt);
        return;
    }
    if (frames.isEmpty()) {
        open_instead({piles.first()}, std::nullopt);
        return;
    }
    const QString name = QFileInfo(piles.first()).fileName();
    const auto answer = ask(this, tr("%1, and frames: what is to be done?").arg(name), {},
                            {{tr("Open the pile and add them"), tr("The frames join the pile")},
                             {tr("Open the pile alone"), tr("The frames are left out")}});
    if (!answer) return;
    std::function<void()> then;
    if (*answer == 0) then = [this, frames] { studio_->add(with_frames_of_clips(frames)); };
    open_instead({piles.first()}, std::nullopt, std::move(then));
}

// Clips by the frames that are wanted of them.
QStringList MainWindow::with_frames_of_clips(const QStringList& names) {
    QStringList out;
    for (const QString& name : names)
        if (is_clip(name))
            out << frames_of_clip(name);
        else
            out << name;
    return out;
}

}  // namespace bp::app
