// What a pile can become: the first values of each outcome.
#pragma once

#include <optional>
#include <span>
#include <string_view>

#include "pile/pile.h"

namespace bp {

struct OutcomeEntry {
    Outcome outcome;
    std::string_view name;  // in pile files
    Model model;
    Mode mode;
};

std::span<const OutcomeEntry> outcomes();
const OutcomeEntry& entry_of(Outcome outcome);
std::optional<Outcome> outcome_named(std::string_view name);

}  // namespace bp
