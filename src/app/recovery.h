// Unsaved work kept on disk, so that a crash loses nothing.
#pragma once

#include <QTimer>

#include "app/studio.h"

namespace bp::app {

// A moment after every edit the pile is written to a file of this process in the user's data folder. Saving, closing
// and leaving remove it; what is still there at the next start was left behind by a crash.
class Recovery : public QObject {
    Q_OBJECT

  public:
    Recovery(Studio& studio, QObject* parent);
    ~Recovery() override;

    // The newest pile that a process left which no longer runs; empty when there is none.
    static QString left_over();
    static QString folder();
    // Opens what was left over; its file goes once the work is kept anew.
    void take_up(const QString& file);
    void forget();

  private:
    void write();

    Studio& studio_;
    Lane lane_;
    QTimer later_;
    QString file_;
    QString taken_up_;
};

}  // namespace bp::app
