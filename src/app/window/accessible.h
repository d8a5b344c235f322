// What aids for people who do not see the screen are told of our own widgets: the picture, the time rail with its
// frames, the knots of the step line.
#pragma once

namespace bp::app {

// Once, at the start of the program.
void install_accessibility();

}  // namespace bp::app
