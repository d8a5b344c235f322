#include "frames/odd.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <limits>

#include "frames/robust.h"

namespace bp {
namespace {

constexpr std::size_t shortest_run = 4;
constexpr int looked_at = 7;       // frames on either side: two wild ones among them do no harm
constexpr double usual_times = 6;  // how much more than usual is odd

// What is odd at least, however even the run.
constexpr double least_move_px = 1.0;
constexpr double least_move = 1.0 / 2500;  // of the longer side
constexpr double least_turn = 0.03;        // degrees
constexpr double least_softness = 0.15;    // of log2 of contrast
constexpr double least_level = 0.12;       // EV
constexpr double least_warmth = 0.12;      // EV
constexpr double least_veil = 0.03;
constexpr double least_pause = 0.3;  // seconds
constexpr double least_pause_share = 0.75;

using Series = std::vector<std::optional<double>>;

// How far a value is from what those before, and those after, lead to expect.
struct Departure {
    double before = std::numeric_limits<double>::quiet_NaN();
    double after = std::numeric_limits<double>::quiet_NaN();
};

// What is taken for expected: that the others go on as they went, or the nearer of that and of where they mostly were.
// How restless a run is shows in the first. The second judges single frames: a few wild ones among few frames can tilt
// the line through them.
enum class Guess { onward, nearer };

double expected(const Series& series, std::size_t i, int step, Guess guess) {
    std::vector<double> x, y;
    for (auto k = std::ptrdiff_t(i) + step; k >= 0 && k < std::ptrdiff_t(series.size()) && int(x.size()) < looked_at;
         k += step)
        if (series[std::size_t(k)]) {
            x.push_back(double(k) - double(i));
            y.push_back(*series[std::size_t(k)]);
        }
    // Two or three points give no line that could be trusted.
    if (x.size() < 2) return std::numeric_limits<double>::quiet_NaN();
    const double usual = median(y);
    if (x.size() < 4) return usual;
    const double onward = steady_line(x, y)(0);
    if (guess == Guess::onward) return onward;
    return std::abs(*series[i] - onward) <= std::abs(*series[i] - usual) ? onward : usual;
}

std::vector<Departure> departures(const Series& series, Guess guess) {
    std::vector<Departure> out(series.size());
    for (std::size_t i = 0; i < series.size(); ++i)
        if (series[i])
            out[i] = {*series[i] - expected(series, i, -1, guess), *series[i] - expected(series, i, 1, guess)};
    return out;
}

// The nearer of the two; NaN when there is neither.
double nearer(const Departure& d) {
    if (std::isnan(d.before)) return d.after;
    if (std::isnan(d.after)) return d.before;
    return std::abs(d.before) <= std::abs(d.after) ? d.before : d.after;
}

// Above this a departure is odd for this run.
double limit_of(const std::vector<double>& sizes, double least) {
    std::vector<double> known;
    for (const double s : sizes)
        if (!std::isnan(s)) known.push_back(std::abs(s));
    return std::max(least, usual_times * median(std::move(known)));
}

Series series_of(const std::vector<FrameMeasures>& run,
                 const std::function<std::optional<double>(const FrameMeasures&)>& value) {
    Series out;
    for (const FrameMeasures& m : run) out.push_back(value(m));
    return out;
}

class Marker {
  public:
    explicit Marker(const std::vector<FrameMeasures>& run) : run_(run), marks_(run.size()), weights_(run.size()) {}

    void mark_moves(Size picture) {
        const Series x = series_of(run_, [](const FrameMeasures& m) -> std::optional<double> {
            return m.shift_px ? std::optional(m.shift_px->x) : std::nullopt;
        });
        const Series y = series_of(run_, [](const FrameMeasures& m) -> std::optional<double> {
            return m.shift_px ? std::optional(m.shift_px->y) : std::nullopt;
        });
        const auto lengths = [&](Guess guess) {
            const auto along = departures(x, guess);
            const auto down = departures(y, guess);
            std::vector<Departure> out;
            for (std::size_t i = 0; i < along.size(); ++i)
                out.push_back({std::hypot(along[i].before, down[i].before), std::hypot(along[i].after, down[i].after)});
            return out;
        };
        const std::vector<Departure> away = lengths(Guess::nearer);
        std::vector<double> restless, sizes;
        for (const Departure& d : lengths(Guess::onward)) restless.push_back(nearer(d));
        for (const Departure& d : away) sizes.push_back(nearer(d));
        const double least = std::max(least_move_px, least_move * std::max(picture.width, picture.height));
        const double limit = limit_of(restless, least);
        for (std::size_t i = 0; i < sizes.size(); ++i) {
            if (sizes[i] > limit)
                add(i, {Oddity::moved, sizes[i]}, sizes[i] / limit);
            else if (i > 0 && away[i].before > limit && sizes[i - 1] <= limit && away[i - 1].after > limit)
                add(i, {Oddity::moved_on, away[i].before}, away[i].before / limit);
        }
    }

    // Marks by a series whose departures beyond the limit are odd, up or down.
    void mark(const Series& series, double least, std::optional<Oddity> up, std::optional<Oddity> down,
              const std::function<double(double)>& amount) {
        std::vector<double> restless, sizes;
        for (const Departure& d : departures(series, Guess::onward)) restless.push_back(nearer(d));
        for (const Departure& d : departures(series, Guess::nearer)) sizes.push_back(nearer(d));
        const double limit = limit_of(restless, least);
        for (std::size_t i = 0; i < sizes.size(); ++i) {
            const auto why = sizes[i] > 0 ? up : down;
            if (why && std::abs(sizes[i]) > limit) add(i, {*why, amount(sizes[i])}, std::abs(sizes[i]) / limit);
        }
    }

    void mark_veils(Scene scene) {
        std::vector<double> shares;
        for (const FrameMeasures& m : run_) shares.push_back(m.veil.value_or(0));
        const double limit = limit_of(shares, least_veil);
        for (std::size_t i = 0; i < shares.size(); ++i)
            if (shares[i] > limit) {
                // A veil changes light and hides texture: that says nothing more.
                marks_[i].clear();
                weights_[i].clear();
                add(i, {scene == Scene::night ? Oddity::veiled : Oddity::changed, shares[i]}, shares[i] / limit);
            }
    }

    void mark_pauses() {
        std::vector<double> gaps;
        for (const FrameMeasures& m : run_)
            if (m.gap_s) gaps.push_back(*m.gap_s);
        if (gaps.size() + 1 < shortest_run) return;
        const double usual = median(gaps);
        const double limit = std::max({least_pause, least_pause_share * std::abs(usual), usual_times * spread(gaps)});
        for (std::size_t i = 0; i < run_.size(); ++i)
            if (run_[i].gap_s && *run_[i].gap_s - usual > limit)
                add(i, {Oddity::late, *run_[i].gap_s - usual}, (*run_[i].gap_s - usual) / limit);
    }

    std::vector<std::vector<Mark>> take() { return std::move(marks_); }

  private:
    void add(std::size_t i, const Mark& mark, double weight) {
        const auto at = std::upper_bound(weights_[i].begin(), weights_[i].end(), weight, std::greater<>());
        marks_[i].insert(marks_[i].begin() + (at - weights_[i].begin()), mark);
        weights_[i].insert(at, weight);
    }

    const std::vector<FrameMeasures>& run_;
    std::vector<std::vector<Mark>> marks_;
    std::vector<std::vector<double>> weights_;  // of the marks, falling
};

}  // namespace

std::vector<std::vector<Mark>> odd_ones(const std::vector<FrameMeasures>& run, Size picture, Scene scene) {
    Marker marker(run);
    if (run.size() < shortest_run) return marker.take();
    const auto as_it_is = [](double d) { return std::abs(d); };
    marker.mark(series_of(run,
                          [](const FrameMeasures& m) -> std::optional<double> {
                              if (!m.sharpness) return std::nullopt;
                              return std::log2(std::max(*m.sharpness, 1e-3));
                          }),
                least_softness, std::nullopt, Oddity::soft, [](double d) { return std::exp2(d); });
    marker.mark(series_of(run, [](const FrameMeasures& m) { return m.gain_ev; }), least_level, Oddity::brighter,
                Oddity::darker, as_it_is);
    marker.mark(series_of(run, [](const FrameMeasures& m) { return m.warmth_ev; }), least_warmth, Oddity::warmer,
                Oddity::cooler, as_it_is);
    marker.mark_veils(scene);
    marker.mark_moves(picture);
    marker.mark(series_of(run, [](const FrameMeasures& m) { return m.turn_degrees; }), least_turn, Oddity::turned,
                Oddity::turned, as_it_is);
    marker.mark_pauses();
    return marker.take();
}

}  // namespace bp
