#include "app/work/studio.h"

#include <QDir>
#include <QFileInfo>
#include <algorithm>

#include "app/looks/words.h"
#include "app/work/demo.h"
#include "app/work/last_export.h"
#include "engine/horizon.h"
#include "engine/made_like.h"
#include "engine/mending.h"
#include "engine/relink.h"
#include "engine/render.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "pile/finish_edits.h"
#include "pile/finish_file.h"
#include "pile/outcomes.h"
#include "practice/practice.h"

namespace bp::app {
namespace {

std::vector<std::string> plain(const QStringList& names) {
    std::vector<std::string> out;
    for (const QString& name : names) out.push_back(name.toStdString());
    return out;
}

QString name_for(const QStringList& names) {
    const QFileInfo first(names.value(0));
    return first.isDir() ? first.fileName() : first.absoluteDir().dirName();
}

Result<Pile> open_names(const QStringList& names, std::optional<Outcome> asked, Job& job) {
    Result<std::vector<NamedFile>> files = gather_run(plain(names));
    if (!files.ok()) return files.failure();
    Result<Pile> opened = open_frames(files.value(), asked.value_or(Outcome::trails), Order::captured, job);
    if (!opened.ok()) return opened;
    if (const auto guess = asked ? std::nullopt : guessed_outcome(opened.value()))
        opened = with_outcome(std::move(opened).value(), guess->outcome);
    return opened;
}

}  // namespace

Studio::Studio(QObject* parent)
    : QObject(parent),
      opening_(this),
      placing_(this),
      saving_(this, Lane::Turns::queue),
      exporting_(this, Lane::Turns::queue),
      finding_(this),
      measuring_(this, Lane::Turns::queue),
      thumbnails_(*this),
      previews_(*this) {
    for (Lane* lane :
         {&opening_, &placing_, &saving_, &exporting_, &finding_, &measuring_, &thumbnails_.lane(), &previews_.lane()})
        watch(*lane);
    connect(&document_, &Document::opened, this, [this] {
        stores_.begin_anew(working_space(pile()));
        thumbnails_.clear();
        previews_.clear();
        zone_ = Zone::sky;
        spot_guesses_.clear();
        take_guess();
        // What is being found is for the pile that was open before.
        placing_.stop();
        finding_.stop();
        measuring_.stop_all();
        thumbnails_.load();
    });
    connect(&document_, &Document::selection_changed, this, &Studio::selection_changed);
    connect(&document_, &Document::moved_under_drawing, this, &Studio::say_moved);
    connect(&document_, &Document::selection_changed, &previews_, &ModelPreviews::make_way);
    connect(&document_, &Document::changed, &previews_, &ModelPreviews::make_way);
}

void Studio::watch(Lane& lane) {
    connect(&lane, &Lane::failed, this, &Studio::tell);
    connect(&lane, &Lane::replaced, this, [this](const QString& name) { say(tr("Stopped: %1.").arg(name)); });
}

void Studio::say(const QString& text, bool trouble) {
    emit said(text, trouble);
}

void Studio::tell(const Failure& failure) {
    if (failure.fault != Fault::stopped) say(app::said(failure), true);
}

template <class T>
void Studio::open_on_lane(const QString& name, std::function<Result<T>(Job&)> work, std::function<void(T)> take) {
    const auto state = [this] { return std::pair(document_.identity(), document_.serial()); };
    opening_.run<Result<T>>(
        std::move(work),
        [this, take = std::move(take), state, asked = state(), turn = ++opened_](Result<T> opened) {
            if (!opened.ok()) {
                tell(opened.failure());
                return;
            }
            const auto shared = std::make_shared<T>(std::move(opened).value());
            const auto take_up = [this, take, shared, turn] {
                // Something else was to be opened while it waited.
                if (turn == opened_) take(std::move(*shared));
            };
            if (gate_)
                gate_([this, state, asked] { return document_.open() && state() != asked; }, take_up);
            else
                take_up();
        },
        name);
}

namespace {

bool is_pile(const QString& name) {
    return name.endsWith(QStringLiteral(".pile"), Qt::CaseInsensitive);
}

}  // namespace

void Studio::open(const QStringList& names, std::optional<Outcome> outcome, std::function<void()> then) {
    if (names.isEmpty()) return;
    const auto pile_file = std::find_if(names.begin(), names.end(), is_pile);
    if (pile_file != names.end()) {
        const QString& file = *pile_file;
        if (names.size() > 1)
            say(tr("%1 is opened; a pile and frames are not opened together.").arg(QFileInfo(file).fileName()));
        open_on_lane<LoadedPile>(
            tr("opening %1").arg(QFileInfo(file).fileName()), [file](Job&) { return load_pile(file.toStdString()); },
            [this, file, then = std::move(then)](const LoadedPile& loaded) {
                document_.start(loaded.pile, file, {});
                say_what_was_lost(loaded);
                if (then) then();
            });
        return;
    }
    open_on_lane<Pile>(
        tr("opening %1").arg(name_for(names)), [names, outcome](Job& job) { return open_names(names, outcome, job); },
        [this, names, guessed = !outcome](Pile opened) {
            opened.frames = noted_in_words(std::move(opened.frames));
            document_.start(with_last_export(std::move(opened)), {}, name_for(names));
            if (guessed) outcome_guess_ = guessed_outcome(pile());
            emit outcome_guessed();
            say_what_was_sorted_out(pile().frames);
            place_what_was_opened();
        });
}

void Studio::open_like(const QStringList& names, const QString& pattern) {
    struct Made {
        Pile pile;
        std::vector<Saying> left;
    };
    const auto make = [names, pattern, memory = stores_.budget().work_bytes](Job& job) -> Result<Made> {
        Result<LoadedPile> loaded = load_pile(pattern.toStdString());
        if (!loaded.ok()) return loaded.failure();
        const Pile& of = loaded.value().pile;
        Result<std::vector<NamedFile>> files = gather_run(plain(names));
        if (!files.ok()) return files.failure();
        Result<Pile> opened = open_frames(files.value(), of.outcome, Order::captured, job);
        if (!opened.ok()) return opened.failure();
        Like settings = like(std::move(opened).value(), of);
        Result<Pile> made = made_like(settings, memory, job);
        if (!made.ok()) return made.failure();
        return Made{std::move(made).value(), std::move(settings.left)};
    };
    open_on_lane<Made>(tr("opening %1 like %2").arg(name_for(names), QFileInfo(pattern).completeBaseName()), make,
                       [this, names](Made made) {
                           made.pile.frames = noted_in_words(std::move(made.pile.frames));
                           document_.start(std::move(made.pile), {}, name_for(names));
                           for (const Saying& left : made.left) say(app::said(left));
                           say_what_was_sorted_out(pile().frames);
                       });
}

void Studio::say_what_was_lost(const LoadedPile& loaded) {
    const auto missing = int(loaded.missing.size());
    const auto changed = int(loaded.changed.size());
    QStringList words;
    if (missing > 0) words << tr("%n frame(s) missing.", nullptr, missing);
    if (changed > 0) words << tr("%n frame(s) changed since the pile was saved.", nullptr, changed);
    if (!words.isEmpty()) {
        words << tr("See the Frames step.");
        say(words.join(QLatin1Char(' ')), true);
    }
    for (const Saying& remark : loaded.remarks) say(app::said(remark), true);
}

void Studio::say_what_was_sorted_out(const std::vector<Frame>& frames) {
    int unlike = 0, copies = 0, useless = 0;
    for (const Frame& frame : frames) {
        if (!usable(frame))
            ++useless;
        else if (frame.aside)
            ++copies;
        else if (frame.file->facts.profile != pile().profile)
            ++unlike;
    }
    QStringList words;
    if (useless > 0) words << tr("%1 of the frames cannot be used: see the Frames step").arg(useless);
    if (copies > 0) words << tr("%1 are copies of others and set aside").arg(copies);
    if (unlike > 0)
        words << tr("%1 have another colour profile and are converted to %2")
                     .arg(unlike)
                     .arg(QString::fromStdString(pile().profile.name()));
    if (!words.isEmpty()) say(words.join(QStringLiteral("; ")) + QLatin1Char('.'), useless > 0);
}

void Studio::add(const QStringList& names, bool inner) {
    if (names.isEmpty()) return;
    if (!document_.open()) {
        open(names, std::nullopt);
        return;
    }
    const Pile before = pile();
    find_on<std::vector<Frame>>(
        opening_, tr("adding frames"),
        [names, before, inner](Job& job) -> Result<std::vector<Frame>> {
            Result<std::vector<NamedFile>> files = gather_run(plain(names), inner ? Inner::yes : Inner::no);
            if (!files.ok()) return files.failure();
            return fresh_frames(before, files.value(), job);
        },
        [this, before](std::vector<Frame> fresh) {
            // Others may have joined meanwhile.
            std::erase_if(fresh, [this](const Frame& frame) {
                return std::any_of(pile().frames.begin(), pile().frames.end(),
                                   [&](const Frame& known) { return known.file->path == frame.file->path; });
            });
            fresh = noted_in_words(std::move(fresh), pile().frames);
            if (fresh.empty()) {
                say(tr("All of these frames are in the pile already."));
                return;
            }
            document_.edit(with_numbered_frames(pile(), document_.numbered(fresh)),
                           tr("Add %n frame(s)", nullptr, int(fresh.size())));
            say_what_was_sorted_out(fresh);
            thumbnails_.load();
            align_what_came(before);
        });
}

void Studio::open_demo(const QString& scene) {
    const practice::SceneEntry* entry = practice::scene_named(scene.toStdString());
    if (!entry) return;
    const QString folder = QDir(demo_root()).filePath(scene);
    const bool ready = demo_ready(scene);
    const Outcome outcome = entry->outcome;
    open_on_lane<Pile>(
        tr("opening %1").arg(scene),
        [=](Job& job) -> Result<Pile> {
            if (!ready) {
                const auto made = practice::practise(*entry, folder.toStdString(), {}, job);
                if (!made.ok()) return made.failure();
            }
            return open_names({folder}, outcome, job);
        },
        [this, scene](Pile opened) {
            document_.start(std::move(opened), {}, scene);
            place_what_was_opened();
        });
}

void Studio::open_left_over(const QString& file, const QString& path, const QString& name, std::function<void()> then) {
    open_on_lane<LoadedPile>(
        tr("taking up %1").arg(name), [file](Job&) { return load_pile(file.toStdString()); },
        [this, path, name, then = std::move(then)](const LoadedPile& loaded) {
            document_.start_unsaved(loaded.pile, path, name);
            say_what_was_lost(loaded);
            then();
        });
}

void Studio::save(const QString& path, std::function<void(bool)> done) {
    const QString name = QFileInfo(path).fileName();
    saving_.run<Status>(
        [saved = pile(), path](Job& job) -> Status {
            job.begin("Saving", 1);
            return save_pile(saved, path.toStdString());
        },
        [this, path, name, done = std::move(done), of = document_.identity(),
         serial = document_.serial()](const Status& status) {
            if (status.ok()) {
                // Edits made meanwhile are still to be saved; the place is known from now on.
                if (of == document_.identity()) document_.mark_saved(path, serial);
                emit saved(path);
                say(tr("Saved %1").arg(name));
            } else {
                tell(status.failure());
            }
            if (done) done(status.ok());
        },
        tr("saving %1").arg(name));
}

void Studio::mend_picture(Point at, double width_px, std::function<void(const Mended&)> then) {
    if (!document_.open()) return;
    find_on<Mended>(
        finding_, tr("looking what a spot is mended from"),
        [now = pile(), store = stores_.frames(), at, width_px, coarsest = thumbnails_.level()](Job& job) {
            return mended_spot(now, at, width_px, std::max(0, coarsest), *store, job);
        },
        [then = std::move(then)](const Mended& mended) { then(mended); });
}

void Studio::save_finish(const QString& path) {
    const QString name = QFileInfo(path).fileName();
    saving_.run<Status>(
        [of = pile(), path](Job& job) -> Status {
            job.begin("Saving", 1);
            if (Status kept = keeps_originals(of, path.toStdString()); !kept.ok()) return kept;
            return bp::save_finish(of.finish, of.size, path.toStdString());
        },
        [this, name](const Status& status) {
            if (status.ok())
                say(tr("Saved %1").arg(name));
            else
                tell(status.failure());
        },
        tr("saving %1").arg(name));
}

void Studio::take_finish(const QString& path) {
    const QString name = QFileInfo(path).fileName();
    find_on<LoadedFinish>(
        finding_, tr("reading %1").arg(name),
        [path, size = pile().size](Job&) { return load_finish(path.toStdString(), size); },
        [this, name](const LoadedFinish& loaded) {
            for (const Saying& remark : loaded.remarks) say(app::said(remark), true);
            document_.edit(with_finish(pile(), loaded.finish), tr("Finish of %1").arg(name));
        });
}

void Studio::find_horizon() {
    if (!document_.open()) return;
    find_on<std::optional<double>>(
        finding_, tr("looking for the horizon"),
        [now = pile(), frames = stores_.frames()](Job& job) { return find_lean(now, *frames, job); },
        [this](const std::optional<double>& lean) {
            if (!lean)
                say(
                    tr("No horizon was found: no straight edge runs through enough of the picture. Draw a line along "
                       "what is to be level."));
            else
                document_.edit(with_turn(pile(), -*lean), tr("Turn to the horizon that was found"));
        });
}

void Studio::take_problems(const Pile& written) {
    for (const Frame& frame : written.frames)
        if (const Frame* mine = find_frame(pile(), frame.id); mine && usable(*mine) && !usable(frame))
            document_.correct(with_problem(pile(), frame.id, frame.problem));
}

template <class T>
void Studio::write_on_lane(const QString& path, std::function<Result<T>(Job&)> write,
                           std::function<void(const T&)> done) {
    const QString name = QFileInfo(path).fileName();
    exporting_.run<Result<T>>(
        [write = std::move(write)](Job& job) -> Result<T> {
            if (job.stopped()) return stopped_failure();
            return write(job);
        },
        [this, name, done = std::move(done), of = document_.identity()](Result<T> written) {
            if (!written.ok()) {
                tell(written.failure());
                return;
            }
            if (of == document_.identity()) take_problems(written.value().pile);
            say(tr("Wrote %1").arg(name));
            done(written.value());
        },
        tr("writing %1").arg(name));
    if (exporting_.waiting() > 0) say(tr("%1 is written after what is being written now.").arg(name));
}

void Studio::export_to(const QString& path, const ExportSettings& version) {
    Pile now = pile();
    now.exporting = version;
    remember_export(now);
    write_on_lane<Exported>(
        path,
        [now, path, memory = stores_.budget().keep_bytes, scratch = stores_.scratch(),
         known = stores_.frames()](Job& job) {
            const ExportOptions options{{now.exporting.bits, now.exporting.quality}, memory, scratch, known.get()};
            return export_picture(now, path.toStdString(), options, job);
        },
        [this, path](const Exported& done) { emit exported(path, done); });
}

void Studio::grow_to(const QString& path) {
    const Pile now = pile();
    remember_export(now);
    write_on_lane<GrownFile>(
        path,
        [now, path, memory = stores_.budget().keep_bytes, scratch = stores_.scratch(),
         known = stores_.frames()](Job& job) {
            const ExportOptions options{{now.exporting.bits, now.exporting.quality}, memory, scratch, known.get()};
            return export_growth(now, path.toStdString(), options, job);
        },
        [this, path](const GrownFile& done) { emit grown(path, done); });
}

void Studio::take_guess() {
    if (std::exchange(outcome_guess_, std::nullopt)) emit outcome_guessed();
}

void Studio::choose_outcome(Outcome outcome) {
    take_guess();
    if (!document_.open()) return;
    placing_.stop();
    document_.edit(with_outcome(pile(), outcome), tr("Outcome: %1").arg(word(outcome)));
    const Model model = entry_of(outcome).model;
    if (model != pile().methods.sky.model) align(model, pile().reference);
}

void Studio::take_files(std::function<Result<Relinked>(Job&)> find, const QString& what) {
    find_on<Relinked>(opening_, what, std::move(find), [this, what](const Relinked& found) {
        document_.edit(with_files(pile(), found.files), what);
        thumbnails_.load();
        if (found.still_missing > 0)
            say(tr("%1 found, %2 still missing.").arg(found.files.size()).arg(found.still_missing), true);
        else
            say(tr("All frames found."));
    });
}

void Studio::look_in(const QString& folder) {
    take_files([now = pile(), folder](Job& job) { return relink(now, folder.toStdString(), job); },
               tr("Find missing frames"));
}

void Studio::take_changed() {
    take_files([now = pile()](Job& job) { return bp::take_changed(now, job); }, tr("Take changed frames"));
}

void Studio::select(int id, bool extend, bool toggle) {
    if (!find_frame(pile(), id)) return;
    const Selection& now = document_.selection();
    document_.select(extend ? extended(now, pile(), id) : toggle ? toggled(now, id) : only(id));
}

void Studio::step_current(int by, bool extend) {
    if (pile().frames.empty()) return;
    const int number = std::clamp(number_of(pile(), current()) + by, 1, int(pile().frames.size()));
    select(pile().frames[std::size_t(number) - 1].id, extend);
}

void Studio::select_these(std::vector<int> ids) {
    std::erase_if(ids, [this](int id) { return !find_frame(pile(), id); });
    if (ids.empty()) return;
    const int first = ids.front();
    document_.select({first, first, std::move(ids)});
}

void Studio::toggle_aside() {
    if (selected().empty()) return;
    const Frame* first = find_frame(pile(), current());
    const bool aside = !(first && first->aside);
    const auto count = int(selected().size());
    document_.edit(with_aside(pile(), selected(), aside),
                   aside ? tr("Set aside %n frame(s)", nullptr, count) : tr("Take back %n frame(s)", nullptr, count));
}

void Studio::remove_selected() {
    const Pile fewer = without_frames(pile(), selected());
    const auto count = int(pile().frames.size() - fewer.frames.size());
    if (count == 0)
        say(tr("The last frame that can be used stays in the pile."));
    else
        document_.edit(fewer, tr("Remove %n frame(s)", nullptr, count));
}

void Studio::set_zone(Zone zone) {
    if (zone_ == zone) return;
    zone_ = zone;
    emit zone_changed();
}

void Studio::report_broken(const Failure& failure) {
    if (failure.fault != Fault::input) {
        tell(failure);
        return;
    }
    const Frame* broken = find_frame(pile(), failure.frame);
    for (const Frame& frame : pile().frames)
        if (!broken && frame.file->path.string() == failure.file) broken = &frame;
    if (!broken) {
        tell(failure);
        return;
    }
    if (!usable(*broken)) return;
    say(tr("Set aside: %1").arg(app::said(failure)), true);
    document_.correct(with_problem(pile(), broken->id, failure.sentence));
}

}  // namespace bp::app
