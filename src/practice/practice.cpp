#include "practice/practice.h"

#include <array>
#include <chrono>
#include <cstdio>
#include <mutex>
#include <optional>
#include <thread>

#include "base/files.h"
#include "base/parallel.h"
#include "io/writer.h"
#include "practice/camera.h"
#include "practice/dng.h"
#include "practice/timing.h"
#include "practice/truth.h"

namespace bp::practice {
namespace {

std::string numbered(const std::string& name, int number, const std::string& ending) {
    std::array<char, 16> digits{};
    std::snprintf(digits.data(), digits.size(), "-%04d", number);
    return name + digits.data() + ending;
}

// File names in the order of the shots; darks and foregrounds in folders of their own.
std::vector<std::string> name_frames(const SceneEntry& entry, const std::vector<Shot>& shots,
                                     const std::string& ending) {
    std::vector<std::string> out;
    int scene_frames = 0, darks = 0, foregrounds = 0;
    for (const Shot& shot : shots) {
        if (shot.role == Role::dark)
            out.push_back(numbered("darks/dark", ++darks, ending));
        else if (shot.role == Role::foreground)
            out.push_back(numbered("foreground/foreground", ++foregrounds, ending));
        else
            out.push_back(numbered(std::string(entry.name), ++scene_frames, ending));
    }
    return out;
}

CaptureData capture_of(const Camera& camera, const Shot& shot) {
    CaptureData out;
    out.captured = camera.start + shot.begin_s;
    out.exposure_s = shot.exposure_s;
    out.iso = shot.iso;
    out.aperture = camera.aperture;
    out.focal_mm = camera.focal_mm;
    out.camera = camera.model;
    return out;
}

Status make_folders(const fs::path& folder, const std::vector<Shot>& shots) {
    std::error_code error;
    fs::create_directories(folder, error);
    for (const Shot& shot : shots) {
        if (shot.role == Role::dark) fs::create_directories(folder / "darks", error);
        if (shot.role == Role::foreground) fs::create_directories(folder / "foreground", error);
    }
    if (!error) return Done{};
    return Failure{Fault::output,
                   folder.string(),
                   {"The folder %1 cannot be made: %2. Choose another place.", {folder.string(), error.message()}}};
}

void wait_until(std::chrono::time_point<std::chrono::steady_clock, std::chrono::duration<double>> moment, Job& job) {
    constexpr std::chrono::milliseconds beat(20);
    while (std::chrono::steady_clock::now() < moment && !job.stopped()) std::this_thread::sleep_for(beat);
}

}  // namespace

Result<Practised> practise(const SceneEntry& entry, const fs::path& folder, const PracticeOptions& options, Job& job) {
    const std::unique_ptr<Scene> scene = entry.make(options.frames > 0 ? options.frames : entry.frames, options.seed);
    const std::vector<Shot> shots = timed(scene->shots(), options.timing);
    const std::vector<std::string> names = name_frames(entry, shots, options.ending);
    Status made = make_folders(folder, shots);
    if (!made.ok()) return made.failure();
    job.begin({"Exposing %1", {std::string(entry.name)}}, long(shots.size()) + 3);
    const int margin = margin_for(options.size, shots);
    Canvas still(options.size, margin);
    scene->paint_still(still);
    job.advance();
    Canvas foreground(options.size, margin);
    scene->paint_foreground(foreground);
    job.advance();
    const int bits = options.ending == ".tif" ? 16 : 8;
    std::vector<TruthFrame> truth;
    Practised out;
    for (std::size_t i = 0; i < shots.size(); ++i) {
        out.frames.push_back(folder / names[i]);
        truth.push_back({names[i], shots[i]});
    }
    std::mutex mutex;
    std::optional<Failure> failure;
    const auto take = [&](std::size_t i) {
        if (job.stopped()) return;
        const Canvas& ground = shots[i].role == Role::foreground ? foreground : still;
        const CaptureData capture = capture_of(scene->camera(), shots[i]);
        const auto shoot = [&] {
            if (options.ending == ".dng")
                return write_dng(out.frames[i], expose_raw(*scene, shots, i, ground, options.size, options.seed),
                                 capture);
            return write_picture(out.frames[i], expose(*scene, shots, i, ground, options.size, options.seed),
                                 Profile::srgb(), {bits, 93, Sync::no}, capture);
        };
        Status written = shoot();
        job.advance();
        if (written.ok()) return;
        const std::lock_guard lock(mutex);
        failure = written.failure();
    };
    if (options.live_s > 0) {
        const auto begin = std::chrono::steady_clock::now();
        for (std::size_t i = 0; i < shots.size() && !failure && !job.stopped(); ++i) {
            take(i);
            wait_until(begin + std::chrono::duration<double>(options.live_s * double(i + 1)), job);
        }
    } else {
        parallel_for(0, int(shots.size()), [&](int n) { take(std::size_t(n)); });
    }
    if (job.stopped()) return stopped_failure();
    if (failure) return *failure;
    if (options.truth) {
        Status written = write_truth(entry, *scene, truth, still, folder, options);
        if (!written.ok()) return written.failure();
    }
    job.advance();
    return out;
}

}  // namespace bp::practice
