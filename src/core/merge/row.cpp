#include "merge/row.h"

#include <algorithm>

namespace bp {
namespace {

// Where the set of covering frames changes.
std::vector<int> borders(const std::vector<FrameRow>& rows, int width) {
    std::vector<int> out{0, width};
    for (const FrameRow& row : rows) {
        if (row.cover.empty()) continue;
        out.push_back(row.cover.begin);
        out.push_back(row.cover.end);
    }
    std::sort(out.begin(), out.end());
    out.erase(std::unique(out.begin(), out.end()), out.end());
    return out;
}

}  // namespace

void merge_row(Mode mode, const std::vector<FrameRow>& rows, int width, int channels, const MergeTools& tools,
               std::uint16_t* out) {
    const ModeEntry& entry = entry_of(mode);
    const std::vector<int> edges = borders(rows, width);
    std::vector<const std::uint16_t*> inputs;
    std::vector<int> numbers;
    for (std::size_t e = 0; e + 1 < edges.size(); ++e) {
        const int begin = edges[e];
        inputs.clear();
        numbers.clear();
        for (std::size_t k = 0; k < rows.size(); ++k)
            if (rows[k].cover.begin <= begin && begin < rows[k].cover.end) {
                inputs.push_back(rows[k].samples + std::ptrdiff_t(begin) * channels);
                numbers.push_back(int(k));
            }
        const std::size_t samples = std::size_t(edges[e + 1] - begin) * std::size_t(channels);
        std::uint16_t* place = out + std::ptrdiff_t(begin) * channels;
        if (inputs.empty())
            std::fill_n(place, samples, std::uint16_t{0});
        else
            entry.merge({inputs, numbers, samples}, tools, place);
    }
}

}  // namespace bp
