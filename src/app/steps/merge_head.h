// The end of the trails that stands out.
#pragma once

#include <QCheckBox>

#include "app/canvas/viewer.h"
#include "app/looks/controls.h"
#include "app/work/studio.h"

namespace bp::app {

// Controls of a page: the page says when they are to be brought up to date, and with which head.
class MergeHead : public QWidget {
    Q_OBJECT

  public:
    MergeHead(Studio& studio, Viewer& viewer, QWidget* parent);
    void refresh();
    void show_head(const Head& head);

  private:
    NamedSlider* add_slider(const QString& name, const QString& tip, const char* object, int low, int high,
                            const std::function<QString(int)>& words, void (*set)(Head&, int));
    Head head() const;
    void settle(const Head& head, const QString& what, const QString& kind = {});

    Studio& studio_;
    Viewer& viewer_;
    QCheckBox* on_;
    NamedSlider* frames_;
    NamedSlider* apart_;
    NamedSlider* radius_;
    QCheckBox* bright_;
};

}  // namespace bp::app
