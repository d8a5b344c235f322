#include "app/window/menus.h"

#include <QAbstractButton>
#include <QCoreApplication>

namespace bp::app {
namespace {

struct Menus {
    Q_DECLARE_TR_FUNCTIONS(Menus)
};

bool in_menu(const Command& c) {
    return c.heard == Heard::everywhere || c.heard == Heard::unless_taken || c.heard == Heard::by_hand;
}

void add(QMenu& menu, Keys& keys, const Command& c) {
    QAction* action = menu.addAction(c.name() + QLatin1Char('\t') + c.keys.first().toString(QKeySequence::NativeText));
    action->setObjectName(QStringLiteral("do_") + QLatin1String(c.id));
    action->setToolTip(c.what_it_does());
    action->setEnabled(keys.can(c.id));
    QObject::connect(action, &QAction::triggered, &keys, [&keys, id = c.id] { keys.act(id); });
}

}  // namespace

void add_commands(QMenu& menu, Keys& keys, std::span<const char* const> ids) {
    menu.setToolTipsVisible(true);
    for (const char* id : ids) add(menu, keys, command(id));
}

void fill_main_menu(QMenu& menu, Keys& keys, const std::function<void(QMenu&)>& recent) {
    menu.clear();
    QMenu* of_topic = nullptr;
    std::optional<Topic> topic;
    for (const Command& c : commands()) {
        if (!in_menu(c) || std::string_view(c.id) == "menu") continue;
        if (topic != c.topic) {
            topic = c.topic;
            of_topic = menu.addMenu(word(c.topic));
            of_topic->setObjectName(QStringLiteral("menu_%1").arg(int(c.topic)));
            of_topic->setToolTipsVisible(true);
        }
        add(*of_topic, keys, c);
        if (std::string_view(c.id) != "open_folder") continue;
        QMenu* piles = of_topic->addMenu(Menus::tr("Open again"));
        piles->setObjectName(QStringLiteral("menu_recent"));
        recent(*piles);
        piles->setEnabled(!piles->isEmpty());
    }
}

void add_buttons(QMenu& menu, const QWidget& of, std::span<const char* const> names) {
    menu.setToolTipsVisible(true);
    for (const char* name : names) {
        auto* button = of.findChild<QAbstractButton*>(QLatin1String(name));
        if (!button || button->isHidden()) continue;
        const QString words = button->text().isEmpty() ? button->accessibleName() : button->text();
        QAction* action = menu.addAction(words);
        action->setObjectName(QStringLiteral("do_") + QLatin1String(name));
        action->setToolTip(button->toolTip());
        action->setEnabled(button->isEnabled());
        QObject::connect(action, &QAction::triggered, button, &QAbstractButton::click);
    }
}

}  // namespace bp::app
