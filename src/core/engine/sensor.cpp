#include "engine/sensor.h"

#include <algorithm>

#include "engine/changed_rows.h"
#include "kernels/extremes.h"

namespace bp {
namespace {

constexpr std::size_t samples_of_16_bits = 65536;

void widened(const std::uint8_t* in, std::size_t samples, std::uint16_t* out) {
    kernels::widen(in, samples, out);
}
void widened(const std::uint16_t* in, std::size_t samples, std::uint16_t* out) {
    std::copy_n(in, samples, out);
}

}  // namespace

SensorTables::SensorTables(const Profile& profile, int channels)
    : light_(samples_of_16_bits), tone_(Look{}, LightCurve::of(profile, channels)) {
    const LightCurve curve = LightCurve::of(profile, channels);
    for (std::size_t v = 0; v < samples_of_16_bits; ++v)
        light_[v] = float(double(curve.light(std::uint16_t(v))) / LightCurve::full);
}

template <class T>
void sensor_row(const SensorWork& work, int y, int left, int pixels, int channels, const T* in, std::uint16_t* out) {
    const std::size_t samples = std::size_t(pixels) * std::size_t(channels);
    const kernels::LightTables tables = work.tables->tables();
    if (work.dark)
        kernels::subtract_dark(in, work.dark->row(y) + std::ptrdiff_t(left) * channels, float(work.dark_scale), samples,
                               tables, out);
    else
        widened(in, samples, out);
    if (!work.spots) return;
    for (const SensorSpot& spot : *work.spots) {
        if (y < spot.area.top || y >= spot.area.bottom()) continue;
        const int begin = std::max(left, spot.area.left);
        const int end = std::min(left + pixels, spot.area.right());
        if (begin >= end) continue;
        kernels::let_through(spot.passes->row(y - spot.area.top) + (begin - spot.area.left), std::size_t(end - begin),
                             channels, tables, out + std::ptrdiff_t(begin - left) * channels);
    }
}
template void sensor_row(const SensorWork&, int, int, int, int, const std::uint8_t*, std::uint16_t*);
template void sensor_row(const SensorWork&, int, int, int, int, const std::uint16_t*, std::uint16_t*);

std::unique_ptr<FrameRows> sensor_rows(std::unique_ptr<FrameRows> rows, SensorWork work, int channels,
                                       kernels::Span columns, int height) {
    const int pixels = std::max(0, columns.end - columns.begin);
    const auto change = [work = std::move(work), left = columns.begin, pixels, channels](int y, const SourceRow& from,
                                                                                         std::uint16_t* out) {
        if (from.narrow)
            sensor_row(work, y, left, pixels, channels, from.narrow, out);
        else
            sensor_row(work, y, left, pixels, channels, from.wide, out);
    };
    return changed_rows(std::move(rows), change, channels, columns, height);
}

}  // namespace bp
