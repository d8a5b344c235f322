#include "app/panels/place_numbers.h"

#include <QGridLayout>
#include <QLabel>
#include <QSignalBlocker>
#include <cmath>

#include "app/looks/theme.h"

namespace bp::app {

PlaceNumbers::PlaceNumbers(const QString& object, const QString& what, QWidget* parent) : QWidget(parent) {
    struct Number {
        QString name, object, tip, unit;
        double most;
        int digits;
        double step;
    };
    const std::array<Number, 4> kinds{{
        {tr("Across"), QStringLiteral("_right"), tr("How far the middle of %1 lies to the right"), tr(" px"), 20000, 2,
         1},
        {tr("Down"), QStringLiteral("_down"), tr("How far the middle of %1 lies further down"), tr(" px"), 20000, 2, 1},
        {tr("Turn"), QStringLiteral("_turn"), tr("By how much %1 is turned, with the clock"), tr("°"), 180, 3, 0.1},
        {tr("Scale"), QStringLiteral("_scale"), tr("How much larger %1 is laid down"), {}, 10, 5, 0.001},
    }};
    auto* grid = new QGridLayout(this);
    grid->setContentsMargins(0, 0, 0, 0);
    for (std::size_t i = 0; i < kinds.size(); ++i) {
        const Number& kind = kinds[i];
        auto* box = new QDoubleSpinBox(this);
        box->setObjectName(object + kind.object);
        box->setAccessibleName(kind.name);
        box->setToolTip(kind.tip.arg(what));
        box->setFont(face(type::small));
        box->setDecimals(kind.digits);
        box->setRange(i == 3 ? 0.1 : -kind.most, kind.most);
        box->setSingleStep(kind.step);
        box->setSuffix(kind.unit);
        box->setKeyboardTracking(false);
        box->setButtonSymbols(QAbstractSpinBox::NoButtons);
        box->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
        auto* label = new QLabel(kind.name, this);
        label->setFont(face(type::small));
        label->setBuddy(box);
        // Above its box: beside it there is no room for five digits.
        grid->addWidget(label, int(i) / 2 * 2, int(i) % 2);
        grid->addWidget(box, int(i) / 2 * 2 + 1, int(i) % 2);
        numbers_[i] = box;
        connect(box, &QDoubleSpinBox::valueChanged, this, &PlaceNumbers::type_in);
    }
    for (const int half : {0, 1}) grid->setColumnStretch(half, 1);
}

void PlaceNumbers::set(const MovedBy& now, bool moves_alone) {
    now_ = now;
    const std::array<double, 4> values{now.right_px, now.down_px, now.turn_degrees, now.scale};
    for (std::size_t i = 0; i < numbers_.size(); ++i) {
        const QSignalBlocker quiet(numbers_[i]);
        numbers_[i]->setValue(values[i]);
        numbers_[i]->setEnabled(i < 2 || !moves_alone);
    }
}

void PlaceNumbers::type_in() {
    const auto typed_in = [](const QDoubleSpinBox& box, double exact) {
        const double shown = std::pow(10.0, -box.decimals());
        return std::abs(box.value() - exact) <= shown * 0.51 ? exact : box.value();
    };
    const MovedBy then{typed_in(*numbers_[0], now_.right_px), typed_in(*numbers_[1], now_.down_px),
                       typed_in(*numbers_[2], now_.turn_degrees), typed_in(*numbers_[3], now_.scale)};
    if (then != now_) emit typed(then);
}

}  // namespace bp::app
