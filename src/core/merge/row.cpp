#include "merge/row.h"

#include <algorithm>

#include "kernels/extremes.h"

namespace bp {
namespace {

// Where the set of covering frames changes.
std::vector<int> borders(const std::vector<FrameRow>& rows, int width) {
    std::vector<int> out{0, width};
    for (const FrameRow& row : rows) {
        if (row.cover.empty()) continue;
        if (row.cover.begin > 0) out.push_back(row.cover.begin);
        if (row.cover.end < width) out.push_back(row.cover.end);
    }
    std::sort(out.begin(), out.end());
    out.erase(std::unique(out.begin(), out.end()), out.end());
    return out;
}

// A stretch of a row that the same frames cover from end to end.
struct Stretch {
    std::ptrdiff_t from;  // samples
    std::size_t samples;
    std::vector<int> numbers;
};

void merge_narrow(const ModeEntry& entry, const std::vector<FrameRow>& rows, const Stretch& stretch,
                  const MergeTools& tools, std::uint16_t* out) {
    std::vector<const std::uint8_t*> inputs;
    inputs.reserve(stretch.numbers.size());
    for (const int k : stretch.numbers) inputs.push_back(rows[std::size_t(k)].narrow + stretch.from);
    entry.merge_8({inputs, stretch.numbers, stretch.samples}, tools, out);
}

// Frames of 8 and of 16 bits meet in 16.
void merge_wide(const ModeEntry& entry, const std::vector<FrameRow>& rows, const Stretch& stretch,
                const MergeTools& tools, std::uint16_t* out) {
    std::vector<std::vector<std::uint16_t>> widened;
    std::vector<const std::uint16_t*> inputs;
    inputs.reserve(stretch.numbers.size());
    for (const int k : stretch.numbers) {
        const FrameRow& row = rows[std::size_t(k)];
        if (row.wide) {
            inputs.push_back(row.wide + stretch.from);
            continue;
        }
        widened.emplace_back(stretch.samples);
        kernels::widen(row.narrow + stretch.from, stretch.samples, widened.back().data());
        inputs.push_back(widened.back().data());
    }
    entry.merge_16({inputs, stretch.numbers, stretch.samples}, tools, out);
}

}  // namespace

void merge_row(Mode mode, const std::vector<FrameRow>& rows, int width, int channels, const MergeTools& tools,
               std::uint16_t* out) {
    const ModeEntry& entry = entry_of(mode);
    const std::vector<int> edges = borders(rows, width);
    for (std::size_t e = 0; e + 1 < edges.size(); ++e) {
        const int begin = edges[e];
        Stretch stretch{
            std::ptrdiff_t(begin) * channels, std::size_t(edges[e + 1] - begin) * std::size_t(channels), {}};
        bool narrow = true;
        for (std::size_t k = 0; k < rows.size(); ++k) {
            if (rows[k].cover.begin > begin || begin >= rows[k].cover.end) continue;
            stretch.numbers.push_back(int(k));
            narrow = narrow && rows[k].narrow;
        }
        std::uint16_t* place = out + stretch.from;
        if (stretch.numbers.empty())
            std::fill_n(place, stretch.samples, std::uint16_t{0});
        else if (narrow)
            merge_narrow(entry, rows, stretch, tools, place);
        else
            merge_wide(entry, rows, stretch, tools, place);
    }
}

}  // namespace bp
