#include "app/steps/parts_mask.h"

#include <QHBoxLayout>

#include "app/looks/words.h"
#include "engine/carried_mask.h"
#include "parts/shapes.h"
#include "pile/part_edits.h"

namespace bp::app {
namespace {

constexpr int widest_change = 200;  // pixels

}  // namespace

PartsMask::PartsMask(Studio& studio, Viewer& viewer, Canvas& canvas, PartTarget& target, QWidget* parent)
    : Page(parent),
      studio_(studio),
      viewer_(viewer),
      canvas_(canvas),
      target_(target),
      shape_(canvas, target, ShapeTool::Keeps::as_the_brush),
      pick_(canvas, [this](Point at) { pick(at); }) {
    hint_ = quiet_label({}, this);
    column()->addWidget(hint_);
    build_shapes();
    build_whole();
    connect(&studio.document(), &Document::changed, this, &PartsMask::out_of_date);
    connect(&studio, &Studio::selection_changed, this, &PartsMask::out_of_date);
    connect(&viewer, &Viewer::view_changed, this, &PartsMask::out_of_date);
    connect(&canvas, &Canvas::brush_changed, this, &PartsMask::out_of_date);
    connect(&target_, &PartTarget::active_changed, this, &PartsMask::out_of_date);
    connect(&canvas, &Canvas::tool_left, this, [this] {
        if (isVisible()) take_up(nullptr);
    });
}

void PartsMask::build_shapes() {
    auto* both = new QHBoxLayout;
    keep_ = push(tr("Keep"), QStringLiteral("mask_keep"), tr("What is drawn shows the part's frame, too (K)"), this);
    give_back_ = push(tr("Give back"), QStringLiteral("mask_give_back"),
                      tr("What is drawn shows what lies below again (K)"), this);
    for (auto [button, keep] : {std::pair{keep_, true}, std::pair{give_back_, false}}) {
        button->setCheckable(true);
        both->addWidget(button);
        connect(button, &QPushButton::clicked, this, [this, keep = keep] {
            Brush brush = canvas_.brush();
            brush.keep = keep;
            canvas_.set_brush(brush);
            refresh();
        });
    }
    column()->addLayout(both);
    auto* row = new QHBoxLayout;
    ellipse_ = push(tr("Ellipse"), QStringLiteral("mask_ellipse"), tr("Drag over the picture: an ellipse"), this);
    ramp_ =
        push(tr("Ramp"), QStringLiteral("mask_ramp"),
             tr("Drag from where it is to be whole to where nothing is left: a ramp over all of the picture"), this);
    like_ = push(tr("Alike"), QStringLiteral("mask_like"),
                 tr("Click on a place: what is like it in brightness and colour"), this);
    for (QPushButton* button : {ellipse_, ramp_, like_}) {
        button->setCheckable(true);
        row->addWidget(button);
        connect(button, &QPushButton::clicked, this, [this, button](bool on) { take_up(on ? button : nullptr); });
    }
    column()->addLayout(row);
    reach_ = new NamedSlider(
        tr("Reach"), tr("How far brightness and colour may differ from those of the place"), 1, 60,
        [](int v) { return tr("%1%").arg(v); }, this);
    reach_->slider()->setObjectName(QStringLiteral("mask_reach"));
    constexpr int usual_reach = 10;
    reach_->set_value(usual_reach);
    column()->addWidget(reach_);
    everywhere_ = new QCheckBox(tr("Everywhere"), this);
    everywhere_->setObjectName(QStringLiteral("mask_everywhere"));
    everywhere_->setToolTip(tr("Not only what hangs together with the place"));
    column()->addWidget(everywhere_);
}

void PartsMask::build_whole() {
    of_part_ = new QWidget(this);
    auto* inside = new QVBoxLayout(of_part_);
    inside->setContentsMargins(0, 0, 0, 0);
    inside->setSpacing(space::small);
    inside->addWidget(heading(tr("All of the mask"), of_part_));
    by_ = new NamedSlider(
        tr("By"), tr("How far the border moves, or over how many pixels it is softened"), 1, widest_change,
        [](int v) { return tr("%1 px").arg(v); }, of_part_);
    by_->slider()->setObjectName(QStringLiteral("mask_by"));
    constexpr int usual = 10;
    by_->set_value(usual);
    inside->addWidget(by_);
    struct Change {
        const char* object;
        QString name, tip;
        std::function<Mask(const Mask&)> how;
    };
    const std::vector<std::vector<Change>> rows{
        {{"mask_grow", tr("Grow"), tr("Moves the border of the part outwards"),
          [this](const Mask& m) { return grown(m, by_->value()); }},
         {"mask_shrink", tr("Shrink"), tr("Moves the border of the part inwards"),
          [this](const Mask& m) { return grown(m, -by_->value()); }},
         {"mask_soften", tr("Soften"), tr("Makes the border of the part fall over so many pixels"),
          [this](const Mask& m) { return m.softened(2.0 * by_->value()); }}},
        {{"mask_swap", tr("Swap"), tr("Keeps what was not kept, and gives back what was"), swapped},
         {"mask_clear", tr("Clear"), tr("Keeps nothing of the part; it stays in the list"),
          [](const Mask& m) { return Mask(m.size()); }}}};
    for (const auto& row : rows) {
        auto* line = new QHBoxLayout;
        for (const Change& one : row) {
            auto* button = push(one.name, QLatin1String(one.object), one.tip, of_part_);
            button->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
            line->addWidget(button);
            connect(button, &QPushButton::clicked, this,
                    [this, how = one.how, name = one.name] { change(how, tr("%1 mask").arg(name)); });
        }
        inside->addLayout(line);
    }
    copy_ = new QComboBox(of_part_);
    copy_->setObjectName(QStringLiteral("mask_copy"));
    copy_->setAccessibleName(tr("Copy the mask to another part"));
    copy_->setToolTip(tr("Gives another part the same mask"));
    copy_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    inside->addWidget(copy_);
    column()->addWidget(of_part_);
    connect(copy_, &QComboBox::activated, this, [this](int) {
        const Part* part = find_part(studio_.pile(), target_.active());
        const int to = copy_->currentData().toInt();
        if (part && to != 0) studio_.document().edit(with_part_mask(studio_.pile(), to, part->mask), tr("Copy mask"));
        copy_->setCurrentIndex(0);
    });
}

void PartsMask::change(const std::function<Mask(const Mask&)>& how, const QString& what) {
    const Part* part = find_part(studio_.pile(), target_.active());
    if (part) studio_.document().edit(with_part_mask(studio_.pile(), part->id, how(part->mask)), what);
}

void PartsMask::take_up(QPushButton* tool) {
    canvas_.set_painting(nullptr);
    for (QPushButton* button : {ellipse_, ramp_, like_}) button->setChecked(button == tool);
    shape_.set_kind(tool == ramp_ ? ShapeKind::ramp : ShapeKind::ellipse);
    canvas_.set_tool(tool == like_ && tool ? static_cast<CanvasTool*>(&pick_) : tool ? &shape_ : nullptr);
    reach_->setVisible(like_->isChecked());
    everywhere_->setVisible(like_->isChecked());
}

void PartsMask::pick(Point canvas) {
    const std::optional<Mask> before = target_.begin();
    if (!before) return;
    const Part* part = find_part(studio_.pile(), target_.active());
    const bool in_result = viewer_.view() == View::result && part;
    // A part that was placed is looked at where its frame has it, and what is found goes along with it.
    const Placement place =
        in_result && part->place ? Placement(matrix_of(*part->place, studio_.pile().size)) : Placement();
    studio_.find_alike(in_result ? part->frame : studio_.current(), place.to_frame(canvas), reach_->value() / 100.0,
                       everywhere_->isChecked(),
                       [this, place, was = *before, brush = canvas_.brush()](const Mask& found) {
                           // What was picked for is no more as it was.
                           if (!(target_.read() == was)) return;
                           const Mask alike = on_canvas(found, place);
                           target_.write(brush.keep ? united(was, alike) : without(was, alike), brush);
                       });
}

void PartsMask::opened() {
    refresh();
    take_up(nullptr);
}

void PartsMask::closed() {
    take_up(nullptr);
}

void PartsMask::refresh() {
    const Pile& pile = studio_.pile();
    const Part* part = find_part(pile, target_.active());
    const int number = number_of(pile, studio_.current());
    hint_->setText(viewer_.view() == View::frame ? tr("Shapes are drawn into the part from frame %1.").arg(number)
                   : part ? tr("Shapes are drawn into the chosen part: %1.").arg(name_of_part(pile, *part))
                          : tr("Choose a part in the list, or flip to the frame whose part you want."));
    keep_->setChecked(canvas_.brush().keep);
    give_back_->setChecked(!canvas_.brush().keep);
    reach_->setVisible(like_->isChecked());
    everywhere_->setVisible(like_->isChecked());
    of_part_->setVisible(part != nullptr);
    copy_->clear();
    copy_->addItem(tr("Copy to part…"), 0);
    for (auto other = pile.parts.rbegin(); other != pile.parts.rend(); ++other)
        if (part && other->id != part->id) copy_->addItem(name_of_part(pile, *other), other->id);
    copy_->setVisible(pile.parts.size() > 1);
}

}  // namespace bp::app
