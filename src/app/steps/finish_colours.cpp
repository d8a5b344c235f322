#include "app/steps/finish_colours.h"

#include <QHBoxLayout>
#include <QSignalBlocker>

#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "pile/finish_edits.h"

namespace bp::app {
namespace {

// Beside the ranges that are there already, where there is most room.
double hue_for_new(const std::vector<ColourRange>& ranges) {
    double best = 210, most = -1;
    for (int hue = 0; hue < 360; hue += 30) {
        double nearest = 180;
        for (const ColourRange& range : ranges) {
            const double apart = std::abs(range.hue_at - hue);
            nearest = std::min(nearest, std::min(apart, 360 - apart));
        }
        if (ranges.empty() || nearest <= most) continue;
        most = nearest;
        best = hue;
    }
    return best;
}

Look as_look(const ColourRange& range) {
    Look out;
    out.hue_at = range.hue_at;
    out.hue_turn = range.hue_turn;
    return out;
}

}  // namespace

FinishColours::FinishColours(Studio& studio, Viewer& viewer, QWidget* parent)
    : Page(parent), studio_(studio), viewer_(viewer) {
    build_ranges();
    build_tints();
    connect(&studio.document(), &Document::changed, this, &FinishColours::out_of_date);
}

void FinishColours::build_ranges() {
    column()->addWidget(heading(tr("Colours of a range"), this));
    auto* row = new QHBoxLayout;
    which_ = new QComboBox(this);
    which_->setObjectName(QStringLiteral("range_which"));
    which_->setAccessibleName(tr("Range of colours"));
    which_->setToolTip(tr("Which range the controls below are for"));
    which_->setFocusPolicy(Qt::TabFocus);
    add_ = push(tr("New range"), QStringLiteral("range_add"), tr("Adds a range of colours to be changed"), this);
    remove_ =
        push(tr("Remove"), QStringLiteral("range_remove"), tr("Takes the range away: its colours are as before"), this);
    which_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    column()->addWidget(which_);
    row->addWidget(add_);
    row->addWidget(remove_);
    column()->addLayout(row);
    of_range_ = new QWidget(this);
    auto* inside = new QHBoxLayout(of_range_);
    inside->setContentsMargins(0, 0, 0, 0);
    inside->setSpacing(space::medium);
    ring_ = new HueRing(of_range_);
    ring_->setObjectName(QStringLiteral("range_ring"));
    inside->addWidget(ring_, 0, Qt::AlignTop);
    range_ = new ValueSliders(studio_, viewer_, of_range_);
    struct Value {
        const char* object;
        QString name, tip;
        double ColourRange::*value;
        int most;
    };
    for (const Value& v :
         {Value{"range_strength", tr("Strength"), tr("More or less of these colours"), &ColourRange::strength, 100},
          Value{"range_brightness", tr("Brightness"), tr("Makes what has these colours brighter or darker"),
                &ColourRange::brightness, 200}})
        range_->add({QLatin1String(v.object),
                     v.name,
                     v.tip,
                     -v.most,
                     v.most,
                     1,
                     {},
                     0,
                     [this, v](const Pile& pile) { return of_chosen(v.value, pile); },
                     [this, v](const Pile&, double amount) {
                         return with_chosen([&](ColourRange& range) { range.*v.value = amount; });
                     },
                     [this] { return chosen(); }});
    inside->addWidget(range_, 1);
    column()->addWidget(of_range_);
    const auto turned = [this](const Look& look) {
        return with_chosen([&](ColourRange& range) {
            range.hue_at = look.hue_at;
            range.hue_turn = look.hue_turn;
        });
    };
    connect(ring_, &ColourPad::tried, this, [this, turned](const Look& look) { viewer_.try_out(turned(look)); });
    connect(ring_, &ColourPad::settled, this, [this, turned](const Look& look) {
        studio_.document().edit(turned(look), tr("Hue of a range"), QStringLiteral("range hue %1").arg(chosen()));
        viewer_.leave_trial();
    });
    connect(ring_, &ColourPad::left, this, [this] {
        viewer_.leave_trial();
        refresh();
    });
    connect(which_, &QComboBox::activated, this, [this] { refresh(); });
    connect(add_, &QPushButton::clicked, this, [this] {
        std::vector<ColourRange> ranges = studio_.pile().finish.colours;
        ranges.push_back({hue_for_new(ranges)});
        const int last = int(ranges.size()) - 1;
        studio_.document().edit(with_colour_ranges(studio_.pile(), ranges), tr("New range of colours"));
        which_->setCurrentIndex(last);
        refresh();
    });
    connect(remove_, &QPushButton::clicked, this, [this] {
        std::vector<ColourRange> ranges = studio_.pile().finish.colours;
        if (chosen() < 0 || std::size_t(chosen()) >= ranges.size()) return;
        ranges.erase(ranges.begin() + chosen());
        studio_.document().edit(with_colour_ranges(studio_.pile(), ranges), tr("Remove a range of colours"));
    });
}

void FinishColours::build_tints() {
    column()->addWidget(heading(tr("Two colours"), this));
    tints_ = new ValueSliders(studio_, viewer_, this);
    struct Value {
        const char* object;
        QString name, tip;
        double TwoTints::*value;
        int low, high;
        QString suffix;
    };
    const QString degrees = QStringLiteral("°");
    for (const Value& v : {Value{"tint_dark",
                                 tr("Dark tones"),
                                 tr("How much of its colour dark tones get"),
                                 &TwoTints::dark_strength,
                                 0,
                                 100,
                                 {}},
                           Value{"tint_dark_hue", tr("Their hue"), tr("0 red, 120 green, 240 blue"),
                                 &TwoTints::dark_hue, 0, 360, degrees},
                           Value{"tint_bright",
                                 tr("Bright tones"),
                                 tr("How much of its colour bright tones get"),
                                 &TwoTints::bright_strength,
                                 0,
                                 100,
                                 {}},
                           Value{"tint_bright_hue", tr("Their hue"), tr("0 red, 120 green, 240 blue"),
                                 &TwoTints::bright_hue, 0, 360, degrees},
                           Value{"tint_middle",
                                 tr("Where they meet"),
                                 tr("Which tone has half of both colours: darker or brighter ones"),
                                 &TwoTints::middle,
                                 -100,
                                 100,
                                 {}}})
        tints_->add({QLatin1String(v.object), v.name, v.tip, v.low, v.high, 1, v.suffix, 0,
                     [v](const Pile& pile) { return pile.finish.tints.*v.value; },
                     [v](const Pile& pile, double amount) {
                         TwoTints tints = pile.finish.tints;
                         tints.*v.value = amount;
                         return with_tints(pile, tints);
                     }});
    column()->addWidget(tints_);
}

Pile FinishColours::with_chosen(const std::function<void(ColourRange&)>& change) const {
    std::vector<ColourRange> ranges = studio_.pile().finish.colours;
    if (chosen() >= 0 && std::size_t(chosen()) < ranges.size()) change(ranges[std::size_t(chosen())]);
    return with_colour_ranges(studio_.pile(), ranges);
}

double FinishColours::of_chosen(double ColourRange::*value, const Pile& pile) const {
    const auto& ranges = pile.finish.colours;
    return chosen() >= 0 && std::size_t(chosen()) < ranges.size() ? ranges[std::size_t(chosen())].*value : 0;
}

void FinishColours::closed() {
    viewer_.leave_trial();
}

void FinishColours::refresh() {
    const auto& ranges = studio_.pile().finish.colours;
    const int before = chosen();
    const QSignalBlocker quiet(which_);
    which_->clear();
    for (std::size_t i = 0; i < ranges.size(); ++i)
        which_->addItem(tr("Range %1: around %2°").arg(i + 1).arg(number_in_words(ranges[i].hue_at, 0)));
    which_->setCurrentIndex(ranges.empty() ? -1 : std::clamp(before, 0, int(ranges.size()) - 1));
    which_->setVisible(!ranges.empty());
    remove_->setVisible(!ranges.empty());
    add_->setEnabled(ranges.size() < ColourRange::most);
    of_range_->setVisible(!ranges.empty());
    if (!ranges.empty()) ring_->set_look(as_look(ranges[std::size_t(chosen())]));
    range_->show_values();
    tints_->show_values();
}

}  // namespace bp::app
