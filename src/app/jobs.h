// The one meeting place of engine and window.
//
// A lane runs one job at a time on a thread of its own. Starting another stops the one before; only the latest result
// is handed back, on the window's thread. Jobs get values and a Job to be stopped by, never pointers into the window.
#pragma once

#include <QObject>
#include <QThreadPool>
#include <functional>
#include <memory>

#include "base/job.h"

namespace bp::app {

class Lane : public QObject {
    Q_OBJECT

  public:
    explicit Lane(QObject* parent);
    ~Lane() override;

    // `work` runs on the lane's thread, `done` on the window's. T may be move-only.
    template <class T>
    void run(std::function<T(Job&)> work, std::function<void(T)> done) {
        const std::shared_ptr<Job> job = begin();
        const long generation = generation_;
        pool_.start([this, job, generation, work = std::move(work), done = std::move(done)] {
            auto result = std::make_shared<T>(work(*job));
            QMetaObject::invokeMethod(
                this,
                [this, generation, result, done] {
                    if (!finish(generation)) return;
                    done(std::move(*result));
                },
                Qt::QueuedConnection);
        });
    }

    void stop();
    bool busy() const { return job_ != nullptr; }
    Progress progress() const { return job_ ? job_->progress() : Progress{}; }

  signals:
    void busy_changed();

  private:
    std::shared_ptr<Job> begin();
    bool finish(long generation);

    QThreadPool pool_;
    std::shared_ptr<Job> job_;
    long generation_ = 0;
};

}  // namespace bp::app
