// On the right, when asked for: how every frame lies, in numbers.
#pragma once

#include <QFrame>
#include <QTreeWidget>

#include "app/work/studio.h"

namespace bp::app {

class AlignTable : public QFrame {
    Q_OBJECT

  public:
    AlignTable(Studio& studio, QWidget* parent);

  protected:
    void showEvent(QShowEvent*) override;

  private:
    void refresh();
    void show_selection();

    Studio& studio_;
    QTreeWidget* table_;
};

}  // namespace bp::app
