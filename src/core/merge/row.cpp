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
    std::vector<const std::uint8_t*> votes;  // of the samples of each frame; empty when all vote
};

void merge_narrow(const ModeEntry& entry, const std::vector<FrameRow>& rows, const Stretch& stretch,
                  const MergeTools& tools, std::uint16_t* out) {
    std::vector<const std::uint8_t*> inputs;
    inputs.reserve(stretch.numbers.size());
    for (const int k : stretch.numbers) inputs.push_back(rows[std::size_t(k)].narrow + stretch.from);
    const auto merge = tools.by_brightness && entry.pixels_8 ? entry.pixels_8 : entry.merge_8;
    merge({inputs, stretch.numbers, stretch.samples, stretch.votes}, tools, out);
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
    const auto merge = tools.by_brightness && entry.pixels_16 ? entry.pixels_16 : entry.merge_16;
    merge({inputs, stretch.numbers, stretch.samples, stretch.votes}, tools, out);
}

// A few frames of 16 bits among many of 8, as a softened head among the frames of trails: where the brightest shows,
// the brightest of either kind meet, so that the many are not widened.
void merge_kinds_apart(const ModeEntry& entry, const std::vector<FrameRow>& rows, const Stretch& stretch,
                       const MergeTools& tools, std::uint16_t* out) {
    Stretch narrow{stretch.from, stretch.samples, {}, {}}, wide = narrow;
    for (const int k : stretch.numbers) (rows[std::size_t(k)].narrow ? narrow : wide).numbers.push_back(k);
    static thread_local std::vector<std::uint16_t> room;
    merge_narrow(entry, rows, narrow, tools, out);
    const auto first = std::size_t(wide.numbers.front());
    const std::uint16_t* brightest = rows[first].wide + stretch.from;
    if (wide.numbers.size() > 1 || !tools.strengths[first].whole()) {
        room.resize(stretch.samples);
        merge_wide(entry, rows, wide, tools, room.data());
        brightest = room.data();
    }
    for (std::size_t i = 0; i < stretch.samples; ++i) out[i] = std::max(out[i], brightest[i]);
}

void merge_stretch(const ModeEntry& entry, const std::vector<FrameRow>& rows, const Stretch& stretch,
                   const MergeTools& tools, std::uint16_t* out) {
    const auto narrow = std::count_if(stretch.numbers.begin(), stretch.numbers.end(),
                                      [&](int k) { return rows[std::size_t(k)].narrow != nullptr; });
    const bool whole_pixels = tools.by_brightness && entry.pixels_16;
    if (narrow == std::ptrdiff_t(stretch.numbers.size()))
        merge_narrow(entry, rows, stretch, tools, out);
    else if (narrow > 0 && entry.shows_brightest() && stretch.votes.empty() && !whole_pixels)
        merge_kinds_apart(entry, rows, stretch, tools, out);
    else
        merge_wide(entry, rows, stretch, tools, out);
}

// Where nobody votes the reference shows, or else the first that is there.
int shown_without_votes(const std::vector<int>& numbers, const MergeTools& tools) {
    const bool there = std::find(numbers.begin(), numbers.end(), tools.reference) != numbers.end();
    return there ? tools.reference : numbers.front();
}

void show(const FrameRow& row, int begin, int end, int channels, std::uint16_t* out) {
    const std::ptrdiff_t from = std::ptrdiff_t(begin) * channels;
    const std::size_t samples = std::size_t(end - begin) * std::size_t(channels);
    if (row.narrow)
        kernels::widen(row.narrow + from, samples, out + from);
    else
        kernels::widen(row.wide + from, samples, out + from);
}

// Goes from left to right through the stretches in which a frame does not vote.
class Silence {
  public:
    explicit Silence(std::span<const kernels::Span> silent) : left_(silent) {}
    // Whether it is silent at x, which grows from call to call.
    bool at(int x) {
        while (!left_.empty() && left_.front().end <= x) left_ = left_.subspan(1);
        return !left_.empty() && left_.front().begin <= x;
    }
    // From where on, after such a call: what is left of it.
    std::span<const kernels::Span> from() const { return left_; }

  private:
    std::span<const kernels::Span> left_;
};

// Some pixels that the frames of `numbers` cover, in which votes change often: each frame's are put into a mask.
void merge_masked(const ModeEntry& entry, const std::vector<FrameRow>& rows, const std::vector<int>& numbers,
                  const std::vector<Silence>& silences, kernels::Span pixels, int channels, const MergeTools& tools,
                  std::uint16_t* out) {
    const auto width = std::size_t(pixels.end - pixels.begin);
    const std::size_t samples = width * std::size_t(channels);
    Stretch stretch{std::ptrdiff_t(pixels.begin) * channels, samples, {}, {}};
    std::vector<std::vector<std::uint8_t>> masks(numbers.size());
    std::vector<std::uint8_t> voted(width, 0);
    for (std::size_t n = 0; n < numbers.size(); ++n) {
        std::vector<std::uint8_t> votes(width, 255);
        for (const kernels::Span& silent : silences[n].from()) {
            if (silent.begin >= pixels.end) break;
            std::fill(votes.begin() + std::max(silent.begin, pixels.begin) - pixels.begin,
                      votes.begin() + std::min(silent.end, pixels.end) - pixels.begin, std::uint8_t{0});
        }
        for (std::size_t x = 0; x < width; ++x) voted[x] |= votes[x];
        masks[n].resize(samples);
        for (std::size_t i = 0; i < samples; ++i) masks[n][i] = votes[i / std::size_t(channels)];
        stretch.numbers.push_back(numbers[n]);
        stretch.votes.push_back(masks[n].data());
    }
    merge_stretch(entry, rows, stretch, tools, out + stretch.from);
    const FrameRow& reference = rows[std::size_t(shown_without_votes(numbers, tools))];
    for (int x = pixels.begin; x < pixels.end; ++x)
        if (!voted[std::size_t(x - pixels.begin)]) show(reference, x, x + 1, channels, out);
}

// Where the voters change among frames that cover all of `pixels`, with its ends.
std::vector<int> vote_borders(const std::vector<FrameRow>& rows, const std::vector<int>& numbers,
                              kernels::Span pixels) {
    std::vector<int> out{pixels.begin, pixels.end};
    for (const int k : numbers)
        for (const kernels::Span& silent : rows[std::size_t(k)].silent)
            for (const int x : {silent.begin, silent.end})
                if (x > pixels.begin && x < pixels.end) out.push_back(x);
    std::sort(out.begin(), out.end());
    out.erase(std::unique(out.begin(), out.end()), out.end());
    return out;
}

// Stretches with the same voters are merged as if the others were not there; only where they are short several are
// taken together.
void merge_voted(const ModeEntry& entry, const std::vector<FrameRow>& rows, const std::vector<int>& numbers,
                 kernels::Span pixels, int channels, const MergeTools& tools, std::uint16_t* out) {
    constexpr int long_enough = 48;
    constexpr int together = 128;
    const std::vector<int> edges = vote_borders(rows, numbers, pixels);
    const auto is_short = [&](std::size_t e) { return edges[e + 1] - edges[e] < long_enough; };
    std::vector<Silence> silences;
    silences.reserve(numbers.size());
    for (const int k : numbers) silences.emplace_back(rows[std::size_t(k)].silent);
    for (std::size_t e = 0, next = 0; e + 1 < edges.size(); e = next) {
        next = e + 1;
        while (is_short(e) && next + 1 < edges.size() && is_short(next) && edges[next] - edges[e] < together) ++next;
        const int begin = edges[e], end = edges[next];
        Stretch stretch{std::ptrdiff_t(begin) * channels, std::size_t(end - begin) * std::size_t(channels), {}, {}};
        for (std::size_t n = 0; n < numbers.size(); ++n)
            if (!silences[n].at(begin)) stretch.numbers.push_back(numbers[n]);
        if (next > e + 1)
            merge_masked(entry, rows, numbers, silences, {begin, end}, channels, tools, out);
        else if (!stretch.numbers.empty())
            merge_stretch(entry, rows, stretch, tools, out + stretch.from);
        else
            show(rows[std::size_t(shown_without_votes(numbers, tools))], begin, end, channels, out);
    }
}

}  // namespace

void merge_row(Mode mode, const std::vector<FrameRow>& rows, int width, int channels, const MergeTools& tools,
               std::uint16_t* out) {
    const ModeEntry& entry = entry_of(mode);
    const std::vector<int> edges = borders(rows, width);
    for (std::size_t e = 0; e + 1 < edges.size(); ++e) {
        const int begin = edges[e];
        const int end = edges[e + 1];
        Stretch stretch{std::ptrdiff_t(begin) * channels, std::size_t(end - begin) * std::size_t(channels), {}, {}};
        bool all_vote = true;
        for (std::size_t k = 0; k < rows.size(); ++k) {
            if (rows[k].cover.begin > begin || begin >= rows[k].cover.end) continue;
            stretch.numbers.push_back(int(k));
            all_vote = all_vote && rows[k].silent.empty();
        }
        if (stretch.numbers.empty())
            for (std::size_t i = 0; i < stretch.samples; ++i)
                out[std::size_t(stretch.from) + i] = tools.background[i % std::size_t(channels)];
        else if (all_vote)
            merge_stretch(entry, rows, stretch, tools, out + stretch.from);
        else
            merge_voted(entry, rows, stretch.numbers, {begin, end}, channels, tools, out);
    }
}

}  // namespace bp
