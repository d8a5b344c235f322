#include "app/rail/time_rail.h"

#include <QAccessible>
#include <QHelpEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QSettings>
#include <QToolButton>
#include <QToolTip>
#include <algorithm>
#include <cmath>
#include <utility>

#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "pile/edits.h"

namespace bp::app {

using namespace rail;

namespace {

constexpr auto traces_key = "rail/traces";
constexpr double most_zoom = 60;
constexpr double slat_reach = 12;  // how far from a slat a click may be

}  // namespace

TimeRail::TimeRail(Studio& studio, Surveyor& surveyor, QWidget* parent)
    : QWidget(parent), studio_(studio), surveyor_(surveyor) {
    setObjectName(QStringLiteral("time_rail"));
    setLayoutDirection(Qt::LeftToRight);  // Time runs one way in every language.
    setAccessibleName(tr("Time rail: the frames in order"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setAttribute(Qt::WA_OpaquePaintEvent);
    const QStringList usual{QStringLiteral("sharpness"), QStringLiteral("shift"), QStringLiteral("light")};
    for (const QString& key : QSettings().value(traces_key, usual).toStringList())
        if (trace_named(key)) shown_ << key;
    choose_ = new QToolButton(this);
    choose_->setObjectName(QStringLiteral("choose_traces"));
    choose_->setText(tr("Traces"));
    choose_->setToolTip(tr("Chooses what is drawn over the frames"));
    choose_->setAccessibleName(tr("Traces over the time rail"));
    choose_->setProperty("flat", true);
    choose_->setPopupMode(QToolButton::InstantPopup);
    choose_->setMenu(new QMenu(choose_));
    fill_menu();
    fit_height();
    connect(&studio.document(), &Document::opened, this, [this] {
        zoom_ = 1;
        scroll_ = 0;
        miniatures_.clear();
    });
    connect(&studio, &Studio::zone_changed, this, [this] {
        fit_height();
        update();
    });
    connect(&studio.document(), &Document::changed, this, [this] {
        fit_height();
        lay_out();
        update();
    });
    connect(&studio, &Studio::selection_changed, this, [this] {
        follow_current();
        update();
        if (QAccessible::isActive() && hasFocus()) {
            QAccessibleEvent moved(this, QAccessible::Focus);
            moved.setChild(number_of(studio_.pile(), studio_.current()) - 1);
            QAccessible::updateAccessibility(&moved);
        }
    });
    connect(&studio.thumbnails(), &Thumbnails::arrived, this, [this](int id) {
        miniatures_.erase(id);
        update();
    });
    connect(&surveyor, &Surveyor::changed, this, qOverload<>(&QWidget::update));
}

void TimeRail::fill_menu() {
    for (const Trace& trace : traces()) {
        QAction* action = choose_->menu()->addAction(trace.name);
        action->setObjectName(QStringLiteral("trace_") + trace.key);
        action->setToolTip(trace.tip);
        action->setCheckable(true);
        action->setChecked(shown_.contains(trace.key));
        connect(action, &QAction::toggled, this, [this, key = trace.key](bool on) { show_trace(key, on); });
    }
    choose_->menu()->setToolTipsVisible(true);
}

void TimeRail::show_trace(const QString& key, bool on) {
    if (shown_.contains(key) == on) return;
    if (on)
        shown_ << key;
    else
        shown_.removeAll(key);
    QSettings().setValue(traces_key, shown_);
    fit_height();
    update();
}

void TimeRail::bring_traces(const QStringList& keys) {
    brought_ = keys;
    fit_height();
    update();
}

// In the order of the table, so that a trace always stands at the same place among the others.
QStringList TimeRail::drawn_traces() const {
    QStringList out;
    for (const Trace& trace : traces())
        if (shown_.contains(trace.key) || brought_.contains(trace.key)) out << trace.key;
    return out;
}

void TimeRail::fit_height() {
    setFixedHeight(int(slat_top() + slat_height + footer));
    choose_->move(2, int(slat_top() + slat_height / 2 - choose_->sizeHint().height() / 2.0));
}

void TimeRail::set_head(QWidget* left, QWidget* right) {
    heads_ = {left, right};
    for (QWidget* head : heads_) {
        head->setParent(this);
        head->show();
    }
    place_heads();
}

void TimeRail::place_heads() {
    constexpr int times = 72;
    for (std::size_t i = 0; i < heads_.size(); ++i) {
        if (!heads_[i]) continue;
        const QSize size = heads_[i]->sizeHint();
        heads_[i]->resize(size);
        heads_[i]->move(i == 0 ? times : width() - times - size.width(), (int(header) - size.height()) / 2);
    }
}

bool TimeRail::on_foot(QPointF p) const {
    if (p.y() <= slat_top() + slat_height + 2 || patches_on_ || tag_at(p) != 0) return false;
    const int id = frame_at(p);
    return id != 0 && slat_of(id).adjusted(0, 0, 0, footer).contains(p);
}

std::size_t TimeRail::place_for(double x) const {
    const auto& slats = layout_.slats;
    return std::size_t(
        std::count_if(slats.begin(), slats.end(), [&](const Slat& slat) { return place_of(slat).center().x() < x; }));
}

void TimeRail::move_selected(int by) {
    const Pile& pile = studio_.pile();
    const auto& ids = studio_.selected();
    const auto selected = [&](const Frame& f) { return std::find(ids.begin(), ids.end(), f.id) != ids.end(); };
    const auto first = std::find_if(pile.frames.begin(), pile.frames.end(), selected);
    const auto end = std::find_if(pile.frames.rbegin(), pile.frames.rend(), selected).base();
    const long to = by < 0 ? first - pile.frames.begin() + by : end - pile.frames.begin() + by;
    if (to < 0 || to > long(pile.frames.size())) return;
    studio_.document().edit(with_moved_frames(pile, ids, std::size_t(to)), tr("Order of frames"),
                            QStringLiteral("order"));
}

void TimeRail::contextMenuEvent(QContextMenuEvent* event) {
    if (!studio_.document().open()) return;
    const bool by_key = event->reason() == QContextMenuEvent::Keyboard;
    if (const int id = by_key ? 0 : frame_at(event->pos()); id != 0) {
        const auto& ids = studio_.selected();
        if (std::find(ids.begin(), ids.end(), id) == ids.end()) studio_.select(id);
    }
    emit menu_wanted(by_key ? mapToGlobal(slat_of(studio_.current()).center().toPoint()) : event->globalPos());
}

double TimeRail::slat_top() const {
    return header + lane * double(drawn_traces().size()) + wedge_height() + marks;
}

void TimeRail::point_at(int id) {
    pointed_ = id;
    update();
}

void TimeRail::show_taper(bool on) {
    taper_wanted_ = on;
    fit_height();
    update();
}

double TimeRail::wedge_height() const {
    const bool seen = taper_wanted_ && studio_.document().open() && TaperWedge::seen(studio_.pile(), studio_.zone());
    return seen ? TaperWedge::height : 0;
}

std::optional<TaperWedge> TimeRail::wedge() const {
    if (wedge_height() <= 0) return std::nullopt;
    const Pile& pile = studio_.pile();
    std::vector<double> middles;
    for (const int id : merged_ids(pile, studio_.zone())) middles.push_back(slat_of(id).center().x());
    const double top = header + lane * double(drawn_traces().size());
    const Method& method = tried_ ? *tried_ : method_of(pile, studio_.zone());
    return TaperWedge(pulled_ ? *pulled_ : method.taper, method.head, std::move(middles),
                      {side, top, room(), TaperWedge::height});
}

void TimeRail::try_method(const std::optional<Method>& method) {
    if (tried_ == method) return;
    tried_ = method;
    update();
}

bool TimeRail::leave_drag() {
    if (grips_) {
        grips_ = false;
        carried_.reset();
        unsetCursor();
        update();
        return true;
    }
    if (!held_) return false;
    held_.reset();
    pulled_.reset();
    update();
    emit taper_left();
    return true;
}

double TimeRail::room() const {
    return std::max(50.0, width() - 2 * side);
}

QRectF TimeRail::place_of(const Slat& slat) const {
    return {side + slat.left - scroll_, slat_top(), slat.width, slat_height};
}

QRectF TimeRail::slat_of(int id) const {
    const auto found =
        std::find_if(layout_.slats.begin(), layout_.slats.end(), [id](const Slat& s) { return s.id == id; });
    return found == layout_.slats.end() ? QRectF() : place_of(*found);
}

void TimeRail::lay_out() {
    layout_ = lay_out_rail(studio_.pile(), room(), zoom_);
    scroll_ = std::clamp(scroll_, 0.0, std::max(0.0, layout_.length - room()));
}

void TimeRail::resizeEvent(QResizeEvent*) {
    lay_out();
    fit_height();
    place_heads();
}

void TimeRail::zoom_to(double zoom, double at) {
    const double before = layout_.length;
    const double place = at - side + scroll_;
    zoom_ = std::clamp(zoom, 1.0, most_zoom);
    lay_out();
    if (before > 0) scroll_ = place * layout_.length / before - (at - side);
    scroll_ = std::clamp(scroll_, 0.0, std::max(0.0, layout_.length - room()));
    update();
}

// The current frame stays in sight.
void TimeRail::follow_current() {
    const QRectF place = slat_of(studio_.current());
    if (place.isNull()) return;
    const double margin = std::min(room() / 4, place.width() + 20);
    if (place.left() < side + margin) scroll_ -= side + margin - place.left();
    if (place.right() > side + room() - margin) scroll_ += place.right() - (side + room() - margin);
    scroll_ = std::clamp(scroll_, 0.0, std::max(0.0, layout_.length - room()));
}

int TimeRail::frame_at(QPointF p) const {
    int best = 0;
    double nearest = slat_reach;
    for (const Slat& slat : layout_.slats) {
        const QRectF place = place_of(slat);
        const double d = std::abs(p.x() - place.center().x()) - place.width() / 2;
        if (d < nearest) {
            nearest = d;
            best = slat.id;
        }
    }
    return best;
}

void TimeRail::press(int number) {
    const std::vector<Frame>& frames = studio_.pile().frames;
    if (number < 1 || number > int(frames.size())) return;
    const int id = frames[std::size_t(number) - 1].id;
    if (patches_held_)
        emit patch_clicked(id, true);
    else
        choose(id, Qt::NoModifier);
}

void TimeRail::choose(int id, Qt::KeyboardModifiers modifiers) {
    if (id == 0) return;
    studio_.select(id, modifiers.testFlag(Qt::ShiftModifier), modifiers.testFlag(Qt::ControlModifier));
    emit frame_chosen();
}

void TimeRail::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    if (const auto seen = wedge()) {
        held_ = seen->at(event->position());
        if (held_) return;
    }
    if (const int id = patches_held_ ? 0 : tag_at(event->position())) {
        emit tag_clicked(id);
        return;
    }
    if (patches_held_) {
        if (const int id = frame_at(event->position()))
            emit patch_clicked(id, !event->modifiers().testFlag(Qt::ShiftModifier));
        return;
    }
    grips_ = event->modifiers() == Qt::NoModifier && on_foot(event->position());
    if (grips_) {
        // All that are selected are carried, when this one is among them.
        const int id = frame_at(event->position());
        const auto& ids = studio_.selected();
        if (std::find(ids.begin(), ids.end(), id) == ids.end()) choose(id, Qt::NoModifier);
        setCursor(Qt::ClosedHandCursor);
        return;
    }
    scrubbing_ = event->modifiers() == Qt::NoModifier;
    choose(frame_at(event->position()), event->modifiers());
}

void TimeRail::mouseMoveEvent(QMouseEvent* event) {
    if (held_) {
        if (const auto seen = wedge()) {
            pulled_ = seen->pulled(*held_, event->position());
            update();
            emit taper_tried(*pulled_);
        }
        return;
    }
    if (grips_) {
        carried_ = place_for(event->position().x());
        update();
        return;
    }
    if (!scrubbing_) {
        emit slat_pointed(frame_at(event->position()));
        const bool foot = on_foot(event->position());
        if (!near_) setCursor(foot ? Qt::OpenHandCursor : Qt::ArrowCursor);
        const auto seen = wedge();
        const auto before = std::exchange(near_, seen ? seen->at(event->position()) : std::nullopt);
        if (near_ == before) return;
        setCursor(near_ ? Qt::PointingHandCursor : Qt::ArrowCursor);
        update();
        return;
    }
    const int id = frame_at(event->position());
    if (id != 0 && id != studio_.current()) choose(id, Qt::NoModifier);
}

void TimeRail::mouseReleaseEvent(QMouseEvent* event) {
    scrubbing_ = false;
    if (std::exchange(grips_, false)) {
        unsetCursor();
        // A click there is one on the frame.
        if (!carried_) choose(frame_at(event->position()), Qt::NoModifier);
    }
    if (const auto to = std::exchange(carried_, std::nullopt)) {
        studio_.document().edit(with_moved_frames(studio_.pile(), studio_.selected(), *to), tr("Order of frames"));
        update();
    }
    held_.reset();
    if (const auto pulled = std::exchange(pulled_, std::nullopt)) emit taper_settled(*pulled);
}

void TimeRail::mouseDoubleClickEvent(QMouseEvent* event) {
    const auto seen = wedge();
    if (const auto handle = seen ? seen->at(event->position()) : std::nullopt) {
        const Taper straight = seen->straightened(*handle);
        if (straight != method_of(studio_.pile(), studio_.zone()).taper) emit taper_settled(straight);
        return;
    }
    if (patches_held_ || tag_at(event->position()) != 0) return mousePressEvent(event);
    if (frame_at(event->position()) != 0) studio_.toggle_aside();
}

void TimeRail::wheelEvent(QWheelEvent* event) {
    // Touch pads give pixels, wheels give eighths of a degree.
    const double steps = event->angleDelta().y() / 120.0;
    const double pixels = event->pixelDelta().isNull() ? steps * 80 : event->pixelDelta().y() + event->pixelDelta().x();
    if (event->modifiers().testFlag(Qt::ControlModifier)) {
        zoom_to(zoom_ * std::pow(1.25, steps), event->position().x());
    } else if (layout_.length > room() + 1) {
        scroll_ = std::clamp(scroll_ - pixels, 0.0, layout_.length - room());
        update();
    } else if (steps != 0) {
        studio_.step_current(steps > 0 ? -1 : 1);
        emit frame_chosen();
    }
    event->accept();
}

void TimeRail::zoom_by(double factor) {
    zoom_to(zoom_ * factor, slat_of(studio_.current()).center().x());
}

void TimeRail::go_to(int number, bool extend) {
    const auto& frames = studio_.pile().frames;
    if (frames.empty()) return;
    choose(frames[std::size_t(std::clamp(number, 1, int(frames.size()))) - 1].id,
           extend ? Qt::ShiftModifier : Qt::NoModifier);
}

int TimeRail::frame_count() const {
    return int(studio_.pile().frames.size());
}

QString TimeRail::words_of(int number) const {
    return tr("Frame %1: %2")
        .arg(number)
        .arg(tip_for(studio_.pile().frames[std::size_t(number) - 1].id)
                 .replace(QLatin1Char('\n'), QStringLiteral(", ")));
}

QRectF TimeRail::place_of_number(int number) const {
    return slat_of(studio_.pile().frames[std::size_t(number) - 1].id);
}

bool TimeRail::is_selected(int number) const {
    const auto& ids = studio_.selected();
    return std::find(ids.begin(), ids.end(), studio_.pile().frames[std::size_t(number) - 1].id) != ids.end();
}

bool TimeRail::is_current(int number) const {
    return studio_.current() == studio_.pile().frames[std::size_t(number) - 1].id;
}

QString TimeRail::tip_for(int id) const {
    const Frame* frame = find_frame(studio_.pile(), id);
    if (!frame) return {};
    QStringList lines{name_of_frame(*frame)};
    const CaptureData& c = frame->file->capture;
    if (c.captured) lines << time_in_words(*c.captured);
    if (c.exposure_s) lines << exposure_in_words(*c.exposure_s);
    if (frame->role != Role::scene)
        lines << (frame->role_from == RoleFrom::guess ? tr("%1 (a guess)").arg(word(frame->role)) : word(frame->role));
    if (!frame->note.empty()) lines << QString::fromStdString(frame->note);
    if (!usable(*frame)) lines << said(frame->problem);
    if (frame->aside) lines << tr("Set aside");
    for (const Part& part : studio_.pile().parts)
        if (part.frame == id && part.on) lines << name_of_part(studio_.pile(), part);
    if (const Findings* known = surveyor_.of(id); known && !known->marks.empty())
        lines << tr("Odd: %1").arg(reasons_in_words(known->marks));
    if (lost(studio_.pile(), *frame)) lines << tr("Could not be aligned: not merged");
    return lines.join(QLatin1Char('\n'));
}

bool TimeRail::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        auto* help = static_cast<QHelpEvent*>(event);
        const auto seen = wedge();
        const QString tip =
            seen && seen->at(help->pos())
                ? tr("Pull the corner to fade trails over more or less of the run, the knot to bend the rise")
            : on_foot(help->pos()) ? tr("Drag to move the frame, or all that are selected, to another place of the run")
                                   : tip_for(frame_at(help->pos()));
        QToolTip::showText(help->globalPos(), tip, this);
        return true;
    }
    return QWidget::event(event);
}

}  // namespace bp::app
