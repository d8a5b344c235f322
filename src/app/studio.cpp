#include "app/studio.h"

#include <QDir>
#include <QFileInfo>
#include <QSettings>
#include <algorithm>
#include <numeric>

#include "app/demo.h"
#include "app/pictures.h"
#include "app/words.h"
#include "base/parallel.h"
#include "engine/aligning.h"
#include "engine/relink.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "pile/outcomes.h"
#include "practice/practice.h"

namespace bp::app {
namespace {

constexpr auto memory_key = "room/memory_bytes";
constexpr auto scratch_key = "room/scratch_bytes";
constexpr int thumbnail_side = 256;
constexpr int preview_side = 256;

std::vector<std::string> plain(const QStringList& names) {
    std::vector<std::string> out;
    for (const QString& name : names) out.push_back(name.toStdString());
    return out;
}

QString name_for(const QStringList& names) {
    const QFileInfo first(names.value(0));
    return first.isDir() ? first.fileName() : first.absoluteDir().dirName();
}

Result<Pile> open_names(const QStringList& names, Outcome outcome, Job& job) {
    Result<std::vector<NamedFile>> files = gather_run(plain(names));
    if (!files.ok()) return files.failure();
    Result<Pile> opened = open_frames(files.value(), outcome, Order::captured, job);
    const Model model = entry_of(outcome).model;
    if (!opened.ok() || model == Model::none) return opened;
    auto alignments = align_frames(opened.value(), model, opened.value().reference, job);
    if (!alignments.ok()) return alignments.failure();
    return with_alignments(opened.value(), model, opened.value().reference, alignments.value());
}

}  // namespace

Studio::Studio(QObject* parent)
    : QObject(parent), scratch_(Scratch::in_cache()), work_(this), thumbnail_lane_(this), preview_lane_(this) {
    const QSettings settings;
    const RoomLimits limits = room_limits();
    room_.memory_bytes =
        std::clamp<std::size_t>(settings.value(memory_key, qulonglong(MemoryBudget::machine_bytes() / 4)).toULongLong(),
                                limits.least_memory, limits.most_memory);
    room_.scratch_bytes =
        std::clamp<std::uint64_t>(settings.value(scratch_key, qulonglong(Scratch::free_bytes() / 2)).toULongLong(),
                                  limits.least_scratch, limits.most_scratch);
    scratch_->set_limit(room_.scratch_bytes);
    fresh_stores();
    connect(&document_, &Document::opened, this, [this] {
        fresh_stores();
        zone_ = Zone::sky;
        spot_guesses_.clear();
        const bool any = !pile().frames.empty();
        current_ = any ? pile().reference : 0;
        extended_from_ = current_;
        selected_ = any ? std::vector<int>{current_} : std::vector<int>{};
        load_thumbnails();
        emit selection_changed();
    });
}

void Studio::fresh_stores() {
    store_ = std::make_shared<FrameStore>(working_space(pile()), budget(), scratch_);
    bases_ = std::make_shared<BaseTiles>(room_.memory_bytes / 8);
    thumbnails_.clear();
    pictured_.clear();
    thumbnails_done_ = false;
    previews_.clear();
    preview_lane_.stop();
}

RoomLimits Studio::room_limits() {
    constexpr std::size_t least_memory = std::size_t(512) << 20;
    constexpr std::uint64_t least_scratch = std::uint64_t(100) << 20;
    return {least_memory, std::max(least_memory, MemoryBudget::machine_bytes() / 4 * 3), least_scratch,
            std::max(least_scratch, Scratch::free_bytes() / 10 * 9)};
}

// Frames that are kept and an export, or what is on screen, may come together.
MemoryBudget Studio::budget() const {
    return {room_.memory_bytes / 2, room_.memory_bytes / 4};
}

void Studio::set_room(const Room& room) {
    room_ = room;
    QSettings settings;
    settings.setValue(memory_key, qulonglong(room.memory_bytes));
    settings.setValue(scratch_key, qulonglong(room.scratch_bytes));
    scratch_->set_limit(room.scratch_bytes);
    store_->set_budget(budget());
    bases_->set_budget(room.memory_bytes / 8);
}

void Studio::say(const QString& text, bool trouble) {
    emit said(text, trouble);
}

bool Studio::tell(const Failure& failure) {
    if (failure.fault != Fault::stopped) say(QString::fromStdString(failure.sentence), true);
    return false;
}

void Studio::open(const QStringList& names, Outcome outcome) {
    if (names.isEmpty()) return;
    const QString& first = names.first();
    if (names.size() == 1 && first.endsWith(QStringLiteral(".pile"), Qt::CaseInsensitive)) {
        work_.run<Result<LoadedPile>>([first](Job&) { return load_pile(first.toStdString()); },
                                      [this, first](Result<LoadedPile> loaded) {
                                          if (!loaded.ok()) {
                                              tell(loaded.failure());
                                              return;
                                          }
                                          document_.start(loaded.value().pile, first, {});
                                          const auto lost =
                                              loaded.value().missing.size() + loaded.value().changed.size();
                                          if (lost > 0)
                                              say(tr("%n frame(s) missing or changed. Point to where they are in the "
                                                     "Frames step.",
                                                     nullptr, int(lost)),
                                                  true);
                                      });
        return;
    }
    work_.run<Result<Pile>>([names, outcome](Job& job) { return open_names(names, outcome, job); },
                            [this, names](Result<Pile> opened) {
                                if (!opened.ok()) {
                                    tell(opened.failure());
                                    return;
                                }
                                document_.start(std::move(opened).value(), {}, name_for(names));
                                say_what_was_sorted_out(pile().frames);
                            });
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
    if (!document_.open()) {
        open(names, Outcome::trails);
        return;
    }
    if (names.size() == 1 && names.first().endsWith(QStringLiteral(".pile"), Qt::CaseInsensitive)) {
        open(names, pile().outcome);
        return;
    }
    const Pile before = pile();
    work_.run<Result<Pile>>(
        [names, before, inner](Job& job) -> Result<Pile> {
            Result<std::vector<NamedFile>> files = gather_run(plain(names), inner ? Inner::yes : Inner::no);
            if (!files.ok()) return files.failure();
            return add_frames(before, files.value(), job);
        },
        [this, before](Result<Pile> added) {
            if (!added.ok()) {
                tell(added.failure());
                return;
            }
            const int more = int(added.value().frames.size() - before.frames.size());
            if (more == 0) {
                say(tr("All of these frames are in the pile already."));
                return;
            }
            // Edits made meanwhile stay: the new frames join the pile as it is now.
            std::vector<Frame> fresh;
            for (const Frame& frame : added.value().frames)
                if (!find_frame(before, frame.id)) fresh.push_back(frame);
            const std::vector<Frame> joined = fresh;
            document_.edit(with_frames(pile(), std::move(fresh)), tr("Add %n frame(s)", nullptr, more));
            say_what_was_sorted_out(joined);
            load_thumbnails();
            if (pile().model != Model::none) align(pile().model, pile().reference);
        });
}

void Studio::open_demo(const QString& scene) {
    const practice::SceneEntry* entry = practice::scene_named(scene.toStdString());
    if (!entry) return;
    const QString folder = QDir(demo_root()).filePath(scene);
    const bool ready = demo_ready(scene);
    const Outcome outcome = entry->outcome;
    work_.run<Result<Pile>>(
        [=](Job& job) -> Result<Pile> {
            if (!ready) {
                const auto made = practice::practise(*entry, folder.toStdString(), {}, job);
                if (!made.ok()) return made.failure();
            }
            return open_names({folder}, outcome, job);
        },
        [this, scene](Result<Pile> opened) {
            if (!opened.ok()) {
                tell(opened.failure());
                return;
            }
            document_.start(std::move(opened).value(), {}, scene);
        });
}

void Studio::open_left_over(const QString& path) {
    work_.run<Result<LoadedPile>>([path](Job&) { return load_pile(path.toStdString()); },
                                  [this](Result<LoadedPile> loaded) {
                                      if (loaded.ok())
                                          document_.start_unsaved(loaded.value().pile, tr("unsaved work"));
                                      else
                                          tell(loaded.failure());
                                  });
}

void Studio::save(const QString& path) {
    const Pile saved = pile();
    work_.run<Status>(
        [saved, path](Job& job) -> Status {
            job.begin("Saving", 1);
            return save_pile(saved, path.toStdString());
        },
        [this, path, saved](const Status& done) {
            if (!done.ok()) {
                tell(done.failure());
                return;
            }
            if (pile() == saved) document_.mark_saved(path);
            say(tr("Saved %1").arg(QFileInfo(path).fileName()));
        });
}

void Studio::export_to(const QString& path) {
    const Pile now = pile();
    work_.run<Result<Exported>>(
        [now, path, memory = room_.memory_bytes / 2, scratch = scratch_](Job& job) {
            const ExportOptions options{{now.exporting.bits, now.exporting.quality}, memory, scratch};
            return export_picture(now, path.toStdString(), options, job);
        },
        [this, path](Result<Exported> done) {
            if (!done.ok()) {
                tell(done.failure());
                return;
            }
            for (const Frame& frame : done.value().pile.frames)
                if (const Frame* mine = find_frame(pile(), frame.id); mine && usable(*mine) && !usable(frame))
                    document_.correct(with_problem(pile(), frame.id, frame.problem));
            say(tr("Wrote %1").arg(QFileInfo(path).fileName()));
            emit exported(path, done.value());
        });
}

void Studio::choose_outcome(Outcome outcome) {
    if (!document_.open()) return;
    document_.edit(with_outcome(pile(), outcome), tr("Outcome: %1").arg(word(outcome)));
    const Model model = entry_of(outcome).model;
    if (model != pile().model) align(model, pile().reference);
}

void Studio::look_in(const QString& folder) {
    const Pile now = pile();
    work_.run<Result<Relinked>>(
        [now, folder](Job& job) { return relink(now, folder.toStdString(), job); },
        [this](Result<Relinked> done) {
            if (!done.ok()) {
                tell(done.failure());
                return;
            }
            document_.edit(done.value().pile, tr("Find missing frames"));
            load_thumbnails();
            if (done.value().still_missing > 0)
                say(tr("%1 found, %2 still missing.").arg(done.value().found).arg(done.value().still_missing), true);
            else
                say(tr("All frames found."));
        });
}

void Studio::select(int id, bool extend, bool toggle) {
    const Frame* frame = find_frame(pile(), id);
    if (!frame) return;
    if (extend && find_frame(pile(), extended_from_)) {
        int a = number_of(pile(), extended_from_);
        int b = number_of(pile(), id);
        if (a > b) std::swap(a, b);
        selected_.clear();
        for (int n = a; n <= b; ++n) selected_.push_back(pile().frames[std::size_t(n) - 1].id);
        current_ = id;
    } else if (toggle) {
        const auto found = std::find(selected_.begin(), selected_.end(), id);
        if (found == selected_.end())
            selected_.push_back(id);
        else if (selected_.size() > 1)
            selected_.erase(found);
        current_ = id;
        extended_from_ = id;
    } else {
        current_ = id;
        extended_from_ = id;
        selected_ = {id};
    }
    emit selection_changed();
}

void Studio::step_current(int by, bool extend) {
    if (pile().frames.empty()) return;
    const int number = std::clamp(number_of(pile(), current_) + by, 1, int(pile().frames.size()));
    select(pile().frames[std::size_t(number) - 1].id, extend);
}

void Studio::select_these(std::vector<int> ids) {
    std::erase_if(ids, [this](int id) { return !find_frame(pile(), id); });
    if (ids.empty()) return;
    current_ = ids.front();
    extended_from_ = current_;
    selected_ = std::move(ids);
    emit selection_changed();
}

void Studio::toggle_aside() {
    if (selected_.empty()) return;
    const Frame* first = find_frame(pile(), current_);
    const bool aside = !(first && first->aside);
    document_.edit(with_aside(pile(), selected_, aside),
                   aside ? tr("Set aside %n frame(s)", nullptr, int(selected_.size()))
                         : tr("Take back %n frame(s)", nullptr, int(selected_.size())));
}

void Studio::remove_selected() {
    const Pile fewer = without_frames(pile(), selected_);
    if (fewer == pile()) return;
    // The one after the last that goes, or the last that stays.
    const int next = std::min(number_of(pile(), current_), int(fewer.frames.size()));
    const auto count = int(pile().frames.size() - fewer.frames.size());
    document_.edit(fewer, tr("Remove %n frame(s)", nullptr, count));
    select(fewer.frames[std::size_t(next) - 1].id);
}

QImage Studio::thumbnail(int id) const {
    const auto found = thumbnails_.find(id);
    return found == thumbnails_.end() ? QImage() : found->second;
}

int Studio::thumbnail_level() const {
    return level_within(pile().size, thumbnail_side);
}

void Studio::load_thumbnails() {
    thumbnails_done_ = false;
    const Pile now = pile();
    if (now.frames.empty()) {
        thumbnail_lane_.stop();
        return;
    }
    const int level = thumbnail_level();
    const std::shared_ptr<FrameStore> store = store_;
    // Nearest to what is looked at first.
    std::vector<int> order;
    for (std::size_t i = 0; i < now.frames.size(); ++i) {
        const auto known = pictured_.find(now.frames[i].id);
        if (known == pictured_.end() || known->second != now.frames[i].file) order.push_back(int(i));
    }
    const int middle = std::max(0, number_of(now, current_) - 1);
    std::stable_sort(order.begin(), order.end(),
                     [middle](int a, int b) { return std::abs(a - middle) < std::abs(b - middle); });
    thumbnail_lane_.run<std::vector<Failure>>(
        [this, now, level, store, order](Job& job) {
            std::vector<Failure> failures;
            std::mutex mutex;
            parallel_for(0, int(order.size()), [&](int n) {
                const Frame& frame = now.frames[std::size_t(order[std::size_t(n)])];
                if (job.stopped() || !usable(frame)) return;
                Result<SharedPixels> pixels = store->load(*frame.file, level, job);
                if (!pixels.ok()) {
                    const std::lock_guard lock(mutex);
                    failures.push_back(pixels.failure());
                    return;
                }
                const QImage image = to_image(pixels.value()->widened(), now.profile);
                // The lane outlives its job and is a child of this studio: the call is dropped when both are gone.
                QMetaObject::invokeMethod(
                    this,
                    [this, store, id = frame.id, file = frame.file, image] {
                        if (store != store_) return;
                        thumbnails_[id] = image;
                        pictured_[id] = file;
                        emit thumbnail_arrived(id);
                    },
                    Qt::QueuedConnection);
            });
            return failures;
        },
        [this](const std::vector<Failure>& failures) {
            for (const Failure& failure : failures) report_broken(failure);
            thumbnails_done_ = true;
            emit thumbnails_finished();
        });
}

const std::map<int, Alignment>* Studio::model_preview(Model model) const {
    const auto found = previews_.find(model);
    return found == previews_.end() ? nullptr : &found->second;
}

void Studio::preview_models() {
    if (!document_.open() || !previews_.empty() || preview_lane_.busy()) return;
    const Pile whole_pile = pile();
    const std::shared_ptr<FrameStore> store = store_;
    using Found = std::map<Model, std::map<int, Alignment>>;
    preview_lane_.run<Found>(
        [whole_pile, of = zone()](Job& job) {
            Found out;
            const Pile now = only_zone(whole_pile, of);
            // Stars are looked for in larger pictures, which takes its time: only where there may be some.
            const bool night = now.outcome == Outcome::trails || now.outcome == Outcome::shower;
            for (const ModelEntry& entry : models()) {
                if (entry.model == Model::stars && !night) continue;
                auto found = align_frames(now, entry.model, now.reference, job, preview_side);
                if (found.ok()) out[entry.model] = std::move(found).value();
            }
            return out;
        },
        [this, store](Found found) {
            if (store != store_) return;
            previews_ = std::move(found);
            emit models_previewed();
        });
}

void Studio::set_zone(Zone zone) {
    if (zone_ == zone) return;
    zone_ = zone;
    previews_.clear();
    preview_lane_.stop();
    emit zone_changed();
}

void Studio::report_broken(const Failure& failure) {
    if (failure.fault != Fault::input) {
        tell(failure);
        return;
    }
    for (const Frame& frame : pile().frames)
        if (usable(frame) && frame.file->path.string() == failure.file) {
            say(tr("Set aside: %1").arg(QString::fromStdString(failure.sentence)), true);
            document_.correct(with_problem(pile(), frame.id, failure.sentence));
            return;
        }
}

}  // namespace bp::app
