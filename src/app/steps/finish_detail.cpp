#include "app/steps/finish_detail.h"

#include "engine/placing_loss.h"
#include "finish/give_back.h"
#include "pile/finish_edits.h"

namespace bp::app {

void add_detail_sliders(ValueSliders& to, const QString& object, const std::function<const Detail*(const Pile&)>& read,
                        const std::function<Pile(const Pile&, const Detail&)>& write,
                        const std::function<int()>& whose) {
    struct Value {
        const char* object;
        QString name, tip;
        double Detail::*value;
        int low, high;
        double unit;
        QString suffix;
        int decimals;
    };
    const QString px = ValueSliders::tr(" px");
    const auto say = [](const char* text) { return ValueSliders::tr(text); };
    for (const Value& v :
         {Value{"sharpen",
                say(QT_TRANSLATE_NOOP("bp::app::ValueSliders", "Sharpening")),
                say(QT_TRANSLATE_NOOP("bp::app::ValueSliders", "Makes fine edges steeper. Judge it at 1:1")),
                &Detail::sharpen,
                0,
                300,
                1,
                {},
                0},
          Value{"sharpen_px", say(QT_TRANSLATE_NOOP("bp::app::ValueSliders", "Reach of sharpening")),
                say(QT_TRANSLATE_NOOP("bp::app::ValueSliders", "How wide the edges are that become steeper")),
                &Detail::sharpen_px, 3, 30, 0.1, px, 1},
          Value{"halo",
                say(QT_TRANSLATE_NOOP("bp::app::ValueSliders", "Limit of rims")),
                say(QT_TRANSLATE_NOOP("bp::app::ValueSliders",
                                      "How much brighter or darker than its neighbours a pixel may become")),
                &Detail::halo,
                0,
                200,
                1,
                {},
                0},
          Value{"flat",
                say(QT_TRANSLATE_NOOP("bp::app::ValueSliders", "Calm of flat places")),
                say(QT_TRANSLATE_NOOP("bp::app::ValueSliders",
                                      "Differences below this, noise and smooth skies, are hardly sharpened")),
                &Detail::flat,
                0,
                100,
                1,
                {},
                0},
          Value{"local",
                say(QT_TRANSLATE_NOOP("bp::app::ValueSliders", "Local contrast")),
                say(QT_TRANSLATE_NOOP("bp::app::ValueSliders",
                                      "Draws places apart from what lies around them, or together")),
                &Detail::local,
                -100,
                100,
                1,
                {},
                0},
          Value{"local_px", say(QT_TRANSLATE_NOOP("bp::app::ValueSliders", "Its reach")),
                say(QT_TRANSLATE_NOOP("bp::app::ValueSliders", "How far the surroundings go")), &Detail::local_px, 2,
                20, 1, px, 0},
          Value{"wide",
                say(QT_TRANSLATE_NOOP("bp::app::ValueSliders", "Wide contrast")),
                say(QT_TRANSLATE_NOOP("bp::app::ValueSliders",
                                      "The same against what lies around within a twentieth of the picture")),
                &Detail::wide,
                -100,
                100,
                1,
                {},
                0},
          Value{"smooth",
                say(QT_TRANSLATE_NOOP("bp::app::ValueSliders", "Less noise")),
                say(QT_TRANSLATE_NOOP("bp::app::ValueSliders",
                                      "Takes away what is no larger than the noise that the merge leaves. Edges stay")),
                &Detail::smooth,
                0,
                100,
                1,
                {},
                0},
          Value{"smooth_colour",
                say(QT_TRANSLATE_NOOP("bp::app::ValueSliders", "Less noise of colour")),
                say(QT_TRANSLATE_NOOP("bp::app::ValueSliders",
                                      "The same for spots of colour; brightness stays as it is")),
                &Detail::smooth_colour,
                0,
                100,
                1,
                {},
                0},
          Value{"stars",
                say(QT_TRANSLATE_NOOP("bp::app::ValueSliders", "Stars")),
                say(QT_TRANSLATE_NOOP(
                    "bp::app::ValueSliders",
                    "Smaller to the left, larger to the right; their middles stay as bright. In the sky, "
                    "where there are zones")),
                &Detail::stars,
                -100,
                100,
                1,
                {},
                0}})
        to.add({object + QLatin1String(v.object), v.name, v.tip, v.low, v.high, v.unit, v.suffix, v.decimals,
                [read, v](const Pile& pile) {
                    const Detail* detail = read(pile);
                    return detail ? detail->*v.value : Detail{}.*v.value;
                },
                [read, write, v](const Pile& pile, double amount) {
                    const Detail* detail = read(pile);
                    Detail next = detail ? *detail : Detail{};
                    next.*v.value = amount;
                    return write(pile, next);
                },
                whose});
}

FinishDetail::FinishDetail(Studio& studio, Viewer& viewer, QWidget* parent)
    : Page(parent), studio_(studio), viewer_(viewer) {
    give_back_ = new QCheckBox(tr("Give back what placing took"), this);
    give_back_->setObjectName(QStringLiteral("finish_give_back"));
    give_back_->setToolTip(
        tr("Frames that were moved by parts of a pixel lose contrast in their finest detail, by as much as "
           "is known from where they lie: gives it back. Seen at 1:1"));
    column()->addWidget(give_back_);
    connect(give_back_, &QCheckBox::clicked, this, [this](bool on) {
        studio_.document().edit(with_given_back(studio_.pile(), on),
                                on ? tr("Give back what placing took") : tr("Leave what placing took"));
    });
    detail_ = new ValueSliders(studio, viewer, this);
    add_detail_sliders(
        *detail_, QStringLiteral("detail_"), [](const Pile& pile) { return &pile.finish.detail; }, with_detail);
    column()->addWidget(detail_);
    column()->addWidget(heading(tr("Glow of the sky"), this));
    glow_ = new ValueSliders(studio, viewer, this);
    glow_->add({QStringLiteral("finish_glow"), tr("Evened by"),
                tr("Evens what is bright and coloured in one part of the sky and not in another. Land stays where the "
                   "picture is divided into zones; without them all of it is sky"),
                0, 100, 1, tr("%"), 0, [](const Pile& pile) { return pile.finish.glow; }, with_glow});
    column()->addWidget(glow_);
    all_sky_ =
        quiet_label(tr("All of the picture counts as sky. Divide it in Align, Zones, so that land does not."), this);
    all_sky_->setObjectName(QStringLiteral("finish_glow_all"));
    column()->addWidget(all_sky_);
    glow_alone_ = new QCheckBox(tr("Show the glow alone"), this);
    glow_alone_->setObjectName(QStringLiteral("finish_glow_alone"));
    glow_alone_->setToolTip(tr("Shows the smooth surface that the sky is evened by"));
    column()->addWidget(glow_alone_);
    connect(glow_alone_, &QCheckBox::toggled, this, [this](bool on) {
        if (on) viewer_.set_view(View::result);
        viewer_.set_glow_alone(on);
    });
    column()->addWidget(heading(tr("Edges of the picture"), this));
    edges_ = new ValueSliders(studio, viewer, this);
    struct Value {
        const char* object;
        QString name, tip;
        double EdgeShade::*value;
        int low, high;
        double unit;
        QString suffix;
        int decimals;
    };
    for (const Value& v :
         {Value{"shade_stops", tr("Darker, lighter"), tr("How much darker or lighter the corners become"),
                &EdgeShade::stops, -40, 40, 0.1, tr(" EV"), 1},
          Value{"shade_from", tr("Begins at"), tr("How far from the middle it begins"), &EdgeShade::from, 0, 95, 1,
                tr("%"), 0},
          Value{"shade_round",
                tr("Roundness"),
                tr("An ellipse in the crop, or nearly its rectangle"),
                &EdgeShade::round,
                0,
                100,
                1,
                {},
                0}})
        edges_->add({QLatin1String(v.object), v.name, v.tip, v.low, v.high, v.unit, v.suffix, v.decimals,
                     [v](const Pile& pile) { return pile.finish.edges.*v.value; },
                     [v](const Pile& pile, double amount) {
                         EdgeShade shade = pile.finish.edges;
                         shade.*v.value = amount;
                         return with_edge_shade(pile, shade);
                     }});
    column()->addWidget(edges_);
    connect(&studio.document(), &Document::changed, this, &FinishDetail::out_of_date);
}

void FinishDetail::closed() {
    viewer_.leave_trial();
    glow_alone_->setChecked(false);
}

void FinishDetail::refresh() {
    const PlacedParts parts = placed_parts(studio_.pile());
    give_back_->setEnabled(studio_.pile().finish.give_back ||
                           (!parts.across.empty() && give_back_tool(parts.across, parts.down)));
    give_back_->setChecked(studio_.pile().finish.give_back);
    detail_->show_values();
    glow_->show_values();
    all_sky_->setVisible(!studio_.pile().zones);
    edges_->show_values();
}

}  // namespace bp::app
