// A page of controls, of a step or within one: brought up to date when it is seen, and only then.
#pragma once

#include <QVBoxLayout>
#include <QWidget>
#include <utility>

#include "app/looks/theme.h"

namespace bp::app {

class Page : public QWidget {
    Q_OBJECT

  public:
    explicit Page(QWidget* parent) : QWidget(parent), column_(new QVBoxLayout(this)) {
        column_->setContentsMargins(0, 0, 0, 0);
        column_->setSpacing(space::small);
    }
    // The page has come to be seen, or is so no longer.
    virtual void opened() {}
    virtual void closed() {}
    // True while miniatures are made.
    virtual bool rendering() const { return false; }
    // What it shows has changed: the pile, the selection, the zone.
    virtual void out_of_date() {
        stale_ = true;
        if (isVisible()) catch_up();
    }

  protected:
    // Shows the pile as it is.
    virtual void refresh() = 0;
    void showEvent(QShowEvent* event) override {
        QWidget::showEvent(event);
        catch_up();
    }
    QVBoxLayout* column() const { return column_; }

  private:
    void catch_up() {
        if (std::exchange(stale_, false)) refresh();
    }

    QVBoxLayout* column_;
    bool stale_ = true;
};

}  // namespace bp::app
