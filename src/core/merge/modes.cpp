#include "merge/modes.h"

#include <algorithm>
#include <array>

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
void merge_mean(const MergeInput<T>& in, const MergeTools& tools, std::uint16_t* out) {
    merge_with([&](auto... all) { kernels::mean(all..., tools.curve, out); }, in);
}

template <class T>
void merge_clipped_mean(const MergeInput<T>& in, const MergeTools& tools, std::uint16_t* out) {
    merge_with([&](auto... all) { kernels::clipped_mean(all..., tools.curve, tools.step, out); }, in);
}

template <class T>
void merge_one(const MergeInput<T>& in, const MergeTools&, std::uint16_t* out) {
    kernels::widen(in.rows[0], in.samples, out);
}

constexpr std::array<ModeEntry, 7> table{{
    {Mode::lighten, "lighten", true, true, merge_lighten, merge_lighten},
    {Mode::maximum, "maximum", false, false, merge_maximum, merge_maximum},
    {Mode::minimum, "minimum", false, false, merge_minimum, merge_minimum},
    {Mode::median, "median", false, false, merge_median, merge_median},
    {Mode::mean, "mean", false, true, merge_mean, merge_mean},
    {Mode::clipped_mean, "clipped-mean", false, true, merge_clipped_mean, merge_clipped_mean},
    {Mode::one, "one", false, false, merge_one, merge_one},
}};

}  // namespace

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
