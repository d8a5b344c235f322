#include "practice/truth.h"

#include <algorithm>
#include <fstream>
#include <nlohmann/json.hpp>

#include "base/files.h"
#include "io/writer.h"
#include "practice/camera.h"

namespace bp::practice {
namespace {

using nlohmann::json;

json point_json(Point p, double scale) {
    return {(p.x + 0.5) * scale - 0.5, (p.y + 0.5) * scale - 0.5};
}

json box_json(const Box& box, double scale) {
    const json a = point_json({box.left, box.top}, scale);
    const json b = point_json({box.right, box.bottom}, scale);
    return {a[0], a[1], b[0], b[1]};
}

std::string_view role_text(Role role) {
    return role == Role::dark ? "dark" : role == Role::foreground ? "foreground" : "scene";
}

Raster16 mask_of(const Shape& shape, Size picture) {
    const double scale = picture.width / scene_width;
    Raster16 out(picture, 1);
    const auto from = [&](double v) { return std::max(0, int((v + 0.5) * scale) - 1); };
    const int right = std::min(picture.width, from(shape.box.right) + 3);
    const int bottom = std::min(picture.height, from(shape.box.bottom) + 3);
    for (int y = from(shape.box.top); y < bottom; ++y)
        for (int x = from(shape.box.left); x < right; ++x)
            out.at(x, y, 0) = shape.distance({(x + 0.5) / scale - 0.5, (y + 0.5) / scale - 0.5}) < 0 ? 65535 : 0;
    return out;
}

}  // namespace

Status write_truth(const SceneEntry& entry, const Scene& scene, const std::vector<TruthFrame>& frames,
                   const Canvas& still, const fs::path& folder, const PracticeOptions& options) {
    const fs::path place = folder / "truth";
    std::error_code error;
    fs::create_directories(place, error);
    if (error)
        return Failure{Fault::output,
                       place.string(),
                       {"The folder %1 cannot be made: %2. Choose another place.", {place.string(), error.message()}}};
    const double scale = options.size.width / scene_width;
    json out{{"scene", entry.name},           {"seed", options.seed},     {"width", options.size.width},
             {"height", options.size.height}, {"frames", json::array()},  {"streaks", json::array()},
             {"hot_pixels", json::array()},   {"pictures", json::array()}};
    for (std::size_t i = 0; i < frames.size(); ++i) {
        const Shot& shot = frames[i].shot;
        json frame{{"file", frames[i].file},
                   {"role", role_text(shot.role)},
                   {"captured", time_text(scene.camera().start + shot.begin_s)},
                   {"exposure_s", shot.exposure_s},
                   {"iso", shot.iso},
                   {"gain", shot.gain},
                   {"to_reference", shake_in(options.size, shot.to_scene).m()},
                   {"soft", shot.blur > 0},
                   {"cloud", shot.cloud}};
        if (const std::optional<Shape> subject = scene.subject(i)) {
            const std::string name = "subject-" + std::to_string(i + 1) + ".png";
            frame["subject_box"] = box_json(subject->box, scale);
            frame["subject_mask"] = name;
            Status written =
                write_picture(place / name, mask_of(*subject, options.size), Profile::srgb(), {8, 100, Sync::no}, {});
            if (!written.ok()) return written;
        }
        if (const std::optional<Shape> shade = scene.shade(i)) {
            const std::string name = "shade-" + std::to_string(i + 1) + ".png";
            frame["shade_mask"] = name;
            Status written =
                write_picture(place / name, mask_of(*shade, options.size), Profile::srgb(), {8, 100, Sync::no}, {});
            if (!written.ok()) return written;
        }
        out["frames"].push_back(std::move(frame));
    }
    for (const StreakTruth& s : scene.streaks())
        out["streaks"].push_back(
            {{"frame", s.frame}, {"kind", s.kind}, {"polyline", {point_json(s.from, scale), point_json(s.to, scale)}}});
    for (const HotPixel& h : hot_pixels(scene.camera().hot_pixels, options.size, options.seed))
        out["hot_pixels"].push_back({h.x, h.y});
    if (scene.camera().sensor_spot) out["sensor_spot"] = point_json(*scene.camera().sensor_spot, scale);
    if (const auto lens = scene.lens())
        out["lens"] = {{"focal_px", lens->focal * scale}, {"k1", lens->k1}, {"pole", point_json(lens->pole, scale)}};
    for (const TruthPicture& picture : scene.truth()) {
        const std::string name = picture.name + ".tif";
        Status written = write_picture(place / name, develop(picture.paint(still), options.size), Profile::srgb(),
                                       {16, 100, Sync::no}, {});
        if (!written.ok()) return written;
        out["pictures"].push_back(name);
    }
    return write_bytes(place / "truth.json", out.dump(1) + "\n");
}

}  // namespace bp::practice
