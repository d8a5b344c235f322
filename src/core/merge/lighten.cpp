#include "merge/lighten.h"

#include <algorithm>

#include "kernels/extremes.h"

namespace bp {

namespace {

template <class T>
void lighten(const MergeInput<T>& in, const MergeTools& tools, std::uint16_t* out) {
    std::vector<const T*> full;
    std::vector<const std::uint8_t*> votes;
    const auto strength = [&](std::size_t k) -> const Strength& { return tools.strengths[std::size_t(in.numbers[k])]; };
    for (std::size_t k = 0; k < in.rows.size(); ++k) {
        if (!strength(k).whole()) continue;
        full.push_back(in.rows[k]);
        if (!in.votes.empty()) votes.push_back(in.votes[k]);
    }
    if (full.empty())
        std::fill_n(out, in.samples, std::uint16_t{0});
    else if (votes.empty())
        kernels::maximum(kernels::Rows<T>(full), in.samples, out);
    else
        kernels::maximum(kernels::Rows<T>(full), votes, in.samples, out);
    if (full.size() == in.rows.size()) return;
    // The strongest first: the more that is there already, the less has to be looked up.
    std::vector<std::size_t> weaker;
    for (std::size_t k = 0; k < in.rows.size(); ++k)
        if (!strength(k).whole()) weaker.push_back(k);
    std::sort(weaker.begin(), weaker.end(),
              [&](std::size_t a, std::size_t b) { return strength(a).parts() > strength(b).parts(); });
    std::vector<T> voted;
    for (const std::size_t k : weaker) {
        const T* row = in.rows[k];
        if (!in.votes.empty() && in.votes[k]) {
            voted.resize(in.samples);
            kernels::where_voted(row, in.votes[k], T(0), in.samples, voted.data());
            row = voted.data();
        }
        kernels::raise_to_mapped(row, strength(k).template mapping<T>(), in.samples, out);
    }
}

}  // namespace

void merge_lighten(const MergeInput<std::uint16_t>& in, const MergeTools& tools, std::uint16_t* out) {
    lighten(in, tools, out);
}

void merge_lighten(const MergeInput<std::uint8_t>& in, const MergeTools& tools, std::uint16_t* out) {
    lighten(in, tools, out);
}

}  // namespace bp
