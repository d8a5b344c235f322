#include "app/steps/merge_leave_out.h"

#include <QHBoxLayout>
#include <QTimer>

#include "app/looks/words.h"
#include "engine/cover.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

double share_of(const Mask& mask) {
    constexpr int level = 3;
    const Size size = at_level(mask.size(), level);
    std::vector<std::uint8_t> row(std::size_t(size.width));
    double sum = 0;
    for (int y = 0; y < size.height; ++y) {
        mask.read_row(level, y, 0, size.width, row.data());
        for (const std::uint8_t v : row) sum += v;
    }
    return sum / 255 / std::max(1, size.width * size.height);
}

}  // namespace

MergeLeaveOut::MergeLeaveOut(Studio& studio, Viewer& viewer, Canvas& canvas, QWidget* parent)
    : Page(parent), studio_(studio), viewer_(viewer), canvas_(canvas), target_(studio, viewer), tool_(canvas, target_) {
    streaks_ = new MergeStreaks(studio, viewer, canvas, this);
    column()->addWidget(streaks_);
    hint_ = quiet_label({}, this);
    column()->addWidget(hint_);
    column()->addWidget(
        new BrushPanel(canvas_, QStringLiteral("left_out_brush"),
                       {tr("Leave out"), tr("Paints: what you paint over takes no part, in all selected frames (K)"),
                        tr("Take in"), tr("Paints: what you paint over takes part again, in all selected frames (K)")},
                       BrushPanel::Kind::plain, target_, this));
    auto* row = new QHBoxLayout;
    ellipse_ = push(tr("Ellipse"), QStringLiteral("left_out_ellipse"),
                    tr("Drag on the frame: what lies in the ellipse takes no part"), this);
    band_ = push(tr("Band"), QStringLiteral("left_out_band"),
                 tr("Drag along a line on the frame: what lies in the band takes no part. It is as wide as the brush"),
                 this);
    for (auto [button, kind] : {std::pair{ellipse_, ShapeKind::ellipse}, std::pair{band_, ShapeKind::band}}) {
        button->setCheckable(true);
        row->addWidget(button);
        connect(button, &QPushButton::clicked, this, [this, kind = kind](bool on) { take_up(kind, on); });
    }
    column()->addLayout(row);
    frames_ =
        new FoundList({QStringLiteral("left_out_frames"), tr("Frames with something left out"),
                       tr("How much of each frame takes no part. Choose one to see it; take the tick away to take all "
                          "of it in again."),
                       tr("Leave out all"), QString()},
                      this);
    column()->addWidget(frames_);
    nobody_ = quiet_label({}, this);
    nobody_->setObjectName(QStringLiteral("left_out_nobody"));
    column()->addWidget(nobody_);
    connect(frames_, &FoundList::chosen, this, [this](int id) {
        studio_.select(id);
        viewer_.set_view(View::frame);
    });
    connect(frames_, &FoundList::decided, this, [this](const std::vector<int>& ids, bool take) {
        if (take) return;
        // The row goes with its tick: not while it is being ticked.
        QTimer::singleShot(0, this, [this, ids] {
            studio_.document().edit(with_left_out(studio_.pile(), ids, Mask(studio_.pile().size)),
                                    tr("Take in again in %n frame(s)", nullptr, int(ids.size())));
        });
    });
    connect(&canvas_, &Canvas::tool_left, this, &MergeLeaveOut::put_down);
    // The brush goes before any tool.
    connect(&canvas_, &Canvas::painting_changed, this, [this] {
        if (canvas_.painting() && (ellipse_->isChecked() || band_->isChecked())) {
            canvas_.set_tool(&streaks_->tool());
            ellipse_->setChecked(false);
            band_->setChecked(false);
        }
        if (canvas_.painting()) streaks_->put_down();
    });
    connect(streaks_, &MergeStreaks::drawing_begun, this, &MergeLeaveOut::put_down_shapes);
    connect(&studio.document(), &Document::changed, this, &MergeLeaveOut::out_of_date);
    connect(&studio, &Studio::selection_changed, this, &MergeLeaveOut::out_of_date);
    connect(&viewer, &Viewer::view_changed, this, &MergeLeaveOut::out_of_date);
}

void MergeLeaveOut::take_up(ShapeKind kind, bool on) {
    canvas_.set_painting(nullptr);
    streaks_->put_down();
    tool_.set_kind(kind);
    canvas_.set_tool(on ? static_cast<CanvasTool*>(&tool_) : &streaks_->tool());
    ellipse_->setChecked(on && kind == ShapeKind::ellipse);
    band_->setChecked(on && kind == ShapeKind::band);
    if (on && viewer_.of_all()) viewer_.set_view(View::frame);
}

void MergeLeaveOut::opened() {
    streaks_->show_marks(true);
    canvas_.set_tool(&streaks_->tool());
}

void MergeLeaveOut::closed() {
    streaks_->show_marks(false);
    put_down();
    canvas_.set_tool(nullptr);
}

void MergeLeaveOut::put_down() {
    put_down_shapes();
    streaks_->put_down();
}

void MergeLeaveOut::put_down_shapes() {
    if (canvas_.paints_on() == &target_) canvas_.set_painting(nullptr);
    if (ellipse_->isChecked() || band_->isChecked()) canvas_.set_tool(&streaks_->tool());
    ellipse_->setChecked(false);
    band_->setChecked(false);
}

void MergeLeaveOut::refresh() {
    streaks_->refresh();
    const Pile& pile = studio_.pile();
    const auto count = int(target_.frames().size());
    hint_->setText(
        viewer_.view() != View::frame
            ? tr("Switch to Frame and paint over what a frame should not give: a torch in the grass, a passing car.")
        : count > 1 ? tr("What you paint over takes no part in the %n selected frame(s).", nullptr, count)
                    : tr("What you paint over takes no part in this frame. Select more on the rail for a range."));
    std::vector<FoundThing> things;
    for (const Frame& frame : pile.frames) {
        if (frame.left_out.empty()) continue;
        const double percent = 100 * share_of(frame.left_out);
        things.push_back(
            {frame.id,
             tr("Frame %1: %2%").arg(number_of(pile, frame.id)).arg(number_in_words(percent, percent < 10 ? 1 : 0)),
             tr("Take the tick away to take all of this frame in again."), true, frame.id == studio_.current()});
    }
    frames_->set_things(things, things.empty() ? QString() : tr("Left out"));
    const std::optional<Rect> nobody = unvoted_area(pile, Zone::sky);
    nobody_->setVisible(nobody.has_value());
    if (nobody)
        nobody_->setText(tr("Around %1, %2 no frame takes part: the reference shows there.")
                             .arg(nobody->left + nobody->width / 2)
                             .arg(nobody->top + nobody->height / 2));
}

}  // namespace bp::app
