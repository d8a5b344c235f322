#include "pile/place_json.h"

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>

namespace bp {

using nlohmann::json;

namespace {

// A transform that can be undone and leads the corners of the picture to pixels that can be counted.
bool sound(const Matrix& matrix, Size size) {
    constexpr double furthest = 1e6;
    const auto& m = matrix.m;
    if (!std::all_of(m.begin(), m.end(), [](double v) { return std::isfinite(v) && std::abs(v) <= furthest; }))
        return false;
    const double scale = m[0] * m[4] - m[1] * m[3];
    if (m[8] != 1 || scale < 0.01 || scale > 100) return false;
    // In front of the camera everywhere on the picture, and beside it.
    for (const double x : {-1.0 * size.width, 2.0 * size.width})
        for (const double y : {-1.0 * size.height, 2.0 * size.height})
            if (m[6] * x + m[7] * y + 1 < 0.05) return false;
    return true;
}

// A lens that bends a picture, and does not fold it.
bool sound(const Lens& lens, Size size) {
    const double longest = std::hypot(size.width, size.height);
    for (const double v : {lens.middle.x, lens.middle.y, lens.unit, lens.k1, lens.k2})
        if (!std::isfinite(v)) return false;
    if (std::abs(lens.middle.x) > longest || std::abs(lens.middle.y) > longest || lens.unit < 1 ||
        lens.unit > 100 * longest)
        return false;
    for (double r = 0; r <= 2 * longest; r += longest / 50) {
        const double rr = r * r / (lens.unit * lens.unit);
        if (1 + rr * (3 * lens.k1 + 5 * lens.k2 * rr) < 0.05 && r <= longest) return false;
    }
    return true;
}

// A bend whose every node is there and moves by no more than a part of the picture.
bool sound(const Flex& flex, Size size) {
    const Flex::Grid& grid = flex.grid();
    constexpr int most = 4000;
    const double longest = std::hypot(size.width, size.height);
    if (grid.columns < 1 || grid.rows < 1 || grid.columns > most || grid.rows > most || !(grid.step >= 1)) return false;
    const std::size_t nodes = std::size_t(grid.columns) * std::size_t(grid.rows);
    if (flex.across().size() != nodes || flex.down().size() != nodes) return false;
    if (!(std::abs(grid.first.x) < longest && std::abs(grid.first.y) < longest && grid.step < longest)) return false;
    const auto counted = [](float v) { return std::isfinite(v); };
    return std::all_of(flex.across().begin(), flex.across().end(), counted) &&
           std::all_of(flex.down().begin(), flex.down().end(), counted) && flex.largest() < longest / 4;
}

}  // namespace

json alignment_json(const Alignment& a) {
    json out{{"to_reference", a.to_reference.m},
             {"residual_px", a.residual_px},
             {"confidence", a.confidence},
             {"aligned", a.aligned}};
    if (a.by_clock) out["by_clock"] = true;
    if (a.by_hand) out["by_hand"] = true;
    if (a.insisted) out["insisted"] = true;
    if (a.lens)
        out["lens"] = {{"middle", {a.lens->middle.x, a.lens->middle.y}},
                       {"unit_px", a.lens->unit},
                       {"k1", a.lens->k1},
                       {"k2", a.lens->k2}};
    if (a.flex) {
        const Flex::Grid& grid = a.flex->grid();
        out["flex"] = {{"first", {grid.first.x, grid.first.y}},
                       {"step_px", grid.step},
                       {"columns", grid.columns},
                       {"rows", grid.rows},
                       {"across_px", a.flex->across()},
                       {"down_px", a.flex->down()}};
    }
    if (a.sensor != Point{}) out["sensor_px"] = {a.sensor.x, a.sensor.y};
    return out;
}

Alignment alignment_from(const json& in) {
    Alignment out;
    out.to_reference.m = in.at("to_reference").get<std::array<double, 9>>();
    out.residual_px = in.at("residual_px").get<double>();
    out.confidence = in.at("confidence").get<double>();
    out.aligned = in.at("aligned").get<bool>();
    out.by_clock = in.value("by_clock", false);
    out.by_hand = in.value("by_hand", false);
    out.insisted = in.value("insisted", false);
    if (in.contains("sensor_px"))
        out.sensor = {in.at("sensor_px").at(0).get<double>(), in.at("sensor_px").at(1).get<double>()};
    if (in.contains("flex")) {
        const json& flex = in.at("flex");
        Flex::Grid grid;
        grid.first = {flex.at("first").at(0).get<double>(), flex.at("first").at(1).get<double>()};
        grid.step = flex.at("step_px").get<double>();
        grid.columns = flex.at("columns").get<int>();
        grid.rows = flex.at("rows").get<int>();
        out.flex = std::make_shared<const Flex>(grid, flex.at("across_px").get<std::vector<float>>(),
                                                flex.at("down_px").get<std::vector<float>>());
    }
    if (!in.contains("lens")) return out;
    const json& lens = in.at("lens");
    out.lens = Lens{{lens.at("middle").at(0).get<double>(), lens.at("middle").at(1).get<double>()},
                    lens.at("unit_px").get<double>(),
                    lens.at("k1").get<double>(),
                    lens.at("k2").get<double>()};
    return out;
}

bool sound(const Alignment& alignment, Size size) {
    constexpr double furthest = 1e4;
    if (alignment.flex && !sound(*alignment.flex, size)) return false;
    return std::abs(alignment.sensor.x) < furthest && std::abs(alignment.sensor.y) < furthest &&
           sound(alignment.to_reference, size) && (!alignment.lens || sound(*alignment.lens, size));
}

}  // namespace bp
