// One of the pages of the Align step.
#pragma once

#include <QVBoxLayout>
#include <QWidget>

#include "app/looks/theme.h"

namespace bp::app {

class AlignSection : public QWidget {
    Q_OBJECT

  public:
    explicit AlignSection(QWidget* parent) : QWidget(parent), column_(new QVBoxLayout(this)) {
        column_->setContentsMargins(0, 0, 0, 0);
        column_->setSpacing(space::small);
    }
    // The section has come to be seen, or is so no longer.
    virtual void opened() {}
    virtual void closed() {}
    // The pile, the selection or the zone has changed.
    virtual void refresh() = 0;
    // True while miniatures are made.
    virtual bool rendering() const { return false; }

  protected:
    QVBoxLayout* column() const { return column_; }

  private:
    QVBoxLayout* column_;
};

}  // namespace bp::app
