#include "app/window/top_bar.h"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QMenu>
#include <QPainter>
#include <QSignalBlocker>
#include <algorithm>
#include <array>

#include "app/looks/controls.h"
#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "app/work/commands.h"
#include "pile/outcomes.h"

namespace bp::app {

TopBar::TopBar(Studio& studio, Viewer& viewer, QWidget* parent) : QWidget(parent), studio_(studio), viewer_(viewer) {
    setFixedHeight(space::bar_height);
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(space::medium, 0, space::medium, 0);
    row->setSpacing(space::hair);
    home_ = tool(QStringLiteral("bright-pile"), QStringLiteral("home"), tr("Back to the start"));
    name_ = new QLabel(this);
    name_->setObjectName(QStringLiteral("pile_name"));
    name_->setTextFormat(Qt::PlainText);
    name_->setFont(face(type::body, QFont::DemiBold));
    edited_ = quiet_label(tr("edited"), this);
    edited_->setWordWrap(false);
    outcome_ = new QToolButton(this);
    outcome_->setObjectName(QStringLiteral("outcome"));
    outcome_->setProperty("pill", true);
    outcome_->setPopupMode(QToolButton::InstantPopup);
    outcome_->setToolTip(tr("What the pile is to become. Sets first values; nothing is lost."));
    auto* menu = new QMenu(outcome_);
    for (const OutcomeEntry& entry : outcomes())
        menu->addAction(tr("%1: %2").arg(word(entry.outcome), what_it_does(entry.outcome)), this,
                        [this, outcome = entry.outcome] { studio_.choose_outcome(outcome); });
    outcome_->setMenu(menu);
    open_ = tool(QStringLiteral("open"), QStringLiteral("open"), tip_of("open"));
    save_ = tool(QStringLiteral("save"), QStringLiteral("save"), tip_of("save"));
    row->addWidget(home_);
    row->addWidget(name_);
    row->addSpacing(space::small);
    row->addWidget(edited_);
    row->addSpacing(space::small);
    row->addWidget(outcome_);
    row->addSpacing(space::small);
    row->addWidget(open_);
    row->addWidget(save_);
    row->addStretch();
    auto* group = new QButtonGroup(this);
    const std::array<const char*, view_count> views{"view_0", "view_1", "view_2", "view_3", "view_4"};
    for (int i = 0; i < view_count; ++i) {
        const char* id = views[std::size_t(i)];
        views_[i] = push(command(id).name(), QLatin1String(id), tip_of(id), this);
        views_[i]->setCheckable(true);
        views_[i]->setProperty("flat", true);
        group->addButton(views_[i]);
        row->addWidget(views_[i]);
        connect(views_[i], &QPushButton::clicked, this, [this, i] { viewer_.set_view(View(i)); });
    }
    row->addSpacing(space::small);
    pair_ = push(command("pair").name(), QStringLiteral("side_by_side"), tip_of("pair"), this);
    pair_->setCheckable(true);
    pair_->setProperty("flat", true);
    row->addWidget(pair_);
    connect(pair_, &QPushButton::toggled, this, &TopBar::pair_wanted);
    row->addStretch();
    undo_ = tool(QStringLiteral("undo"), QStringLiteral("undo"), tr("Undo"));
    redo_ = tool(QStringLiteral("redo"), QStringLiteral("redo"), tr("Redo"));
    history_ = tool(QStringLiteral("more"), QStringLiteral("history"), tip_of("history"));
    for (const auto& [button, id] :
         {std::pair{open_, "open"}, std::pair{save_, "save"}, std::pair{history_, "history"}})
        button->setAccessibleName(command(id).name());
    history_->setIconSize({12, 12});
    history_->setPopupMode(QToolButton::InstantPopup);
    history_->setMenu(new QMenu(history_));
    connect(history_->menu(), &QMenu::aboutToShow, this, [this] { emit history_opens(history_->menu()); });
    row->addWidget(undo_);
    row->addWidget(redo_);
    row->addWidget(history_);
    row->addSpacing(space::small);
    menu_ = new QToolButton(this);
    menu_->setObjectName(QStringLiteral("menu"));
    menu_->setText(command("menu").name());
    menu_->setToolTip(tip_of("menu"));
    menu_->setFocusPolicy(Qt::TabFocus);
    menu_->setPopupMode(QToolButton::InstantPopup);
    menu_->setMenu(new QMenu(menu_));
    connect(menu_->menu(), &QMenu::aboutToShow, this, [this] { emit menu_opens(menu_->menu()); });
    row->addWidget(menu_);
    row->addSpacing(space::small);
    auto* write = lamp_push(tr("Export"), QStringLiteral("export"), tip_of("export"), this);
    row->addWidget(write);
    connect(home_, &QToolButton::clicked, this, &TopBar::home_wanted);
    connect(open_, &QToolButton::clicked, this, &TopBar::open_wanted);
    connect(save_, &QToolButton::clicked, this, &TopBar::save_wanted);
    connect(undo_, &QToolButton::clicked, &studio.document(), &Document::undo);
    connect(redo_, &QToolButton::clicked, &studio.document(), &Document::redo);
    connect(write, &QPushButton::clicked, this, &TopBar::export_wanted);
    connect(&studio.document(), &Document::changed, this, &TopBar::refresh);
    connect(&viewer, &Viewer::view_changed, this, &TopBar::refresh);
    connect(&studio, &Studio::outcome_guessed, this, &TopBar::refresh);
    refresh();
}

QToolButton* TopBar::tool(const QString& picture, const QString& name, const QString& tip) {
    auto* button = new QToolButton(this);
    button->setObjectName(name);
    button->setProperty("flat", true);
    set_icon(button, picture);
    button->setIconSize({20, 20});
    button->setToolTip(tip);
    button->setAccessibleName(tip);
    button->setFocusPolicy(Qt::TabFocus);
    return button;
}

void TopBar::set_pair(bool on) {
    const QSignalBlocker quiet(pair_);
    pair_->setChecked(on);
}

void TopBar::refresh() {
    Document& document = studio_.document();
    name_->setToolTip(document.path().isEmpty() ? document.name() : document.path());
    says_edited_ = document.open() && (document.edited() || document.path().isEmpty());
    edited_->setText(document.path().isEmpty() && !document.edited() ? tr("not saved") : tr("edited"));
    const QString outcome = word(studio_.pile().outcome);
    outcome_->setText(studio_.outcome_guess() ? tr("%1?").arg(outcome) : outcome);
    outcome_->setAccessibleName(tr("Outcome: %1").arg(outcome));
    undo_->setEnabled(document.can_undo());
    redo_->setEnabled(document.can_redo());
    history_->setEnabled(document.can_undo() || document.can_redo());
    undo_->setToolTip(document.can_undo()
                          ? tr("Undo: %1 (%2)").arg(document.undo_text(), command("undo").keys_in_words())
                          : tr("Nothing to undo"));
    redo_->setToolTip(document.can_redo()
                          ? tr("Redo: %1 (%2)").arg(document.redo_text(), command("redo").keys_in_words())
                          : tr("Nothing to redo"));
    undo_->setAccessibleDescription(undo_->toolTip());
    redo_->setAccessibleDescription(redo_->toolTip());
    for (int i = 0; i < view_count; ++i) views_[i]->setChecked(int(viewer_.view()) == i);
    make_room();
    updateGeometry();
}

int TopBar::width_without(std::size_t count) const {
    const std::vector<QWidget*> last = giving_way();
    const QMargins margins = layout()->contentsMargins();
    int out = margins.left() + margins.right();
    for (int i = 0; i < layout()->count(); ++i) {
        QLayoutItem* item = layout()->itemAt(i);
        QWidget* widget = item->widget();
        if (!widget) {
            out += item->spacerItem() ? item->spacerItem()->minimumSize().width() : 0;
            continue;
        }
        const auto at = std::find(last.begin(), last.end(), widget);
        const bool gone = at != last.end() && std::size_t(at - last.begin()) < count;
        if (gone || (widget == edited_ && !says_edited_)) continue;
        out += (widget == name_ ? width_of_name(longest_name) : widget->sizeHint().width()) + layout()->spacing();
    }
    return out;
}

int TopBar::width_of_name(int most) const {
    // Advances are rounded; what is a fraction wider than its room would be shortened.
    return std::min(name_->fontMetrics().horizontalAdvance(studio_.document().name()) + 1, most);
}

QSize TopBar::minimumSizeHint() const {
    const int of_name = width_of_name(longest_name) - width_of_name(shortest_name);
    return {width_without(giving_way().size()) - of_name, space::bar_height};
}

void TopBar::make_room() {
    const std::vector<QWidget*> last = giving_way();
    std::size_t gone = 0;
    while (gone < last.size() && width_without(gone) > width()) ++gone;
    for (std::size_t i = 0; i < last.size(); ++i)
        last[i]->setVisible(i >= gone && (last[i] != edited_ || says_edited_));
    const int missing = std::max(0, width_without(gone) - width());
    const int of_name = std::max(shortest_name, width_of_name(longest_name) - missing);
    name_->setText(name_->fontMetrics().elidedText(studio_.document().name(), Qt::ElideMiddle, of_name));
}

void TopBar::resizeEvent(QResizeEvent*) {
    make_room();
}

void TopBar::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), theme().ground);
    painter.setPen(theme().line);
    painter.drawLine(0, height() - 1, width(), height() - 1);
}

}  // namespace bp::app
