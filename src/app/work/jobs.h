// The one meeting place of engine and window.
//
// A lane runs one job at a time on a thread of its own. Jobs get values and a Job to be stopped by, never pointers into
// the window; results are handed back on the window's thread. What a job throws ends it and is told: nothing gets past
// the lane.
#pragma once

#include <QObject>
#include <QString>
#include <QThreadPool>
#include <deque>
#include <functional>
#include <memory>
#include <optional>

#include "base/guarded.h"
#include "base/job.h"

namespace bp::app {

class Lane : public QObject {
    Q_OBJECT

  public:
    enum class Turns {
        latest,  // starting another job stops the one before, whose result is never heard
        queue,   // every job has its turn and is heard, also when it was stopped
    };
    explicit Lane(QObject* parent, Turns turns = Turns::latest);
    ~Lane() override;

    // `work` runs on the lane's thread, `done` on the window's. T may be move-only. When `work` throws, a T that can be
    // a failure is one; else `done` is not called and failed() is sent. `name` is what people are told that it is.
    template <class T>
    void run(std::function<T(Job&)> work, std::function<void(T)> done, const QString& name = {}) {
        const std::shared_ptr<Job> job = begin(name);
        pool_.start([this, job, work = std::move(work), done = std::move(done)] {
            // Nobody waits for what was replaced before its turn came.
            if (turns_ == Turns::latest && job->stopped()) return;
            auto result = std::make_shared<std::optional<T>>();
            Failure failure;
            try {
                result->emplace(work(*job));
            } catch (...) {
                failure = caught_failure();
                if constexpr (std::is_constructible_v<T, Failure>) result->emplace(failure);
            }
            QMetaObject::invokeMethod(
                this,
                [this, job, result, done, failure] {
                    if (!finish(job)) return;
                    if (*result)
                        done(std::move(**result));
                    else
                        emit failed(failure);
                },
                Qt::QueuedConnection);
        });
    }

    // The job that runs; in a queue those that wait stay.
    void stop();
    // Those that wait, too.
    void stop_all();
    bool busy() const { return !jobs_.empty(); }
    // Of the job that runs.
    QString name() const { return busy() ? jobs_.front().name : QString(); }
    int waiting() const { return busy() ? int(jobs_.size()) - 1 : 0; }
    Progress progress() const { return busy() ? jobs_.front().job->progress() : Progress{}; }

  signals:
    void busy_changed();
    // A job was stopped because another of its kind began.
    void replaced(const QString& name);
    void failed(const bp::Failure& failure);

  private:
    struct Entry {
        std::shared_ptr<Job> job;
        QString name;
    };
    std::shared_ptr<Job> begin(const QString& name);
    bool finish(const std::shared_ptr<Job>& job);

    Turns turns_;
    QThreadPool pool_;
    std::deque<Entry> jobs_;  // the one that runs first
};

}  // namespace bp::app
