// What tests share: folders that vanish, small pictures with known samples, piles made of them.
#pragma once

#include <cstdint>
#include <filesystem>
#include <functional>
#include <string>
#include <vector>

#include "base/files.h"
#include "engine/store.h"
#include "image/raster.h"
#include "pile/pile.h"

namespace bp::test {

// An empty folder that is removed with all that is in it.
class Folder {
  public:
    Folder();
    ~Folder();
    Folder(const Folder&) = delete;
    Folder& operator=(const Folder&) = delete;
    fs::path operator/(const std::string& name) const { return path_ / name; }
    const fs::path& path() const { return path_; }
    std::vector<std::string> names() const;  // of the files in it, sorted

  private:
    fs::path path_;
};

// Samples that look random and depend on seed and place alone.
Raster16 speckle(Size size, int channels, unsigned seed);
// The same with samples that 8 bits can hold (multiples of 257).
Raster16 speckle_8(Size size, int channels, unsigned seed);
// A smooth scene with texture at many scales, looked at under `to_scene` (frame pixel to scene pixel).
Raster16 landscape(Size size, const Matrix& to_scene, unsigned noise_seed = 0, double noise = 0);

// The same under any smooth map.
Raster16 bent_landscape(Size size, const std::function<Point(Point)>& to_scene, unsigned noise_seed = 0,
                        double noise = 0);

// As it looks in so many times the light; in sRGB.
Raster16 lit(Raster16 picture, double times);
// As it looks under a spot on the sensor that lets a share of its samples through.
Raster16 spotted(Raster16 picture, Point middle, double radius, double share);

void write(const fs::path& file, const Raster16& picture, int bits = 16, const Profile& profile = {},
           const CaptureData& capture = {});

// Frames of speckle as files in the folder, opened as a pile.
Pile speckle_pile(const Folder& folder, int frames, Size size, int bits, int channels = 3);

// The first sample that differs, in words; empty when all are equal or differ by at most `tolerance`.
std::string difference(const Raster16& a, const Raster16& b, int tolerance = 0);

// A bright square that goes over a landscape of 320 x 240 pixels: in frame k from x = 10 + 36 k, y = 100 on.
void write_passing(const Folder& folder, int frames);

// A scene of the practice camera as files in the folder, without its truth, opened as a pile; 0 frames: its own number.
Pile practised(const Folder& folder, const char* scene, int frames = 0, Outcome outcome = Outcome::trails);

// Frames of a landscape, each moved on by `step` from the one before, as 8-bit files f1.tif, f2.tif and so on.
void write_moving(const Folder& folder, int count, Size size, Point step);

std::string bytes_of(const fs::path& file);
Result<Raster16> render_all(const Pile& pile);
// The pile without what is laid over its base.
Pile base_of(Pile pile);

// All that the masks of the parts that show touch.
Mask touched_by(const std::vector<Part>& parts);

}  // namespace bp::test
