// The strip along the top: the pile's name and outcome, the view switch, undo and redo, export.
#pragma once

#include <QLabel>
#include <QMenu>
#include <QPushButton>
#include <QToolButton>
#include <QWidget>
#include <vector>

#include "app/canvas/viewer.h"

namespace bp::app {

class TopBar : public QWidget {
    Q_OBJECT

  public:
    TopBar(Studio& studio, Viewer& viewer, QWidget* parent = nullptr);

    QToolButton* menu_button() const { return menu_; }
    QToolButton* history_button() const { return history_; }
    void set_pair(bool on);
    QSize minimumSizeHint() const override;

  signals:
    void home_wanted();
    void open_wanted();
    void save_wanted();
    void export_wanted();
    void pair_wanted(bool on);
    // Their buttons were pressed: what opens below them is filled now.
    void menu_opens(QMenu* menu);
    void history_opens(QMenu* menu);

  protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;

  private:
    void refresh();
    static constexpr int longest_name = 180, shortest_name = 60;

    // What the menu or a key does, too, gives way where there is no room for all; then the name is shortened.
    void make_room();
    int width_without(std::size_t count) const;
    int width_of_name(int most) const;
    std::vector<QWidget*> giving_way() const { return {edited_, open_, pair_, save_, history_, redo_}; }
    QToolButton* tool(const QString& picture, const QString& name, const QString& tip);

    Studio& studio_;
    Viewer& viewer_;
    QLabel* name_;
    QLabel* edited_;
    bool says_edited_ = false;
    QToolButton* outcome_;
    QPushButton* views_[view_count];
    QPushButton* pair_;
    QToolButton *home_, *open_, *save_, *undo_, *redo_, *history_, *menu_;
};

}  // namespace bp::app
