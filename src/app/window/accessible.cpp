#include "app/window/accessible.h"

#include <QAbstractButton>
#include <QAbstractItemView>
#include <QAccessible>
#include <QAccessibleWidget>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QRadioButton>
#include <QScrollArea>
#include <QToolButton>
#include <memory>
#include <vector>

#include "app/canvas/canvas.h"
#include "app/rail/time_rail.h"
#include "app/steps/step_line.h"
#include "app/window/notices.h"

namespace bp::app {
namespace {

class PictureAccess final : public QAccessibleWidget {
  public:
    explicit PictureAccess(Canvas& canvas) : QAccessibleWidget(&canvas, QAccessible::Graphic), canvas_(canvas) {}
    // What is under the mark belongs to the name: it is what aids read out.
    QString text(QAccessible::Text kind) const override {
        QString value = (canvas_.zoom_button()->text() + canvas_.readout()).simplified();
        if (kind == QAccessible::Value) return value;
        const QString own = QAccessibleWidget::text(kind);
        return kind == QAccessible::Name ? own + QStringLiteral(", ") + value : own;
    }

  private:
    Canvas& canvas_;
};

// One frame on the rail. It is known by its place in the run: what stands there is asked for anew every time.
class SlatAccess final : public QAccessibleInterface, public QAccessibleActionInterface {
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
    void* interface_cast(QAccessible::InterfaceType type) override {
        return type == QAccessible::ActionInterface ? static_cast<QAccessibleActionInterface*>(this) : nullptr;
    }
    QStringList actionNames() const override { return {pressAction()}; }
    void doAction(const QString& name) override {
        if (isValid() && name == pressAction()) rail_->press(number_);
    }
    QStringList keyBindingsForAction(const QString&) const override { return {}; }

  private:
    QPointer<TimeRail> rail_;
    int number_;
};

// What the program says. That it comes is told to aids, which read out what is such a message wherever the focus is.
class SentenceAccess final : public QAccessibleWidget {
  public:
    explicit SentenceAccess(QLabel& words) : QAccessibleWidget(&words, QAccessible::AlertMessage), words_(words) {}
    QString text(QAccessible::Text kind) const override {
        return kind == QAccessible::Name ? words_.text() : QAccessibleWidget::text(kind);
    }

  private:
    QLabel& words_;
};

// What scrolls. The toolkit's own (Qt 6.4) ends the program where an aid asks for a scroll bar that was there a moment
// ago: this one gives its children as any widget does.
class ScrollAccess final : public QAccessibleWidget {
  public:
    explicit ScrollAccess(QScrollArea& area) : QAccessibleWidget(&area, QAccessible::Client) {}
};

// A button. The toolkit turns over one that stays down for aids without a click, of which nothing comes.
class ButtonAccess final : public QAccessibleWidget {
  public:
    explicit ButtonAccess(QAbstractButton& button) : QAccessibleWidget(&button, QAccessible::Button), button_(button) {}
    QAccessible::Role role() const override {
        if (qobject_cast<QRadioButton*>(&button_)) return QAccessible::RadioButton;
        if (button_.isCheckable()) return QAccessible::CheckBox;
        return opens_menu() ? QAccessible::ButtonMenu : QAccessible::Button;
    }
    QString text(QAccessible::Text kind) const override {
        if (kind != QAccessible::Name || !button_.accessibleName().isEmpty()) return QAccessibleWidget::text(kind);
        QString words = button_.text();
        return words.remove(QLatin1Char('&'));
    }
    QAccessible::State state() const override {
        QAccessible::State out = QAccessibleWidget::state();
        out.checkable = button_.isCheckable();
        out.checked = button_.isChecked();
        out.pressed = button_.isDown();
        out.hasPopup = opens_menu();
        if (const auto* push = qobject_cast<QPushButton*>(&button_)) out.defaultButton = push->isDefault();
        return out;
    }
    QStringList actionNames() const override {
        const QStringList others = QAccessibleWidget::actionNames();
        return button_.isEnabled() ? QStringList{own_action()} + others : others;
    }
    // Later: a dialog may come of it, and who asks is not to wait for its end.
    void doAction(const QString& name) override {
        if (name != own_action() || !button_.isEnabled()) return QAccessibleWidget::doAction(name);
        if (auto* tool = qobject_cast<QToolButton*>(&button_); tool && opens_menu())
            QMetaObject::invokeMethod(tool, &QToolButton::showMenu, Qt::QueuedConnection);
        else
            QMetaObject::invokeMethod(&button_, &QAbstractButton::click, Qt::QueuedConnection);
    }

  private:
    bool opens_menu() const {
        if (const auto* push = qobject_cast<QPushButton*>(&button_)) return push->menu() != nullptr;
        const auto* tool = qobject_cast<QToolButton*>(&button_);
        return tool && tool->menu() && tool->popupMode() == QToolButton::InstantPopup;
    }
    QString own_action() const {
        return button_.isCheckable() ? toggleAction() : opens_menu() ? showMenuAction() : pressAction();
    }

    QAbstractButton& button_;
};

// A box of choices. The toolkit's own on this system tells what is chosen in place of the name.
class ChoiceAccess final : public QAccessibleWidget {
  public:
    explicit ChoiceAccess(QComboBox& box) : QAccessibleWidget(&box, QAccessible::ComboBox), box_(box) {}
    // Both are read out.
    QString text(QAccessible::Text kind) const override {
        if (kind == QAccessible::Value) return box_.currentText();
        const QString own = QAccessibleWidget::text(kind);
        if (kind != QAccessible::Name) return own;
        return own.isEmpty() ? box_.currentText() : own + QStringLiteral(", ") + box_.currentText();
    }
    QAccessible::State state() const override {
        QAccessible::State out = QAccessibleWidget::state();
        out.expandable = out.hasPopup = true;
        out.expanded = box_.view()->isVisible();
        out.editable = box_.isEditable();
        return out;
    }
    int childCount() const override { return box_.isEditable() ? 2 : 1; }
    QAccessibleInterface* child(int index) const override {
        if (index == 0) return QAccessible::queryAccessibleInterface(box_.view());
        return index == 1 && box_.isEditable() ? QAccessible::queryAccessibleInterface(box_.lineEdit()) : nullptr;
    }
    int indexOfChild(const QAccessibleInterface* child) const override {
        if (!child) return -1;
        if (child->object() == box_.view()) return 0;
        return box_.isEditable() && child->object() == box_.lineEdit() ? 1 : -1;
    }
    QStringList actionNames() const override {
        const QStringList others = QAccessibleWidget::actionNames();
        return box_.isEnabled() ? QStringList{showMenuAction()} + others : others;
    }
    void doAction(const QString& name) override {
        if (name != showMenuAction() || !box_.isEnabled()) return QAccessibleWidget::doAction(name);
        if (box_.view()->isVisible())
            QMetaObject::invokeMethod(&box_, &QComboBox::hidePopup, Qt::QueuedConnection);
        else
            QMetaObject::invokeMethod(&box_, &QComboBox::showPopup, Qt::QueuedConnection);
    }

  private:
    QComboBox& box_;
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
    if (auto* area = qobject_cast<QScrollArea*>(object)) return new ScrollAccess(*area);
    if (auto* button = qobject_cast<QAbstractButton*>(object)) return new ButtonAccess(*button);
    if (auto* box = qobject_cast<QComboBox*>(object)) return new ChoiceAccess(*box);
    auto* label = qobject_cast<QLabel*>(object);
    if (label && Notices::is_sentence(*label)) return new SentenceAccess(*label);
    return nullptr;
}

}  // namespace

void install_accessibility() {
    QAccessible::installFactory(interface_of);
}

}  // namespace bp::app
