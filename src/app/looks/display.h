// What the screen's samples mean.
#pragma once

#include <QString>

#include "base/result.h"
#include "image/profile.h"

class QScreen;

namespace bp::app {

enum class DisplayFrom { srgb, screen, file };

// The profile that pictures are brought to when they are shown. Any thread.
Profile display_profile();

// Where it is taken from; kept from one run of the program to the next.
DisplayFrom display_from();
QString display_file();
// For a screen; what cannot be had is sRGB. Fails where a file is asked for that holds no profile, and changes nothing
// then.
Status use_display(DisplayFrom from, const QString& file, const QScreen* screen);
// The same as it was kept, for another screen. True when the profile became another.
bool use_display_of(const QScreen* screen);

// The profile that the system has for a screen (ICC Profiles in X Specification, version 0.4); sRGB when it tells none.
Profile profile_of(const QScreen* screen);

}  // namespace bp::app
