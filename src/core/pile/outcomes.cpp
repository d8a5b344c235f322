#include "pile/outcomes.h"

#include <algorithm>
#include <array>

namespace bp {
namespace {

constexpr std::array<OutcomeEntry, 6> table{{
    {Outcome::trails, "trails", Model::none, Mode::lighten},
    {Outcome::clear, "clear", Model::none, Mode::median},
    {Outcome::quiet, "quiet", Model::rigid, Mode::clipped_mean},
    {Outcome::sequence, "sequence", Model::rigid, Mode::median},
    {Outcome::best_of, "best-of", Model::none, Mode::one},
    {Outcome::shower, "shower", Model::none, Mode::one},
}};

}  // namespace

std::span<const OutcomeEntry> outcomes() {
    return table;
}

const OutcomeEntry& entry_of(Outcome outcome) {
    return *std::find_if(table.begin(), table.end(), [outcome](const OutcomeEntry& e) { return e.outcome == outcome; });
}

std::optional<Outcome> outcome_named(std::string_view name) {
    const auto* found =
        std::find_if(table.begin(), table.end(), [name](const OutcomeEntry& e) { return e.name == name; });
    if (found == table.end()) return std::nullopt;
    return found->outcome;
}

}  // namespace bp
