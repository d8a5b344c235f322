// Frames that come while the program runs: from a folder that is watched, and from the practice camera.
#pragma once

#include "app/work/studio.h"
#include "practice/practice.h"

namespace bp::app {

// How the practice camera is set.
struct CameraSettings {
    QString scene;
    double exposure_s = 25;
    double pause_s = 5;
    int frames = 48;
    double pace = 10;  // how many times faster than the real camera
};

class Arriving : public QObject {
    Q_OBJECT

  public:
    explicit Arriving(Studio& studio);

    // Frames that come into the folder join the open pile, or begin one. Those that are in it now come first.
    void watch(const QString& folder, Outcome outcome);
    // Begins a new pile with what the practice camera takes from now on.
    void photograph(const CameraSettings& settings);
    // What has come stays; it is aligned when the pile is, or would be when opened with all of them.
    void stop();
    bool watching() const { return watching_.busy(); }
    bool photographing() const { return camera_.busy(); }
    int arrived() const { return arrived_; }
    // "Watching skerrow: 12 have come"
    QString words() const;

  signals:
    void changed();

  private:
    struct Batch;
    void take(const Batch& batch);
    void halt();

    Studio& studio_;
    Lane watching_;
    Lane camera_;
    QString folder_;
    Outcome outcome_ = Outcome::trails;
    bool beginning_ = false;  // a pile with the first of them, at this moment
    bool began_ = false;      // the pile that is open with the first of them
    int arrived_ = 0;
    int expected_ = 0;
    long generation_ = 0;
};

}  // namespace bp::app
