#include "pile/older.h"

#include <nlohmann/json.hpp>
#include <utility>

namespace bp::pile {
namespace {

using nlohmann::json;

void move_value(json& from, const char* name, json& to, const char* as) {
    if (!from.is_object() || !from.contains(name)) return;
    to[as] = std::move(from[name]);
    from.erase(name);
}

// Version 1 had the sky's way and places as the pile's and the frame's own, and the land's beside them.
void two_alike(json& pile) {
    json sky = json::object(), land = json::object();
    move_value(pile, "model", sky, "model");
    if (pile.contains("merge")) {
        move_value(pile["merge"], "mode", sky, "mode");
        move_value(pile["merge"], "light", pile, "light");
        pile.erase("merge");
    }
    if (pile.contains("zones")) {
        land["mode"] = "median";  // as it was where nothing was said
        move_value(pile["zones"], "land_model", land, "model");
        move_value(pile["zones"], "land_mode", land, "mode");
    }
    pile["methods"] = {{"sky", std::move(sky)}, {"land", std::move(land)}};
    if (!pile.contains("frames") || !pile["frames"].is_array()) return;
    for (json& frame : pile["frames"]) {
        if (!frame.is_object()) continue;
        json places = json::object();
        move_value(frame, "alignment", places, "sky");
        move_value(frame, "on_land", places, "land");
        frame["places"] = std::move(places);
        move_value(frame, "level", frame, "gains");
    }
}

}  // namespace

json as_of_now(json pile, std::int64_t version) {
    if (version < 2) two_alike(pile);
    return pile;
}

}  // namespace bp::pile
