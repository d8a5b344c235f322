// Unsaved work kept on disk, so that a crash loses nothing.
#pragma once

#include <QDateTime>
#include <QImage>
#include <QTimer>

#include "app/work/studio.h"

namespace bp::app {

// What a run of the program left behind that did not come to its end.
struct LeftOver {
    QString file;  // the pile
    QString name;  // as it was shown
    QString path;  // where it is saved; empty when it never was
    QDateTime kept;
    QImage picture;  // small; null when there is none
};

// A moment after every edit the pile is written to a file of this run in the user's data folder. Saving, closing and
// leaving remove it. Every run holds a lock on its file for as long as it lives, which the system lets go when it ends
// in whatever way: so what nobody holds was left behind. Nothing depends on the numbers of processes.
class Recovery : public QObject {
    Q_OBJECT

  public:
    // `picture` gives what the pile looks like, when there is something to see.
    Recovery(Studio& studio, std::function<QImage()> picture, QObject* parent);
    ~Recovery() override;

    static QString folder();
    // The newest first.
    static std::vector<LeftOver> left_over();
    // False when another run has taken it up meanwhile, or it is gone.
    static bool throw_away(const QString& file);
    // Opens it; from then on its file is this run's own.
    void take_up(const LeftOver& left);
    // Clean: nothing is kept any more.
    void forget();
    // The file that this run writes to.
    QString file() const { return file_; }
    // How long after an edit the pile is written, with what was edited in between.
    void set_pause(int ms) { later_.setInterval(ms); }
    bool busy() const { return lane_->busy() || later_.isActive(); }

  private:
    static void sweep();
    void write();
    void begin_anew();

    Studio& studio_;
    std::function<QImage()> picture_;
    std::unique_ptr<Lane> lane_;
    QTimer later_;
    QString file_;
    int lock_ = -1;
    bool told_ = false;  // that it cannot be written
};

}  // namespace bp::app
