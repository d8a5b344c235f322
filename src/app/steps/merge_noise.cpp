#include "app/steps/merge_noise.h"

#include <QVBoxLayout>
#include <cmath>

#include "app/looks/controls.h"
#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "engine/merge_noise.h"
#include "engine/render.h"

namespace bp::app {
namespace {

QString in_per_cent(double share) {
    return number_in_words(100 * share, 2);
}

}  // namespace

QString noise_in_words(const Noise& noise, int frames) {
    if (noise.levels.empty())
        return MergeNoise::tr("No flat places are seen here: move the picture and measure again.");
    QStringList out{MergeNoise::tr("%1 EV less noise than one frame; the root of %2 frames gives %3 EV.")
                        .arg(number_in_words(noise.gain_ev, 2))
                        .arg(frames)
                        .arg(number_in_words(0.5 * std::log2(std::max(1, frames)), 2))};
    for (const NoiseLevel& level : noise.levels)
        out << MergeNoise::tr("At %1% brightness: %2% to %3%")
                   .arg(std::lround(100 * level.brightness))
                   .arg(in_per_cent(level.frame), in_per_cent(level.result));
    return out.join(QLatin1Char('\n'));
}

MergeNoise::MergeNoise(Studio& studio, Viewer& viewer, Canvas& canvas, Comparison& comparison, QWidget* parent)
    : QWidget(parent), studio_(studio), viewer_(viewer), canvas_(canvas), lane_(this) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, space::small, 0, 0);
    column->setSpacing(space::small);
    measure_ = push(tr("Measure the noise"), QStringLiteral("noise_measure"),
                    tr("Tells how much noise the merge takes away, in flat places of what is seen"), this);
    column->addWidget(measure_);
    beside_ = push(tr("See it at 1:1"), QStringLiteral("noise_beside"),
                   tr("Shows the result beside the reference, pixel by pixel"), this);
    column->addWidget(beside_);
    facts_ = quiet_label({}, this);
    facts_->setObjectName(QStringLiteral("noise_facts"));
    facts_->hide();
    column->addWidget(facts_);
    connect(measure_, &QPushButton::clicked, this, &MergeNoise::measure);
    connect(beside_, &QPushButton::clicked, this, [this, &comparison] {
        viewer_.set_view(View::result);
        comparison.set_second(Second::reference);
        comparison.set_on(true);
        canvas_.zoom_to(canvas_.pixel_by_pixel(), QPointF(canvas_.width() / 2.0, canvas_.height() / 2.0));
    });
}

void MergeNoise::refresh() {
    const Pile& pile = studio_.pile();
    const bool merges = merged_ids(pile, studio_.zone()).size() > 1;
    measure_->setEnabled(merges);
    beside_->setEnabled(merges);
    // What was measured was of another picture.
    if (!(measured_ == pile)) facts_->hide();
}

Rect MergeNoise::area() const {
    const QPointF middle = canvas_.to_canvas(QPointF(canvas_.width() / 2.0, canvas_.height() / 2.0));
    const Rect all = viewer_.area();
    const int width = std::min(noise_looked_at.width, all.width);
    const int height = std::min(noise_looked_at.height, all.height);
    const auto inside = [](double at, int length, int from, int to) {
        return std::clamp(int(at) - length / 2, from, std::max(from, to - length));
    };
    return {inside(middle.x(), width, all.left, all.right()), inside(middle.y(), height, all.top, all.bottom()), width,
            height};
}

void MergeNoise::measure() {
    Pile pile = studio_.pile();
    measured_ = pile;
    // Parts show single frames: they have no noise of the merge.
    pile.parts.clear();
    const Rect region = area();
    const std::vector<int> ids = merged_ids(pile, studio_.zone());
    facts_->setText(tr("Measuring..."));
    facts_->show();
    measure_->setEnabled(false);
    lane_.run<Result<Noise>>(
        [pile, region, zone = studio_.zone(), store = studio_.stores().frames()](Job& job) -> Result<Noise> {
            const Result<Raster16> all = bp::composed(pile, *store, region, 0, job);
            if (!all.ok()) return all.failure();
            return noise_of_merge(pile, *store, zone, region, all.value(), job);
        },
        [this, count = int(ids.size())](const Result<Noise>& found) {
            measure_->setEnabled(true);
            if (found.ok())
                facts_->setText(noise_in_words(found.value(), count));
            else
                facts_->setText(said(found.failure()));
        });
}

}  // namespace bp::app
