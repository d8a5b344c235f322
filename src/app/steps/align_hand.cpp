#include "app/steps/align_hand.h"

#include <QButtonGroup>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QSignalBlocker>
#include <cmath>
#include <numbers>

#include "align/moved.h"
#include "app/looks/controls.h"
#include "app/looks/theme.h"
#include "app/work/commands.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

constexpr std::array<double, 3> paces{0.1, 1, 10};  // pixels
constexpr double degrees_a_pixel = 0.01;            // a turn by a pace of one pixel

}  // namespace

AlignHand::AlignHand(Studio& studio, Viewer& viewer, Canvas& canvas, Comparison& comparison, QWidget* parent)
    : Page(parent),
      studio_(studio),
      viewer_(viewer),
      canvas_(canvas),
      comparison_(comparison),
      tool_(studio, viewer, canvas) {
    hint_ = quiet_label({}, this);
    column()->addWidget(hint_);
    all_ = new QWidget(this);
    auto* inside = new QVBoxLayout(all_);
    inside->setContentsMargins(0, 0, 0, 0);
    column()->addWidget(all_);
    build_pad();
    build_numbers();
    auto* row = new QHBoxLayout;
    flicker_ = push(tr("Flicker"), QStringLiteral("flicker"), tr("Shows the frame and the reference in turn"), all_);
    flicker_->setCheckable(true);
    refine_ = push(tr("Refine from here"), QStringLiteral("refine"),
                   tr("Aligns the frame exactly, beginning from where it lies now"), all_);
    row->addWidget(flicker_);
    row->addWidget(refine_, 1);
    inside->addLayout(row);
    connect(flicker_, &QPushButton::toggled, this, &AlignHand::set_flicker);
    connect(refine_, &QPushButton::clicked, this, [this] { studio_.refine(studio_.current()); });
    connect(&studio.document(), &Document::opened, this, [this] { tool_.forget_pivot(); });
    connect(&canvas, &Canvas::tool_left, this, [this] {
        flicker_->setChecked(false);
        if (isVisible()) canvas_.set_tool(nullptr);
    });
}

void AlignHand::build_pad() {
    auto* how_far = new QHBoxLayout;
    auto* group = new QButtonGroup(all_);
    for (const double pace : paces) {
        auto* button = push(tr("%1 px").arg(pace), QStringLiteral("pace_%1").arg(paces_.size()),
                            tr("How far one step moves the frame"), all_);
        button->setCheckable(true);
        button->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
        group->addButton(button);
        how_far->addWidget(button);
        paces_.push_back(button);
    }
    paces_[1]->setChecked(true);
    qobject_cast<QVBoxLayout*>(all_->layout())->addLayout(how_far);
    struct Nudge {
        const char* id;
        double right, down, turns;
    };
    constexpr std::array<Nudge, 6> nudges{{{"nudge_left", -1, 0, 0},
                                           {"nudge_up", 0, -1, 0},
                                           {"nudge_right", 1, 0, 0},
                                           {"turn_left", 0, 0, -1},
                                           {"nudge_down", 0, 1, 0},
                                           {"turn_right", 0, 0, 1}}};
    auto* pad = new QGridLayout;
    for (std::size_t i = 0; i < nudges.size(); ++i) {
        const Nudge& by = nudges[i];
        auto* button = push(command(by.id).name(), QLatin1String(by.id), tip_of(by.id), all_);
        // All of one width, and no wider than the step.
        button->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
        pad->addWidget(button, int(i) / 3, int(i) % 3);
        connect(button, &QPushButton::clicked, this, [this, by] { nudge(by.right, by.down, by.turns); });
    }
    qobject_cast<QVBoxLayout*>(all_->layout())->addLayout(pad);
}

void AlignHand::build_numbers() {
    struct Number {
        QString name, object, tip, unit;
        double most;
        int digits;
        double step;
    };
    const std::array<Number, 4> kinds{{
        {tr("Across"), QStringLiteral("place_right"), tr("How far the middle of the frame lies to the right"),
         tr(" px"), 20000, 2, 1},
        {tr("Down"), QStringLiteral("place_down"), tr("How far the middle of the frame lies further down"), tr(" px"),
         20000, 2, 1},
        {tr("Turn"), QStringLiteral("place_turn"), tr("By how much the frame is turned, with the clock"), tr("°"), 180,
         3, 0.1},
        {tr("Scale"), QStringLiteral("place_scale"), tr("How much larger the frame is laid down"), {}, 10, 5, 0.001},
    }};
    auto* grid = new QGridLayout;
    for (std::size_t i = 0; i < kinds.size(); ++i) {
        const Number& kind = kinds[i];
        auto* box = new QDoubleSpinBox(all_);
        box->setObjectName(kind.object);
        box->setAccessibleName(kind.name);
        box->setToolTip(kind.tip);
        box->setFont(face(type::small));
        box->setDecimals(kind.digits);
        box->setRange(i == 3 ? 0.1 : -kind.most, kind.most);
        box->setSingleStep(kind.step);
        box->setSuffix(kind.unit);
        box->setKeyboardTracking(false);
        box->setButtonSymbols(QAbstractSpinBox::NoButtons);
        box->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
        auto* label = new QLabel(kind.name, all_);
        label->setFont(face(type::small));
        label->setBuddy(box);
        grid->addWidget(label, int(i) / 2, int(i) % 2 * 2);
        grid->addWidget(box, int(i) / 2, int(i) % 2 * 2 + 1);
        numbers_[i] = box;
        connect(box, &QDoubleSpinBox::valueChanged, this, &AlignHand::type_in);
    }
    for (const int column_of_boxes : {1, 3}) grid->setColumnStretch(column_of_boxes, 1);
    qobject_cast<QVBoxLayout*>(all_->layout())->addLayout(grid);
}

const Frame* AlignHand::movable() const {
    const Frame* frame = find_frame(studio_.pile(), studio_.current());
    const bool can = frame && usable(*frame) && frame->id != studio_.pile().reference && frame->role != Role::dark;
    return can ? frame : nullptr;
}

void AlignHand::nudge(double right, double down, double turns) {
    const Pile& pile = studio_.pile();
    const Frame* frame = movable();
    if (!frame) return;
    double pace = 1;
    for (std::size_t i = 0; i < paces.size(); ++i)
        if (paces_[i]->isChecked()) pace = paces[i];
    const double angle = turns * pace * degrees_a_pixel * std::numbers::pi / 180;
    const QString what = turns != 0 ? tr("Turn frame %1").arg(number_of(pile, frame->id))
                                    : tr("Move frame %1").arg(number_of(pile, frame->id));
    studio_.document().edit(
        with_moved_by_hand(pile, frame->id, Matrix::rigid(angle, tool_.pivot(), right * pace, down * pace),
                           studio_.zone()),
        what, QStringLiteral("nudge %1 %2 %3 %4 %5").arg(frame->id).arg(right).arg(down).arg(turns).arg(pace));
}

void AlignHand::type_in() {
    const Pile& pile = studio_.pile();
    const Frame* frame = movable();
    if (!frame) return;
    const MovedBy now = moved_by(frame->places[studio_.zone()].value_or(Alignment{}), pile.size);
    // A number that was not touched stays as exact as it is.
    const auto typed = [](const QDoubleSpinBox& box, double exact) {
        const double shown = std::pow(10.0, -box.decimals());
        return std::abs(box.value() - exact) <= shown * 0.51 ? exact : box.value();
    };
    const MovedBy then{typed(*numbers_[0], now.right_px), typed(*numbers_[1], now.down_px),
                       typed(*numbers_[2], now.turn_degrees), typed(*numbers_[3], now.scale)};
    if (then == now) return;
    studio_.document().edit(with_moved_by_hand(pile, frame->id, change_between(now, then, pile.size), studio_.zone()),
                            tr("Place frame %1").arg(number_of(pile, frame->id)));
}

void AlignHand::set_flicker(bool on) {
    if (on) {
        if (viewer_.view() != View::frame) viewer_.set_view(View::frame);
        comparison_.set_second(Second::reference);
    }
    comparison_.set_on(on);
    canvas_.set_flicker(on);
}

void AlignHand::opened() {
    if (viewer_.of_all() && movable()) viewer_.set_view(View::difference);
    canvas_.set_tool(&tool_);
}

void AlignHand::closed() {
    flicker_->setChecked(false);
    canvas_.set_tool(nullptr);
}

void AlignHand::refresh() {
    const Pile& pile = studio_.pile();
    const Frame* frame = movable();
    all_->setVisible(frame != nullptr);
    hint_->setText(frame ? tr("Frame %1: drag it, turn it by the ring, scale it by the knot. The cross can be moved.")
                               .arg(number_of(pile, frame->id))
                         : tr("Choose a frame that is not the reference."));
    if (!frame) return;
    const auto& place = frame->places[studio_.zone()];
    const MovedBy now = moved_by(place.value_or(Alignment{}), pile.size);
    const std::array<double, 4> values{now.right_px, now.down_px, now.turn_degrees, now.scale};
    const bool under_lens = place && place->lens;
    for (std::size_t i = 0; i < numbers_.size(); ++i) {
        const QSignalBlocker quiet(numbers_[i]);
        numbers_[i]->setValue(values[i]);
        numbers_[i]->setEnabled(i < 2 || !under_lens);
    }
    refine_->setEnabled(!under_lens);
}

}  // namespace bp::app
