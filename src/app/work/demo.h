// Where the pictures of Skerrow harbour are.
#pragma once

#include <QString>

namespace bp::app {

// The folder that holds a folder for each scene: BRIGHT_PILE_DEMO, or a folder of the user's data.
QString demo_root();
bool demo_ready(const QString& scene);

}  // namespace bp::app
