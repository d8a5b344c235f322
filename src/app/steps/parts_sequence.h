// One subject in many places: found, and laid out over the cleared scene.
#pragma once

#include <QLabel>
#include <QPushButton>
#include <QSpinBox>
#include <optional>

#include "app/canvas/viewer.h"
#include "app/looks/controls.h"
#include "app/panels/found_list.h"
#include "app/steps/page.h"
#include "pile/part_edits.h"

namespace bp::app {

class PartsSequence : public Page {
    Q_OBJECT

  public:
    PartsSequence(Studio& studio, Viewer& viewer, QWidget* parent);

  private:
    void refresh() override;
    void build_layout();
    // With the outlines of the pile as it is; made when they are first asked for.
    const Sequence& sequence();

    Studio& studio_;
    Viewer& viewer_;
    FoundList* subjects_;
    QWidget* layout_;
    NamedSlider* spacing_;
    QPushButton *early_, *late_;
    QSpinBox* every_;
    QLabel* hint_;  // while nothing is found
    QLabel* overlaps_;
    QPushButton *solve_, *cut_;
    std::optional<Sequence> sequence_;
};

}  // namespace bp::app
