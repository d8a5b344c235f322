// Pages of a step, one of which is seen, under a row of tabs.
#pragma once

#include <QButtonGroup>
#include <QGridLayout>
#include <QVBoxLayout>
#include <vector>

#include "app/looks/controls.h"
#include "app/steps/page.h"

namespace bp::app {

class PageTabs : public QWidget {
    Q_OBJECT

  public:
    // So many tabs stand beside each other, the rest below them.
    explicit PageTabs(QWidget* parent, int across = 4);
    // The first is the one that is seen at first. `object` names its tab.
    void add(QWidget* page, const QString& title, const QString& object, const QString& tip);
    // As if its tab were clicked, which shows when the step is opened.
    void show(const QString& object);
    // The step that they are of is opened or closed.
    void opened();
    void closed();

  private:
    void show_page();

    int across_;
    QGridLayout* tabs_;
    QVBoxLayout* column_;
    QButtonGroup* group_;
    std::vector<QWidget*> pages_;
    int seen_ = 0;
    bool open_ = false;  // the step
};

}  // namespace bp::app
