// How what was found of moving lights is kept in the cache folder.
#include <array>

#include "engine/moving_lights.h"

namespace bp {

void pack(Packer& to, const MovingLights& lights) {
    to.number(lights.sky.has_value());
    const SkyMotion sky = lights.sky.value_or(SkyMotion{});
    to.number(sky.lens.middle.x)
        .number(sky.lens.middle.y)
        .number(sky.lens.unit)
        .number(sky.lens.k1)
        .number(sky.lens.k2);
    for (const double s : sky.spin) to.number(s);
    to.number(std::uint64_t(lights.frames.size()));
    for (const auto& [id, of] : lights.frames) {
        to.number(id).number(of.fits_sky).number(of.placed);
        for (const double m : of.stood.matrix.m()) to.number(m);
        to.number(of.stood.sensor.x).number(of.stood.sensor.y);
        pack(to, of.lights);
    }
    to.number(std::uint64_t(lights.own.size()));
    for (const MovingLights::Own& light : lights.own) {
        to.number(light.before).number(light.after);
        to.number(light.px_per_s.x).number(light.px_per_s.y).number(light.across_px);
        pack(to, light.end);
    }
    to.number(std::uint64_t(lights.streaks.size()));
    for (const Streak& s : lights.streaks) {
        const Line& l = s.line;
        to.number(s.frame).number(int(s.kind)).number(s.thing);
        for (const double v :
             {l.from.x, l.from.y, l.to.x, l.to.y, l.width_px, l.brightness, l.blinks, l.even, l.confidence})
            to.number(v);
    }
}

void unpack(Unpacker& from, MovingLights& lights) {
    const bool moves = from.number<bool>();
    SkyMotion sky;
    for (double* value : {&sky.lens.middle.x, &sky.lens.middle.y, &sky.lens.unit, &sky.lens.k1, &sky.lens.k2})
        *value = from.number<double>();
    for (double& s : sky.spin) s = from.number<double>();
    if (moves) lights.sky = sky;
    const std::size_t count = from.count(sizeof(int));
    for (std::size_t i = 0; i < count && from.ok(); ++i) {
        const int id = from.number<int>();
        MovingLights::OfFrame& of = lights.frames[id];
        of.fits_sky = from.number<bool>();
        of.placed = from.number<bool>();
        std::array<double, 9> matrix{};
        for (double& m : matrix) m = from.number<double>();
        of.stood.sensor = {from.number<double>(), from.number<double>()};
        if (of.placed && lights.sky) {
            of.stood.matrix = Matrix(matrix);
            of.stood.lens = lights.sky->lens;
        }
        unpack(from, of.lights);
    }
    const std::size_t own = from.count(2 * sizeof(int));
    for (std::size_t i = 0; i < own && from.ok(); ++i) {
        MovingLights::Own light;
        light.before = from.number<int>();
        light.after = from.number<int>();
        light.px_per_s = {from.number<double>(), from.number<double>()};
        light.across_px = from.number<double>();
        unpack(from, light.end);
        lights.own.push_back(std::move(light));
    }
    const std::size_t streaks = from.count(3 * sizeof(int));
    for (std::size_t i = 0; i < streaks && from.ok(); ++i) {
        Streak s;
        s.frame = from.number<int>();
        const int kind = from.number<int>();
        if (kind < 0 || kind >= int(streak_kinds().size())) return from.refuse();
        s.kind = StreakKind(kind);
        s.thing = from.number<int>();
        Line& l = s.line;
        for (double* v :
             {&l.from.x, &l.from.y, &l.to.x, &l.to.y, &l.width_px, &l.brightness, &l.blinks, &l.even, &l.confidence})
            *v = from.number<double>();
        lights.streaks.push_back(s);
    }
}

}  // namespace bp
