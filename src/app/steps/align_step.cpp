#include "app/steps/align_step.h"

#include <QSignalBlocker>
#include <algorithm>
#include <cmath>

#include "app/controls.h"
#include "app/pictures.h"
#include "app/words.h"
#include "engine/cover.h"
#include "engine/render.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

struct Worst {
    double residual = 0;
    int lost = 0;
};

Worst worst_of(const Pile& pile) {
    Worst out;
    for (const Frame& frame : pile.frames) {
        if (!usable(frame) || frame.aside || !frame.alignment) continue;
        if (frame.alignment->aligned)
            out.residual = std::max(out.residual, frame.alignment->residual_px);
        else
            ++out.lost;
    }
    return out;
}

}  // namespace

AlignStep::AlignStep(Studio& studio) : studio_(studio), lane_(this) {
    grid_ = new MiniatureGrid(3, {68, 46}, this);
    for (const ModelEntry& entry : models()) {
        grid_->add(int(entry.model), word(entry.model), what_it_does(entry.model));
        grid_->button(int(entry.model))
            ->setObjectName(
                QStringLiteral("align_%1").arg(QString::fromUtf8(entry.name.data(), qsizetype(entry.name.size()))));
    }
    column()->addWidget(grid_);
    facts_ = quiet_label({}, this);
    column()->addWidget(facts_);
    reference_ = push(tr("Make this frame the reference"), QStringLiteral("make_reference"),
                      tr("The others are laid over the frame that is looked at"), this);
    column()->addWidget(reference_);
    crop_ = new QCheckBox(tr("Crop to full cover"), this);
    crop_->setObjectName(QStringLiteral("full_cover"));
    crop_->setToolTip(tr("Cuts off the edges that not every frame reaches"));
    column()->addWidget(crop_);

    connect(grid_, &MiniatureGrid::chosen, this,
            [this](int model) { studio_.align(Model(model), studio_.pile().reference); });
    connect(reference_, &QPushButton::clicked, this, [this] {
        studio_.align(studio_.pile().model == Model::none ? Model::rigid : studio_.pile().model, studio_.current());
    });
    connect(crop_, &QCheckBox::toggled, this, [this](bool on) {
        Pile next = studio_.pile();
        next.cover = on ? Cover::full : Cover::any;
        studio_.document().edit(std::move(next), on ? tr("Crop to full cover") : tr("Do not crop"));
    });
    connect(&studio.document(), &Document::changed, this, &AlignStep::refresh);
    connect(&studio, &Studio::selection_changed, this, &AlignStep::refresh);
    connect(&studio, &Studio::models_previewed, this, &AlignStep::render_miniatures);
    connect(&studio, &Studio::thumbnails_finished, this, [this] {
        if (isVisible()) studio_.preview_models();
    });
    refresh();
}

void AlignStep::opened() {
    studio_.preview_models();
    render_miniatures();
}

QString AlignStep::summary() const {
    const Pile& pile = studio_.pile();
    if (pile.model == Model::none) return tr("none");
    const Worst worst = worst_of(pile);
    QString text = tr("%1, worst %2 px").arg(word(pile.model).toLower()).arg(worst.residual, 0, 'f', 2);
    if (worst.lost > 0) text += tr(", %1 lost").arg(worst.lost);
    return text;
}

bool AlignStep::needs_look() const {
    return studio_.pile().model != Model::none && worst_of(studio_.pile()).lost > 0;
}

void AlignStep::refresh() {
    const Pile& pile = studio_.pile();
    grid_->set_chosen(int(pile.model));
    const QSignalBlocker quiet(crop_);
    crop_->setChecked(pile.cover == Cover::full);
    QStringList lines;
    const Frame* frame = find_frame(pile, studio_.current());
    if (pile.model != Model::none) {
        lines << tr("Reference: frame %1").arg(number_of(pile, pile.reference));
        if (frame && frame->alignment && frame->id != pile.reference) {
            const Alignment& a = *frame->alignment;
            const Point middle{pile.size.width / 2.0, pile.size.height / 2.0};
            const Point p = a.to_reference(middle);
            const double turn = std::atan2(a.to_reference.m[3], a.to_reference.m[0]) * 180 / 3.14159265358979;
            lines << (a.aligned ? tr("Frame %1: %2, %3 px, %4°")
                                      .arg(number_of(pile, frame->id))
                                      .arg(p.x - middle.x, 0, 'f', 2)
                                      .arg(p.y - middle.y, 0, 'f', 2)
                                      .arg(turn, 0, 'f', 3)
                                : tr("Frame %1 could not be aligned").arg(number_of(pile, frame->id)));
            if (a.aligned)
                lines << tr("left over %1 px, sure to %2%")
                             .arg(a.residual_px, 0, 'f', 2)
                             .arg(std::lround(a.confidence * 100));
        }
        const Rect area = output_area(pile);
        lines << tr("Picture %1 x %2 px").arg(area.width).arg(area.height);
    }
    facts_->setText(lines.join(QLatin1Char('\n')));
    facts_->setVisible(!lines.isEmpty());
    reference_->setEnabled(frame && usable(*frame) && (frame->id != pile.reference || pile.model == Model::none));
    if (isVisible()) render_miniatures();
    emit summary_changed();
}

void AlignStep::render_miniatures() {
    if (!studio_.document().open() || !isVisible() || !studio_.thumbnails_complete()) return;
    const Pile now = studio_.pile();
    const auto store = studio_.store();
    const int level = studio_.thumbnail_level();
    std::map<Model, Pile> piles;
    for (const ModelEntry& entry : models())
        if (const auto* found = studio_.model_preview(entry.model))
            piles[entry.model] = with_alignments(now, entry.model, now.reference, *found);
    if (piles.empty()) return;
    using Images = std::map<Model, QImage>;
    lane_.run<Images>(
        [piles, store, level](Job& job) {
            Images out;
            for (const auto& [model, pile] : piles) {
                const Rect region = at_level(output_area(pile), level);
                Result<Raster16> picture = bp::render(pile, *store, region, level, job);
                if (picture.ok()) out[model] = to_image(picture.value(), pile.profile);
            }
            return out;
        },
        [this](const Images& images) {
            for (const auto& [model, image] : images) grid_->set_picture(int(model), image);
        });
}

}  // namespace bp::app
