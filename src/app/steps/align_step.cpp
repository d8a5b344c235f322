#include "app/steps/align_step.h"

#include <QButtonGroup>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QPainter>
#include <QShortcut>
#include <QSignalBlocker>
#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include "app/controls.h"
#include "app/pictures.h"
#include "app/theme.h"
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
        if (!usable(frame) || frame.aside || !frame.alignment || frame.role == Role::dark) continue;
        if (frame.alignment->aligned)
            out.residual = std::max(out.residual, frame.alignment->residual_px);
        else
            ++out.lost;
    }
    return out;
}

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

constexpr std::array<double, 3> paces{0.1, 1, 10};  // pixels
constexpr double degrees_a_pixel = 0.01;            // a turn by a pace of one pixel

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

    insist_ = new QCheckBox(tr("Merge this frame all the same"), this);
    insist_->setObjectName(QStringLiteral("insist"));
    insist_->setToolTip(tr("The frame could not be aligned. It is merged where it lies"));
    column()->addWidget(insist_);
    build_by_hand();

    connect(insist_, &QCheckBox::clicked, this, [this](bool on) {
        const int ids[] = {studio_.current()};
        studio_.document().edit(with_insisted(studio_.pile(), ids, on),
                                on ? tr("Merge frame %1 all the same").arg(number_of(studio_.pile(), ids[0]))
                                   : tr("Leave out frame %1").arg(number_of(studio_.pile(), ids[0])));
    });
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

void AlignStep::build_by_hand() {
    by_hand_ = new QWidget(this);
    auto* column_of_it = new QVBoxLayout(by_hand_);
    column_of_it->setContentsMargins(0, 0, 0, 0);
    column_of_it->addWidget(quiet_label(tr("Move this frame by hand"), by_hand_));
    auto* how_far = new QHBoxLayout;
    auto* group = new QButtonGroup(by_hand_);
    for (const double pace : paces) {
        auto* button = push(tr("%1 px").arg(pace), QStringLiteral("pace_%1").arg(paces_.size()),
                            tr("How far one step moves the frame"), by_hand_);
        button->setCheckable(true);
        button->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
        group->addButton(button);
        how_far->addWidget(button);
        paces_.push_back(button);
    }
    paces_[1]->setChecked(true);
    column_of_it->addLayout(how_far);
    struct Way {
        QString text, name, tip;
        double right, down, turns;
        QKeySequence keys;
    };
    const std::array<Way, 6> ways{{
        {tr("Left"), QStringLiteral("nudge_left"), tr("Moves the frame to the left (Alt+Left)"), -1, 0, 0,
         QKeySequence(Qt::ALT | Qt::Key_Left)},
        {tr("Up"), QStringLiteral("nudge_up"), tr("Moves the frame up (Alt+Up)"), 0, -1, 0,
         QKeySequence(Qt::ALT | Qt::Key_Up)},
        {tr("Right"), QStringLiteral("nudge_right"), tr("Moves the frame to the right (Alt+Right)"), 1, 0, 0,
         QKeySequence(Qt::ALT | Qt::Key_Right)},
        {tr("Turn \u2212"), QStringLiteral("turn_left"),
         tr("Turns the frame against the clock about the pole or the middle (Alt+Page Up)"), 0, 0, -1,
         QKeySequence(Qt::ALT | Qt::Key_PageUp)},
        {tr("Down"), QStringLiteral("nudge_down"), tr("Moves the frame down (Alt+Down)"), 0, 1, 0,
         QKeySequence(Qt::ALT | Qt::Key_Down)},
        {tr("Turn +"), QStringLiteral("turn_right"),
         tr("Turns the frame with the clock about the pole or the middle (Alt+Page Down)"), 0, 0, 1,
         QKeySequence(Qt::ALT | Qt::Key_PageDown)},
    }};
    auto* pad = new QGridLayout;
    for (std::size_t i = 0; i < ways.size(); ++i) {
        const Way& way = ways[i];
        auto* button = push(way.text, way.name, way.tip, by_hand_);
        // All of one width, and no wider than the step.
        button->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
        pad->addWidget(button, int(i) / 3, int(i) % 3);
        const auto go = [this, way] { nudge(way.right, way.down, way.turns); };
        connect(button, &QPushButton::clicked, this, go);
        // Only while the step is open: shortcuts of what is hidden do nothing.
        connect(new QShortcut(way.keys, by_hand_), &QShortcut::activated, this, go);
    }
    column_of_it->addLayout(pad);
    refine_ = push(tr("Refine from here"), QStringLiteral("refine"),
                   tr("Aligns the frame exactly, beginning from where it lies now"), by_hand_);
    column_of_it->addWidget(refine_);
    column()->addWidget(by_hand_);
    connect(refine_, &QPushButton::clicked, this, [this] { studio_.refine(studio_.current()); });
}

void AlignStep::nudge(double right, double down, double turns) {
    const Pile& pile = studio_.pile();
    const Frame* frame = find_frame(pile, studio_.current());
    if (!frame || !usable(*frame) || frame->id == pile.reference) return;
    double pace = 1;
    for (std::size_t i = 0; i < paces.size(); ++i)
        if (paces_[i]->isChecked()) pace = paces[i];
    const Point middle{(pile.size.width - 1) / 2.0, (pile.size.height - 1) / 2.0};
    const double angle = turns * pace * degrees_a_pixel * std::numbers::pi / 180;
    studio_.document().edit(
        with_moved_by_hand(pile, frame->id,
                           Matrix::rigid(angle, pole_in(pile).value_or(middle), right * pace, down * pace)),
        turns != 0 ? tr("Turn frame %1").arg(number_of(pile, frame->id))
                   : tr("Move frame %1").arg(number_of(pile, frame->id)));
}

QStringList AlignStep::facts_of(const Frame& frame) const {
    const Pile& pile = studio_.pile();
    const Alignment& a = *frame.alignment;
    const int number = number_of(pile, frame.id);
    if (!a.aligned)
        return {a.insisted ? tr("Frame %1 could not be aligned and is merged all the same.").arg(number)
                           : tr("Frame %1 could not be aligned and is left out.").arg(number)};
    const Point middle{(pile.size.width - 1) / 2.0, (pile.size.height - 1) / 2.0};
    const Point p = a.placement().to_canvas(middle);
    const double turn = std::atan2(a.to_reference.m[3], a.to_reference.m[0]) * 180 / std::numbers::pi;
    const double scale = std::hypot(a.to_reference.m[0], a.to_reference.m[3]);
    QStringList out;
    out << tr("Frame %1: %2, %3 px, %4°")
               .arg(number)
               .arg(p.x - middle.x, 0, 'f', 2)
               .arg(p.y - middle.y, 0, 'f', 2)
               .arg(turn, 0, 'f', 3);
    if (pile.model == Model::similarity || pile.model == Model::perspective)
        out << tr("scale %1").arg(scale, 0, 'f', 5);
    if (a.by_hand)
        out << tr("placed by hand");
    else if (a.by_clock)
        out << tr("placed by its time alone: too few stars");
    else
        out << tr("left over %1 px, sure to %2%").arg(a.residual_px, 0, 'f', 2).arg(std::lround(a.confidence * 100));
    return out;
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
        if (frame && frame->alignment && frame->id != pile.reference) lines << facts_of(*frame);
        if (const auto pole = pole_in(pile))
            lines << tr("Pole of the sky at %1, %2").arg(pole->x, 0, 'f', 1).arg(pole->y, 0, 'f', 1);
        const Rect area = output_area(pile);
        lines << tr("Picture %1 x %2 px").arg(area.width).arg(area.height);
    }
    facts_->setText(lines.join(QLatin1Char('\n')));
    facts_->setVisible(!lines.isEmpty());
    reference_->setEnabled(frame && usable(*frame) && (frame->id != pile.reference || pile.model == Model::none));
    const bool other = frame && usable(*frame) && frame->id != pile.reference && frame->role != Role::dark;
    const bool failed = other && pile.model != Model::none && frame->alignment && !frame->alignment->aligned;
    insist_->setVisible(failed);
    insist_->setChecked(failed && frame->alignment->insisted);
    by_hand_->setVisible(other);
    refine_->setEnabled(other && !(frame->alignment && frame->alignment->lens));
    if (isVisible()) render_miniatures();
    emit summary_changed();
}

void AlignStep::render_miniatures() {
    if (!studio_.document().open() || !isVisible() || !studio_.thumbnails_complete()) return;
    const Pile now = studio_.pile();
    if (!studio_.model_preview(Model::stars)) grid_->set_picture(int(Model::stars), turning_sky());
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
