#include "app/jobs.h"

namespace bp::app {

Lane::Lane(QObject* parent) : QObject(parent) {
    pool_.setMaxThreadCount(1);
}

Lane::~Lane() {
    if (job_) job_->stop();
    pool_.waitForDone();
}

void Lane::stop() {
    if (!job_) return;
    job_->stop();
    job_.reset();
    ++generation_;
    emit busy_changed();
}

std::shared_ptr<Job> Lane::begin() {
    if (job_) job_->stop();
    job_ = std::make_shared<Job>();
    ++generation_;
    emit busy_changed();
    return job_;
}

bool Lane::finish(long generation) {
    if (generation != generation_) return false;
    job_.reset();
    emit busy_changed();
    return true;
}

}  // namespace bp::app
