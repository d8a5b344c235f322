// The small pictures of the frames of the open pile.
#pragma once

#include <QImage>
#include <map>

#include "app/work/jobs.h"
#include "pile/pile.h"

namespace bp::app {

class Studio;

class Thumbnails : public QObject {
    Q_OBJECT

  public:
    explicit Thumbnails(Studio& studio);

    // Null until it is decoded.
    QImage of(int id) const;
    int level() const;
    bool complete() const { return complete_; }
    std::size_t here() const { return images_.size(); }
    // Of frames that have none yet.
    void load();
    void clear();
    Lane& lane() { return lane_; }

  signals:
    void arrived(int id);
    void finished();

  private:
    Studio& studio_;
    Lane lane_;
    std::map<int, QImage> images_;
    std::map<int, SharedFrameFile> files_;  // that they are of
    bool complete_ = false;
};

}  // namespace bp::app
