#include "app/panels/align_table.h"

#include <QHeaderView>
#include <QLabel>
#include <QSignalBlocker>
#include <QVBoxLayout>
#include <algorithm>

#include "align/moved.h"
#include "app/looks/theme.h"
#include "app/looks/words.h"

namespace bp::app {
namespace {

constexpr int table_width = 500;
constexpr int scale_width = 50;  // what the column of scales takes more

constexpr int columns = 8;
constexpr int scale_column = 4;

// Sorts by what stands in it, not by its letters.
class FrameLine : public QTreeWidgetItem {
  public:
    using QTreeWidgetItem::QTreeWidgetItem;
    void set_number(int column, double value, int digits) {
        setText(column, number_in_words(value, digits));
        setData(column, Qt::UserRole, value);
        setTextAlignment(column, Qt::AlignRight | Qt::AlignVCenter);
    }
    bool operator<(const QTreeWidgetItem& other) const override {
        const int column = treeWidget()->sortColumn();
        if (column == columns - 1) return text(column) < other.text(column);
        return data(column, Qt::UserRole).toDouble() < other.data(column, Qt::UserRole).toDouble();
    }
    int id = 0;
};

QString state_of(const Pile& pile, const Frame& frame, const Alignment& place) {
    if (frame.id == pile.reference) return AlignTable::tr("reference");
    if (!place.aligned) return place.insisted ? AlignTable::tr("lost, merged") : AlignTable::tr("lost");
    if (place.by_hand) return AlignTable::tr("by hand");
    if (place.by_clock) return AlignTable::tr("by time");
    return frame.aside ? AlignTable::tr("aside") : QString();
}

}  // namespace

AlignTable::AlignTable(Studio& studio, QWidget* parent) : QFrame(parent), studio_(studio) {
    setObjectName(QStringLiteral("align_panel"));
    setAccessibleName(tr("How the frames lie"));
    setFixedWidth(table_width);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(space::medium, space::medium, space::medium, space::medium);
    auto* title = new QLabel(tr("How the frames lie"), this);
    title->setFont(face(type::step, QFont::DemiBold));
    column->addWidget(title);
    table_ = new QTreeWidget(this);
    table_->setObjectName(QStringLiteral("align_table"));
    table_->setAccessibleName(tr("How the frames lie"));
    table_->setHeaderLabels(
        {tr("Frame"), tr("Across"), tr("Down"), tr("Turn °"), tr("Scale"), tr("Rest"), tr("Sure %"), tr("State")});
    for (const int moved : {1, 2})
        table_->headerItem()->setToolTip(moved, tr("How far the middle of the frame was moved, in pixels"));
    table_->headerItem()->setToolTip(5,
                                     tr("What is left between the frame and the reference after aligning, in pixels"));
    table_->headerItem()->setToolTip(6, tr("Share of the textured places, or of the stars, that agree"));
    for (int c = 0; c < columns - 1; ++c) table_->headerItem()->setTextAlignment(c, Qt::AlignRight | Qt::AlignVCenter);
    table_->header()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table_->header()->setStretchLastSection(false);
    table_->header()->setSectionResizeMode(columns - 1, QHeaderView::Stretch);
    table_->setRootIsDecorated(false);
    table_->setIndentation(0);
    table_->setFont(face(type::small));
    table_->header()->setFont(face(type::small));
    table_->header()->setMinimumSectionSize(24);
    table_->setUniformRowHeights(true);
    table_->setSelectionMode(QAbstractItemView::ExtendedSelection);
    table_->setSortingEnabled(true);
    table_->sortByColumn(0, Qt::AscendingOrder);
    column->addWidget(table_);
    connect(table_, &QTreeWidget::itemSelectionChanged, this, [this] {
        std::vector<int> ids;
        for (const QTreeWidgetItem* item : table_->selectedItems())
            ids.push_back(static_cast<const FrameLine*>(item)->id);
        if (!ids.empty()) studio_.select_these(std::move(ids));
    });
    connect(&studio.document(), &Document::changed, this, &AlignTable::refresh);
    connect(&studio, &Studio::zone_changed, this, &AlignTable::refresh);
    connect(&studio, &Studio::selection_changed, this, &AlignTable::show_selection);
}

void AlignTable::showEvent(QShowEvent*) {
    refresh();
}

void AlignTable::refresh() {
    if (!isVisible()) return;
    const QSignalBlocker quiet(table_);
    const Pile& pile = studio_.pile();
    table_->setSortingEnabled(false);
    table_->clear();
    for (const Frame& frame : pile.frames) {
        const auto& place = frame.places[studio_.zone()];
        if (!usable(frame) || frame.role == Role::dark || method_of(pile, studio_.zone()).model == Model::none ||
            !place)
            continue;
        auto* line = new FrameLine(table_);
        line->id = frame.id;
        line->set_number(0, number_of(pile, frame.id), 0);
        const MovedBy moved = moved_by(*place, pile.size);
        if (place->aligned) {
            line->set_number(1, moved.right_px, 2);
            line->set_number(2, moved.down_px, 2);
            line->set_number(3, moved.turn_degrees, 3);
            line->set_number(scale_column, moved.scale, 5);
            line->set_number(5, place->residual_px, 2);
        }
        line->set_number(6, place->confidence * 100, 0);
        line->setText(columns - 1, state_of(pile, frame, *place));
        if (!place->aligned) line->setForeground(columns - 1, theme().coral);
    }
    table_->setSortingEnabled(true);
    const Model model = method_of(pile, studio_.zone()).model;
    const bool scaled = model == Model::similarity || model == Model::perspective || model == Model::flex;
    table_->setColumnHidden(scale_column, !scaled);
    setFixedWidth(scaled ? table_width + scale_width : table_width);
    show_selection();
}

void AlignTable::show_selection() {
    if (!isVisible()) return;
    const QSignalBlocker quiet(table_);
    const auto& chosen = studio_.selected();
    for (int row = 0; row < table_->topLevelItemCount(); ++row) {
        auto* line = static_cast<FrameLine*>(table_->topLevelItem(row));
        line->setSelected(std::find(chosen.begin(), chosen.end(), line->id) != chosen.end());
    }
}

}  // namespace bp::app
