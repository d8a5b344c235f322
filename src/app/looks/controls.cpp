#include "app/looks/controls.h"

#include <QComboBox>
#include <QCoreApplication>
#include <QHBoxLayout>
#include <QMouseEvent>
#include <QPainter>
#include <QPointer>
#include <QScrollArea>
#include <QScrollBar>
#include <QSignalBlocker>
#include <QStyleOptionSlider>
#include <algorithm>
#include <vector>

#include "app/looks/theme.h"

namespace bp::app {

namespace {

void collect(QLayout& layout, std::vector<QWidget*>& out);

void collect(QWidget& widget, std::vector<QWidget*>& out) {
    if (widget.focusPolicy() & Qt::TabFocus) out.push_back(&widget);
    if (auto* scroll = qobject_cast<QScrollArea*>(&widget)) {
        if (scroll->widget()) collect(*scroll->widget(), out);
    } else if (widget.layout()) {
        collect(*widget.layout(), out);
    }
}

void collect(QLayout& layout, std::vector<QWidget*>& out) {
    for (int i = 0; i < layout.count(); ++i) {
        QLayoutItem* item = layout.itemAt(i);
        if (item->widget())
            collect(*item->widget(), out);
        else if (item->layout())
            collect(*item->layout(), out);
    }
}

bool has_a_value(const QObject* object) {
    return qobject_cast<const QSlider*>(object) || qobject_cast<const QAbstractSpinBox*>(object) ||
           qobject_cast<const QComboBox*>(object);
}

class WheelGuard final : public QObject {
  public:
    using QObject::QObject;
    bool eventFilter(QObject* watched, QEvent* event) override {
        if (event->type() != QEvent::Wheel || !has_a_value(watched)) return false;
        if (static_cast<QWidget*>(watched)->hasFocus()) return false;
        // It goes to what lies around the control.
        for (auto* around = static_cast<QWidget*>(watched)->parentWidget(); around; around = around->parentWidget())
            if (auto* scroll = qobject_cast<QScrollArea*>(around);
                scroll && scroll->verticalScrollBar()->maximum() > 0) {
                QCoreApplication::sendEvent(scroll->verticalScrollBar(), event);
                break;
            }
        event->accept();
        return true;
    }
};

}  // namespace

void order_tabs(QWidget& root) {
    std::vector<QWidget*> chain;
    collect(root, chain);
    for (std::size_t i = 1; i < chain.size(); ++i) QWidget::setTabOrder(chain[i - 1], chain[i]);
}

void guard_wheel(QObject& application) {
    application.installEventFilter(new WheelGuard(&application));
}

QRectF as_read(const QWidget& of, const QRectF& place) {
    if (of.layoutDirection() == Qt::LeftToRight) return place;
    return {of.width() - place.right(), place.top(), place.width(), place.height()};
}

Qt::Alignment beginning(const QWidget& of) {
    return of.layoutDirection() == Qt::LeftToRight ? Qt::AlignLeft : Qt::AlignRight;
}

void let_go(QWidget* widget) {
    if (!widget) return;
    widget->setParent(nullptr);
    widget->deleteLater();
}

QLabel* heading(const QString& text, QWidget* parent) {
    auto* label = new QLabel(text, parent);
    label->setFont(face(type::body, QFont::DemiBold));
    return label;
}

QLabel* quiet_label(const QString& text, QWidget* parent) {
    auto* label = new QLabel(text, parent);
    label->setProperty("quiet", true);
    label->setWordWrap(true);
    return label;
}

QPushButton* push(const QString& text, const QString& name, const QString& tip, QWidget* parent) {
    auto* button = new QPushButton(text, parent);
    button->setObjectName(name);
    button->setToolTip(tip);
    button->setAccessibleName(text);
    button->setAccessibleDescription(tip);
    // A click leaves the keys where they were; by Tab it can be reached.
    button->setFocusPolicy(Qt::TabFocus);
    return button;
}

QComboBox* choice(const QString& name, const QString& words, const QString& tip, QWidget* parent) {
    auto* box = new QComboBox(parent);
    box->setObjectName(name);
    box->setAccessibleName(words);
    box->setToolTip(tip);
    box->setFocusPolicy(Qt::TabFocus);
    return box;
}

QPushButton* lamp_push(const QString& text, const QString& name, const QString& tip, QWidget* parent) {
    QPushButton* button = push(text, name, tip, parent);
    button->setProperty("lamp", true);
    return button;
}

namespace {

// Filled from nothing to where it stands, when it goes both ways.
class FilledSlider final : public QSlider {
  public:
    explicit FilledSlider(QWidget* parent) : QSlider(Qt::Horizontal, parent) {}

  protected:
    void sliderChange(SliderChange change) override {
        if (change == SliderRangeChange) {
            both_ways_ = minimum() < 0 && maximum() > 0;
            // The style leaves out its own fill then.
            setProperty("both_ways", both_ways_);
            style()->polish(this);
        }
        QSlider::sliderChange(change);
    }
    void paintEvent(QPaintEvent* event) override {
        QSlider::paintEvent(event);
        if (!both_ways_ || !isEnabled()) return;
        QStyleOptionSlider option;
        initStyleOption(&option);
        const QRect groove = style()->subControlRect(QStyle::CC_Slider, &option, QStyle::SC_SliderGroove, this);
        const QRect handle = style()->subControlRect(QStyle::CC_Slider, &option, QStyle::SC_SliderHandle, this);
        const int room = groove.width() - handle.width();
        const int nothing = groove.left() + handle.width() / 2 +
                            QStyle::sliderPositionFromValue(minimum(), maximum(), 0, room, option.upsideDown);
        QPainter painter(this);
        constexpr int thick = 3;
        const int top = handle.center().y() - thick / 2;
        const int from = std::min(nothing, handle.right() + 1);
        const int to = std::max(nothing, handle.left());
        const bool apart = nothing < handle.left() || nothing > handle.right();
        if (apart) painter.fillRect(from, top, to - from, thick, theme().amber);
        painter.fillRect(nothing, top - 2, 1, thick + 4, theme().quiet);
    }

  private:
    bool both_ways_ = false;
};

}  // namespace

namespace {

QPointer<NamedSlider> in_hand;

}  // namespace

bool NamedSlider::leave_drag() {
    if (!in_hand) return false;
    NamedSlider& self = *in_hand;
    in_hand = nullptr;
    {
        const QSignalBlocker quiet(self.slider_);
        // The slider itself goes on until the button is let go: let it think that it was.
        const QPointF at = self.slider_->rect().center();
        QMouseEvent release(QEvent::MouseButtonRelease, at, self.slider_->mapToGlobal(at), Qt::LeftButton, Qt::NoButton,
                            Qt::NoModifier);
        QCoreApplication::sendEvent(self.slider_, &release);
        self.slider_->setValue(self.before_);
    }
    self.show_value();
    emit self.left();
    return true;
}

NamedSlider::NamedSlider(const QString& name, const QString& tip, int low, int high, std::function<QString(int)> words,
                         QWidget* parent)
    : QWidget(parent), slider_(new FilledSlider(this)), value_(new QLabel(this)), words_(std::move(words)) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(2);
    auto* row = new QHBoxLayout;
    auto* label = new QLabel(name, this);
    label->setBuddy(slider_);
    value_->setProperty("quiet", true);
    row->addWidget(label);
    row->addStretch();
    row->addWidget(value_);
    column->addLayout(row);
    column->addWidget(slider_);
    slider_->setLayoutDirection(Qt::LeftToRight);  // From less to more, in every language.
    slider_->setRange(low, high);
    slider_->setToolTip(tip);
    slider_->setAccessibleName(name);
    slider_->setAccessibleDescription(tip);
    slider_->setFocusPolicy(Qt::StrongFocus);
    connect(slider_, &QSlider::sliderPressed, this, [this] {
        before_ = slider_->value();
        in_hand = this;
    });
    connect(slider_, &QSlider::valueChanged, this, [this](int value) {
        show_value();
        emit changed(value);
        if (!slider_->isSliderDown()) emit settled(value);
    });
    connect(slider_, &QSlider::sliderReleased, this, [this] {
        in_hand = nullptr;
        emit settled(slider_->value());
    });
    show_value();
}

void NamedSlider::set_value(int value) {
    const QSignalBlocker quiet(slider_);
    slider_->setValue(value);
    show_value();
}

void NamedSlider::show_value() {
    value_->setText(words_(slider_->value()));
}

SecondsBox::SecondsBox(const QString& object, const QString& words, double most, QWidget* parent)
    : QDoubleSpinBox(parent) {
    constexpr double least = 0.00001;
    constexpr int digits = 5;
    setObjectName(object);
    setAccessibleName(words);
    setDecimals(digits);
    setRange(least, most);
    setSuffix(tr(" s"));
}

QString SecondsBox::textFromValue(double value) const {
    return locale().toString(value, 'g', decimals());
}

}  // namespace bp::app
