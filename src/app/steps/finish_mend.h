// Spots and lines of the picture mended from their surroundings.
#pragma once

#include <QComboBox>
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
    void build_source();
    void choose_source(MendFrom from);

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    MendingTool tool_;
    NamedSlider* size_;
    QComboBox* source_;
    MendFrom next_from_ = MendFrom::around;  // of the next that is mended
    FoundList* list_;
    ValueSliders* width_;
    QPushButton* remove_;
    int chosen_ = 0;
};

}  // namespace bp::app
