// Shows long work: what it does, how far it is, how long it will take, and a button to stop it.
#pragma once

#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QTimer>
#include <vector>

#include "app/jobs.h"

namespace bp::app {

class JobBar : public QWidget {
    Q_OBJECT

  public:
    explicit JobBar(QWidget* parent = nullptr);
    // Earlier lanes are shown before later ones. Work shorter than a moment is not shown.
    void watch(Lane& lane);
    // A sentence that stays for a while when nothing runs.
    void say(const QString& text, bool trouble);

  private:
    void refresh();

    std::vector<Lane*> lanes_;
    QLabel* words_;
    QProgressBar* bar_;
    QPushButton* stop_;
    QTimer clock_;
    QTimer message_time_;
    Lane* shown_ = nullptr;
    int patience_ = 0;
};

}  // namespace bp::app
