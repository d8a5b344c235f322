#include "app/controls.h"

#include <QHBoxLayout>
#include <QSignalBlocker>

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

NamedSlider::NamedSlider(const QString& name, const QString& tip, int low, int high, std::function<QString(int)> words,
                         QWidget* parent)
    : QWidget(parent), slider_(new QSlider(Qt::Horizontal, this)), value_(new QLabel(this)), words_(std::move(words)) {
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
