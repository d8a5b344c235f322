#include "cli/wrong_call.h"

#include <optional>
#include <string>
#include <vector>

namespace bp::cli {
namespace {

// What stands in the gaps of a text that goes by this pattern, in which each * is a gap; none when it goes otherwise.
std::optional<std::vector<Saying>> gaps_in(const std::string& text, const std::string& pattern) {
    std::vector<Saying> out;
    std::size_t at = 0, from = 0;
    while (true) {
        const std::size_t gap = pattern.find('*', from);
        const std::string fixed = pattern.substr(from, gap == std::string::npos ? gap : gap - from);
        // The last piece is the text's end.
        const std::size_t found =
            from == 0 ? (text.rfind(fixed, 0) == 0 ? 0 : std::string::npos)
            : gap == std::string::npos
                ? (text.size() >= at + fixed.size() && text.ends_with(fixed) ? text.size() - fixed.size()
                                                                             : std::string::npos)
                : text.find(fixed, at);
        if (found == std::string::npos) return std::nullopt;
        if (from > 0) out.emplace_back(text.substr(at, found - at));
        at = found + fixed.size();
        if (gap == std::string::npos) return at == text.size() ? std::optional(std::move(out)) : std::nullopt;
        from = gap + 1;
    }
}

// 0.500000 as 0.5, and 100.000000 as 100.
std::string without_zeros(std::string number) {
    if (number.find('.') == std::string::npos || number.find_first_not_of("-.0123456789") != std::string::npos)
        return number;
    number.erase(number.find_last_not_of('0') + 1);
    if (number.ends_with('.')) number.pop_back();
    return number;
}

}  // namespace

Saying wrong_call(const CLI::ParseError& error) {
    const std::string text = error.what();
    const auto is = [&](const char* pattern) { return gaps_in(text, pattern); };
    if (is("A subcommand is required")) return "It is not said what is to be done: name one of the commands.";
    if (auto gaps = is("* is required")) return {"%1 is missing.", *gaps};
    if (auto gaps = is("The following argument was not expected: *")) return {"%1 is not known here.", *gaps};
    if (auto gaps = is("The following arguments were not expected: *")) return {"%1 are not known here.", *gaps};
    if (auto gaps = is("*: * required * missing")) return {"Something is missing after %1.", {(*gaps)[0]}};
    if (auto gaps = is("*: Value * not in range * to *")) {
        for (Saying& limit : *gaps) limit = without_zeros(limit.text());
        return {"%1 is from %3 to %4, not %2.", *gaps};
    }
    if (auto gaps = is("*: * not in {*}")) return {"%1 is one of %3, not %2.", *gaps};
    if (auto gaps = is("Could not convert: * = *")) return {"%1 is a number, not %2.", *gaps};
    if (auto gaps = is("* requires *")) return {"%1 is for calls with %2.", *gaps};
    if (auto gaps = is("* excludes *")) return {"%1 and %2 cannot go together.", *gaps};
    return Saying(text);
}

}  // namespace bp::cli
