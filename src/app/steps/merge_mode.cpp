#include "app/steps/merge_mode.h"

#include <QSignalBlocker>
#include <cmath>

#include "app/looks/pictures.h"
#include "app/looks/words.h"
#include "engine/cover.h"
#include "engine/render.h"
#include "pile/edits.h"

namespace bp::app {

MergeMode::MergeMode(Studio& studio, Viewer& viewer, Canvas& canvas, Comparison& comparison, QWidget* parent)
    : Page(parent), studio_(studio), viewer_(viewer), lane_(this) {
    grid_ = new MiniatureGrid(3, {68, 46}, this);
    for (const ModeEntry& entry : modes()) {
        grid_->add(int(entry.mode), word(entry.mode), what_it_does(entry.mode));
        grid_->button(int(entry.mode))
            ->setObjectName(
                QStringLiteral("mode_%1").arg(QString::fromUtf8(entry.name.data(), qsizetype(entry.name.size()))));
    }
    column()->addWidget(grid_);
    facts_ = quiet_label({}, this);
    column()->addWidget(facts_);
    strength_ = new NamedSlider(
        tr("Strength of the selection"), tr("How much of their light the selected frames give to the picture"), 0, 100,
        [](int v) { return tr("%1%").arg(v); }, this);
    strength_->slider()->setObjectName(QStringLiteral("strength"));
    column()->addWidget(strength_);
    pixels_ = new QCheckBox(tr("Whole pixels, by brightness"), this);
    pixels_->setObjectName(QStringLiteral("whole_pixels"));
    pixels_->setToolTip(
        tr("Every pixel is that of one frame, so stars keep their colour. Off: each channel for itself"));
    column()->addWidget(pixels_);
    soft_white_ = new QCheckBox(tr("Soft at white"), this);
    soft_white_->setObjectName(QStringLiteral("soft_white"));
    soft_white_->setToolTip(
        tr("Light that adds up beyond white is pressed below it, and keeps its shapes. Off: it is plain white"));
    column()->addWidget(soft_white_);
    linear_ = new QCheckBox(tr("Reckon in linear light"), this);
    linear_->setObjectName(QStringLiteral("linear_light"));
    linear_->setToolTip(tr("As light adds up in a camera. Off: the mean of the values as they stand in the files"));
    column()->addWidget(linear_);
    base_ = push(tr("Make this frame the base"), QStringLiteral("make_base"),
                 tr("Parts then lie over the frame that is looked at"), this);
    column()->addWidget(base_);
    noise_ = new MergeNoise(studio, viewer, canvas, comparison, this);
    column()->addWidget(noise_);

    connect(grid_, &MiniatureGrid::chosen, this, [this](int mode) {
        studio_.document().edit(with_mode(studio_.pile(), Mode(mode), studio_.zone()),
                                tr("Merge: %1").arg(within_sentence(word(Mode(mode)))));
        // What a mode makes is not seen on a frame.
        if (viewer_.view() == View::frame || viewer_.view() == View::difference) viewer_.set_view(View::result);
    });
    connect(strength_, &NamedSlider::changed, this,
            [this](int value) { viewer_.try_out(with_strength(studio_.pile(), studio_.selected(), value / 100.0)); });
    connect(strength_, &NamedSlider::settled, this, [this](int value) {
        studio_.document().edit(with_strength(studio_.pile(), studio_.selected(), value / 100.0),
                                tr("Strength %1%").arg(value), QStringLiteral("strength"));
        viewer_.leave_trial();
    });
    connect(strength_, &NamedSlider::left, &viewer_, &Viewer::leave_trial);
    connect(pixels_, &QCheckBox::toggled, this, [this](bool on) {
        studio_.document().edit(with_choice_by(studio_.pile(), on ? By::pixel : By::channel, studio_.zone()),
                                on ? tr("Whole pixels") : tr("Channels"));
    });
    connect(soft_white_, &QCheckBox::clicked, this, [this](bool on) {
        studio_.document().edit(with_soft_white(studio_.pile(), on, studio_.zone()),
                                on ? tr("Soft at white") : tr("Hard at white"));
    });
    connect(linear_, &QCheckBox::toggled, this, [this](bool on) {
        Pile next = studio_.pile();
        next.light = on ? Light::linear : Light::encoded;
        studio_.document().edit(std::move(next), on ? tr("Linear light") : tr("Values as they stand"));
    });
    connect(base_, &QPushButton::clicked, this, [this] {
        studio_.document().edit(with_base(studio_.pile(), studio_.current()),
                                tr("Base: frame %1").arg(number_of(studio_.pile(), studio_.current())));
    });
    connect(&studio.document(), &Document::changed, this, &MergeMode::out_of_date);
    connect(&studio, &Studio::selection_changed, this, &MergeMode::out_of_date);
    connect(&studio, &Studio::zone_changed, this, &MergeMode::out_of_date);
    connect(&lane_, &Lane::failed, this, [this] { made_of_.forget(); });
    connect(&studio.thumbnails(), &Thumbnails::finished, this, &MergeMode::render_miniatures);
}

void MergeMode::refresh() {
    const Pile& pile = studio_.pile();
    const Mode mode = method_of(pile, studio_.zone()).mode;
    grid_->set_chosen(int(mode));
    facts_->setText(merged_ids(pile).empty() ? tr("No frame is left to merge.") : what_it_does(mode));
    const Frame* frame = find_frame(pile, studio_.current());
    strength_->setVisible(entry_of(mode).uses_strength);
    if (frame && !strength_->slider()->isSliderDown()) strength_->set_value(int(std::lround(frame->strength * 100)));
    const QSignalBlocker quiet_pixels(pixels_);
    pixels_->setChecked(method_of(pile, studio_.zone()).by == By::pixel);
    pixels_->setVisible(entry_of(mode).chooses_pixels() && pile.channels == 3);
    soft_white_->setChecked(method_of(pile, studio_.zone()).soft_white);
    soft_white_->setVisible(mode == Mode::add);
    const QSignalBlocker quiet(linear_);
    linear_->setChecked(pile.light == Light::linear);
    linear_->setVisible(entry_of(mode).uses_light);
    base_->setVisible(mode == Mode::one);
    base_->setEnabled(frame && shows_something(*frame) && frame->id != pile.base);
    noise_->refresh();
    if (isVisible()) render_miniatures();
}

void MergeMode::render_miniatures() {
    if (!studio_.document().open() || !studio_.thumbnails().complete() || !isVisible()) return;
    const Pile now = studio_.pile();
    // There is one of every mode: which of them is chosen changes none.
    if (!made_of_.another(with_mode(now, Mode::lighten, studio_.zone()), studio_.zone())) return;
    const auto store = studio_.stores().frames();
    const auto bases = studio_.stores().bases();
    const int level = studio_.thumbnails().level();
    using Images = std::map<Mode, QImage>;
    lane_.run<Images>(
        [now, store, bases, level, of = studio_.zone()](Job& job) {
            Images out;
            for (const ModeEntry& entry : modes()) {
                const Pile pile = with_mode(now, entry.mode, of);
                const Rect region = at_level(output_area(pile), level);
                const Result<Raster16> picture = bp::render(pile, *store, region, level, job, bases.get());
                if (picture.ok()) out[entry.mode] = to_image(picture.value(), pile.profile);
            }
            return out;
        },
        [this](const Images& images) {
            if (images.size() < modes().size()) made_of_.forget();
            for (const auto& [mode, image] : images) grid_->set_picture(int(mode), image);
        });
}

}  // namespace bp::app
