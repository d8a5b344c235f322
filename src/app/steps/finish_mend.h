// Spots and lines of the picture mended from their surroundings.
#pragma once

#include <QLabel>
#include <QPushButton>

#include "app/canvas/mending_tool.h"
#include "app/panels/found_list.h"
#include "app/panels/value_sliders.h"
#include "app/steps/page.h"

namespace bp::app {

class FinishMend : public Page {
    Q_OBJECT

  public:
    FinishMend(Studio& studio, Viewer& viewer, Canvas& canvas, QWidget* parent);
    void opened() override;
    void closed() override;
    void refresh() override;

  private:
    MendingTool::Uses tool_uses();
    void choose(int id);
    void add(const Mended& mended);

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    MendingTool tool_;
    NamedSlider* size_;
    FoundList* list_;
    ValueSliders* width_;
    QPushButton* remove_;
    int chosen_ = 0;
};

}  // namespace bp::app
