// What a scene tells the practice camera.
#pragma once

#include <functional>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "pile/pile.h"
#include "practice/canvas.h"

namespace bp::practice {

// One exposure.
struct Shot {
    Role role = Role::scene;
    double begin_s = 0;  // since the first exposure of the scene
    double exposure_s = 1;
    double iso = 100;
    double gain = 1;   // exposure against the run's own
    Matrix to_scene;   // frame pixel to reference pixel, for a 1600 x 1067 picture
    double blur = 0;   // a soft frame: deviation in scene units
    double cloud = 0;  // thin cloud, 0 to 1
};

struct Camera {
    std::string model = "Skerrow practice camera";
    double aperture = 4;
    double focal_mm = 35;
    int hot_pixels = 0;
    std::optional<Point> sensor_spot;  // scene units on the sensor
    double start = 0;                  // capture time of the first exposure, seconds since 1970
};

struct StreakTruth {
    int frame;  // number, from 1
    std::string kind;
    Point from, to;  // scene units
};

// Where a moving subject is in one frame.
struct SubjectTruth {
    int frame;
    Box box;
};

// A truth picture is painted like a frame, free of noise and of everything that moves or goes wrong.
struct TruthPicture {
    std::string name;
    std::function<Canvas(const Canvas& still)> paint;
};

// A scene at work: made for one size, seed and number of frames.
class Scene {
  public:
    virtual ~Scene() = default;
    virtual Camera camera() const = 0;
    virtual std::vector<Shot> shots() const = 0;
    // Everything that stands still.
    virtual void paint_still(Canvas& canvas) const = 0;
    // What moves, over the still picture, for shot `index`, exposed as `shot` says. The canvas may have a margin.
    virtual void paint_moving(Canvas& canvas, std::size_t index, const Shot& shot) const = 0;
    // The noise-free merged picture by outcome name.
    virtual std::vector<TruthPicture> truth() const = 0;
    virtual std::vector<StreakTruth> streaks() const { return {}; }
    // The place of what moves in shot `index` as a shape, when the scene has one subject.
    virtual std::optional<Shape> subject(std::size_t) const { return std::nullopt; }
    // Where a shadow without an edge goes along with it, to where nothing of it is seen.
    virtual std::optional<Shape> shade(std::size_t) const { return std::nullopt; }
    // Terms of the lens: r_distorted = r (1 + k1 r^2) with r in focal lengths; pole of the sky in scene units.
    struct Lens {
        double focal;
        double k1;
        Point pole;
    };
    virtual std::optional<Lens> lens() const { return std::nullopt; }
    // A foreground shot is painted from another still picture.
    virtual void paint_foreground(Canvas& canvas) const { paint_still(canvas); }
};

// How the person sets the camera; what is not set is as the scene has it.
struct Timing {
    std::optional<double> exposure_s;
    std::optional<double> pause_s;  // from the end of one exposure to the begin of the next
};

struct SceneEntry {
    std::string_view name;
    int frames;
    Outcome outcome;
    std::string_view summary;  // one line for people
    std::unique_ptr<Scene> (*make)(int frames, std::uint64_t seed);
};

const std::vector<SceneEntry>& scenes();
const SceneEntry* scene_named(std::string_view name);

}  // namespace bp::practice
