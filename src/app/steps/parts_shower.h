// The meteors of all frames over one.
#pragma once

#include <QLabel>
#include <QPushButton>

#include "app/steps/page.h"
#include "app/work/studio.h"

namespace bp::app {

class PartsShower : public Page {
    Q_OBJECT

  public:
    PartsShower(Studio& studio, QWidget* parent);

  private:
    void refresh() override;
    // Meteors of the pile, or those that show.
    int count(bool shown) const;

    Studio& studio_;
    QLabel* hint_;
    QPushButton* all_;
};

}  // namespace bp::app
