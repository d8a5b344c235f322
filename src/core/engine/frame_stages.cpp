#include "engine/frame_stages.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <numbers>

#include "engine/light_there.h"
#include "kernels/correct.h"
#include "kernels/extremes.h"
#include "kernels/stand_out.h"
#include "kernels/weigh.h"

namespace bp {

using kernels::Span;

namespace {

std::size_t samples_in(Span columns, int channels) {
    return std::size_t(std::max(0, columns.end - columns.begin)) * std::size_t(channels);
}

// Calls with_row(pointer) with the samples of row y from `column` on, in 8 or in 16 bits.
template <class Call>
void at_column(const RowsAtHand& in, int y, int column, int channels, const Call& with_row) {
    const std::ptrdiff_t skipped = std::ptrdiff_t(column - in.columns.begin) * channels;
    if (in.samples == Samples::narrow)
        with_row(in.row<std::uint8_t>(y) + skipped);
    else
        with_row(in.row<std::uint16_t>(y) + skipped);
}

// What the sensor adds and takes is undone in linear light: darks are subtracted, the shadows of spots lifted.
class SensorStage final : public FrameStage {
  public:
    SensorStage(std::shared_ptr<const LightThere> light, SharedRaster dark, double dark_scale, SharedSpots spots,
                int channels)
        : light_(std::move(light)),
          dark_(std::move(dark)),
          dark_scale_(float(dark_scale)),
          spots_(std::move(spots)),
          channels_(channels) {}

    Samples makes(Samples) const override { return Samples::wide; }
    void make(int y, Span columns, Size, const RowsAtHand& in, void* to) const override {
        auto* out = static_cast<std::uint16_t*>(to);
        const std::size_t samples = samples_in(columns, channels_);
        at_column(in, y, columns.begin, channels_, [&](const auto* row) {
            if (dark_)
                kernels::subtract_dark(row, dark_->row(y) + std::ptrdiff_t(columns.begin) * channels_, dark_scale_,
                                       samples, light_->tables(), out);
            else
                kernels::widen(row, samples, out);
        });
        if (!spots_) return;
        for (const SensorSpot& spot : *spots_) {
            if (y < spot.area.top || y >= spot.area.bottom()) continue;
            const int begin = std::max(columns.begin, spot.area.left);
            const int end = std::min(columns.end, spot.area.right());
            if (begin >= end) continue;
            kernels::let_through(spot.passes->row(y - spot.area.top) + (begin - spot.area.left),
                                 std::size_t(end - begin), channels_, light_->tables(),
                                 out + std::ptrdiff_t(begin - columns.begin) * channels_);
        }
    }

  private:
    std::shared_ptr<const LightThere> light_;
    SharedRaster dark_;
    float dark_scale_;
    SharedSpots spots_;
    int channels_;
};

// Pixels that glow, in the bits that the frame has.
class MendStage final : public FrameStage {
  public:
    MendStage(SharedHotPixels hot, int channels) : hot_(std::move(hot)), channels_(channels) {}

    StageReach reach() const override { return {1, 1}; }
    Samples makes(Samples from) const override { return from; }
    void make(int y, Span columns, Size frame, const RowsAtHand& in, void* to) const override {
        at_column(in, y, columns.begin, channels_, [&]<class T>(const T* row) {
            T* out = static_cast<T*>(to);
            std::copy_n(row, samples_in(columns, channels_), out);
            const auto sample = [&](int x, int v, int c) {
                return in.row<T>(v)[std::ptrdiff_t(x - in.columns.begin) * channels_ + c];
            };
            mend_row(*hot_, y, columns.begin, columns.end, frame, channels_, sample, out);
        });
    }

  private:
    SharedHotPixels hot_;
    int channels_;
};

class EvenStage final : public FrameStage {
  public:
    EvenStage(Evener evener, int channels) : evener_(std::move(evener)), channels_(channels) {}

    Samples makes(Samples) const override { return Samples::wide; }
    void make(int y, Span columns, Size, const RowsAtHand& in, void* to) const override {
        at_column(in, y, columns.begin, channels_,
                  [&](const auto* row) { evener_.run(row, samples_in(columns, 1), static_cast<std::uint16_t*>(to)); });
    }

  private:
    Evener evener_;
    int channels_;
};

// Fills `left` pixels at the beginning with the first that follows them, and `right` at the end with the last before.
void repeat_edges(std::vector<float>& row, int left, int right, int channels) {
    const std::ptrdiff_t begin = std::ptrdiff_t(left) * channels;
    const std::ptrdiff_t end = std::ptrdiff_t(row.size()) - std::ptrdiff_t(right) * channels;
    for (std::ptrdiff_t i = begin - 1; i >= 0; --i) row[std::size_t(i)] = row[std::size_t(i + channels)];
    for (auto i = end; i < std::ptrdiff_t(row.size()); ++i) row[std::size_t(i)] = row[std::size_t(i - channels)];
}

// A Gaussian falls apart into one along the rows and one down the columns.
class SoftenAcross final : public FrameStage {
  public:
    SoftenAcross(std::shared_ptr<const LightThere> light, std::vector<float> weights, int channels)
        : light_(std::move(light)), weights_(std::move(weights)), channels_(channels) {}

    StageReach reach() const override { return {int(weights_.size()) / 2, 0}; }
    Samples makes(Samples) const override { return Samples::light; }
    void make(int y, Span columns, Size, const RowsAtHand& in, void* to) const override {
        const int reach = int(weights_.size()) / 2;
        static thread_local std::vector<float> around;
        around.resize(samples_in({columns.begin - reach, columns.end + reach}, channels_));
        const Span within{std::max(columns.begin - reach, in.columns.begin),
                          std::min(columns.end + reach, in.columns.end)};
        at_column(in, y, within.begin, channels_, [&](const auto* row) {
            kernels::light_of(row, samples_in(within, channels_), light_->tables(),
                              around.data() + samples_in({columns.begin - reach, within.begin}, channels_));
        });
        repeat_edges(around, within.begin - (columns.begin - reach), columns.end + reach - within.end, channels_);
        std::vector<const float*> rows;
        rows.reserve(weights_.size());
        for (std::size_t k = 0; k < weights_.size(); ++k) rows.push_back(around.data() + k * std::size_t(channels_));
        kernels::weigh(rows, weights_, samples_in(columns, channels_), static_cast<float*>(to));
    }

  private:
    std::shared_ptr<const LightThere> light_;
    std::vector<float> weights_;
    int channels_;
};

// Makes samples, or light that goes on to another stage.
class SoftenDown final : public FrameStage {
  public:
    SoftenDown(std::shared_ptr<const LightThere> light, std::vector<float> weights, int channels, Samples makes)
        : light_(std::move(light)), weights_(std::move(weights)), channels_(channels), makes_(makes) {}

    StageReach reach() const override { return {0, int(weights_.size()) / 2}; }
    Samples makes(Samples) const override { return makes_; }
    void make(int y, Span columns, Size frame, const RowsAtHand& in, void* to) const override {
        const int reach = int(weights_.size()) / 2;
        const std::ptrdiff_t skipped = std::ptrdiff_t(columns.begin - in.columns.begin) * channels_;
        std::vector<const float*> rows;
        rows.reserve(weights_.size());
        for (int v = y - reach; v <= y + reach; ++v)
            rows.push_back(in.row<float>(std::clamp(v, 0, frame.height - 1)) + skipped);
        const std::size_t samples = samples_in(columns, channels_);
        if (makes_ == Samples::light) {
            kernels::weigh(rows, weights_, samples, static_cast<float*>(to));
            return;
        }
        static thread_local std::vector<float> soft;
        soft.resize(samples);
        kernels::weigh(rows, weights_, samples, soft.data());
        kernels::samples_of_light(soft.data(), samples, light_->tables(), static_cast<std::uint16_t*>(to));
    }

  private:
    std::shared_ptr<const LightThere> light_;
    std::vector<float> weights_;
    int channels_;
    Samples makes_;
};

// Raises what stands out of its surroundings; takes light.
class RaiseLights final : public FrameStage {
  public:
    RaiseLights(std::shared_ptr<const LightThere> light, int distance, float gain, int channels)
        : light_(std::move(light)), distance_(distance), gain_(gain), channels_(channels) {
        for (std::size_t k = 0; k < ring_.size(); ++k) {
            const double angle = 2 * std::numbers::pi * double(k) / double(ring_.size());
            ring_[k] = {int(std::lround(distance * std::cos(angle))), int(std::lround(distance * std::sin(angle)))};
        }
    }

    StageReach reach() const override { return {distance_, distance_}; }
    Samples makes(Samples) const override { return Samples::wide; }
    void make(int y, Span columns, Size frame, const RowsAtHand& in, void* to) const override {
        // Where the ring leaves the frame its border stands for what lies beyond.
        const int first = std::clamp(in.columns.begin + distance_, columns.begin, columns.end);
        const int last = std::clamp(in.columns.end - distance_, first, columns.end);
        auto* out = static_cast<std::uint16_t*>(to);
        for (const Span& part : {Span{columns.begin, first}, Span{first, last}, Span{last, columns.end}}) {
            if (part.empty()) continue;
            raise(y, part, frame, in, part.begin == first && last > first, out);
            out += samples_in(part, channels_);
        }
    }

  private:
    // `inside`: the ring around all of the columns is there.
    void raise(int y, Span columns, Size frame, const RowsAtHand& in, bool inside, std::uint16_t* out) const {
        const std::size_t samples = samples_in(columns, channels_);
        std::map<int, std::vector<float>> around;  // by how far they lie above or below
        const auto from = [&](int across, int down) -> const float* {
            const int there = std::clamp(y + down, 0, frame.height - 1);
            const float* row = in.row<float>(there);
            if (inside) return row + std::ptrdiff_t(columns.begin + across - in.columns.begin) * channels_;
            std::vector<float>& wide = around[there];
            if (wide.empty()) {
                const Span within{std::max(columns.begin - distance_, in.columns.begin),
                                  std::min(columns.end + distance_, in.columns.end)};
                wide.resize(samples + std::size_t(2 * distance_ * channels_));
                std::copy_n(row + std::ptrdiff_t(within.begin - in.columns.begin) * channels_,
                            samples_in(within, channels_),
                            wide.data() + samples_in({columns.begin - distance_, within.begin}, channels_));
                repeat_edges(wide, within.begin - (columns.begin - distance_), columns.end + distance_ - within.end,
                             channels_);
            }
            return wide.data() + std::ptrdiff_t(distance_ + across) * channels_;
        };
        kernels::Ring ring{};
        for (std::size_t k = 0; k < ring.size(); ++k) ring[k] = from(ring_[k].x, ring_[k].y);
        static thread_local std::vector<float> raised;
        raised.resize(samples);
        kernels::stand_out(from(0, 0), ring, gain_, samples, raised.data());
        kernels::samples_of_light(raised.data(), samples, light_->tables(), out);
    }

    struct Place {
        int x, y;
    };
    std::shared_ptr<const LightThere> light_;
    int distance_;
    float gain_;
    int channels_;
    std::array<Place, std::tuple_size_v<kernels::Ring>> ring_{};
};

SharedSpots spots_at(const Pile& pile, int level) {
    if (!pile.spots || pile.spots->empty()) return nullptr;
    std::vector<SensorSpot> out;
    for (const SensorSpot& spot : *pile.spots) out.push_back(level == 0 ? spot : at_level(spot, level));
    return std::make_shared<const std::vector<SensorSpot>>(std::move(out));
}

SharedHotPixels hot_at(const Pile& pile, int level) {
    if (!pile.hot || pile.hot->empty()) return nullptr;
    return std::make_shared<const HotPixels>(at_level(*pile.hot, level));
}

}  // namespace

FrameStages::FrameStages(const Pile& pile, int level)
    : pile_(pile), level_(level), spots_(spots_at(pile, level)), hot_(hot_at(pile, level)) {}

const std::shared_ptr<const LightThere>& FrameStages::light() {
    if (!light_) light_ = light_there(pile_.profile, pile_.channels);
    return light_;
}

Developing developing_of(const Pile& pile, const Frame& frame) {
    Developing out;
    if (!frame.file->facts.beyond_white) return out;
    const std::array<double, 3> luminance =
        pile.channels == 3 ? luminance_weights(pile.profile) : std::array<double, 3>{0, 1, 0};
    out.stops = stops_beyond_white(look_of(pile, frame), gains_of(pile, frame), luminance, pile.channels);
    return out;
}

Stages FrameStages::of(const Frame& frame, const SharedRaster& dark, double dark_scale, int stops, Samples from) {
    Stages out;
    const int channels = pile_.channels;
    if (dark || spots_) out.push_back(std::make_shared<const SensorStage>(light(), dark, dark_scale, spots_, channels));
    if (hot_) out.push_back(std::make_shared<const MendStage>(hot_, channels));
    std::array<double, 3> gains = gains_of(pile_, frame);
    for (double& gain : gains) gain = std::ldexp(gain, stops);
    add_even(look_of(pile_, frame), gains, made_by(out, from), out);
    return out;
}

Stages FrameStages::looked(const Look& look, Samples from) {
    Stages out;
    add_even(look, {1, 1, 1}, from, out);
    return out;
}

void FrameStages::add_even(const Look& look, const std::array<double, 3>& gains, Samples from, Stages& to) {
    const int channels = pile_.channels;
    if (look == Look{} && gains == std::array<double, 3>{1, 1, 1}) return;
    auto tone = std::find_if(tones_.begin(), tones_.end(), [&](const SharedTone& t) { return t.look() == look; });
    if (tone == tones_.end()) tone = tones_.insert(tones_.end(), SharedTone(look, pile_.profile, channels));
    const int bits = from == Samples::narrow ? 8 : 16;
    to.push_back(std::make_shared<const EvenStage>(Evener(*tone, gains, channels, bits), channels));
}

Stages FrameStages::softened(const Softening& softening) {
    constexpr double of_radius = 0.5;  // of a standard deviation
    constexpr double reach_in_deviations = 3;
    constexpr double beside_in_deviations = 3.5;  // of a light that has grown
    const double whole = of_radius * softening.radius_px;
    const double deviation = std::ldexp(whole, -level_);
    const int reach = int(std::ceil(reach_in_deviations * deviation));
    if (!(softening.radius_px > 0) || reach == 0) return {};
    const std::vector<float> weights = kernels::gaussian(deviation, reach);
    Stages out{std::make_shared<const SoftenAcross>(light(), weights, pile_.channels),
               std::make_shared<const SoftenDown>(light(), weights, pile_.channels,
                                                  softening.as_bright ? Samples::light : Samples::wide)};
    if (softening.as_bright) {
        const double grown = std::hypot(deviation, std::ldexp(typical_star_px, -level_));
        const int beside = std::max(2, int(std::ceil(beside_in_deviations * grown)));
        const double gain = (whole / typical_star_px) * (whole / typical_star_px);
        out.push_back(std::make_shared<const RaiseLights>(light(), beside, float(gain), pile_.channels));
    }
    return out;
}

}  // namespace bp
