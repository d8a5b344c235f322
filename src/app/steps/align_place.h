// How the frames have moved: a model, chosen among miniatures, and where aligning may look.
#pragma once

#include <QCheckBox>
#include <QLabel>
#include <QPushButton>

#include "app/panels/brush_panel.h"
#include "app/panels/miniatures.h"
#include "app/steps/page.h"

namespace bp::app {

class AlignPlace : public Page {
    Q_OBJECT

  public:
    AlignPlace(Studio& studio, Canvas& canvas, QWidget* parent);
    void opened() override;
    void closed() override;
    void refresh() override;
    bool rendering() const override { return lane_.busy(); }

  signals:
    void table_wanted(bool shown);

  private:
    void build_trust();
    QStringList facts_of(const Frame& frame) const;
    void render_miniatures();

    Studio& studio_;
    Canvas& canvas_;
    PileMask where_;
    Lane lane_;
    MiniatureGrid* grid_;
    MadeOf made_of_;
    QLabel* facts_;
    QPushButton* reference_;
    QCheckBox* insist_;
    QPushButton* table_;
    QPushButton *trust_, *everywhere_;
    BrushPanel* brush_;
};

}  // namespace bp::app
