#include "app/steps/merge_head.h"

#include <QVBoxLayout>
#include <cmath>

#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

constexpr double px_a_position = 0.5;

}  // namespace

MergeHead::MergeHead(Studio& studio, Viewer& viewer, QWidget* parent)
    : QWidget(parent), studio_(studio), viewer_(viewer) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, space::small, 0, 0);
    column->setSpacing(space::small);
    on_ = new QCheckBox(tr("Head stands out"), this);
    on_->setObjectName(QStringLiteral("head"));
    on_->setToolTip(tr("The end of the trails that does not fade is shown at full strength, apart from the tail"));
    column->addWidget(on_);
    frames_ = add_slider(
        tr("Frames"), tr("How many frames at the end of the run are the head"), "head_frames", 1, Head::most_frames,
        [](int n) { return QString::number(n); }, [](Head& head, int n) { head.frames = n; });
    apart_ = add_slider(
        tr("Apart from the tail"), tr("How many frames between head and tail are left out"), "head_apart", 0,
        Head::most_apart, [](int n) { return tr("%n frames", nullptr, n); }, [](Head& head, int n) { head.apart = n; });
    radius_ = add_slider(
        tr("Grown and softened"), tr("How far the light of the head's frames spreads around every light"),
        "head_radius", 0, int(Softening::widest_px / px_a_position),
        [](int n) { return tr("%1 px").arg(number_in_words(n * px_a_position, 1)); },
        [](Head& head, int n) { head.softening.radius_px = n * px_a_position; });
    bright_ = new QCheckBox(tr("As bright as before"), this);
    bright_->setObjectName(QStringLiteral("head_bright"));
    bright_->setToolTip(
        tr("Points of light are raised so that their middles stay bright though they grow. "
           "Without it their light is spread out and they grow dimmer"));
    column->addWidget(bright_);
    connect(on_, &QCheckBox::clicked, this, [this](bool on) {
        Head next = head();
        next.on = on;
        settle(next, on ? tr("Head stands out") : tr("No head"));
    });
    connect(bright_, &QCheckBox::clicked, this, [this](bool on) {
        Head next = head();
        next.softening.as_bright = on;
        settle(next, on ? tr("Head as bright as before") : tr("Head spread out"));
    });
}

NamedSlider* MergeHead::add_slider(const QString& name, const QString& tip, const char* object, int low, int high,
                                   const std::function<QString(int)>& words, void (*set)(Head&, int)) {
    auto* out = new NamedSlider(name, tip, low, high, words, this);
    out->slider()->setObjectName(QString::fromUtf8(object));
    layout()->addWidget(out);
    const auto with = [this, set](int value) {
        Head next = head();
        set(next, value);
        return next;
    };
    connect(out, &NamedSlider::changed, this,
            [this, with](int value) { viewer_.try_out(with_head(studio_.pile(), with(value), studio_.zone())); });
    connect(out, &NamedSlider::settled, this, [this, with, name, words, object](int value) {
        settle(with(value), tr("Head: %1 %2").arg(within_sentence(name), words(value)), QString::fromUtf8(object));
    });
    connect(out, &NamedSlider::left, &viewer_, &Viewer::leave_trial);
    return out;
}

Head MergeHead::head() const {
    return method_of(studio_.pile(), studio_.zone()).head;
}

void MergeHead::settle(const Head& head, const QString& what, const QString& kind) {
    studio_.document().edit(with_head(studio_.pile(), head, studio_.zone()), what, kind);
    viewer_.leave_trial();
}

void MergeHead::show_head(const Head& head) {
    const auto show = [](NamedSlider* slider, int value) {
        if (!slider->slider()->isSliderDown()) slider->set_value(value);
    };
    show(frames_, head.frames);
    show(apart_, head.apart);
    show(radius_, int(std::lround(head.softening.radius_px / px_a_position)));
    bright_->setChecked(head.softening.as_bright);
    bright_->setEnabled(head.softening.radius_px > 0);
}

void MergeHead::refresh() {
    const Method& method = method_of(studio_.pile(), studio_.zone());
    const bool counts = entry_of(method.mode).uses_strength;
    const bool shown = counts && method.head.on;
    on_->setEnabled(counts || method.head.on);
    on_->setChecked(method.head.on);
    for (NamedSlider* slider : {frames_, apart_, radius_}) slider->setVisible(shown);
    bright_->setVisible(shown);
    show_head(method.head);
}

}  // namespace bp::app
