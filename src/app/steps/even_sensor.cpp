#include "app/steps/even_sensor.h"

#include <QHBoxLayout>
#include <algorithm>
#include <cmath>
#include <utility>

#include "app/looks/words.h"
#include "pile/edits.h"

namespace bp::app {

EvenSensor::EvenSensor(Studio& studio, Viewer& viewer, Canvas& canvas, QWidget* parent)
    : Page(parent), studio_(studio), viewer_(viewer), canvas_(canvas), tool_(studio, viewer, canvas) {
    column()->addWidget(quiet_label(tr("Darks"), this));
    darks_ = new QCheckBox(this);
    darks_->setObjectName(QStringLiteral("darks"));
    darks_->setAccessibleName(tr("Subtract darks"));
    darks_->setToolTip(tr("Takes the mean of the dark frames from every frame: glow and hot pixels go"));
    scaled_ = new QCheckBox(tr("Scale to the exposure"), this);
    scaled_->setObjectName(QStringLiteral("darks_scaled"));
    scaled_->setToolTip(tr("Darks of another exposure are subtracted in proportion to it"));
    useless_ = quiet_label({}, this);
    useless_->setObjectName(QStringLiteral("useless_darks"));
    column()->addWidget(darks_);
    column()->addWidget(scaled_);
    column()->addWidget(useless_);
    column()->addWidget(quiet_label(tr("Hot pixels"), this));
    hot_ = new QCheckBox(tr("Mend hot pixels"), this);
    hot_->setObjectName(QStringLiteral("hot_pixels"));
    hot_->setToolTip(tr("Finds pixels that glow at one place in all frames, and takes their neighbours instead"));
    column()->addWidget(hot_);
    column()->addWidget(quiet_label(tr("Sensor spots"), this));
    auto* row = new QHBoxLayout;
    mark_ = push(tr("Mark"), QStringLiteral("spots_mark"),
                 tr("Click on dust in a frame: it is mended in all. Click on it again to give it back"), this);
    mark_->setCheckable(true);
    suggest_ = push(tr("Suggest spots"), QStringLiteral("spots_suggest"),
                    tr("Looks for round shadows that all frames have at the same place of the sensor"), this);
    row->addWidget(mark_);
    row->addWidget(suggest_);
    column()->addLayout(row);
    spot_size_ = new NamedSlider(
        tr("Size"), tr("Width of the spots that are marked, in pixels of the picture (, and .)"),
        int(2 * smallest_spot_px), int(2 * largest_spot_px / 4), [](int v) { return tr("%1 px").arg(v); }, this);
    spot_size_->slider()->setObjectName(QStringLiteral("spot_size"));
    column()->addWidget(spot_size_);
    spots_ = new FoundList({QStringLiteral("spots"), tr("Sensor spots"),
                            tr("Spots that are mended in all frames, with a tick, and those that are suspected. Choose "
                               "one to see it."),
                            tr("Mend all"), tr("Mends every suspected spot in all frames")},
                           this);
    column()->addWidget(spots_);
    connect(spots_, &FoundList::chosen, this, &EvenSensor::show_spot);
    connect(spots_, &FoundList::decided, this, &EvenSensor::decide);
    connect(darks_, &QCheckBox::clicked, this, [this](bool on) {
        studio_.document().edit(with_darks(studio_.pile(), on ? Darks::on : Darks::off),
                                on ? tr("Subtract darks") : tr("Leave darks"));
    });
    connect(scaled_, &QCheckBox::clicked, this, [this](bool on) {
        studio_.document().edit(with_darks(studio_.pile(), on ? Darks::scaled : Darks::on), tr("Scale darks"));
    });
    connect(hot_, &QCheckBox::clicked, this, [this](bool on) {
        // Checked when they have been found.
        hot_->setChecked(studio_.pile().hot != nullptr);
        studio_.mend_hot_pixels(on);
    });
    connect(&canvas_, &Canvas::tool_left, this, [this] { mark_->setChecked(false); });
    connect(mark_, &QPushButton::toggled, this, [this](bool on) {
        canvas_.set_tool(on ? &tool_ : nullptr);
        if (on && viewer_.of_all()) viewer_.set_view(View::frame);
    });
    connect(suggest_, &QPushButton::clicked, &studio_, &Studio::guess_spots);
    connect(&studio_, &Studio::spots_guessed, this, [this] {
        if (isVisible() && !studio_.spot_guesses().empty()) mark_->setChecked(true);
        out_of_date();
        canvas_.update();
    });
    connect(&studio_.document(), &Document::changed, this, &EvenSensor::out_of_date);
    connect(spot_size_, &NamedSlider::changed, this, [this](int value) {
        Brush brush = canvas_.brush();
        brush.size = value;
        canvas_.set_brush(brush);
    });
    const auto show_size = [this] { spot_size_->set_value(int(std::lround(canvas_.brush().size))); };
    connect(&canvas_, &Canvas::brush_changed, this, show_size);
    show_size();
}

void EvenSensor::refresh() {
    const Pile& pile = studio_.pile();
    const auto count = std::count_if(pile.frames.begin(), pile.frames.end(),
                                     [](const Frame& f) { return usable(f) && f.role == Role::dark && !f.aside; });
    darks_->setText(count > 0 ? tr("Subtract darks (%1)").arg(count) : tr("Subtract darks"));
    darks_->setChecked(pile.darks != Darks::off);
    darks_->setEnabled(count > 0 || pile.darks != Darks::off);
    scaled_->setVisible(pile.darks != Darks::off);
    scaled_->setChecked(pile.darks == Darks::scaled);
    QStringList lines;
    if (count == 0) lines << tr("Frames taken with the lens covered, given the role Dark in the Frames step.");
    if (pile.darks != Darks::off) {
        for (const auto& [id, why] : useless_darks(pile)) lines << said(why);
        const auto without = std::count_if(pile.frames.begin(), pile.frames.end(), [&](const Frame& f) {
            return usable(f) && f.role == Role::scene && darks_of(pile, f).ids.empty();
        });
        if (count > 0 && without > 0) lines << tr("%n frame(s) without a dark that fits.", nullptr, int(without));
    }
    useless_->setText(lines.join(QLatin1Char('\n')));
    useless_->setVisible(!lines.isEmpty());
    hot_->setChecked(pile.hot != nullptr);
    hot_->setText(pile.hot ? tr("Mend hot pixels (%1)").arg(pile.hot->size()) : tr("Mend hot pixels"));
    refresh_spots();
}

// From left to right, so that a spot keeps its row when it is mended or given back.
std::vector<EvenSensor::Spot> EvenSensor::spots() const {
    std::vector<Spot> out;
    if (const SharedSpots& mended = studio_.pile().spots)
        for (const SensorSpot& spot : *mended) out.push_back({spot.at, spot.radius_px, true});
    for (const SpotGuess& guess : studio_.spot_guesses())
        out.push_back({guess.at, SpotTool::mended_radius(guess), false});
    std::sort(out.begin(), out.end(),
              [](const Spot& a, const Spot& b) { return std::pair(a.at.x, a.at.y) < std::pair(b.at.x, b.at.y); });
    return out;
}

void EvenSensor::refresh_spots() {
    std::vector<FoundThing> things;
    int mended = 0;
    for (const Spot& spot : spots()) {
        mended += spot.mended ? 1 : 0;
        const QString words = tr("%1 px at %2, %3")
                                  .arg(std::lround(2 * spot.radius_px))
                                  .arg(std::lround(spot.at.x))
                                  .arg(std::lround(spot.at.y));
        things.push_back({int(things.size()), words,
                          spot.mended ? tr("Mended in all frames. Take the tick away to give it back.")
                                      : tr("Suspected. Tick it to mend it in all frames."),
                          spot.mended, false});
    }
    const auto suspected = int(things.size()) - mended;
    spots_->set_things(things, things.empty()   ? QString()
                               : suspected == 0 ? tr("%1 mended").arg(mended)
                               : mended == 0    ? tr("%1 suspected").arg(suspected)
                                                : tr("%1 mended, %2 suspected").arg(mended).arg(suspected));
}

void EvenSensor::show_spot(int key) {
    const std::vector<Spot> all = spots();
    if (key >= int(all.size())) return;
    if (viewer_.of_all()) viewer_.set_view(View::frame);
    tool_.look_at(all[std::size_t(key)].at);
}

void EvenSensor::decide(const std::vector<int>& keys, bool mend) {
    const std::vector<Spot> all = spots();
    std::vector<Studio::SpotPlace> wanted;
    Pile without = studio_.pile();
    for (const int key : keys) {
        if (key >= int(all.size())) continue;
        const Spot& spot = all[std::size_t(key)];
        wanted.push_back({spot.at, spot.radius_px});
        without = without_spot(std::move(without), spot.at);
    }
    if (mend)
        studio_.mend_spots(wanted);
    else
        studio_.document().edit(std::move(without), tr("Give back sensor spot"));
    // Ticked when it is mended.
    refresh_spots();
}

}  // namespace bp::app
