#include "app/panels/found_list.h"

#include <QHBoxLayout>
#include <QSignalBlocker>
#include <algorithm>

#include "app/looks/controls.h"
#include "app/looks/theme.h"

namespace bp::app {
namespace {

constexpr int row_height = 24;
constexpr int most_rows = 6;

}  // namespace

FoundList::FoundList(const Words& words, QWidget* parent) : QWidget(parent) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(space::small);
    title_ = heading({}, this);
    all_ = push(words.take_all, QStringLiteral("take_all_") + words.object, words.take_all_tip, this);
    all_->setAccessibleName(words.take_all.isEmpty() ? words.name : words.take_all);
    all_->setProperty("flat", true);
    auto* title_row = new QHBoxLayout;
    title_row->addWidget(title_, 1);
    title_row->addWidget(all_);
    column->addLayout(title_row);
    list_ = new QListWidget(this);
    list_->setObjectName(words.object);
    list_->setAccessibleName(words.name);
    list_->setToolTip(words.tip);
    list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    column->addWidget(list_);
    connect(list_, &QListWidget::currentItemChanged, this, [this](QListWidgetItem* item) {
        if (item) emit chosen(key_of(*item));
    });
    // Also one that is the current one already: a person who went elsewhere comes back to it.
    connect(list_, &QListWidget::itemClicked, this, [this](QListWidgetItem* item) {
        if (item) emit chosen(key_of(*item));
    });
    connect(list_, &QListWidget::itemChanged, this,
            [this](QListWidgetItem* item) { emit decided({key_of(*item)}, item->checkState() == Qt::Checked); });
    connect(all_, &QPushButton::clicked, this, [this] {
        std::vector<int> left;
        for (int i = 0; i < list_->count(); ++i)
            if (list_->item(i)->checkState() != Qt::Checked) left.push_back(key_of(*list_->item(i)));
        emit decided(left, true);
    });
}

bool FoundList::holds_these(const std::vector<FoundThing>& things) const {
    if (list_->count() != int(things.size())) return false;
    for (int i = 0; i < list_->count(); ++i)
        if (key_of(*list_->item(i)) != things[std::size_t(i)].key) return false;
    return true;
}

void FoundList::set_things(const std::vector<FoundThing>& things, const QString& title) {
    const QSignalBlocker quiet(list_);
    // A row that is just being ticked must not go while it is.
    if (!holds_these(things)) {
        list_->clear();
        for (const FoundThing& thing : things) {
            auto* item = new QListWidgetItem(list_);
            item->setData(Qt::UserRole, thing.key);
            item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsUserCheckable);
        }
    }
    bool any_left = false;
    for (int i = 0; i < list_->count(); ++i) {
        const FoundThing& thing = things[std::size_t(i)];
        QListWidgetItem& item = *list_->item(i);
        item.setText(thing.words);
        item.setToolTip(thing.tip);
        item.setCheckState(thing.taken ? Qt::Checked : Qt::Unchecked);
        if (thing.shown) list_->setCurrentItem(&item);
        any_left = any_left || !thing.taken;
    }
    list_->setVisible(!things.empty());
    list_->setFixedHeight(row_height * std::clamp(int(things.size()), 1, most_rows) + 4);
    all_->setVisible(!things.empty() && !all_->text().isEmpty());
    all_->setEnabled(any_left);
    title_->setText(title);
    title_->setVisible(!title.isEmpty());
}

}  // namespace bp::app
