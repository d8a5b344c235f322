#include "app/work/thumbnails.h"

#include <algorithm>
#include <mutex>

#include "app/looks/pictures.h"
#include "app/work/studio.h"
#include "base/parallel.h"

namespace bp::app {
namespace {

constexpr int side = 256;

}  // namespace

Thumbnails::Thumbnails(Studio& studio) : studio_(studio), lane_(this) {}

void Thumbnails::clear() {
    images_.clear();
    files_.clear();
    complete_ = false;
}

QImage Thumbnails::of(int id) const {
    const auto found = images_.find(id);
    return found == images_.end() ? QImage() : found->second;
}

int Thumbnails::level() const {
    return level_within(studio_.pile().size, side);
}

void Thumbnails::load() {
    complete_ = false;
    const Pile now = studio_.pile();
    if (now.frames.empty()) {
        lane_.stop();
        return;
    }
    const int at = level();
    const std::shared_ptr<FrameStore> store = studio_.stores().frames();
    // Nearest to what is looked at first.
    std::vector<int> order;
    for (std::size_t i = 0; i < now.frames.size(); ++i) {
        const auto known = files_.find(now.frames[i].id);
        if (known == files_.end() || known->second != now.frames[i].file) order.push_back(int(i));
    }
    const int middle = std::max(0, number_of(now, studio_.current()) - 1);
    std::stable_sort(order.begin(), order.end(),
                     [middle](int a, int b) { return std::abs(a - middle) < std::abs(b - middle); });
    lane_.run<std::vector<Failure>>(
        [this, now, at, store, order](Job& job) {
            std::vector<Failure> failures;
            std::mutex mutex;
            parallel_for(0, int(order.size()), [&](int n) {
                const Frame& frame = now.frames[std::size_t(order[std::size_t(n)])];
                if (job.stopped() || !usable(frame)) return;
                Result<SharedPixels> pixels = store->load(*frame.file, at, job);
                if (!pixels.ok()) {
                    const std::lock_guard lock(mutex);
                    failures.push_back(of_frame(pixels.failure(), frame.id));
                    return;
                }
                const QImage image = to_image(pixels.value()->widened(), now.profile);
                // The lane outlives its job and is a part of this: the call is dropped when both are gone.
                QMetaObject::invokeMethod(
                    this,
                    [this, store, id = frame.id, file = frame.file, image] {
                        if (store != studio_.stores().frames()) return;
                        images_[id] = image;
                        files_[id] = file;
                        emit arrived(id);
                    },
                    Qt::QueuedConnection);
            });
            return failures;
        },
        [this](const std::vector<Failure>& failures) {
            for (const Failure& failure : failures) studio_.report_broken(failure);
            complete_ = true;
            emit finished();
        });
}

}  // namespace bp::app
