#include "app/steps/align_hand.h"

#include <QButtonGroup>
#include <QGridLayout>
#include <QHBoxLayout>
#include <cmath>
#include <numbers>

#include "align/moved.h"
#include "app/looks/controls.h"
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
      subject_(studio, viewer),
      tool_(studio, viewer, canvas, subject_) {
    hint_ = quiet_label({}, this);
    column()->addWidget(hint_);
    all_ = new QWidget(this);
    auto* inside = new QVBoxLayout(all_);
    inside->setContentsMargins(0, 0, 0, 0);
    column()->addWidget(all_);
    build_pad();
    numbers_ = new PlaceNumbers(QStringLiteral("place"), tr("the frame"), all_);
    inside->addWidget(numbers_);
    connect(numbers_, &PlaceNumbers::typed, this, &AlignHand::type_in);
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

bool PlacedFrame::works() const {
    const Pile& pile = studio_.pile();
    const Frame* frame = find_frame(pile, studio_.current());
    return !viewer_.of_all() && frame && usable(*frame) && frame->id != pile.reference && frame->role != Role::dark;
}

Point PlacedFrame::pivot() const {
    const Size size = studio_.pile().size;
    return pivot_snap().value_or(Point{(size.width - 1) / 2.0, (size.height - 1) / 2.0});
}

std::optional<Point> PlacedFrame::pivot_snap() const {
    return pole_in(studio_.pile());
}

Pile PlacedFrame::moved(const Matrix& change) const {
    return with_moved_by_hand(studio_.pile(), studio_.current(), change, studio_.zone());
}

QString PlacedFrame::words(Way way) const {
    const QString what = way == Way::turn    ? QObject::tr("Turn frame %1")
                         : way == Way::scale ? QObject::tr("Scale frame %1")
                                             : QObject::tr("Move frame %1");
    return what.arg(number_of(studio_.pile(), studio_.current()));
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

void AlignHand::type_in(const MovedBy& then) {
    const Pile& pile = studio_.pile();
    const Frame* frame = movable();
    if (!frame) return;
    const MovedBy now = moved_by(frame->places[studio_.zone()].value_or(Alignment{}), pile.size);
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
    const bool under_lens = place && place->lens;
    numbers_->set(moved_by(place.value_or(Alignment{}), pile.size), under_lens);
    refine_->setEnabled(!under_lens);
}

}  // namespace bp::app
