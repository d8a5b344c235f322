#include "app/work/surveyor.h"

#include <QThread>
#include <algorithm>

#include "base/parallel.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

constexpr int rest_ms = 2000;  // without a change of the pile or of the chosen frame
constexpr int pause_ms = 150;  // sightings that come within it are held against each other together

}  // namespace

Surveyor::Surveyor(Studio& studio) : QObject(&studio), studio_(studio), looking_(this), closer_(this), knowing_(this) {
    soon_.setSingleShot(true);
    soon_.setInterval(pause_ms);
    rest_.setSingleShot(true);
    rest_.setInterval(rest_ms);
    connect(&rest_, &QTimer::timeout, this, &Surveyor::look_closely);
    connect(&studio.document(), &Document::changed, this, &Surveyor::make_way);
    connect(&studio, &Studio::selection_changed, this, &Surveyor::make_way);
    connect(&soon_, &QTimer::timeout, this, &Surveyor::hold_against_each_other);
    connect(&studio.document(), &Document::opened, this, &Surveyor::start_anew);
    connect(&studio.document(), &Document::changed, this, &Surveyor::pile_changed);
    // First the picture is seen; then the frames are looked at.
    connect(&studio.thumbnails(), &Thumbnails::finished, this, &Surveyor::look);
}

const Findings* Surveyor::of(int id) const {
    const auto found = known_.find(id);
    return found == known_.end() ? nullptr : &found->second;
}

std::vector<int> Surveyor::odd_ids() const {
    std::vector<int> out;
    for (const Frame& frame : studio_.pile().frames)
        if (const Findings* known = of(frame.id); known && !known->marks.empty()) out.push_back(frame.id);
    return out;
}

bool Surveyor::complete() const {
    const auto& frames = studio_.pile().frames;
    return !busy() && studio_.thumbnails().complete() && !frames.empty() &&
           std::all_of(frames.begin(), frames.end(),
                       [this](const Frame& f) { return !usable(f) || seen_.count(f.id) > 0; });
}

Surveyor::Setting Surveyor::setting_of(const Pile& pile) {
    Setting out{pile.reference, {}};
    for (const Frame& frame : pile.frames) out.roles.emplace_back(frame.id, usable(frame) ? int(frame.role) : -1);
    return out;
}

void Surveyor::start_anew() {
    looking_.stop();
    closer_.stop();
    rest_.stop();
    knowing_.stop();
    soon_.stop();
    anchor_ = 0;
    seen_.clear();
    known_.clear();
    setting_ = setting_of(studio_.pile());
    emit changed();
}

void Surveyor::pile_changed() {
    Setting now = setting_of(studio_.pile());
    if (now == setting_) return;
    setting_ = std::move(now);
    if (!seen_.empty()) soon_.start();
}

void Surveyor::look() {
    if (!studio_.document().open()) return;
    const Pile now = studio_.pile();
    std::vector<Frame> missing;
    for (const Frame& frame : now.frames)
        if (usable(frame) && seen_.count(frame.id) == 0) missing.push_back(frame);
    if (missing.empty()) return;
    if (const Frame* anchor = find_frame(now, anchor_); !anchor || !usable(*anchor)) {
        // Places against one that is lost would say nothing beside those against another.
        anchor_ = anchor_for(now);
        seen_.clear();
        missing.clear();
        std::copy_if(now.frames.begin(), now.frames.end(), std::back_inserter(missing), usable);
    }
    const std::shared_ptr<FrameStore> store = studio_.stores().frames();
    looking_.run<std::vector<Failure>>(
        [this, now, missing, store, id = anchor_](Job& job) {
            std::vector<Failure> failures;
            Result<Anchor> anchor = anchor_of(now, id);
            if (!anchor.ok()) return std::vector<Failure>{anchor.failure()};
            std::mutex mutex;
            parallel_for(0, int(missing.size()), [&](int i) {
                if (job.stopped()) return;
                const Frame& frame = missing[std::size_t(i)];
                Result<Sighting> sight = look_at(now, frame, anchor.value(), *store, job);
                if (!sight.ok()) {
                    const std::lock_guard lock(mutex);
                    failures.push_back(sight.failure());
                    return;
                }
                auto shared = std::make_shared<const Sighting>(std::move(sight).value());
                // As in Thumbnails::load(): the lane is a child of this object.
                QMetaObject::invokeMethod(
                    this,
                    [this, store, anchor_id = id, id = frame.id, shared] {
                        if (store != studio_.stores().frames() || anchor_id != anchor_) return;
                        seen_[id] = shared;
                        if (!soon_.isActive()) soon_.start();
                    },
                    Qt::QueuedConnection);
            });
            return failures;
        },
        [this](const std::vector<Failure>& failures) {
            for (const Failure& failure : failures) studio_.report_broken(failure);
            soon_.start();
            const Frame* anchor = find_frame(studio_.pile(), anchor_);
            if (anchor && !usable(*anchor) && anchor_for(studio_.pile()) != 0) look();
        });
}

bool Surveyor::complete_finely() const {
    return complete() && !closer_.busy() && unseen_closely().empty();
}

std::vector<int> Surveyor::unseen_closely() const {
    std::vector<int> out;
    const Pile& pile = studio_.pile();
    if (!has_more(pile.size)) return out;
    for (const Frame& frame : pile.frames) {
        const auto found = seen_.find(frame.id);
        if (usable(frame) && frame.role == Role::scene && found != seen_.end() && !found->second->fine)
            out.push_back(frame.id);
    }
    return out;
}

// Whoever works has the cores to himself; the closer look goes on when he rests.
void Surveyor::make_way() {
    if (!closer_.busy()) return;
    closer_.stop();
    rest_.start();
}

void Surveyor::look_closely() {
    if (closer_.busy() || !complete()) return;
    const Pile now = studio_.pile();
    std::vector<std::pair<Frame, std::shared_ptr<const Sighting>>> missing;
    for (const int id : unseen_closely()) missing.emplace_back(*find_frame(now, id), seen_.at(id));
    if (missing.empty()) return;
    const std::shared_ptr<FrameStore> store = studio_.stores().frames();
    closer_.run<bool>(
        [this, now, missing, store, anchor_id = anchor_](Job& job) {
            // One after the other, and only with time that nobody else wants. The thread is this lane's own.
            QThread::currentThread()->setPriority(QThread::IdlePriority);
            for (const auto& [frame, seen] : missing) {
                Result<Sighting> sight = look_closer(now, frame, *seen, *store, job);
                if (job.stopped()) return false;
                if (!sight.ok()) {
                    // The small picture could be read: what is wrong shows when the frame is used.
                    Sighting bare = *seen;
                    bare.fine.emplace();
                    sight = std::move(bare);
                }
                auto shared = std::make_shared<const Sighting>(std::move(sight).value());
                QMetaObject::invokeMethod(
                    this,
                    [this, store, anchor_id, id = frame.id, shared] {
                        if (store == studio_.stores().frames() && anchor_id == anchor_) seen_[id] = shared;
                    },
                    Qt::QueuedConnection);
            }
            return true;
        },
        [this](bool) { soon_.start(); });
}

void Surveyor::guess() {
    const std::map<int, Role> roles = guess_roles(studio_.pile(), seen_);
    if (!roles.empty()) studio_.document().correct(with_guesses(studio_.pile(), roles));
}

void Surveyor::hold_against_each_other() {
    if (!studio_.document().open()) return;
    knowing_.run<std::vector<Findings>>([pile = studio_.pile(), seen = seen_](Job&) { return know(pile, seen); },
                                        [this, ids = setting_.roles](const std::vector<Findings>& known) {
                                            known_.clear();
                                            for (std::size_t i = 0; i < known.size(); ++i)
                                                known_[ids[i].first] = known[i];
                                            // While some are missing, the others have too few neighbours to be called
                                            // odd.
                                            if (!complete())
                                                for (auto& [id, one] : known_) one.marks.clear();
                                            emit changed();
                                            // Only when all are seen: a dark is known by the others being brighter.
                                            if (complete()) {
                                                guess();
                                                look_closely();
                                            }
                                        });
}

}  // namespace bp::app
