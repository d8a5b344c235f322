// The step line: a drawn line with a knot for each step, one of them open.
#pragma once

#include <QScrollArea>
#include <QStringList>
#include <QVBoxLayout>
#include <vector>

#include "app/steps/page.h"

namespace bp::app {

// What stands under an open step.
class StepBody : public Page {
    Q_OBJECT

  public:
    explicit StepBody(QWidget* parent = nullptr);
    virtual QString title() const = 0;
    // One line that says what the step does now, whether it is open or not.
    virtual QString summary() const = 0;
    // A mark when it needs a look.
    virtual bool needs_look() const { return false; }
    // Names of the traces that the time rail shows while the step is open, beside those that the person chose.
    virtual QStringList traces() const { return {}; }
    // Whether the time rail shows the taper while the step is open.
    virtual bool shows_taper() const { return false; }
    void out_of_date() override {
        Page::out_of_date();
        emit summary_changed();
    }

  signals:
    void summary_changed();
};

class StepKnot;
class Rope;

class StepLine : public QScrollArea {
    Q_OBJECT

  public:
    explicit StepLine(QWidget* parent = nullptr);
    void add(StepBody* body);
    void open(int index);
    void open(const StepBody* body);
    int open_step() const { return open_; }
    QStringList traces() const { return open_ >= 0 ? bodies_[std::size_t(open_)]->traces() : QStringList(); }
    bool shows_taper() const { return open_ >= 0 && bodies_[std::size_t(open_)]->shows_taper(); }
    bool rendering() const { return open_ >= 0 && bodies_[std::size_t(open_)]->rendering(); }

  signals:
    void step_opened(int index);

  protected:
    void resizeEvent(QResizeEvent* event) override;
    bool eventFilter(QObject* watched, QEvent* event) override;

  private:
    void make_room();

    std::vector<StepKnot*> knots_;
    std::vector<StepBody*> bodies_;
    std::vector<QScrollArea*> rooms_;  // of the bodies
    Rope* rope_;
    QVBoxLayout* column_;
    int open_ = -1;
    bool close_ = false;  // steps that are closed take one line
};

}  // namespace bp::app
