#include "merge/row.h"

#include <algorithm>
#include <array>

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
    entry.merge_8({inputs, stretch.numbers, stretch.samples, stretch.votes}, tools, out);
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
    entry.merge_16({inputs, stretch.numbers, stretch.samples, stretch.votes}, tools, out);
}

void merge_stretch(const ModeEntry& entry, const std::vector<FrameRow>& rows, const Stretch& stretch,
                   const MergeTools& tools, std::uint16_t* out) {
    const bool narrow = std::all_of(stretch.numbers.begin(), stretch.numbers.end(),
                                    [&](int k) { return rows[std::size_t(k)].narrow != nullptr; });
    if (narrow)
        merge_narrow(entry, rows, stretch, tools, out);
    else
        merge_wide(entry, rows, stretch, tools, out);
}

// Where nobody votes the reference shows, or else the first that is there.
int shown_without_votes(const std::vector<int>& numbers, const MergeTools& tools) {
    const bool there = std::find(numbers.begin(), numbers.end(), tools.reference) != numbers.end();
    return there ? tools.reference : numbers.front();
}

// Pixels of a row whose votes are looked at together: most places are voted on by all frames or by none.
constexpr int vote_block = 128;

// Some pixels of a row that frames cover, not all of which vote everywhere.
class VotedBlock {
  public:
    VotedBlock(const std::vector<FrameRow>& rows, const std::vector<int>& numbers, int begin, int end, int channels)
        : begin_(begin), end_(end), channels_(channels) {
        numbers_.reserve(numbers.size());
        for (const int k : numbers) add(k, rows[std::size_t(k)].votes);
    }

    bool any() const { return !numbers_.empty(); }
    Stretch stretch() const {
        Stretch out{std::ptrdiff_t(begin_) * channels_, samples(), numbers_, {}};
        if (masks_.empty()) return out;
        out.votes.assign(numbers_.size(), nullptr);
        for (std::size_t m = 0; m < masked_.size(); ++m) out.votes[masked_[m]] = masks_.data() + m * samples();
        return out;
    }
    // Puts `row` where nobody votes; `out` is the block's.
    void show(const FrameRow& row, std::uint16_t* out) const {
        if (all_vote_) return;
        for (int x = begin_; x < end_; ++x) {
            if (voted_[std::size_t(x - begin_)]) continue;
            for (int c = 0; c < channels_; ++c) {
                const std::ptrdiff_t at = std::ptrdiff_t(x) * channels_ + c;
                out[at - std::ptrdiff_t(begin_) * channels_] =
                    row.narrow ? kernels::to_16(row.narrow[at]) : row.wide[at];
            }
        }
    }

  private:
    std::size_t samples() const { return std::size_t(end_ - begin_) * std::size_t(channels_); }

    void add(int number, const std::uint8_t* votes) {
        std::uint8_t least = 255, most = 255;
        if (votes) {
            most = 0;
            for (int x = begin_; x < end_; ++x) {
                least = std::min(least, votes[x]);
                most = std::max(most, votes[x]);
            }
        }
        if (most == 0) return;
        numbers_.push_back(number);
        if (least != 0) {
            all_vote_ = true;
            return;
        }
        for (int x = begin_; x < end_; ++x)
            voted_[std::size_t(x - begin_)] = std::max(voted_[std::size_t(x - begin_)], votes[x]);
        masked_.push_back(numbers_.size() - 1);
        const std::size_t at = masks_.size();
        masks_.resize(at + samples());
        std::uint8_t* mask = masks_.data() + at;
        for (int x = begin_; x < end_; ++x)
            for (int c = 0; c < channels_; ++c) *mask++ = votes[x];
    }

    int begin_, end_, channels_;
    std::vector<int> numbers_;
    std::vector<std::size_t> masked_;  // places among the numbers of those that do not vote everywhere
    std::vector<std::uint8_t> masks_;  // of their samples, one after the other
    bool all_vote_ = false;            // some frame votes everywhere
    std::array<std::uint8_t, vote_block> voted_{};
};

void merge_voted(const ModeEntry& entry, const std::vector<FrameRow>& rows, const std::vector<int>& numbers, int begin,
                 int end, int channels, const MergeTools& tools, std::uint16_t* out) {
    for (int x = begin; x < end; x += vote_block) {
        const VotedBlock block(rows, numbers, x, std::min(end, x + vote_block), channels);
        std::uint16_t* place = out + std::ptrdiff_t(x) * channels;
        if (block.any()) merge_stretch(entry, rows, block.stretch(), tools, place);
        block.show(rows[std::size_t(shown_without_votes(numbers, tools))], place);
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
            all_vote = all_vote && !rows[k].votes;
        }
        if (stretch.numbers.empty())
            std::fill_n(out + stretch.from, stretch.samples, std::uint16_t{0});
        else if (all_vote)
            merge_stretch(entry, rows, stretch, tools, out + stretch.from);
        else
            merge_voted(entry, rows, stretch.numbers, begin, end, channels, tools, out);
    }
}

}  // namespace bp
