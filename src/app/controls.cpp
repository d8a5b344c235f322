#include "app/controls.h"

#include <QHBoxLayout>
#include <QPainter>
#include <QSignalBlocker>
#include <QStyleOptionSlider>
#include <algorithm>

#include "app/theme.h"

namespace bp::app {

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
    return button;
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
    slider_->setRange(low, high);
    slider_->setToolTip(tip);
    slider_->setAccessibleName(name);
    slider_->setAccessibleDescription(tip);
    connect(slider_, &QSlider::valueChanged, this, [this](int value) {
        show_value();
        emit changed(value);
        if (!slider_->isSliderDown()) emit settled(value);
    });
    connect(slider_, &QSlider::sliderReleased, this, [this] { emit settled(slider_->value()); });
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
