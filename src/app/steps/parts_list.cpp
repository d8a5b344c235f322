#include "app/steps/parts_list.h"

#include <QHBoxLayout>
#include <QPainter>
#include <QSignalBlocker>
#include <QTimer>
#include <cmath>

#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "engine/hiding.h"
#include "pile/part_edits.h"

namespace bp::app {
namespace {

constexpr int row_height = 28;
constexpr int most_rows = 5;
constexpr double least_hidden = 0.02;  // of a part, that is worth to be told
constexpr int widest_band = 400;       // pixels

QString percent(int value) {
    return PartsList::tr("%1%").arg(value);
}

}  // namespace

PartsList::PartsList(Studio& studio, Viewer& viewer, PartTarget& target, QWidget* parent)
    : Page(parent), studio_(studio), viewer_(viewer), target_(target) {
    list_ = new QListWidget(this);
    list_->setObjectName(QStringLiteral("parts_list"));
    list_->setAccessibleName(tr("Parts, the uppermost first"));
    list_->setToolTip(
        tr("The tick shows or hides a part; drag a row to lay the part over others or under them. Press F2 or "
           "double-click to name it."));
    list_->setIconSize({30, 20});
    list_->setDragDropMode(QAbstractItemView::InternalMove);
    list_->setDefaultDropAction(Qt::MoveAction);
    column()->addWidget(list_);
    build_chosen();
    connect(list_, &QListWidget::currentRowChanged, this, [this] {
        if (chosen() == 0) return;
        target_.set_active(chosen());
        if (const Part* part = find_part(studio_.pile(), chosen()); part && part->frame != studio_.current())
            studio_.select(part->frame);
    });
    connect(list_, &QListWidget::itemChanged, this, [this](QListWidgetItem* item) {
        const int id = item->data(Qt::UserRole).toInt();
        const Part* part = find_part(studio_.pile(), id);
        if (!part) return;
        const bool on = item->checkState() == Qt::Checked;
        const QString name = item->text().trimmed();
        if (on != part->on)
            studio_.document().edit(with_part_on(studio_.pile(), id, on), on ? tr("Show part") : tr("Hide part"));
        else if (!name.isEmpty() && name != name_of_part(studio_.pile(), *part))
            studio_.document().edit(with_part_name(studio_.pile(), id, name.toStdString()), tr("Name part"));
    });
    // A row that was dragged: the list tells it while it still moves it.
    connect(list_->model(), &QAbstractItemModel::rowsMoved, this,
            [this](const QModelIndex&, int from, int, const QModelIndex&, int to) {
                const int steps = to > from ? from - to + 1 : from - to;
                const QListWidgetItem* item = list_->item(to > from ? to - 1 : to);
                const int id = item ? item->data(Qt::UserRole).toInt() : 0;
                QTimer::singleShot(0, this, [this, id, steps] {
                    studio_.document().edit(with_part_moved(studio_.pile(), id, steps), tr("Move part"));
                });
            });
    connect(&studio.document(), &Document::changed, this, &PartsList::out_of_date);
    connect(&target_, &PartTarget::active_changed, this, &PartsList::out_of_date);
    connect(&studio.thumbnails(), &Thumbnails::finished, this, &PartsList::out_of_date);
}

void PartsList::build_chosen() {
    of_chosen_ = new QWidget(this);
    auto* column_of = new QVBoxLayout(of_chosen_);
    column_of->setContentsMargins(0, 0, 0, 0);
    column_of->setSpacing(space::small);
    strength_ = new NamedSlider(tr("Strength of the part"), tr("How strongly the part covers what lies below"), 0, 100,
                                percent, of_chosen_);
    strength_->slider()->setObjectName(QStringLiteral("part_strength"));
    column_of->addWidget(strength_);
    auto* row = new QHBoxLayout;
    join_ = new QComboBox(of_chosen_);
    join_->setObjectName(QStringLiteral("part_join"));
    join_->setAccessibleName(tr("How the part joins what lies below"));
    join_->setToolTip(
        tr("Whether the part lies over what is below, shows only where it is lighter or darker, or adds "
           "its light"));
    join_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    for (const JoinEntry& entry : joins()) join_->addItem(word(entry.join), int(entry.join));
    column_of->addWidget(join_);
    edge_ = new QComboBox(of_chosen_);
    edge_->setObjectName(QStringLiteral("part_edge"));
    edge_->setAccessibleName(tr("How the edge of the part runs"));
    edge_->setToolTip(
        tr("As painted; where the frames agree best, within a band about where it was painted; or blended: there as "
           "well, and differences of light and colour vanish over it"));
    edge_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    for (const Edge edge : {Edge::painted, Edge::seam, Edge::blended}) edge_->addItem(word(edge), int(edge));
    column_of->addWidget(edge_);
    band_ = new NamedSlider(
        tr("Band of the edge"), tr("How far from where it was painted the edge may run, to both sides together"), 4,
        widest_band, [](int v) { return tr("%1 px").arg(v); }, of_chosen_);
    band_->slider()->setObjectName(QStringLiteral("part_band"));
    column_of->addWidget(band_);
    hidden_ = quiet_label({}, of_chosen_);
    hidden_->setObjectName(QStringLiteral("part_hidden"));
    column_of->addWidget(hidden_);
    const auto tool = [&](const QString& picture, const QString& name, const QString& words) {
        auto* b = push({}, name, words, of_chosen_);
        set_icon(b, picture);
        b->setAccessibleName(words);
        row->addWidget(b);
        return b;
    };
    up_ = tool(QStringLiteral("up"), QStringLiteral("part_up"), tr("Lay the part over the next one"));
    down_ = tool(QStringLiteral("down"), QStringLiteral("part_down"), tr("Lay the part under the next one"));
    remove_ = tool(QStringLiteral("remove"), QStringLiteral("part_remove"), tr("Remove the part"));
    column_of->addLayout(row);
    column()->addWidget(of_chosen_);
    connect(strength_, &NamedSlider::changed, this,
            [this](int value) { viewer_.try_out(with_part_strength(studio_.pile(), chosen(), value / 100.0)); });
    connect(strength_, &NamedSlider::settled, this, [this](int value) {
        studio_.document().edit(with_part_strength(studio_.pile(), chosen(), value / 100.0), tr("Strength of part"),
                                QStringLiteral("part strength %1").arg(chosen()));
        viewer_.leave_trial();
    });
    connect(strength_, &NamedSlider::left, &viewer_, &Viewer::leave_trial);
    connect(join_, &QComboBox::activated, this, [this](int) {
        const Join join = Join(join_->currentData().toInt());
        studio_.document().edit(with_part_join(studio_.pile(), chosen(), join), tr("Join: %1").arg(word(join)));
    });
    connect(edge_, &QComboBox::activated, this, [this](int) {
        const Edge edge = Edge(edge_->currentData().toInt());
        studio_.document().edit(with_part_edge(studio_.pile(), chosen(), edge), word(edge));
    });
    connect(band_, &NamedSlider::settled, this, [this](int value) {
        studio_.document().edit(with_part_band(studio_.pile(), chosen(), value), tr("Band of the edge"),
                                QStringLiteral("part band %1").arg(chosen()));
    });
    connect(up_, &QPushButton::clicked, this,
            [this] { studio_.document().edit(with_part_moved(studio_.pile(), chosen(), 1), tr("Move part")); });
    connect(down_, &QPushButton::clicked, this,
            [this] { studio_.document().edit(with_part_moved(studio_.pile(), chosen(), -1), tr("Move part")); });
    connect(remove_, &QPushButton::clicked, this,
            [this] { studio_.document().edit(without_part(studio_.pile(), chosen()), tr("Remove part")); });
}

int PartsList::chosen() const {
    const QListWidgetItem* item = list_->currentItem();
    return item ? item->data(Qt::UserRole).toInt() : 0;
}

// What of its frame the part shows, with a little around it; hatched from the right as far as it is hidden.
QIcon PartsList::picture_of(const Part& part, double hidden) const {
    const QImage frame = studio_.thumbnails().of(part.frame);
    Rect bounds = part.mask.bounds();
    const Frame* of = find_frame(studio_.pile(), part.frame);
    if (of) {
        // Where the frame has it, which may be placed far from there.
        const Point middle = placement(studio_.pile(), *of)
                                 .to_frame({bounds.left + bounds.width / 2.0, bounds.top + bounds.height / 2.0});
        if (!std::isfinite(middle.x) || !std::isfinite(middle.y)) return QIcon(QPixmap::fromImage(frame));
        bounds.left = int(middle.x) - bounds.width / 2;
        bounds.top = int(middle.y) - bounds.height / 2;
    }
    if (frame.isNull() || bounds.empty()) return QIcon(QPixmap::fromImage(frame));
    const QSize icon = list_->iconSize();
    const double scale = double(frame.width()) / std::max(1, studio_.pile().size.width);
    QRectF seen(bounds.left * scale, bounds.top * scale, bounds.width * scale, bounds.height * scale);
    // Of the icon's shape, and no smaller than it.
    const double width =
        std::max({seen.width() * 1.2, seen.height() * 1.2 * icon.width() / icon.height(), double(icon.width())});
    seen = QRectF(seen.center().x() - width / 2, seen.center().y() - width * icon.height() / icon.width() / 2, width,
                  width * icon.height() / icon.width());
    // Inside the frame where it can be.
    QRect cut = seen.toAlignedRect();
    cut.moveLeft(std::max(0, std::min(cut.left(), frame.width() - cut.width())));
    cut.moveTop(std::max(0, std::min(cut.top(), frame.height() - cut.height())));
    QPixmap out =
        QPixmap::fromImage(frame.copy(cut.intersected(frame.rect()))
                               .scaled(icon * devicePixelRatioF(), Qt::KeepAspectRatio, Qt::SmoothTransformation));
    out.setDevicePixelRatio(devicePixelRatioF());
    if (hidden > 0) {
        QPainter painter(&out);
        const QSizeF shown = out.deviceIndependentSize();
        const QRectF under(shown.width() * (1 - hidden), 0, shown.width() * hidden, shown.height());
        painter.fillRect(under, QColor(0, 0, 0, 150));
        painter.fillRect(under, QBrush(theme().hatch, Qt::BDiagPattern));
    }
    QIcon icon_of(out);
    icon_of.addPixmap(out, QIcon::Selected);  // else a chosen row's is tinted
    return icon_of;
}

void PartsList::refresh() {
    const QSignalBlocker quiet(list_);
    const Pile& pile = studio_.pile();
    const int scrolled = list_->verticalScrollBar()->value();
    list_->clear();
    const std::vector<Hidden> all_hidden = hidden_parts(pile);
    const auto hidden_of = [&](int id) {
        const auto at =
            std::find_if(all_hidden.begin(), all_hidden.end(), [id](const Hidden& h) { return h.part == id; });
        return at == all_hidden.end() || at->share < least_hidden ? nullptr : &*at;
    };
    const auto words_of = [&](const Hidden& h) {
        return tr("%1% of it lies under %2.")
            .arg(std::lround(100 * h.share))
            .arg(name_of_part(pile, *find_part(pile, h.by)));
    };
    for (auto it = pile.parts.rbegin(); it != pile.parts.rend(); ++it) {
        auto* item = new QListWidgetItem(name_of_part(pile, *it), list_);
        item->setData(Qt::UserRole, it->id);
        item->setFlags(item->flags() | Qt::ItemIsUserCheckable | Qt::ItemIsEditable);
        item->setCheckState(it->on ? Qt::Checked : Qt::Unchecked);
        const Hidden* hidden = hidden_of(it->id);
        item->setIcon(picture_of(*it, hidden ? hidden->share : 0));
        const QString from = tr("From frame %1").arg(number_of(pile, it->frame));
        item->setToolTip(hidden ? from + QStringLiteral(". ") + words_of(*hidden) : from);
        item->setData(Qt::AccessibleDescriptionRole, item->toolTip());
        if (it->id == target_.active()) list_->setCurrentItem(item);
    }
    list_->setFixedHeight(row_height * std::clamp(list_->count(), 1, most_rows) + 2 * list_->frameWidth());
    list_->verticalScrollBar()->setValue(scrolled);
    if (list_->currentItem()) list_->scrollToItem(list_->currentItem());
    const Part* part = find_part(pile, chosen());
    list_->setVisible(!pile.parts.empty());
    of_chosen_->setVisible(part != nullptr);
    if (!part) return;
    strength_->set_value(int(std::lround(part->strength * 100)));
    join_->setCurrentIndex(join_->findData(int(part->join)));
    edge_->setCurrentIndex(edge_->findData(int(part->edge)));
    band_->setVisible(part->edge != Edge::painted);
    band_->set_value(int(std::lround(band_of(pile, *part))));
    const Hidden* hidden = hidden_of(part->id);
    hidden_->setVisible(hidden != nullptr);
    if (hidden) hidden_->setText(words_of(*hidden));
    up_->setEnabled(part != &pile.parts.back());
    down_->setEnabled(part != &pile.parts.front());
}

}  // namespace bp::app
