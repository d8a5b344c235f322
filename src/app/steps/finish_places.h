// Areas of the finished picture with tone, colour and detail of their own.
#pragma once

#include <QCheckBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

#include "app/canvas/pick_tool.h"
#include "app/canvas/place_shape_tool.h"
#include "app/panels/found_list.h"
#include "app/panels/tone_panel.h"
#include "app/panels/value_sliders.h"
#include "app/steps/page.h"
#include "app/steps/page_tabs.h"
#include "app/steps/place_target.h"

namespace bp::app {

class FinishPlaces : public Page {
    Q_OBJECT

  public:
    FinishPlaces(Studio& studio, Viewer& viewer, Canvas& canvas, QWidget* parent);
    void opened() override;
    void closed() override;
    void refresh() override;

  private:
    void build_new();
    void build_tone();
    void build_area();
    void build_detail();
    void edit_chosen(const std::function<void(FinishPlace&)>& change, const QString& what, const QString& merged = {});
    void add(const std::pair<Pile, int>& made, const QString& what);
    // Draws a shape next; none: pulls what is there.
    void draw(std::optional<ShapeKind> kind);
    void pick(bool on);
    void put_down();
    QString name_of(const FinishPlace& place) const;
    PlaceShapeTool::Uses shape_uses();

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    PlaceTarget target_;
    PlaceShapeTool shape_;
    PickTool pick_;
    FoundList* list_;
    QLabel* hint_;
    QPushButton *ramp_, *ellipse_, *like_, *sky_, *land_;
    NamedSlider* reach_;
    QCheckBox* everywhere_;
    PageTabs* of_chosen_;
    QWidget *tone_page_, *area_page_, *detail_page_;
    TonePanel* tone_;
    ValueSliders *area_, *detail_, *softness_;
    QLineEdit* name_;
    QCheckBox* show_;
    QPushButton *up_, *down_;
};

}  // namespace bp::app
