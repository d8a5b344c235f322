#include <algorithm>

#include "practice/scenes/all.h"

namespace bp::practice {

const std::vector<SceneEntry>& scenes() {
    static const std::vector<SceneEntry> table{
        {"lighthouse", 48, Outcome::trails, "The sky turns over Skerrow light", make_lighthouse},
        {"quay", 11, Outcome::clear, "The fish quay, full of people", make_quay},
        {"shelf", 16, Outcome::quiet, "A chandler's shelf by lamplight", make_shelf},
        {"heron", 20, Outcome::sequence, "A heron crosses the creek", make_heron},
        {"night-watch", 20, Outcome::shower, "Meteors over the sea, five hours long", make_night_watch},
        {"harbour-cats", 5, Outcome::best_of, "Five cats, never all looking", make_harbour_cats},
        {"hull", 6, Outcome::best_of, "A boat lit from every side", make_hull},
        {"fireflies", 24, Outcome::trails, "Fireflies over a still marsh", make_fireflies},
        {"sparks", 6, Outcome::shower, "Fountains of sparks in the forge's yard", make_sparks},
    };
    return table;
}

const SceneEntry* scene_named(std::string_view name) {
    const auto found = std::find_if(scenes().begin(), scenes().end(), [name](const auto& e) { return e.name == name; });
    return found == scenes().end() ? nullptr : &*found;
}

}  // namespace bp::practice
