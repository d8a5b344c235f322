// The first screen: what is the pile to become? And the demo piles of Skerrow harbour.
#pragma once

#include <QLabel>
#include <QPushButton>
#include <QWidget>

#include "app/work/recovery.h"
#include "pile/pile.h"

namespace bp::app {

class StartScreen : public QWidget {
    Q_OBJECT

  public:
    explicit StartScreen(QWidget* parent = nullptr);

  signals:
    void outcome_chosen(bp::Outcome outcome);
    void demo_chosen(const QString& scene);
    void open_wanted();
    void left_over_wanted(const bp::app::LeftOver& left);
    void recent_wanted(const QString& path);
    void preferences_wanted();
    void guide_wanted();
    void camera_wanted();
    void folder_wanted();
    void like_wanted();

  protected:
    void showEvent(QShowEvent*) override;
    void paintEvent(QPaintEvent*) override;

  private:
    void list_left_overs();
    void list_recent();

    QWidget* left_overs_;
    QLabel* recent_words_;
    QWidget* recent_;
};

}  // namespace bp::app
