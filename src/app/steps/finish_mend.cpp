#include "app/steps/finish_mend.h"

#include <QHBoxLayout>
#include <cmath>

#include "app/looks/words.h"
#include "pile/finish_edits.h"

namespace bp::app {
namespace {

double held(double width) {
    return std::clamp(width, Mended::narrowest, Mended::widest);
}

}  // namespace

FinishMend::FinishMend(Studio& studio, Viewer& viewer, Canvas& canvas, QWidget* parent)
    : Page(parent), studio_(studio), viewer_(viewer), canvas_(canvas), tool_(canvas, tool_uses()) {
    column()->addWidget(
        quiet_label(tr("Click on a spot, or draw along a wire or a scratch. What surrounds it takes its place, or what "
                       "a frame shows there. Pull one to move it, or the dashed circle to mend it from elsewhere."),
                    this));
    size_ = new NamedSlider(
        tr("Width"), tr("Of the next one, in pixels of the picture (, and .)"), int(Mended::narrowest),
        int(Mended::widest), [](int v) { return tr("%1 px").arg(v); }, this);
    size_->slider()->setObjectName(QStringLiteral("mend_size"));
    column()->addWidget(size_);
    build_source();
    list_ =
        new FoundList({QStringLiteral("mended_list"), tr("Mended"),
                       tr("Take the tick away to see what was there; choose one to change it"), QString(), QString()},
                      this);
    column()->addWidget(list_);
    width_ = new ValueSliders(studio_, viewer_, this);
    width_->add({QStringLiteral("mend_width"), tr("Width of the chosen one"), tr("How wide what is mended is"),
                 int(Mended::narrowest), int(Mended::widest), 1, tr(" px"), 0,
                 [this](const Pile& pile) {
                     const Mended* one = find_mended(pile, chosen_);
                     return one ? one->width_px : Mended{}.width_px;
                 },
                 [this](const Pile& pile, double width) {
                     const Mended* one = find_mended(pile, chosen_);
                     if (!one) return pile;
                     Mended made = *one;
                     made.width_px = width;
                     return with_mended_changed(pile, made);
                 },
                 [this] { return chosen_; }});
    column()->addWidget(width_);
    remove_ = push(tr("Remove"), QStringLiteral("mend_remove"), tr("Shows what was there before"), this);
    column()->addWidget(remove_);
    connect(size_, &NamedSlider::changed, this, [this](int px) {
        Brush brush = canvas_.brush();
        brush.size = px;
        canvas_.set_brush(brush);
    });
    connect(&canvas_, &Canvas::brush_changed, this,
            [this] { size_->set_value(int(std::lround(held(canvas_.brush().size)))); });
    connect(list_, &FoundList::chosen, this, &FinishMend::choose);
    connect(list_, &FoundList::decided, this, [this](const std::vector<int>& ids, bool on) {
        Pile next = studio_.pile();
        for (const int id : ids)
            if (const Mended* there = find_mended(next, id)) {
                Mended one = *there;
                one.on = on;
                next = with_mended_changed(std::move(next), one);
            }
        studio_.document().edit(std::move(next), on ? tr("Mend") : tr("Do not mend"));
    });
    connect(remove_, &QPushButton::clicked, this,
            [this] { studio_.document().edit(without_mended(studio_.pile(), chosen_), tr("Remove what was mended")); });
    connect(&studio.document(), &Document::changed, this, &FinishMend::out_of_date);
}

void FinishMend::build_source() {
    auto* row = new QHBoxLayout;
    auto* label = new QLabel(tr("From"), this);
    source_ = new QComboBox(this);
    source_->setObjectName(QStringLiteral("mend_source"));
    source_->setAccessibleName(tr("What takes the place of what is mended"));
    source_->setToolTip(
        tr("What surrounds it; or what the frame that is chosen in the time rail shows there, or the median of up to "
           "fifteen frames of the run"));
    source_->setFocusPolicy(Qt::TabFocus);
    source_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    source_->addItem(tr("What surrounds it"), int(MendFrom::around));
    source_->addItem(QString(), int(MendFrom::frame));
    source_->addItem(tr("The median of the frames"), int(MendFrom::median));
    label->setBuddy(source_);
    row->addWidget(label);
    row->addWidget(source_, 1);
    column()->addLayout(row);
    connect(source_, &QComboBox::activated, this,
            [this](int index) { choose_source(MendFrom(source_->itemData(index).toInt())); });
    connect(&studio_, &Studio::selection_changed, this, &FinishMend::out_of_date);
}

// Of the chosen one, and of those that are mended next.
void FinishMend::choose_source(MendFrom from) {
    next_from_ = from;
    const Mended* one = find_mended(studio_.pile(), chosen_);
    if (!one) return;
    Mended made = *one;
    made.source = from;
    made.frame = from == MendFrom::frame ? studio_.current() : 0;
    studio_.document().edit(with_mended_changed(studio_.pile(), made), tr("Mend from elsewhere"));
}

MendingTool::Uses FinishMend::tool_uses() {
    return {[this]() -> const std::vector<Mended>& { return studio_.pile().finish.mended; },
            [this] { return chosen_; },
            [this](int id) { choose(id); },
            [this](const Mended& one) { viewer_.try_out(with_mended_changed(studio_.pile(), one)); },
            [this] { viewer_.leave_trial(); },
            [this](const Mended& one) {
                studio_.document().edit(with_mended_changed(studio_.pile(), one), tr("Move what is mended"));
            },
            [this](std::vector<Point> way) {
                if (viewer_.view() != View::result) {
                    studio_.say(tr("Switch to Result: the finished picture is what is mended."));
                    return;
                }
                const double width = held(canvas_.brush().size);
                if (way.size() == 1 && next_from_ == MendFrom::around) {
                    studio_.mend_picture(way.front(), width, [this](const Mended& one) { add(one); });
                    return;
                }
                Mended line;
                line.way = std::move(way);
                line.width_px = width;
                line.source = next_from_;
                line.frame = next_from_ == MendFrom::frame ? studio_.current() : 0;
                add(line);
            }};
}

void FinishMend::add(const Mended& mended) {
    auto [next, id] = with_mended(studio_.pile(), mended);
    if (id == 0) return;
    chosen_ = id;
    studio_.document().edit(std::move(next), mended.way.size() == 1 ? tr("Mend a spot") : tr("Mend a line"));
}

void FinishMend::choose(int id) {
    chosen_ = id;
    out_of_date();
    canvas_.update();
}

void FinishMend::opened() {
    viewer_.set_view(View::result);
    canvas_.set_tool(&tool_);
    refresh();
}

void FinishMend::closed() {
    canvas_.set_tool(nullptr);
    viewer_.leave_trial();
}

void FinishMend::refresh() {
    const Pile& pile = studio_.pile();
    size_->set_value(int(std::lround(held(canvas_.brush().size))));
    std::vector<FoundThing> things;
    for (const Mended& each : pile.finish.mended)
        things.push_back({each.id,
                          (each.way.size() == 1 ? tr("Spot at %1, %2") : tr("Line from %1, %2"))
                              .arg(number_in_words(each.way.front().x, 0))
                              .arg(number_in_words(each.way.front().y, 0)),
                          tr("Take the tick away to see what was there"), each.on, each.id == chosen_});
    const Mended* one = find_mended(pile, chosen_);
    const Frame* frame = one && one->source == MendFrom::frame ? find_frame(pile, one->frame) : nullptr;
    source_->setItemText(1, tr("Frame %1").arg(number_of(pile, frame ? frame->id : studio_.current())));
    source_->setCurrentIndex(source_->findData(int(one ? one->source : next_from_)));
    list_->set_things(things, things.empty() ? QString() : tr("Mended"));
    const bool any = one != nullptr;
    width_->setVisible(any);
    remove_->setVisible(any);
    width_->show_values();
}

}  // namespace bp::app
