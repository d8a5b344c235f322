#include "merge/modes.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "kernels/extremes.h"
#include "kernels/mean.h"
#include "kernels/median.h"
#include "merge/lighten.h"

namespace bp {
namespace {

// Every sample votes, or not: kernels have a form for each.
template <class T, class Kernel, class... Rest>
void merge_with(const Kernel& kernel, const MergeInput<T>& in, const Rest&... rest) {
    if (in.votes.empty())
        kernel(in.rows, in.samples, rest...);
    else
        kernel(in.rows, in.votes, in.samples, rest...);
}

template <class T>
void merge_maximum(const MergeInput<T>& in, const MergeTools&, std::uint16_t* out) {
    merge_with([](auto... all) { kernels::maximum(all...); }, in, out);
}

template <class T>
void merge_minimum(const MergeInput<T>& in, const MergeTools&, std::uint16_t* out) {
    merge_with([](auto... all) { kernels::minimum(all...); }, in, out);
}

template <class T>
void merge_median(const MergeInput<T>& in, const MergeTools&, std::uint16_t* out) {
    merge_with([](auto... all) { kernels::median(all...); }, in, out);
}

template <class T>
const std::uint32_t* light_of(const LightCurve& curve) {
    return sizeof(T) == 1 ? curve.narrow_table() : curve.table();
}

template <class T>
std::vector<kernels::Share> shares_of(const MergeInput<T>& in, const MergeTools& tools) {
    std::vector<kernels::Share> out;
    for (const int number : in.numbers) {
        const Strength& strength = tools.strengths[std::size_t(number)];
        out.push_back({strength.parts(), strength.whole() ? light_of<T>(tools.curve) : strength.light<T>()});
    }
    return out;
}

template <class T>
bool all_whole(const MergeInput<T>& in, const MergeTools& tools) {
    return std::all_of(in.numbers.begin(), in.numbers.end(),
                       [&](int number) { return tools.strengths[std::size_t(number)].whole(); });
}

template <class T>
void merge_mean(const MergeInput<T>& in, const MergeTools& tools, std::uint16_t* out) {
    if (all_whole(in, tools))
        merge_with([&](auto... all) { kernels::mean(all..., tools.curve, out); }, in);
    else
        kernels::mean(in.rows, shares_of(in, tools), in.votes, in.samples, tools.curve, out);
}

template <class T>
void merge_clipped_mean(const MergeInput<T>& in, const MergeTools& tools, std::uint16_t* out) {
    if (all_whole(in, tools))
        merge_with([&](auto... all) { kernels::clipped_mean(all..., tools.curve, tools.step, out); }, in);
    else
        kernels::clipped_mean(in.rows, shares_of(in, tools), in.votes, in.samples, tools.curve, tools.step, out);
}

template <class T>
void merge_add(const MergeInput<T>& in, const MergeTools& tools, std::uint16_t* out) {
    kernels::add(in.rows, shares_of(in, tools), in.votes, in.samples, tools.curve, tools.white, out);
}

// `strong`: each frame competes, and shows, by its strength.
template <class T>
std::vector<kernels::Competitor> competitors(const MergeInput<T>& in, const MergeTools& tools, bool strong) {
    std::vector<kernels::Competitor> out;
    for (const int number : in.numbers) {
        const Strength& strength = tools.strengths[std::size_t(number)];
        if (!strong || strength.whole())
            out.push_back({light_of<T>(tools.curve), nullptr});
        else
            out.push_back({strength.light<T>(), strength.samples<T>()});
    }
    return out;
}

constexpr std::size_t of_pixel = 3;  // samples

template <class T>
void pixels_lighten(const MergeInput<T>& in, const MergeTools& tools, std::uint16_t* out) {
    kernels::brightest_pixels(in.rows, competitors(in, tools, true), *tools.by_brightness, in.votes,
                              in.samples / of_pixel, out);
}

template <class T>
void pixels_maximum(const MergeInput<T>& in, const MergeTools& tools, std::uint16_t* out) {
    kernels::brightest_pixels(in.rows, competitors(in, tools, false), *tools.by_brightness, in.votes,
                              in.samples / of_pixel, out);
}

template <class T>
void pixels_minimum(const MergeInput<T>& in, const MergeTools& tools, std::uint16_t* out) {
    kernels::darkest_pixels(in.rows, competitors(in, tools, false), *tools.by_brightness, in.votes,
                            in.samples / of_pixel, out);
}

template <class T>
void merge_one(const MergeInput<T>& in, const MergeTools&, std::uint16_t* out) {
    kernels::widen(in.rows[0], in.samples, out);
}

constexpr std::array<ModeEntry, 8> table{{
    {Mode::lighten, "lighten", true, true, merge_lighten, merge_lighten, pixels_lighten, pixels_lighten},
    {Mode::maximum, "maximum", false, false, merge_maximum, merge_maximum, pixels_maximum, pixels_maximum},
    {Mode::minimum, "minimum", false, false, merge_minimum, merge_minimum, pixels_minimum, pixels_minimum},
    {Mode::median, "median", false, false, merge_median, merge_median},
    {Mode::mean, "mean", true, true, merge_mean, merge_mean},
    {Mode::clipped_mean, "clipped-mean", true, true, merge_clipped_mean, merge_clipped_mean},
    {Mode::add, "add", true, true, merge_add, merge_add},
    {Mode::one, "one", false, false, merge_one, merge_one},
}};

}  // namespace

Strength::Strength(double share, const LightCurve& curve)
    : parts_(std::uint32_t(std::lround(std::clamp(share, 0.0, 1.0) * double(kernels::Share::whole)))) {
    if (parts_ != kernels::Share::whole) tables_ = std::make_shared<Tables>(share, curve);
}

template <class T>
const Strength::Table& Strength::of() const {
    constexpr bool is_narrow = sizeof(T) == 1;
    Table& out = is_narrow ? tables_->narrow : tables_->wide;
    std::call_once(is_narrow ? tables_->narrow_once : tables_->wide_once, [&] {
        constexpr std::size_t count = std::size_t(1) << 8 * sizeof(T);
        out.samples.reserve(count);
        out.light.reserve(count);
        for (std::size_t v = 0; v < count; ++v) {
            const std::uint64_t light = tables_->curve.light(kernels::to_16(T(v)));
            out.light.push_back(std::uint32_t((light * parts_ + kernels::Share::whole / 2) / kernels::Share::whole));
            out.samples.push_back(tables_->curve.sample(tables_->share * double(light)));
        }
        out.mapping.emplace(out.samples);
    });
    return out;
}

template const Strength::Table& Strength::of<std::uint8_t>() const;
template const Strength::Table& Strength::of<std::uint16_t>() const;

kernels::BrightnessWeights brightness_weights(const Profile& profile) {
    constexpr double all = 65536;
    const std::array<double, 3> shares = luminance_weights(profile);
    const auto red = std::uint32_t(std::lround(all * shares[0]));
    // Both rounded up may be one more than all.
    const std::uint32_t blue = std::min(std::uint32_t(std::lround(all * shares[2])), std::uint32_t(all) - red);
    return {red, std::uint32_t(all) - red - blue, blue};
}

std::span<const ModeEntry> modes() {
    return table;
}

const ModeEntry& entry_of(Mode mode) {
    return *std::find_if(table.begin(), table.end(), [mode](const ModeEntry& e) { return e.mode == mode; });
}

std::optional<Mode> mode_named(std::string_view name) {
    const auto* found = std::find_if(table.begin(), table.end(), [name](const ModeEntry& e) { return e.name == name; });
    if (found == table.end()) return std::nullopt;
    return found->mode;
}

}  // namespace bp
