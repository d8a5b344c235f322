// From rasters to what a screen shows.
#pragma once

#include <QColor>
#include <QImage>
#include <optional>

#include "image/profile.h"
#include "image/raster.h"

namespace bp::app {

// How a picture would look in another profile, and what of it that cannot hold.
struct Proof {
    Profile profile;
    QColor hatch;  // over what it cannot hold
};

// 8 bits in the profile of the display; samples are rounded as an 8-bit export rounds them.
QImage to_image(const Raster16& raster, const Profile& profile, const std::optional<Proof>& proof = std::nullopt);

}  // namespace bp::app
