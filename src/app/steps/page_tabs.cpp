#include "app/steps/page_tabs.h"

namespace bp::app {

PageTabs::PageTabs(QWidget* parent, int across)
    : QWidget(parent),
      across_(across),
      tabs_(new QGridLayout),
      column_(new QVBoxLayout(this)),
      group_(new QButtonGroup(this)) {
    column_->setContentsMargins(0, 0, 0, 0);
    column_->setSpacing(space::small);
    column_->addLayout(tabs_);
    connect(group_, &QButtonGroup::idClicked, this, &PageTabs::show_page);
}

void PageTabs::add(QWidget* page, const QString& title, const QString& object, const QString& tip) {
    QPushButton* tab = push(title, object, tip, this);
    tab->setCheckable(true);
    tab->setProperty("tab", true);
    const int number = int(pages_.size());
    group_->addButton(tab, number);
    tabs_->addWidget(tab, number / across_, number % across_);
    column_->addWidget(page);
    tab->setChecked(pages_.empty());
    page->setVisible(pages_.empty());
    pages_.push_back(page);
}

void PageTabs::show(const QString& object) {
    for (QAbstractButton* tab : group_->buttons())
        if (tab->objectName() == object) tab->click();
}

void PageTabs::show_page() {
    const int now = group_->checkedId();
    if (now == seen_) return;
    const bool open = open_;
    if (open) closed();
    pages_[std::size_t(seen_)]->hide();
    seen_ = now;
    pages_[std::size_t(seen_)]->show();
    if (open) opened();
}

void PageTabs::opened() {
    open_ = true;
    if (auto* page = qobject_cast<Page*>(pages_[std::size_t(seen_)])) page->opened();
}

void PageTabs::closed() {
    open_ = false;
    if (auto* page = qobject_cast<Page*>(pages_[std::size_t(seen_)])) page->closed();
}

}  // namespace bp::app
