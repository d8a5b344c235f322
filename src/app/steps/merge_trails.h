// What becomes of trails: they may fade towards their ends, have a head, and be closed where they break.
#pragma once

#include <QLabel>
#include <QPushButton>
#include <array>

#include "app/canvas/viewer.h"
#include "app/looks/controls.h"
#include "app/panels/taper_curve.h"
#include "app/steps/merge_head.h"
#include "app/steps/merge_knit.h"
#include "app/steps/page.h"
#include "app/work/studio.h"

namespace bp::app {

class MergeTrails : public Page {
    Q_OBJECT

  public:
    MergeTrails(Studio& studio, Viewer& viewer, QWidget* parent);

  private:
    void refresh() override;
    Taper taper() const;
    void show_taper(const Taper& taper);
    void try_out(const Taper& taper);
    void settle(const Taper& taper, const QString& what, const QString& kind);

    Studio& studio_;
    Viewer& viewer_;
    std::array<QPushButton*, 4> ends_{};
    NamedSlider* over_;
    QLabel* shape_words_;
    TaperCurve* curve_;
    QLabel* facts_;
    MergeHead* head_;
    MergeKnit* knit_;
};

// "20 frames, 30 min": how much of the run of a zone a share of it is.
QString share_of_run_in_words(const Pile& pile, Zone zone, double share);

}  // namespace bp::app
