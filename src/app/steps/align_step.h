// Lay the frames over each other.
#pragma once

#include <QPushButton>
#include <vector>

#include "app/canvas/canvas.h"
#include "app/panels/zone_switch.h"
#include "app/steps/page.h"
#include "app/steps/step_line.h"

namespace bp::app {

class AlignStep : public StepBody {
    Q_OBJECT

  public:
    AlignStep(Studio& studio, Viewer& viewer, Canvas& canvas, Comparison& comparison);
    QString title() const override { return tr("Align"); }
    QString summary() const override;
    bool needs_look() const override;
    QStringList traces() const override { return {QStringLiteral("left_over"), QStringLiteral("sure")}; }
    void opened() override;
    void closed() override;
    bool rendering() const override { return pages_[std::size_t(page_)].page->rendering(); }

  signals:
    void table_wanted(bool shown);

  private:
    struct Tab {
        QPushButton* button;
        Page* page;
        bool of_a_zone;  // works on one zone at a time
    };
    void add_page(const QString& name, const QString& object, const QString& tip, Page* page, bool of_a_zone);
    void show_page(int page);
    void refresh() override;

    Studio& studio_;
    Canvas& canvas_;
    ZoneSwitch* zones_;
    std::vector<Tab> pages_;
    int page_ = 0;
};

}  // namespace bp::app
