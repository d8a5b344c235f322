// What holds for the program, whatever pile is open. Everything holds at once, but for the size of type, for which the
// program is started again.
#pragma once

#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QProcessEnvironment>
#include <QVBoxLayout>

#include "app/work/studio.h"

namespace bp::app {

class Preferences : public QDialog {
    Q_OBJECT

  public:
    Preferences(Studio& studio, QWidget* parent);

    // How large everything is drawn, in hundredths.
    static int size_percent();
    // Draws everything so large from here on: before the application is made. What the person's surroundings say of it
    // comes on top.
    static void hold_size();
    // The surroundings that the program was started in, without what hold_size() added.
    static QProcessEnvironment surroundings();

  signals:
    // What the screen's samples mean has changed: pictures are made anew.
    void display_changed();
    // The program is to be started again, with the same pile.
    void start_again_wanted();

  private:
    void build_looks(QVBoxLayout& column);
    void build_display(QVBoxLayout& column);
    void build_folders(QVBoxLayout& column);
    void choose_display(int index);
    void show_display();

    Studio& studio_;
    QComboBox* display_;
    QLabel* display_is_;
};

}  // namespace bp::app
