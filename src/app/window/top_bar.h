// The strip along the top: the pile's name and outcome, the view switch, undo and redo, export.
#pragma once

#include <QLabel>
#include <QPushButton>
#include <QToolButton>
#include <QWidget>

#include "app/canvas/viewer.h"
#include "app/panels/allowance_panel.h"

namespace bp::app {

class TopBar : public QWidget {
    Q_OBJECT

  public:
    TopBar(Studio& studio, Viewer& viewer, QWidget* parent = nullptr);

  signals:
    void home_wanted();
    void open_wanted();
    void save_wanted();
    void export_wanted();
    void theme_wanted();
    void keys_wanted();

  protected:
    void paintEvent(QPaintEvent*) override;

  private:
    void refresh();
    QToolButton* tool(const QString& picture, const QString& name, const QString& tip);

    Studio& studio_;
    Viewer& viewer_;
    QLabel* name_;
    QLabel* edited_;
    QToolButton* outcome_;
    QPushButton* views_[view_count];
    AllowancePanel* room_panel_;
    QToolButton *home_, *open_, *save_, *undo_, *redo_, *theme_;
};

}  // namespace bp::app
