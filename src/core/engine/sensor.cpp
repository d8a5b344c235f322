#include "engine/sensor.h"

#include <algorithm>

#include "kernels/extremes.h"

namespace bp {
namespace {

constexpr std::size_t samples_of_16_bits = 65536;

class SensorRows final : public FrameRows {
  public:
    SensorRows(std::unique_ptr<FrameRows> rows, SensorWork work, int channels, kernels::Span columns, int height)
        : rows_(std::move(rows)),
          work_(std::move(work)),
          channels_(channels),
          left_(columns.begin),
          columns_(std::max(0, columns.end - columns.begin)),
          height_(std::max(1, height)),
          memory_(std::size_t(height_) * stride()) {}

    Size size() const override { return rows_->size(); }
    int bits() const override { return 16; }
    int left() const override { return left_; }

    Status require(int first, int last) override {
        const int end = std::min(last, size().height);
        next_ = std::max(next_, first);
        Status got = rows_->require(std::min(next_, end), end);
        if (!got.ok()) return got;
        const std::ptrdiff_t skipped = std::ptrdiff_t(left_ - rows_->left()) * channels_;
        for (; next_ < end; ++next_) {
            const SourceRow row = rows_->row(next_);
            if (row.narrow)
                sensor_row(work_, next_, left_, columns_, channels_, row.narrow + skipped, slot(next_));
            else
                sensor_row(work_, next_, left_, columns_, channels_, row.wide + skipped, slot(next_));
        }
        return Done{};
    }

    SourceRow row(int y) const override { return {nullptr, memory_.data() + std::size_t(y % height_) * stride()}; }

  private:
    std::size_t stride() const { return std::size_t(columns_) * std::size_t(channels_); }
    std::uint16_t* slot(int y) { return memory_.data() + std::size_t(y % height_) * stride(); }

    std::unique_ptr<FrameRows> rows_;
    SensorWork work_;
    int channels_;
    int left_, columns_;
    int height_;
    int next_ = 0;
    std::vector<std::uint16_t> memory_;
};

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
    return std::make_unique<SensorRows>(std::move(rows), std::move(work), channels, columns, height);
}

}  // namespace bp
