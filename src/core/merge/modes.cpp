#include "merge/modes.h"

#include <algorithm>
#include <array>

#include "kernels/extremes.h"
#include "kernels/mean.h"
#include "kernels/median.h"
#include "merge/lighten.h"

namespace bp {
namespace {

void merge_maximum(const MergeInput& in, const MergeTools&, std::uint16_t* out) {
    std::copy_n(in.rows[0], in.samples, out);
    for (const std::uint16_t* row : in.rows.subspan(1)) kernels::raise_to(row, in.samples, out);
}

void merge_minimum(const MergeInput& in, const MergeTools&, std::uint16_t* out) {
    std::copy_n(in.rows[0], in.samples, out);
    for (const std::uint16_t* row : in.rows.subspan(1)) kernels::lower_to(row, in.samples, out);
}

void merge_median(const MergeInput& in, const MergeTools&, std::uint16_t* out) {
    kernels::median(in.rows, in.samples, out);
}

void merge_mean(const MergeInput& in, const MergeTools& tools, std::uint16_t* out) {
    kernels::mean(in.rows, in.samples, tools.curve, out);
}

void merge_one(const MergeInput& in, const MergeTools&, std::uint16_t* out) {
    std::copy_n(in.rows[0], in.samples, out);
}

constexpr std::array<ModeEntry, 6> table{{
    {Mode::lighten, "lighten", true, merge_lighten},
    {Mode::maximum, "maximum", false, merge_maximum},
    {Mode::minimum, "minimum", false, merge_minimum},
    {Mode::median, "median", false, merge_median},
    {Mode::mean, "mean", false, merge_mean},
    {Mode::one, "one", false, merge_one},
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
