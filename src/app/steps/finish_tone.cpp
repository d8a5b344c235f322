#include "app/steps/finish_tone.h"

#include <QButtonGroup>
#include <QHBoxLayout>

#include "app/steps/neutral_pick.h"
#include "engine/cover.h"
#include "engine/render.h"
#include "even/tone.h"
#include "pile/finish_edits.h"

namespace bp::app {

void TonesOfPicture::look() {
    if (!studio_.document().open() || !studio_.thumbnails().complete()) return;
    lane_.run<Result<std::vector<float>>>(
        [pile = studio_.pile(), store = studio_.stores().frames(), bases = studio_.stores().bases(),
         level = std::max(studio_.thumbnails().level(), 0)](Job& job) -> Result<std::vector<float>> {
            const Rect region = at_level(seen_area(pile), level);
            const Result<Raster16> picture = composed(pile, *store, region, level, job, bases.get());
            if (!picture.ok()) return picture.failure();
            return tone_shares(picture.value(), LightCurve::of(pile.profile, pile.channels));
        },
        [this](const Result<std::vector<float>>& shares) {
            if (shares.ok()) emit seen(shares.value());
        });
}

FinishTone::FinishTone(Studio& studio, Viewer& viewer, Canvas& canvas, QWidget* parent)
    : Page(parent), studio_(studio), viewer_(viewer), canvas_(canvas), tones_(studio, this) {
    tone_ = new TonePanel(this, QStringLiteral("finish_look"));
    column()->addWidget(tone_);
    clipping_ = new QCheckBox(tr("Show what is clipped"), this);
    clipping_->setObjectName(QStringLiteral("finish_clipping"));
    clipping_->setToolTip(tr("Hatches what is white or black in any channel of the finished picture"));
    column()->addWidget(clipping_);
    reset_ = push(tr("No tone"), QStringLiteral("finish_look_reset"),
                  tr("Takes tone and colour back to as the frames and parts have them"), this);
    column()->addWidget(reset_);
    connect(tone_, &TonePanel::tried, this,
            [this](const Look& look) { viewer_.try_out(with_finish_look(studio_.pile(), look)); });
    connect(tone_, &TonePanel::settled, this, [this](const Look& look, const QString& value) {
        studio_.document().edit(with_finish_look(studio_.pile(), look), tr("%1 of the picture").arg(value),
                                QStringLiteral("finish look ") + value);
        // An edit that changed nothing leaves what was tried.
        viewer_.leave_trial();
    });
    connect(tone_, &TonePanel::left, this, [this] {
        viewer_.leave_trial();
        refresh();
    });
    connect(tone_, &TonePanel::knot_held, this,
            [this](bool held) { canvas_.set_show_clipping(held || clipping_->isChecked()); });
    connect(clipping_, &QCheckBox::toggled, &canvas_, &Canvas::set_show_clipping);
    connect(reset_, &QPushButton::clicked, this,
            [this] { studio_.document().edit(with_finish_look(studio_.pile(), {}), tr("No tone")); });
    auto* neutral = new NeutralPick(
        studio, canvas, tone_->neutral_button(),
        [this]() -> NeutralPick::Render {
            return [pile = studio_.pile()](FrameStore& store, const Rect& area, Job& job) {
                return composed(pile, store, area, 0, job);
            };
        },
        this);
    connect(neutral, &NeutralPick::picked, this, [this](const std::array<double, 3>& light) {
        studio_.document().edit(with_finish_look(studio_.pile(), neutral_for(studio_.pile().finish.look, light)),
                                tr("Grey of the picture"));
    });
    connect(&tones_, &TonesOfPicture::seen, tone_, &TonePanel::set_distribution);
    connect(&studio.document(), &Document::changed, this, &FinishTone::out_of_date);
}

void FinishTone::opened() {
    tones_.look();
    canvas_.set_show_clipping(clipping_->isChecked());
}

void FinishTone::closed() {
    tone_->neutral_button()->setChecked(false);
    canvas_.set_show_clipping(false);
    viewer_.leave_trial();
}

void FinishTone::refresh() {
    const Pile& pile = studio_.pile();
    tone_->set_coloured(pile.channels == 3);
    tone_->set_look(pile.finish.look);
    reset_->setEnabled(pile.finish.look != Look{});
}

FinishCurve::FinishCurve(Studio& studio, Viewer& viewer, QWidget* parent)
    : Page(parent), studio_(studio), viewer_(viewer), tones_(studio, this) {
    auto* row = new QHBoxLayout;
    row->setSpacing(space::small / 2);
    auto* group = new QButtonGroup(this);
    struct Channel {
        QString name, object;
        Curve Curves::*curve;
        QString tip;
    };
    const QString of_one = tr("Shows the curve of this channel, which comes after that of brightness");
    for (const Channel& channel : {Channel{tr("All"), QStringLiteral("curve_brightness"), &Curves::brightness,
                                           tr("Shows the curve of brightness, that all channels go through")},
                                   Channel{tr("Red"), QStringLiteral("curve_red"), &Curves::red, of_one},
                                   Channel{tr("Green"), QStringLiteral("curve_green"), &Curves::green, of_one},
                                   Channel{tr("Blue"), QStringLiteral("curve_blue"), &Curves::blue, of_one}}) {
        auto* button = push(channel.name, channel.object, channel.tip, this);
        button->setCheckable(true);
        button->setProperty("tab", true);
        button->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
        group->addButton(button);
        row->addWidget(button);
        channels_.push_back(button);
        connect(button, &QPushButton::clicked, this, [this, curve = channel.curve] {
            shown_ = curve;
            refresh();
        });
    }
    channels_.front()->setChecked(true);
    column()->addLayout(row);
    pad_ = new CurvePad(this);
    column()->addWidget(pad_);
    reset_ = push(tr("Straight"), QStringLiteral("curve_reset"), tr("Takes all points of this curve away"), this);
    column()->addWidget(reset_, 0, Qt::AlignRight);
    connect(pad_, &CurvePad::tried, this, [this](const Curve& curve) { viewer_.try_out(with_shown(curve)); });
    connect(pad_, &CurvePad::settled, this, [this](const Curve& curve) {
        studio_.document().edit(with_shown(curve), tr("Curve"));
        viewer_.leave_trial();
    });
    connect(pad_, &CurvePad::left, this, [this] {
        viewer_.leave_trial();
        refresh();
    });
    connect(reset_, &QPushButton::clicked, this,
            [this] { studio_.document().edit(with_shown({}), tr("Straight curve")); });
    connect(&tones_, &TonesOfPicture::seen, pad_, &CurvePad::set_distribution);
    connect(&studio.document(), &Document::changed, this, &FinishCurve::out_of_date);
}

Pile FinishCurve::with_shown(const Curve& curve) const {
    Curves curves = studio_.pile().finish.curves;
    curves.*shown_ = curve;
    return with_curves(studio_.pile(), curves);
}

void FinishCurve::opened() {
    tones_.look();
}

void FinishCurve::closed() {
    viewer_.leave_trial();
}

void FinishCurve::refresh() {
    const bool coloured = studio_.pile().channels == 3;
    for (QPushButton* button : channels_) button->setVisible(coloured);
    if (!coloured) shown_ = &Curves::brightness;
    const Curve& curve = studio_.pile().finish.curves.*shown_;
    pad_->set_curve(curve);
    reset_->setEnabled(!curve.points.empty());
}

}  // namespace bp::app
