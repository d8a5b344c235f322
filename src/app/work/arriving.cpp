#include "app/work/arriving.h"

#include <QDateTime>
#include <QDir>
#include <algorithm>
#include <chrono>
#include <thread>

#include "app/looks/words.h"
#include "app/work/demo.h"
#include "io/arrivals.h"
#include "pile/edits.h"
#include "pile/outcomes.h"

namespace bp::app {
namespace {

constexpr std::chrono::milliseconds beat(200);

}  // namespace

struct Arriving::Batch {
    std::vector<Frame> frames;
    std::vector<Failure> broken;
    bool folder_gone = false;
    bool empty() const { return frames.empty() && broken.empty() && !folder_gone; }
};

Arriving::Arriving(Studio& studio) : QObject(&studio), studio_(studio), watching_(this), camera_(this) {
    connect(&watching_, &Lane::busy_changed, this, &Arriving::changed);
    connect(&camera_, &Lane::busy_changed, this, &Arriving::changed);
    connect(&studio.document(), &Document::opened, this, [this] {
        // Another pile than the one that the frames are for.
        if (!beginning_) halt();
    });
}

void Arriving::watch(const QString& folder, Outcome outcome) {
    halt();
    folder_ = folder;
    outcome_ = outcome;
    arrived_ = 0;
    expected_ = 0;
    began_ = false;
    std::set<fs::path> known;
    for (const Frame& frame : studio_.pile().frames) known.insert(frame.file->path);
    const long generation = ++generation_;
    watching_.run<bool>(
        [this, generation, folder = fs::path(folder.toStdString()), known](Job& job) {
            Arrivals arrivals(folder, known);
            while (!job.stopped()) {
                const Arrivals::Look look = arrivals.look();
                auto batch = std::make_shared<Batch>();
                batch->broken = look.broken;
                batch->folder_gone = look.folder_gone;
                std::vector<NamedFile> files;
                for (const fs::path& file : look.arrived) files.push_back({file});
                Result<std::vector<Frame>> read = read_frames(files, KnownBy::content, job);
                if (read.ok()) batch->frames = std::move(read).value();
                if (!batch->empty())
                    // The lane is a child of this object and outlives its job.
                    QMetaObject::invokeMethod(
                        this,
                        [this, generation, batch] {
                            if (generation == generation_) take(*batch);
                        },
                        Qt::QueuedConnection);
                if (batch->folder_gone) break;
                std::this_thread::sleep_for(beat);
            }
            return true;
        },
        [](bool) {});
}

void Arriving::take(const Batch& batch) {
    for (const Failure& failure : batch.broken) studio_.say(said(failure), true);
    if (batch.folder_gone) {
        studio_.say(tr("The folder %1 is gone. What has come so far stays.").arg(folder_), true);
        stop();
        return;
    }
    if (batch.frames.empty()) return;
    if (!studio_.document().open()) {
        Result<Pile> pile = pile_of(batch.frames, outcome_, Order::captured);
        if (!pile.ok()) {
            studio_.say(said(pile.failure()), true);
            return;
        }
        pile.value().frames = noted_in_words(std::move(pile.value().frames));
        beginning_ = true;
        studio_.begin(std::move(pile).value(), QDir(folder_).dirName());
        beginning_ = false;
        began_ = true;
    } else {
        studio_.document().take_in(noted_in_words(beside(studio_.pile(), batch.frames), studio_.pile().frames));
        studio_.thumbnails().load();
    }
    arrived_ += int(batch.frames.size());
    emit changed();
}

void Arriving::photograph(const CameraSettings& settings) {
    const practice::SceneEntry* entry = practice::scene_named(settings.scene.toStdString());
    if (!entry) return;
    const QString name =
        QStringLiteral("%1 %2").arg(settings.scene, QDateTime::currentDateTime().toString("yyyy-MM-dd HH.mm.ss"));
    const QString folder = QDir(demo_root()).filePath(QStringLiteral("camera/") + name);
    QDir().mkpath(folder);
    if (studio_.document().open()) studio_.document().close();
    watch(folder, entry->outcome);
    expected_ = settings.frames;
    practice::PracticeOptions options;
    options.frames = settings.frames;
    options.truth = false;
    options.timing = {settings.exposure_s, settings.pause_s};
    options.live_s = std::max(0.01, (settings.exposure_s + settings.pause_s) / settings.pace);
    camera_.run<Result<practice::Practised>>(
        [entry, folder, options](Job& job) { return practice::practise(*entry, folder.toStdString(), options, job); },
        [this, scene = settings.scene](const Result<practice::Practised>& done) {
            if (!done.ok() && done.failure().fault != Fault::stopped) studio_.say(said(done.failure()), true);
            if (done.ok()) studio_.say(tr("The practice camera has finished: %1").arg(scene));
            emit changed();
        });
    emit changed();
}

void Arriving::halt() {
    ++generation_;
    camera_.stop();
    watching_.stop();
    emit changed();
}

void Arriving::stop() {
    const bool joined = watching() && arrived_ > 0 && studio_.document().open();
    halt();
    if (!joined) return;
    // The pile that they joined is the open one: when another is opened, halt() has come before. One that began with
    // them is aligned as it would have been when opened.
    const Pile& pile = studio_.pile();
    Model model = pile.methods.sky.model;
    if (model == Model::none && began_) model = entry_of(pile.outcome).model;
    if (model != Model::none) studio_.align(model, pile.reference);
}

QString Arriving::words() const {
    const QString name = QDir(folder_).dirName();
    if (photographing()) return tr("Practice camera: %1 of %2 have come").arg(arrived_).arg(expected_);
    if (watching()) return tr("Watching %1: %2 have come").arg(name).arg(arrived_);
    return {};
}

}  // namespace bp::app
