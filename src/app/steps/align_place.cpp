#include "app/steps/align_place.h"

#include <QHBoxLayout>
#include <QPainter>
#include <QSignalBlocker>
#include <cmath>
#include <numbers>

#include "align/moved.h"
#include "app/looks/controls.h"
#include "app/looks/pictures.h"
#include "app/looks/words.h"
#include "engine/cover.h"
#include "engine/render.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

// What aligning by the stars does, drawn: for runs in which none were looked for beforehand.
QImage turning_sky() {
    constexpr int width = 204;
    constexpr int height = 138;
    constexpr int degree = 16;  // as the painter counts
    QImage out(width, height, QImage::Format_RGB32);
    out.fill(theme().surround);
    QPainter painter(&out);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(theme().quiet, 3));
    const QPointF pole(width * 0.55, height * 0.5);
    for (int ring = 1; ring <= 4; ++ring) {
        const double r = 16.0 * ring;
        for (int k = 0; k < 3; ++k)
            painter.drawArc(QRectF(pole.x() - r, pole.y() - r, 2 * r, 2 * r), (k * 120 + ring * 47) * degree,
                            40 * degree);
    }
    return out;
}

}  // namespace

AlignPlace::AlignPlace(Studio& studio, Canvas& canvas, QWidget* parent)
    : Page(parent),
      studio_(studio),
      canvas_(canvas),
      where_(
          studio, [](const Pile& pile) { return &pile.trust; },
          [](Pile pile, Mask mask) { return with_trust(std::move(pile), std::move(mask)); },
          [](const Brush&) { return tr("Paint where aligning looks"); }),
      lane_(this) {
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
    insist_ = new QCheckBox(tr("Merge this frame all the same"), this);
    insist_->setObjectName(QStringLiteral("insist"));
    insist_->setToolTip(tr("The frame could not be aligned. It is merged where it lies"));
    column()->addWidget(insist_);
    reference_ = push(tr("Make this frame the reference"), QStringLiteral("make_reference"),
                      tr("The others are laid over the frame that is looked at"), this);
    column()->addWidget(reference_);
    table_ = push(tr("Table of the frames"), QStringLiteral("align_table_shown"),
                  tr("How far every frame was moved, turned and scaled, what is left over, how sure it is"), this);
    table_->setCheckable(true);
    column()->addWidget(table_);
    build_trust();

    connect(table_, &QPushButton::toggled, this, &AlignPlace::table_wanted);
    connect(insist_, &QCheckBox::clicked, this, [this](bool on) {
        const int ids[] = {studio_.current()};
        studio_.document().edit(with_insisted(studio_.pile(), ids, on, studio_.zone()),
                                on ? tr("Merge frame %1 all the same").arg(number_of(studio_.pile(), ids[0]))
                                   : tr("Leave out frame %1").arg(number_of(studio_.pile(), ids[0])));
    });
    connect(grid_, &MiniatureGrid::chosen, this, [this](int model) {
        studio_.align(Model(model), studio_.pile().reference);
        refresh();
    });
    connect(reference_, &QPushButton::clicked, this, [this] {
        const Model now = method_of(studio_.pile(), studio_.zone()).model;
        studio_.align(now == Model::none ? Model::rigid : now, studio_.current());
    });
    connect(&lane_, &Lane::failed, this, [this] { made_of_.forget(); });
    connect(&studio.previews(), &ModelPreviews::found, this, [this] {
        made_of_.forget();
        render_miniatures();
    });
    connect(&studio.thumbnails(), &Thumbnails::finished, this, [this] {
        if (isVisible()) studio_.previews().find();
    });
    connect(&studio, &Studio::zone_changed, this, [this] {
        if (isVisible()) studio_.previews().find();
    });
    // Of another reference, other frames or another place to look the miniatures are others.
    connect(&studio.document(), &Document::changed, this, [this] {
        if (isVisible()) studio_.previews().find();
    });
}

void AlignPlace::build_trust() {
    auto* row = new QHBoxLayout;
    trust_ =
        push(tr("Where to look"), QStringLiteral("trust"),
             tr("Paint over what stands still: aligning looks there alone, so that waves or clouds do not pull"), this);
    trust_->setCheckable(true);
    everywhere_ =
        push(tr("Everywhere"), QStringLiteral("trust_everywhere"), tr("Aligning looks at all of the picture"), this);
    row->addWidget(trust_, 1);
    row->addWidget(everywhere_);
    column()->addLayout(row);
    brush_ = new BrushPanel(canvas_, QStringLiteral("trust_brush"),
                            {tr("Look here"), tr("Paints: aligning looks at what you paint over (K)"), tr("Not here"),
                             tr("Paints: aligning does not look at what you paint over (K)")},
                            BrushPanel::Kind::plain, where_, this);
    brush_->hide();
    column()->addWidget(brush_);
    connect(trust_, &QPushButton::toggled, this, [this](bool on) {
        brush_->setVisible(on);
        canvas_.set_painting(on ? &where_ : nullptr);
        if (on) studio_.say(tr("Paint over what stands still, then choose a model again."));
    });
    connect(&canvas_, &Canvas::tool_left, this, [this] { trust_->setChecked(false); });
    connect(everywhere_, &QPushButton::clicked, this, [this] {
        studio_.document().edit(with_trust(studio_.pile(), Mask(studio_.pile().size)), tr("Look everywhere"));
    });
}

QStringList AlignPlace::facts_of(const Frame& frame) const {
    const Pile& pile = studio_.pile();
    const Alignment& a = *frame.places[studio_.zone()];
    const int number = number_of(pile, frame.id);
    if (!a.aligned)
        return {a.insisted ? tr("Frame %1 could not be aligned and is merged all the same.").arg(number)
                           : tr("Frame %1 could not be aligned and is left out.").arg(number)};
    const Model model = method_of(pile, studio_.zone()).model;
    const MovedBy moved = moved_by(a, pile.size);
    QStringList out;
    out << tr("Frame %1: %2, %3 px, %4°")
               .arg(number)
               .arg(number_in_words(moved.right_px, 2))
               .arg(number_in_words(moved.down_px, 2))
               .arg(number_in_words(moved.turn_degrees, 3));
    if (model == Model::similarity || model == Model::perspective || model == Model::flex)
        out << tr("scale %1").arg(number_in_words(moved.scale, 5));
    if (a.by_hand)
        out << tr("placed by hand");
    else if (a.by_clock)
        out << tr("placed by its time alone: too few stars");
    else
        out << tr("left over %1 px, sure to %2%")
                   .arg(number_in_words(a.residual_px, 2))
                   .arg(std::lround(a.confidence * 100));
    return out;
}

void AlignPlace::opened() {
    studio_.previews().find();
    render_miniatures();
    if (trust_->isChecked()) canvas_.set_painting(&where_);
}

void AlignPlace::closed() {
    studio_.previews().give_up();
    if (trust_->isChecked()) canvas_.set_painting(nullptr);
}

void AlignPlace::refresh() {
    const Pile& pile = studio_.pile();
    const Zone zone = studio_.zone();
    const Model model = method_of(pile, zone).model;
    grid_->set_chosen(int(model));
    QStringList lines;
    const Frame* frame = find_frame(pile, studio_.current());
    const bool placed = frame && frame->places[zone].has_value();
    if (model != Model::none) {
        lines << tr("Reference: frame %1").arg(number_of(pile, pile.reference));
        if (placed && frame->id != pile.reference) lines << facts_of(*frame);
        if (const auto pole = zone == Zone::sky ? pole_in(pile) : std::nullopt)
            lines << tr("Pole of the sky at %1, %2").arg(number_in_words(pole->x, 1)).arg(number_in_words(pole->y, 1));
        const Rect area = output_area(pile);
        lines << tr("Picture %1 x %2 px").arg(area.width).arg(area.height);
    }
    facts_->setText(lines.join(QLatin1Char('\n')));
    facts_->setVisible(!lines.isEmpty());
    reference_->setEnabled(frame && shows_something(*frame) && (frame->id != pile.reference || model == Model::none));
    const bool other = frame && usable(*frame) && frame->id != pile.reference && frame->role != Role::dark;
    const bool failed = other && model != Model::none && placed && !frame->places[zone]->aligned;
    insist_->setVisible(failed);
    insist_->setChecked(failed && frame->places[zone]->insisted);
    everywhere_->setEnabled(!pile.trust.empty());
    if (isVisible()) render_miniatures();
}

void AlignPlace::render_miniatures() {
    if (!studio_.document().open() || !isVisible() || !studio_.thumbnails().complete()) return;
    const Pile now = studio_.pile();
    const Zone zone = studio_.zone();
    if (!studio_.previews().of(Model::stars)) grid_->set_picture(int(Model::stars), turning_sky());
    const auto store = studio_.stores().frames();
    const int level = studio_.thumbnails().level();
    std::map<Model, Pile> piles;
    for (const ModelEntry& entry : models())
        if (const auto* found = studio_.previews().of(entry.model))
            piles[entry.model] = with_alignments(now, entry.model, now.reference, *found, zone);
    if (piles.empty() || !made_of_.another(now, zone)) return;
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
        [this, wanted = piles.size()](const Images& images) {
            if (images.size() < wanted) made_of_.forget();
            for (const auto& [model, image] : images) grid_->set_picture(int(model), image);
        });
}

}  // namespace bp::app
