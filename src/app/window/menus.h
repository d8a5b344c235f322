// Menus of commands: all that a key does, in words.
#pragma once

#include <QMenu>
#include <span>

#include "app/work/commands.h"

namespace bp::app {

// These commands, each with its keys; those that cannot be done now are dimmed.
void add_commands(QMenu& menu, Keys& keys, std::span<const char* const> ids);
// All that can be chosen from a list, topic by topic. Keys that are held down, or that move something step by step, are
// on the sheet of keys alone. `recent` fills the list of piles that were open before.
void fill_main_menu(QMenu& menu, Keys& keys, const std::function<void(QMenu&)>& recent);
// What buttons do, as a menu: each is clicked when it is chosen. Hidden ones are left out.
void add_buttons(QMenu& menu, const QWidget& of, std::span<const char* const> names);

}  // namespace bp::app
