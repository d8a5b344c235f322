// What every key does, from the table of commands.
#pragma once

#include <QDialog>

namespace bp::app {

class KeysSheet : public QDialog {
    Q_OBJECT

  public:
    explicit KeysSheet(QWidget* parent);
};

}  // namespace bp::app
