// Names of small choices, as pile files and the command line write them.
#pragma once

#include <optional>
#include <string_view>

#include "pile/pile.h"

namespace bp {

constexpr std::string_view name_of(Role role) {
    switch (role) {
        case Role::dark:
            return "dark";
        case Role::foreground:
            return "foreground";
        case Role::scene:
            break;
    }
    return "scene";
}

constexpr std::optional<Role> role_named(std::string_view name) {
    for (const Role role : {Role::scene, Role::dark, Role::foreground})
        if (name_of(role) == name) return role;
    return std::nullopt;
}

}  // namespace bp
