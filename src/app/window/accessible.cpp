#include "app/window/accessible.h"

#include <QAccessible>
#include <QAccessibleWidget>
#include <memory>
#include <vector>

#include "app/canvas/canvas.h"
#include "app/rail/time_rail.h"
#include "app/steps/step_line.h"

namespace bp::app {
namespace {

class PictureAccess final : public QAccessibleWidget {
  public:
    explicit PictureAccess(Canvas& canvas) : QAccessibleWidget(&canvas, QAccessible::Graphic), canvas_(canvas) {}
    QString text(QAccessible::Text kind) const override {
        return kind == QAccessible::Value ? (canvas_.zoom_button()->text() + canvas_.readout()).simplified()
                                          : QAccessibleWidget::text(kind);
    }

  private:
    Canvas& canvas_;
};

// One frame on the rail. It is known by its place in the run: what stands there is asked for anew every time.
class SlatAccess final : public QAccessibleInterface {
  public:
    SlatAccess(TimeRail& rail, int number) : rail_(&rail), number_(number) {}
    bool isValid() const override { return rail_ && number_ <= rail_->frame_count(); }
    QObject* object() const override { return nullptr; }
    QAccessibleInterface* parent() const override { return QAccessible::queryAccessibleInterface(rail_); }
    QAccessibleInterface* child(int) const override { return nullptr; }
    int childCount() const override { return 0; }
    int indexOfChild(const QAccessibleInterface*) const override { return -1; }
    QAccessibleInterface* childAt(int, int) const override { return nullptr; }
    QString text(QAccessible::Text kind) const override {
        return isValid() && kind == QAccessible::Name ? rail_->words_of(number_) : QString();
    }
    void setText(QAccessible::Text, const QString&) override {}
    QRect rect() const override {
        if (!isValid()) return {};
        const QRect place = rail_->place_of_number(number_).toAlignedRect();
        return {rail_->mapToGlobal(place.topLeft()), place.size()};
    }
    QAccessible::Role role() const override { return QAccessible::ListItem; }
    QAccessible::State state() const override {
        QAccessible::State out;
        out.selectable = true;
        out.selected = isValid() && rail_->is_selected(number_);
        out.focused = isValid() && rail_->hasFocus() && rail_->is_current(number_);
        return out;
    }

  private:
    QPointer<TimeRail> rail_;
    int number_;
};

class RailAccess final : public QAccessibleWidget {
  public:
    explicit RailAccess(TimeRail& rail) : QAccessibleWidget(&rail, QAccessible::List), rail_(rail) {}
    ~RailAccess() override {
        for (const QAccessible::Id id : slats_) QAccessible::deleteAccessibleInterface(id);
    }
    int childCount() const override { return rail_.frame_count(); }
    QAccessibleInterface* child(int index) const override {
        if (index < 0 || index >= childCount()) return nullptr;
        while (int(slats_.size()) <= index)
            slats_.push_back(QAccessible::registerAccessibleInterface(new SlatAccess(rail_, int(slats_.size()) + 1)));
        return QAccessible::accessibleInterface(slats_[std::size_t(index)]);
    }
    int indexOfChild(const QAccessibleInterface* child) const override {
        for (std::size_t i = 0; i < slats_.size(); ++i)
            if (QAccessible::accessibleInterface(slats_[i]) == child) return int(i);
        return -1;
    }
    QAccessibleInterface* childAt(int x, int y) const override {
        for (int i = 0; i < childCount(); ++i)
            if (child(i)->rect().contains(x, y)) return child(i);
        return nullptr;
    }

  private:
    TimeRail& rail_;
    mutable std::vector<QAccessible::Id> slats_;
};

QAccessibleInterface* interface_of(const QString&, QObject* object) {
    if (auto* canvas = qobject_cast<Canvas*>(object)) return new PictureAccess(*canvas);
    if (auto* rail = qobject_cast<TimeRail*>(object)) return new RailAccess(*rail);
    return nullptr;
}

}  // namespace

void install_accessibility() {
    QAccessible::installFactory(interface_of);
}

}  // namespace bp::app
