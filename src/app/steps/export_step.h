// Write the picture.
#pragma once

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QSpinBox>

#include "app/canvas/canvas.h"
#include "app/looks/controls.h"
#include "app/steps/step_line.h"
#include "app/work/studio.h"

namespace bp::app {

class ExportStep : public StepBody {
    Q_OBJECT

  public:
    ExportStep(Studio& studio, Viewer& viewer, Canvas& canvas);
    QString title() const override { return tr("Export"); }
    QString summary() const override;

  signals:
    void export_wanted();
    void growth_wanted();

  private:
    void refresh() override;
    void build_versions();
    void build_profile();
    void build_size();
    void build_name();
    void build_check();
    void build_writing();
    void build_more();
    void build_report();
    // The versions that are written together: the pile's own, and those beside it. The controls are those of one.
    std::size_t version_count() const { return 1 + studio_.pile().also.size(); }
    const ExportSettings& version(std::size_t number) const;
    const ExportSettings& chosen() const { return version(chosen_); }
    // The pile with the chosen version as its own.
    Pile as_chosen() const;
    void change(const std::function<void(ExportSettings&)>& how, const QString& what, const QString& merged = {});
    void add_version();
    void take_version_out();
    void report(const QString& words);
    void show_versions();
    void show_facts();
    void show_flaws(const std::vector<Flawed>& flaws);

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    std::size_t chosen_ = 0;
    QListWidget* versions_;
    QPushButton *add_version_, *take_out_;
    QLineEdit* name_;
    QCheckBox* whereabouts_;
    QStringList reports_;  // the newest first
    QPushButton* check_;
    QLabel* checked_;
    QListWidget* flaws_;
    std::vector<Flawed> found_;
    QComboBox* format_;
    NamedSlider* quality_;
    QComboBox* profile_;
    QSpinBox* edge_;
    QDoubleSpinBox *paper_, *dpi_;
    NamedSlider* sharpen_;
    QLabel* facts_;
    QLabel* last_;
    QPushButton *write_, *grow_;
};

}  // namespace bp::app
