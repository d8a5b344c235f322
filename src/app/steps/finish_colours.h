// Colours of the finished picture: ranges of hues, and the two colours of dark and bright tones.
#pragma once

#include <QComboBox>
#include <QPushButton>

#include "app/panels/colour_pads.h"
#include "app/panels/value_sliders.h"
#include "app/steps/page.h"

namespace bp::app {

class FinishColours : public Page {
    Q_OBJECT

  public:
    FinishColours(Studio& studio, Viewer& viewer, QWidget* parent);
    void closed() override;
    void refresh() override;

  private:
    void build_ranges();
    void build_tints();
    int chosen() const { return which_->currentIndex(); }
    // The pile with the chosen range changed.
    Pile with_chosen(const std::function<void(ColourRange&)>& change) const;
    double of_chosen(double ColourRange::*value, const Pile& pile) const;

    Studio& studio_;
    Viewer& viewer_;
    QComboBox* which_;
    QPushButton *add_, *remove_;
    QWidget* of_range_;
    HueRing* ring_;
    ValueSliders* range_;
    ValueSliders* tints_;
};

}  // namespace bp::app
