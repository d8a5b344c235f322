// Detail of the finished picture, and its edges.
#pragma once

#include <QCheckBox>
#include <QLabel>

#include "app/panels/value_sliders.h"
#include "app/steps/page.h"

namespace bp::app {

// The sliders of a detail, wherever one is set, and of which of several things.
void add_detail_sliders(ValueSliders& to, const QString& object, const std::function<const Detail*(const Pile&)>& read,
                        const std::function<Pile(const Pile&, const Detail&)>& write,
                        const std::function<int()>& whose = {});

class FinishDetail : public Page {
    Q_OBJECT

  public:
    FinishDetail(Studio& studio, Viewer& viewer, QWidget* parent);
    void closed() override;
    void refresh() override;

  private:
    Studio& studio_;
    Viewer& viewer_;
    QCheckBox* give_back_;
    ValueSliders* detail_;
    ValueSliders* glow_;
    QLabel* all_sky_;
    QCheckBox* glow_alone_;
    ValueSliders* edges_;
};

}  // namespace bp::app
