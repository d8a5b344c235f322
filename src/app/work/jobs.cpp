#include "app/work/jobs.h"

#include <algorithm>

namespace bp::app {

Lane::Lane(QObject* parent, Turns turns) : QObject(parent), turns_(turns) {
    pool_.setMaxThreadCount(1);
}

Lane::~Lane() {
    for (const Entry& entry : jobs_) entry.job->stop();
    pool_.waitForDone();
}

void Lane::stop() {
    if (!busy()) return;
    jobs_.front().job->stop();
    // In a queue it is heard that it was stopped; else it is forgotten.
    if (turns_ == Turns::queue) return;
    jobs_.clear();
    emit busy_changed();
}

void Lane::stop_all() {
    for (const Entry& entry : jobs_) entry.job->stop();
    stop();
}

std::shared_ptr<Job> Lane::begin(const QString& name) {
    auto job = std::make_shared<Job>();
    if (turns_ == Turns::latest && busy()) {
        const QString before = jobs_.front().name;
        jobs_.front().job->stop();
        jobs_.clear();
        if (!before.isEmpty()) emit replaced(before);
    }
    jobs_.push_back({job, name});
    emit busy_changed();
    return job;
}

bool Lane::finish(const std::shared_ptr<Job>& job) {
    const auto found = std::find_if(jobs_.begin(), jobs_.end(), [&](const Entry& e) { return e.job == job; });
    if (found == jobs_.end()) return false;
    jobs_.erase(found);
    emit busy_changed();
    return true;
}

}  // namespace bp::app
