#include "engine/inspect.h"

#include <algorithm>

#include "base/parallel.h"
#include "engine/render.h"

namespace bp {
namespace {

constexpr int sampled_side = 400;

double mean_light(const Raster16& picture, const LightCurve& curve) {
    constexpr double weights[] = {0.2126, 0.7152, 0.0722};
    double sum = 0;
    for (int y = 0; y < picture.height(); ++y)
        for (int x = 0; x < picture.width(); ++x)
            for (int c = 0; c < picture.channels(); ++c)
                sum += (picture.channels() == 1 ? 1.0 : weights[c]) * double(curve.light(picture.at(x, y, c)));
    return sum / LightCurve::full / (double(picture.width()) * picture.height());
}

}  // namespace

std::vector<std::optional<double>> gaps_of(const Pile& pile) {
    std::vector<std::optional<double>> out(pile.frames.size());
    for (std::size_t i = 1; i < pile.frames.size(); ++i) {
        const CaptureData& before = pile.frames[i - 1].file->capture;
        const CaptureData& now = pile.frames[i].file->capture;
        if (before.captured && now.captured) out[i] = *now.captured - *before.captured - before.exposure_s.value_or(0);
    }
    return out;
}

Result<std::vector<FrameMeasures>> measure_frames(Pile& pile, Job& job) {
    std::vector<FrameMeasures> out(pile.frames.size());
    const std::vector<std::optional<double>> gaps = gaps_of(pile);
    const LightCurve curve = LightCurve::of(pile.profile, pile.channels);
    int level = 0;
    while (std::max(at_level(pile.size, level).width, at_level(pile.size, level).height) > sampled_side) ++level;
    const WorkingSpace space = working_space(pile);
    job.begin("Measuring " + std::to_string(pile.frames.size()) + " frames", long(pile.frames.size()));
    parallel_for(0, int(pile.frames.size()), [&](int n) {
        const auto i = std::size_t(n);
        Frame& frame = pile.frames[i];
        out[i].gap_s = gaps[i];
        if (job.stopped() || !usable(frame)) return;
        Result<Raster16> picture = read_frame(*frame.file, level, space, job);
        if (picture.ok())
            out[i].brightness = mean_light(picture.value(), curve);
        else if (picture.failure().fault != Fault::stopped)
            frame.problem = picture.failure().sentence;
        job.advance();
    });
    if (job.stopped()) return stopped_failure();
    return out;
}

}  // namespace bp
